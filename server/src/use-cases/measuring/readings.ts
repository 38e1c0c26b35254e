import { randomUUID } from 'node:crypto';
import {
  figureProblems,
  type Correction,
  type MeasurementView,
  type NewReading,
  type Remark,
  type SavedReading,
} from '@dial-gauge/contract';
import { checkWay, findProtocol, protocolOf, type Protocol } from '@dial-gauge/core';
import { IsNull } from 'typeorm';
import { same } from '../../database/change-log.js';
import { HttpProblem, idTaken, noSession, notFound, refused } from '../../shared/problems.js';
import type { ClientClock } from '../../shared/client-clock.js';
import { SESSION_STANDS, standing } from '../../records/identity/session-store.js';
import { SignedVisit } from '../../records/visits/signed-visit.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from '../../records/visits/entities.js';
import { mustBeHeldWithin, openVisit, signedAt, TAKES_READING } from '../../records/visits/open.js';
import { MeasurementRow, TrialRow } from '../../records/readings/entities.js';
import { measurementView, peopleOf, trialView, trialViews } from '../../records/readings/views.js';

type Way = Pick<NewReading, 'motion' | 'digit' | 'side' | 'mode' | 'position' | 'protocol'>;

const NOTES = ['pain', 'painWhere', 'endFeel', 'substitutions', 'notDone', 'notDoneWhy', 'note'] as const;
type Note = (typeof NOTES)[number];
const NOTE_WORDS: Readonly<Record<Note, string>> = {
  pain: 'pain',
  painWhere: 'where it hurts',
  endFeel: 'the end feel',
  substitutions: 'what faked it',
  notDone: 'that it was not done',
  notDoneWhy: 'why it was not done',
  note: 'a remark',
};

/** What a repeated request has to say alike to be the same reading. */
const FIGURES = ['instrument', 'startAngle', 'endAngle', 'lowerZero', 'lowerEnd', 'scale', 'sense', 'simulated'] as const;

const FRESH_MEASUREMENT = `INSERT INTO measurement
  (id, clinic_id, visit_id, motion, side, mode, position, variant, digit, protocol, pain_where, substitutions)
  SELECT ?, v.clinic_id, v.id, ?, ?, ?, ?, ?, ?, ?, '', '[]' FROM visit v
  WHERE v.id = ? AND v.clinic_id = ? AND ${TAKES_READING} AND ${SESSION_STANDS}
    AND NOT EXISTS (SELECT 1 FROM measurement m WHERE m.visit_id = v.id AND m.motion = ? AND m.side = ? AND m.mode = ?
      AND m.position = ? AND m.variant = ? AND m.digit = ?)`;

const FRESH_TRIAL = `INSERT INTO trial
  (id, clinic_id, measurement_id, instrument, start_angle, end_angle, lower_zero, lower_end, scale, sense, entered, simulated, past_limit, past_why,
   examiner_id, held_at, clock_off, saved_at)
  SELECT ?, m.clinic_id, m.id, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ? FROM visit v JOIN measurement m ON m.visit_id = v.id
  WHERE v.id = ? AND v.clinic_id = ? AND ${TAKES_READING} AND ${SESSION_STANDS}
    AND m.motion = ? AND m.side = ? AND m.mode = ? AND m.position = ?
    AND m.variant = ? AND m.digit = ? LOCK IN SHARE MODE`;

/**
 * Saves one held reading and returns once it is committed, in two statements:
 * one makes the measurement where it is the first, one inserts the reading
 * while the visit still takes it and the caller is still signed in. The same id with the same content again is
 * answered as saved; with other content it is refused.
 */
