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
import { IsNull, type DataSource, type EntityManager, type QueryDeepPartialEntity } from 'typeorm';
import { HttpProblem, notFound, refused } from '../problem.js';
import type { Caller } from '../caller.js';
import { Amendment, MeasurementRow, TrialRow, Visit } from './entities/index.js';
import { mustBeOpen } from './signing.js';
import { measurementView, namesOf, trialView, trialViews } from './views.js';

type Way = Pick<NewReading, 'motion' | 'digit' | 'side' | 'mode' | 'position' | 'protocol'>;

type Given = Omit<TrialRow, 'clinicId' | 'examinerId' | 'savedAt' | 'withdrawnAt' | 'withdrawnBy' | 'withdrawnWhy' | 'corrects'> &
  Partial<Pick<TrialRow, 'corrects'>>;

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

/** Every statement sees what others have committed by then: a repeated request must find its first copy. */
const FRESH = 'READ COMMITTED';

/** Writes readings and remarks. Facts are appended; what is undone or amended stays on record. */
export class Readings {
  constructor(
    private readonly dataSource: DataSource,
    private readonly caller: Caller,
  ) {}

  /**
   * Saves one held reading and returns once it is committed. The same id with
   * the same content again is answered as saved; with other content it is
   * refused.
   */
  async hold(visitId: string, reading: NewReading): Promise<SavedReading> {
    return this.dataSource.transaction(FRESH, async (manager) => {
      await mustBeOpen(manager, this.caller.clinicId, visitId, new Date(reading.heldAt));
      const measurement = await this.measurementOf(manager, visitId, reading);
      const { id, instrument, pastLimit } = reading;
      const fresh = this.freshTrial({
        ...figuresOf(reading),
        id,
        measurementId: measurement.id,
        instrument,
        pastLimit: pastLimit?.limit ?? null,
        pastWhy: pastLimit?.why ?? '',
        heldAt: new Date(reading.heldAt),
      });
      const repeated = !(await insertOnce(manager, TrialRow, fresh));
      if (repeated) await this.mustBeTheSame(manager, fresh);
      return { reading: trialView(fresh, this.me()), repeated };
    });
  }

  /**
   * Puts a reading right: a new one takes its place, in its order, and the
   * old one stays on record with who, when and why. Sent twice it is done once.
   */
  async correct(id: string, correction: Correction): Promise<SavedReading> {
    const { clinicId, userId } = this.caller;
    return this.dataSource.transaction(FRESH, async (manager) => {
      const old = await manager.findOne(TrialRow, { where: { id, clinicId }, lock: { mode: 'pessimistic_write' } });
      if (!old) throw notFound('reading');
      const measurement = await manager.findOneByOrFail(MeasurementRow, { id: old.measurementId, clinicId });
      await mustBeOpen(manager, clinicId, measurement.visitId);
      const { instrument } = old;
      const [wrong] = figureProblems({ ...correction, motion: measurement.motion, instrument });
      if (wrong) throw refused(wrong.field, wrong.message);
      const fresh = this.freshTrial({
        ...figuresOf(correction),
        id: correction.id,
        measurementId: old.measurementId,
        instrument,
        pastLimit: old.pastLimit,
        pastWhy: old.pastWhy,
        heldAt: old.heldAt,
        corrects: old.id,
      });
      if (old.withdrawnAt !== null) {
        const before = await manager.findOneBy(TrialRow, { corrects: old.id, clinicId });
        if (before?.id !== correction.id) throw taken();
        await this.mustBeTheSame(manager, fresh);
        return { reading: trialView(before, await namesOf(manager, this.caller.clinicId), new Map([[old.id, old]])), repeated: true };
      }
      const withdrawn = { withdrawnAt: new Date(), withdrawnBy: userId, withdrawnWhy: correction.why };
      await manager.update(TrialRow, { id, clinicId }, withdrawn);
      await manager.insert(TrialRow, fresh);
      return {
        reading: trialView(fresh, await namesOf(manager, this.caller.clinicId), new Map([[old.id, { ...old, ...withdrawn }]])),
        repeated: false,
      };
    });
  }

