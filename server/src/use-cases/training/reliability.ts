import { randomUUID } from 'node:crypto';
import type { Adoption, NewStudy, StudyReading, StudyView } from '@dial-gauge/contract';
import { blindedOrder, checkValue, findMotion, protocolOfId, reliability, seededRandom, StudyError, type Digit } from '@dial-gauge/core';
import { In, IsNull } from 'typeorm';
import { dayOf } from '../../shared/days.js';
import { grouped } from '../../shared/grouped.js';
import { refused } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { OwnErrorRow, StudyReadingRow, StudyRow } from '../../records/reliability/entities.js';

/** Studies of the clinic's own measuring error, newest first. */
export async function studies(work: UnitOfWork): Promise<StudyView[]> {
  const { clinicId, manager } = work;
  return viewsOf(work, await manager.find(StudyRow, { where: { clinicId }, order: { startedAt: 'DESC' } }));
}

export async function studyView(work: UnitOfWork, id: string): Promise<StudyView> {
  const [view] = await viewsOf(work, [await work.one(StudyRow, id, 'study')]);
  return view!;
}

/** Plans a study: the order of its readings follows from the seed and is kept. */
export async function startStudy(work: UnitOfWork, { id, seed, digit, ...study }: NewStudy): Promise<void> {
  const { clinicId, caller, now } = work;
  const row: StudyRow = {
    id,
    clinicId,
    ...study,
    digit: digit ?? 0,
    motion: protocolOfId(study.protocol)!.motion,
    turns: blindedOrder(study.subjects, study.raters, study.kind, seededRandom(seed)),
    practiceRoundId: null,
    startedBy: caller.userId,
    startedAt: now,
  };
  await work.insertFact(StudyRow, row, 'study', ['name', 'protocol', 'digit', 'mode', 'instrument', 'kind', 'subjects', 'raters', 'turns']);
}

/** One blinded reading, under the study it was sent to and no other. */
export async function readStudy(work: UnitOfWork, studyId: string, { id, subject, rater, value }: StudyReading): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  // Held, so that nobody adopts an error while a reading comes in.
  const { instrument, motion, subjects, raters, practiceRoundId } = await work.one(StudyRow, studyId, 'study', 'pessimistic_write');
  if (practiceRoundId) throw refused('study', 'comes from practice and is whole; allowed: a study of people', 'Nothing was saved.');
  if (!(await manager.existsBy(StudyReadingRow, { id }))) {
    if (await manager.existsBy(OwnErrorRow, { clinicId, studyId, removedAt: IsNull() }))
      throw refused('study', 'is adopted; allowed: readings before its error is used', 'Nothing was saved.');
    if (subject >= subjects) throw refused('subject', `is not one of the study; allowed: 0 to ${subjects - 1}`);
    if (rater >= raters) throw refused('rater', `is not one of the study; allowed: 0 to ${raters - 1}`);
    const wrong = checkValue(motion, instrument, value);
    if (wrong) throw refused('value', wrong);
  }
  const row: StudyReadingRow = { id, clinicId, studyId, subject, rater, value, heldBy: caller.userId, heldAt: now };
  await work.insertFact(StudyReadingRow, row, 'reading', ['studyId', 'subject', 'rater', 'value']);
}

/** From now on every judgement of this motion, protocol and instrument uses the error of this study. */
export async function adoptError(work: UnitOfWork, studyId: string, { basis }: Adoption): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  const { practiceRoundId } = await work.one(StudyRow, studyId, 'study', 'pessimistic_write');
  // Figures say how somebody reads, and nothing of limbs: no patient is judged by them.
  if (practiceRoundId) throw refused('study', 'was read off figures in practice; allowed: a study of people', 'Nothing was adopted.');
  const { table, read, motion, instrument, protocol, kind, subjects, raters, adopted } = await studyView(work, studyId);
  if (!table)
    throw refused(
      'study',
      `holds ${read.length} of ${subjects * raters} readings; allowed: a study with every cell read`,
      'Nothing was adopted.',
    );
  // Sent twice it is adopted once.
  if (adopted?.basis === basis) return;
  const sem = semOf(table, basis);
  const examiners = kind === 'repeats' ? ('same' as const) : ('other' as const);
  const out = { removedAt: now, removedBy: caller.userId };
  await manager.update(OwnErrorRow, { clinicId, motion, instrument, protocol, examiners, removedAt: IsNull() }, out);
  await manager.insert(OwnErrorRow, {
    id: randomUUID(),
    clinicId,
    studyId,
    motion,
    instrument,
    protocol,
    examiners,
    basis,
    sem,
    subjects,
    raters,
    adoptedOn: dayOf(now),
    adoptedBy: caller.userId,
    adoptedAt: now,
    removedAt: null,
    removedBy: null,
  });
}

/** Out of use; it stays on record. */
export async function dropError(work: UnitOfWork, studyId: string): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  await work.one(StudyRow, studyId, 'study');
  await manager.update(OwnErrorRow, { clinicId, studyId, removedAt: IsNull() }, { removedAt: now, removedBy: caller.userId });
}

async function viewsOf(work: UnitOfWork, all: readonly StudyRow[]): Promise<StudyView[]> {
  const { clinicId, manager } = work;
  // A study of a motion that this version does not know stays on record.
  const rows = all.filter((row) => findMotion(row.motion));
  if (rows.length === 0) return [];
  const where = { clinicId, studyId: In(rows.map((row) => row.id)) };
  const readings = grouped(await manager.find(StudyReadingRow, { where, order: { heldAt: 'ASC' } }), (reading) => reading.studyId);
  const adopted = new Map((await manager.findBy(OwnErrorRow, { ...where, removedAt: IsNull() })).map((error) => [error.studyId, error]));
  const names = await work.namesOf([...rows.map((row) => row.startedBy), ...[...adopted.values()].map((error) => error.adoptedBy)]);
  return rows.map((row) => {
    const { id, name, motion, protocol, digit, mode, instrument, kind, subjects, raters, turns } = row;
    const cells = new Map((readings.get(id) ?? []).map((reading) => [`${reading.subject} ${reading.rater}`, reading.value]));
    const error = adopted.get(id);
    return {
      id,
      name,
      motion,
      protocol,
      ...(digit ? { digit: digit as Digit } : {}),
      mode,
      instrument,
      kind,
      subjects,
      raters,
      turns,
      read: turns.flatMap((turn, at) => (cells.has(`${turn.subject} ${turn.rater}`) ? [at] : [])),
      table:
        cells.size === subjects * raters
          ? Array.from({ length: subjects }, (_, subject) =>
              Array.from({ length: raters }, (__, rater) => cells.get(`${subject} ${rater}`)!),
            )
          : null,
      by: names.get(row.startedBy) ?? '',
      startedOn: dayOf(row.startedAt),
      isPractice: row.practiceRoundId !== null,
      adopted: error
        ? { id: error.id, sem: error.sem, basis: error.basis, on: error.adoptedOn, by: names.get(error.adoptedBy) ?? '' }
        : null,
    };
  });
}

function semOf(table: number[][], basis: Adoption['basis']): number {
  try {
    const sem = reliability(table).sem[basis];
    if (sem > 0) return sem;
    throw refused('basis', 'comes to an error of nothing; allowed: a study whose readings differ as readings do', 'Nothing was adopted.');
  } catch (error) {
    if (error instanceof StudyError) throw refused('study', error.message, 'Nothing was adopted.');
    throw error;
  }
}