export async function hold(
  work: UnitOfWork,
  visitId: string,
  reading: NewReading,
  sent: Pick<ClientClock, 'ahead'>,
): Promise<SavedReading> {
  const { clinicId, now } = work;
  const protocol = protocolOf(reading);
  const heldAt = new Date(Date.parse(reading.heldAt) - (sent.ahead ?? 0));
  const trial = freshTrial(work, {
    ...figuresOf(reading),
    id: reading.id,
    measurementId: '',
    instrument: reading.instrument,
    simulated: reading.simulated ?? false,
    pastLimit: reading.pastLimit?.limit ?? null,
    pastWhy: reading.pastLimit?.why ?? '',
    heldAt,
    clockOff: sent.ahead ? Math.round(sent.ahead / 1000) : null,
  });
  const way = [reading.motion, reading.side, reading.mode, reading.position, variantOf(protocol), reading.digit ?? 0];
  const takes = [visitId, clinicId, heldAt, now, ...standing(work)];
  const place = JSON.stringify([clinicId, visitId, ...way]);
  if (!measured.has(place)) {
    // Two first readings at once meet at the unique key; the later one takes the earlier one's row.
    await work.prepared(FRESH_MEASUREMENT, [randomUUID(), ...way, versionOf(protocol), ...takes, ...way]).catch((error: unknown) => {
      if (!isDuplicate(error)) throw error;
    });
  }
  try {
    const { affectedRows } = await work.prepared<{ affectedRows: number }>(FRESH_TRIAL, [...columnsOf(trial), ...takes, ...way]);
    if (affectedRows === 1) {
      remember(place);
      return { reading: trialView(trial, new Map([[work.caller.userId, work.caller.name]])), repeated: false };
    }
  } catch (error) {
    if (!isDuplicate(error)) throw error;
  }
  // A measurement that was taken for granted may be what is missing.
  if (measured.delete(place)) return hold(work, visitId, reading, sent);
  return repeatedOrRefused(work, visitId, trial, way);
}

/** Measurements that are there: once made they stay, so it is not asked again. The latest few thousand, by clinic, visit and way. */
const measured = new Set<string>();
const MOST_REMEMBERED = 5_000;

function remember(place: string): void {
  if (measured.size >= MOST_REMEMBERED) measured.clear();
  measured.add(place);
}

/** Nothing was inserted: the caller's session stands no longer, the reading is there already, or the visit does not take it. */
async function repeatedOrRefused(work: UnitOfWork, visitId: string, trial: TrialRow, way: readonly unknown[]): Promise<SavedReading> {
  const { manager, clinicId, now } = work;
  const [stands] = await work.prepared<unknown[]>(`SELECT 1 WHERE ${SESSION_STANDS}`, standing(work));
  if (!stands) throw noSession();
  const stored = await manager.findOneBy(TrialRow, { id: trial.id });
  if (stored) {
    const of = await manager.findOneByOrFail(MeasurementRow, { id: stored.measurementId });
    const storedWay = [of.motion, of.side, of.mode, of.position, of.variant, of.digit];
    if (
      stored.clinicId !== clinicId ||
      of.visitId !== visitId ||
      !same(storedWay, way) ||
      [...FIGURES, 'corrects' as const].some((f) => !same(stored[f], trial[f]))
    )
      throw idTaken('reading');
    return { reading: trialView(stored, await work.namesOf([stored.examinerId])), repeated: true };
  }
  const visit = await work.one(Visit, visitId, 'visit');
  mustBeHeldWithin(visit, trial.heldAt, now);
  throw new SignedVisit(visitId, await signedAt(work, visitId));
}

/** The columns of FRESH_TRIAL in its order, without the measurement's. */
const columnsOf = (t: TrialRow): unknown[] => [
  t.id, t.instrument, t.startAngle, t.endAngle, t.lowerZero, t.lowerEnd, t.scale, t.sense, t.entered, t.simulated, t.pastLimit, t.pastWhy,
  t.examinerId, t.heldAt, t.clockOff, t.savedAt,
]; // prettier-ignore

/**
 * Puts a reading right: a new one takes its place, in its order, and the old
 * one stays on record with who, when and why. Sent twice it is done once.
 */