  /** The caller's name, which is all that a reading just held needs. */
  private me(): Map<string, string> {
    return new Map([[this.caller.userId, this.caller.name]]);
  }

  private freshTrial(of: Given): TrialRow {
    const { clinicId, userId } = this.caller;
    const standing = { withdrawnAt: null, withdrawnBy: null, withdrawnWhy: '' };
    return { corrects: null, ...of, ...standing, clinicId, examinerId: userId, savedAt: new Date() };
  }

  private async mustBeTheSame(manager: EntityManager, fresh: TrialRow): Promise<void> {
    const stored = await manager.findOneBy(TrialRow, { id: fresh.id, clinicId: this.caller.clinicId });
    const facts = ['measurementId', 'instrument', 'startAngle', 'endAngle', 'lowerZero', 'lowerEnd', 'scale', 'sense'] as const;
    if (!stored || facts.some((fact) => stored[fact] !== fresh[fact])) {
      throw new HttpProblem(
        409,
        'Identifier already used',
        'Another reading carries this identifier. Hold the reading again; it will get a new one.',
        [{ path: 'id', message: 'belongs to another reading; allowed: an identifier that was not used before' }],
      );
    }
  }

  /** Takes a reading out of the count. It stays on record with who withdrew it and when. */
  async withdraw(id: string): Promise<void> {
    const { clinicId, userId } = this.caller;
    await this.dataSource.transaction(FRESH, async (manager) => {
      const trial = await manager.findOneBy(TrialRow, { id, clinicId });
      if (!trial) throw notFound('reading');
      const { visitId } = await manager.findOneByOrFail(MeasurementRow, { id: trial.measurementId, clinicId });
      if (trial.withdrawnAt === null) await mustBeOpen(manager, clinicId, visitId);
      await manager.update(TrialRow, { id, clinicId, withdrawnAt: IsNull() }, { withdrawnAt: new Date(), withdrawnBy: userId });
    });
  }

  /** Notes pain, end feel or substitutions. What stood there before is kept as an amendment. */
  async remark(visitId: string, remark: Remark): Promise<MeasurementView> {
    const { clinicId, userId } = this.caller;
    const { motion, digit, side, mode, position, protocol, was = {}, ...notes } = remark;
    checkSubstitutions(remark);
    return this.dataSource.transaction(FRESH, async (manager) => {
      await mustBeOpen(manager, clinicId, visitId);
      const { id } = await this.measurementOf(manager, visitId, { motion, digit, side, mode, position, protocol });
      // Held until the end, so that what an amendment calls the old value is the one it replaces.
      const row = await manager.findOneOrFail(MeasurementRow, { where: { id, clinicId }, lock: { mode: 'pessimistic_write' } });
      const fields = NOTES.filter((f) => notes[f] !== undefined);
      for (const field of fields) {
        const oldValue = row[field];
        const newValue = notes[field] ?? null;
        if (JSON.stringify(oldValue) === JSON.stringify(newValue)) continue;
        if (was[field] !== undefined && JSON.stringify(was[field]) !== JSON.stringify(oldValue))
          await this.refuseConflict(manager, row, field);
        await manager.insert(Amendment, {
          id: randomUUID(),
          clinicId,
          measurementId: row.id,
          field,
          oldValue,
          newValue,
          userId,
          amendedAt: new Date(),
        });
        await manager.update(MeasurementRow, { id: row.id, clinicId }, { [field]: newValue });
      }
      const saved = await manager.findOneByOrFail(MeasurementRow, { id: row.id, clinicId });
      const trials = await manager.find(TrialRow, { where: { measurementId: row.id, clinicId }, order: { heldAt: 'ASC', savedAt: 'ASC' } });
      return measurementView(saved, trialViews(trials, await namesOf(manager, this.caller.clinicId)));
    });
  }

