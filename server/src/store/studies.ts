import { randomUUID } from 'node:crypto';
import type { Adoption, NewStudy, StudyReading, StudyView } from '@dial-gauge/contract';
import { blindedOrder, checkValue, protocolOfId, reliability, seededRandom, StudyError, type Digit } from '@dial-gauge/core';
import { formatISO } from 'date-fns';
import { IsNull, type DataSource } from 'typeorm';
import type { Caller } from '../caller.js';
import { notFound, refused } from '../problem.js';
import { OwnErrorRow, StudyReadingRow, StudyRow } from './entities/index.js';
import { namesOf, type Names } from './views.js';

/** Studies of the clinic's own measuring error, and the errors adopted from them. */
export class Studies {
  constructor(
    private readonly dataSource: DataSource,
    private readonly caller: Caller,
  ) {}

  async list(): Promise<StudyView[]> {
    const { clinicId } = this.caller;
    const rows = await this.dataSource.getRepository(StudyRow).find({ where: { clinicId }, order: { startedAt: 'DESC' } });
    const names = await namesOf(this.dataSource.manager, clinicId);
    return Promise.all(rows.map((row) => this.viewOf(row, names)));
  }

  async view(id: string): Promise<StudyView> {
    const { clinicId } = this.caller;
    const row = await this.dataSource.getRepository(StudyRow).findOneBy({ id, clinicId });
    if (!row) throw notFound('study');
    return this.viewOf(row, await namesOf(this.dataSource.manager, clinicId));
  }

  /** Plans a study: the order of its readings follows from the seed and is kept. */
  async start({ id, seed, digit, ...study }: NewStudy): Promise<StudyView> {
    const { clinicId, userId } = this.caller;
    const rows = this.dataSource.getRepository(StudyRow);
    if (!(await rows.existsBy({ id, clinicId }))) {
      const { motion } = protocolOfId(study.protocol)!;
      const turns = blindedOrder(study.subjects, study.raters, study.kind, seededRandom(seed));
      await rows.save(
        { id, clinicId, ...study, digit: digit ?? 0, motion, turns, startedBy: userId, startedAt: new Date() },
        { reload: false },
      );
    }
    return this.view(id);
  }

  async read(id: string, { id: readingId, subject, rater, value }: StudyReading): Promise<StudyView> {
    const { clinicId, userId } = this.caller;
    const { instrument, motion, subjects, raters, adopted } = await this.view(id);
    if (adopted) throw refused('study', 'is adopted; allowed: readings before its error is used', 'Nothing was saved.');
    if (subject >= subjects) throw refused('subject', `is not one of the study; allowed: 0 to ${subjects - 1}`);
    if (rater >= raters) throw refused('rater', `is not one of the study; allowed: 0 to ${raters - 1}`);
    const wrong = checkValue(motion, instrument, value);
    if (wrong) throw refused('value', wrong);
    const rows = this.dataSource.getRepository(StudyReadingRow);
    if (!(await rows.existsBy({ id: readingId, clinicId })))
      await rows.save(
        { id: readingId, clinicId, studyId: id, subject, rater, value, heldBy: userId, heldAt: new Date() },
        { reload: false },
      );
    return this.view(id);
  }

  /** From now on every judgement of this motion, protocol and instrument uses the error of this study. */
  async adopt(id: string, { basis }: Adoption): Promise<StudyView> {
    const { clinicId, userId } = this.caller;
    const study = await this.view(id);
    const { table, motion, instrument, protocol, kind, subjects, raters } = study;
    if (!table)
      throw refused(
        'study',
        `holds ${study.read.length} of ${subjects * raters} readings; allowed: a study with every cell read`,
        'Nothing was adopted.',
      );
    const sem = semOf(table, basis);
    const examiners = kind === 'repeats' ? ('same' as const) : ('other' as const);
    await this.dataSource.transaction(async (manager) => {
      const out = { removedAt: new Date(), removedBy: userId };
      await manager.update(OwnErrorRow, { clinicId, motion, instrument, protocol, examiners, removedAt: IsNull() }, out);
      await manager.save(
        OwnErrorRow,
        {
          id: randomUUID(),
          clinicId,
          studyId: id,
          motion,
          instrument,
          protocol,
          examiners,
          basis,
          sem,
          subjects,
          raters,
          adoptedOn: formatISO(new Date(), { representation: 'date' }),
          adoptedBy: userId,
          adoptedAt: new Date(),
          removedAt: null,
          removedBy: null,
        },
        { reload: false },
      );
    });
    return this.view(id);
  }

  /** Out of use; it stays on record. */
  async drop(id: string): Promise<StudyView> {
    const { clinicId, userId } = this.caller;
    await this.view(id);
    await this.dataSource
      .getRepository(OwnErrorRow)
      .update({ clinicId, studyId: id, removedAt: IsNull() }, { removedAt: new Date(), removedBy: userId });
    return this.view(id);
  }

  private async viewOf(row: StudyRow, names: Names): Promise<StudyView> {
    const { clinicId } = this.caller;
    const { id, name, motion, protocol, digit, mode, instrument, kind, subjects, raters, turns } = row;
    const readings = await this.dataSource
      .getRepository(StudyReadingRow)
      .find({ where: { clinicId, studyId: id }, order: { heldAt: 'ASC' } });
    const cells = new Map(readings.map((reading) => [`${reading.subject} ${reading.rater}`, reading.value]));
    const adopted = await this.dataSource.getRepository(OwnErrorRow).findOneBy({ clinicId, studyId: id, removedAt: IsNull() });
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
      startedOn: formatISO(row.startedAt, { representation: 'date' }),
      adopted: adopted && {
        id: adopted.id,
        sem: adopted.sem,
        basis: adopted.basis,
        on: adopted.adoptedOn,
        by: names.get(adopted.adoptedBy) ?? '',
      },
    };
  }
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