export async function correct(work: UnitOfWork, id: string, correction: Correction): Promise<SavedReading> {
  const { clinicId, manager, caller, now } = work;
  const old = await work.one(TrialRow, id, 'reading', 'pessimistic_write');
  const measurement = await work.one(MeasurementRow, old.measurementId, 'measurement');
  const { instrument } = old;
  const [wrong] = figureProblems({ ...correction, motion: measurement.motion, instrument });
  if (wrong) throw refused(wrong.field, wrong.message);
  const fresh = freshTrial(work, {
    ...figuresOf(correction),
    id: correction.id,
    measurementId: old.measurementId,
    instrument,
    // Put right, a made-up number is made up still.
    simulated: Boolean(old.simulated),
    pastLimit: old.pastLimit,
    pastWhy: old.pastWhy,
    heldAt: old.heldAt,
    clockOff: old.clockOff,
    corrects: old.id,
  });
  const answer = async (reading: TrialRow, before: TrialRow, repeated: boolean) => ({
    reading: trialView(reading, await work.namesOf([reading.examinerId, before.examinerId]), new Map([[old.id, before]])),
    repeated,
  });
  if (old.withdrawnAt !== null) {
    const before = await manager.findOneBy(TrialRow, { corrects: old.id, clinicId });
    if (before?.id !== correction.id) throw standsNoLonger();
    if (FIGURES.some((figure) => !same(before[figure], fresh[figure]))) throw idTaken('reading');
    return answer(before, old, true);
  }
  await openVisit(work, measurement.visitId);
  const withdrawn = { withdrawnAt: now, withdrawnBy: caller.userId, withdrawnWhy: correction.why };
  await manager.update(TrialRow, { id, clinicId }, withdrawn);
  if (!(await work.insertFact(TrialRow, fresh, 'reading', ['corrects', 'measurementId', ...FIGURES]))) throw idTaken('reading');
  return answer(fresh, { ...old, ...withdrawn }, false);
}

/** Takes a reading out of the count. It stays on record with who withdrew it and when. */
export async function withdraw(work: UnitOfWork, id: string): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  const trial = await work.one(TrialRow, id, 'reading', 'pessimistic_write');
  if (trial.withdrawnAt !== null) return;
  await openVisit(work, (await work.one(MeasurementRow, trial.measurementId, 'measurement')).visitId);
  await manager.update(TrialRow, { id, clinicId, withdrawnAt: IsNull() }, { withdrawnAt: now, withdrawnBy: caller.userId });
}

/** Notes pain, end feel or substitutions. What stood there before is kept in the log. */
export async function remark(work: UnitOfWork, visitId: string, said: Remark): Promise<MeasurementView> {
  const { clinicId, manager } = work;
  const { motion, digit, side, mode, position, protocol, was = {}, ...notes } = said;
  checkSubstitutions(said);
  const row = await measurementOf(work, visitId, { motion, digit, side, mode, position, protocol });
  const changed = NOTES.filter((field) => notes[field] !== undefined && !same(row[field], notes[field]));
  if (changed.length > 0) await openVisit(work, visitId);
  for (const field of changed) if (was[field] !== undefined && !same(was[field], row[field])) await refuseConflict(work, row, field);
  await work.log.write(
    'measurement',
    row.id,
    changed.map((field) => [field, row[field], notes[field]]),
  );
  if (changed.length > 0)
    await manager.update(
      MeasurementRow,
      { id: row.id, clinicId },
      Object.fromEntries(changed.map((field) => [field, notes[field] ?? null])),
    );
  const saved = await work.one(MeasurementRow, row.id, 'measurement');
  const trials = await manager.find(TrialRow, { where: { measurementId: row.id, clinicId }, order: { heldAt: 'ASC', savedAt: 'ASC' } });
  return measurementView(saved, trialViews(trials, await work.namesOf(peopleOf(trials))));
}