  /** Somebody else changed the field since it was read: both are told, and neither is overwritten. */
  private async refuseConflict(manager: EntityManager, row: MeasurementRow, field: Note): Promise<void> {
    const { clinicId, userId } = this.caller;
    const last = await manager.findOne(Amendment, { where: { clinicId, measurementId: row.id, field }, order: { amendedAt: 'DESC' } });
    // One's own earlier change, sent from another tab, is no conflict.
    if (!last || last.userId === userId) return;
    const who = (await namesOf(manager, this.caller.clinicId)).get(last.userId) ?? 'somebody else';
    const now = Array.isArray(row[field]) ? row[field].join(', ') : (row[field] ?? 'nothing');
    throw new HttpProblem(
      409,
      'Changed by somebody else',
      `${who} noted ${NOTE_WORDS[field]}: ${now}. Yours was not saved; note it again to replace it.`,
      [{ path: field, message: `was changed by ${who} meanwhile and says ${now}; allowed: look at it, then note it again` }],
    );
  }

  /** The measurement a reading or a remark belongs to; made when it is the first. */
  private async measurementOf(manager: EntityManager, visitId: string, way: Way): Promise<MeasurementRow> {
    const { clinicId } = this.caller;
    const { motion, side, mode, position } = way;
    const protocol = protocolOf(way);
    const where = { clinicId, visitId, motion, side, mode, position, variant: variantOf(protocol), digit: way.digit ?? 0 };
    const existing = await manager.findOneBy(MeasurementRow, where);
    if (existing) return existing;
    if (!(await manager.existsBy(Visit, { id: visitId, clinicId }))) throw notFound('visit');
    // Two first readings at once meet at the unique key; the later one takes the earlier one's row.
    await insertOnce(manager, MeasurementRow, {
      id: randomUUID(),
      ...where,
      protocol: `${protocol.id}@${protocol.version}`,
      pain: null,
      painWhere: '',
      endFeel: null,
      substitutions: [],
      notDone: null,
      notDoneWhy: '',
      note: '',
    });
    return manager.findOneByOrFail(MeasurementRow, where);
  }
}

/** How a protocol is told apart in the table: empty for the usual one of its position. */
export function variantOf(protocol: Protocol): string {
  return findProtocol(protocol.motion, protocol.position) === protocol ? '' : (protocol.variant ?? '');
}

/** A remark belongs to a way of measuring, and names only what can fake that one. */
function checkSubstitutions(remark: Remark): void {
  const { substitutions = [], ...way } = remark;
  const wrong = checkWay({ ...way, instrument: findProtocol(way.motion, way.position)?.instruments[0] ?? 'visual' });
  if (wrong && wrong.field !== 'instrument') throw refused(wrong.field, wrong.message);
  const known = protocolOf(way).substitutions.map((s) => s.id);
  const unknown = substitutions.find((s) => !known.includes(s));
  if (unknown !== undefined) throw refused('substitutions', `"${unknown}" is not one of the allowed: ${known.join(', ')}`);
}

const taken = (): HttpProblem =>
  new HttpProblem(
    409,
    'Already put right or withdrawn',
    'This reading was corrected or withdrawn meanwhile. Look at what stands there now.',
    [{ path: 'id', message: 'stands no longer; allowed: a reading that stands' }],
  );

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

/** Inserts a row unless one with its key is there already; true when it was inserted. */
async function insertOnce<T extends object>(manager: EntityManager, entity: new () => T, row: QueryDeepPartialEntity<T>): Promise<boolean> {
  const result = await manager.createQueryBuilder().insert().into(entity).values(row).orIgnore().updateEntity(false).execute();
  return (result.raw as { affectedRows: number }).affectedRows > 0;
}