/** Somebody else changed the field since it was read: both are told, and neither is overwritten. */
async function refuseConflict(work: UnitOfWork, row: MeasurementRow, field: Note): Promise<void> {
  const last = await work.log.last('measurement', row.id, field);
  // One's own earlier change, sent from another tab, is no conflict.
  if (!last || last.userId === work.caller.userId) return;
  const now = Array.isArray(row[field]) ? row[field].join(', ') : (row[field] ?? 'nothing');
  throw new HttpProblem(
    409,
    'Changed by somebody else',
    `${last.name} noted ${NOTE_WORDS[field]}: ${now}. Yours was not saved; note it again to replace it.`,
    {
      errors: [{ path: field, message: `was changed by ${last.name} meanwhile and says ${now}; allowed: look at it, then note it again` }],
    },
  );
}

/** The measurement a remark belongs to, held until it is noted; made when it is the first. */
async function measurementOf(work: UnitOfWork, visitId: string, way: Way): Promise<MeasurementRow> {
  const { clinicId, manager } = work;
  const { motion, side, mode, position } = way;
  const protocol = protocolOf(way);
  const where = { clinicId, visitId, motion, side, mode, position, variant: variantOf(protocol), digit: way.digit ?? 0 };
  const find = () => manager.findOne(MeasurementRow, { where, lock: { mode: 'pessimistic_write' } });
  const existing = await find();
  if (existing) return existing;
  await openVisit(work, visitId);
  const nothing = { pain: null, painWhere: '', endFeel: null, substitutions: [], notDone: null, notDoneWhy: '', note: '' };
  try {
    await manager.insert(MeasurementRow, { id: randomUUID(), ...where, protocol: versionOf(protocol), ...nothing });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
  }
  const made = await find();
  if (!made) throw notFound('measurement');
  return made;
}

/** How a protocol is told apart in the table: empty for the usual one of its position. */
export function variantOf(protocol: Protocol): string {
  return findProtocol(protocol.motion, protocol.position) === protocol ? '' : (protocol.variant ?? '');
}

export const versionOf = (protocol: Protocol): string => `${protocol.id}@${protocol.version}`;

/** A remark belongs to a way of measuring, and names only what can fake that one. */
function checkSubstitutions({ substitutions = [], ...way }: Remark): void {
  const wrong = checkWay({ ...way, instrument: findProtocol(way.motion, way.position)?.instruments[0] ?? 'visual' });
  if (wrong && wrong.field !== 'instrument') throw refused(wrong.field, wrong.message);
  const known = protocolOf(way).substitutions.map((s) => s.id);
  const unknown = substitutions.find((s) => !known.includes(s));
  if (unknown !== undefined) throw refused('substitutions', `"${unknown}" is not one of the allowed: ${known.join(', ')}`);
}

const standsNoLonger = (): HttpProblem =>
  new HttpProblem(
    409,
    'Already put right or withdrawn',
    'This reading was corrected or withdrawn meanwhile. Look at what stands there now.',
    { errors: [{ path: 'id', message: 'stands no longer; allowed: a reading that stands' }] },
  );

type Given = Omit<TrialRow, 'clinicId' | 'examinerId' | 'savedAt' | 'withdrawnAt' | 'withdrawnBy' | 'withdrawnWhy' | 'corrects'> &
  Partial<Pick<TrialRow, 'corrects'>>;

function freshTrial({ clinicId, caller, now }: UnitOfWork, of: Given): TrialRow {
  const standing = { withdrawnAt: null, withdrawnBy: null, withdrawnWhy: '' };
  return { corrects: null, ...of, ...standing, clinicId, examinerId: caller.userId, savedAt: now };
}

/** What was read, as columns. */
function figuresOf({
  start,
  end,
  lower,
  scale,
  sense,
  entered,
}: Pick<NewReading, 'start' | 'end' | 'lower' | 'scale' | 'sense' | 'entered'>) {
  return {
    startAngle: start,
    endAngle: end,
    lowerZero: lower?.zero ?? null,
    lowerEnd: lower?.end ?? null,
    scale: scale ?? null,
    sense: sense ?? null,
    entered: entered ?? '',
  };
}
