import { randomUUID } from 'node:crypto';
import type { MeasurementView, NewReading, Remark, SavedReading } from '@dial-gauge/contract';
import { checkWay, findProtocol, protocolOf, type Protocol } from '@dial-gauge/core';
import { IsNull, type DataSource, type EntityManager, type QueryDeepPartialEntity } from 'typeorm';
import { HttpProblem, notFound } from '../problem.js';
import type { Caller } from '../caller.js';
import { Amendment, MeasurementRow, TrialRow, User, Visit } from './entities.js';
import { measurementView, trialView } from './records.js';

type Way = Pick<NewReading, 'motion' | 'digit' | 'side' | 'mode' | 'position' | 'protocol'>;

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
    const { clinicId, userId, name } = this.caller;
    return this.dataSource.transaction(FRESH, async (manager) => {
      const measurement = await this.measurementOf(manager, visitId, reading);
      const { id, instrument, start: startAngle, end: endAngle, lower } = reading;
      const fresh = {
        id,
        clinicId,
        measurementId: measurement.id,
        instrument,
        startAngle,
        endAngle,
        lowerZero: lower?.zero ?? null,
        lowerEnd: lower?.end ?? null,
        examinerId: userId,
        heldAt: new Date(reading.heldAt),
      };
      const repeated = !(await insertOnce(manager, TrialRow, { ...fresh, savedAt: new Date() }));
      if (repeated) await this.mustBeTheSame(manager, fresh);
      return { reading: trialView({ ...fresh, savedAt: fresh.heldAt, withdrawnAt: null, withdrawnBy: null }, name), repeated };
    });
  }

  private async mustBeTheSame(manager: EntityManager, fresh: Omit<TrialRow, 'savedAt' | 'withdrawnAt' | 'withdrawnBy'>): Promise<void> {
    const stored = await manager.findOneBy(TrialRow, { id: fresh.id, clinicId: this.caller.clinicId });
    const same =
      stored !== null &&
      stored.measurementId === fresh.measurementId &&
      stored.instrument === fresh.instrument &&
      stored.startAngle === fresh.startAngle &&
      stored.endAngle === fresh.endAngle &&
      stored.lowerZero === fresh.lowerZero &&
      stored.lowerEnd === fresh.lowerEnd;
    if (!same) {
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
    const rows = this.dataSource.getRepository(TrialRow);
    const result = await rows.update({ id, clinicId, withdrawnAt: IsNull() }, { withdrawnAt: new Date(), withdrawnBy: userId });
    if (result.affected === 0 && !(await rows.existsBy({ id, clinicId }))) throw notFound('reading');
  }

  /** Notes pain, end feel or substitutions. What stood there before is kept as an amendment. */
  async remark(visitId: string, remark: Remark): Promise<MeasurementView> {
    const { clinicId, userId } = this.caller;
    const { motion, digit, side, mode, position, protocol, ...notes } = remark;
    checkSubstitutions(remark);
    return this.dataSource.transaction(FRESH, async (manager) => {
      const { id } = await this.measurementOf(manager, visitId, { motion, digit, side, mode, position, protocol });
      // Held until the end, so that what an amendment calls the old value is the one it replaces.
      const row = await manager.findOneOrFail(MeasurementRow, { where: { id, clinicId }, lock: { mode: 'pessimistic_write' } });
      const fields = (['pain', 'painWhere', 'endFeel', 'substitutions'] as const).filter((f) => notes[f] !== undefined);
      for (const field of fields) {
        const oldValue = row[field];
        const newValue = notes[field] ?? null;
        if (JSON.stringify(oldValue) === JSON.stringify(newValue)) continue;
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
      const trials = await manager.find(TrialRow, {
        where: { measurementId: row.id, clinicId, withdrawnAt: IsNull() },
        order: { heldAt: 'ASC' },
      });
      const users = new Map((await manager.findBy(User, { clinicId })).map((u) => [u.id, u.name]));
      return measurementView(
        saved,
        trials.map((t) => trialView(t, users.get(t.examinerId) ?? '')),
      );
    });
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
  const refuse = (path: string, message: string) =>
    new HttpProblem(422, 'Some fields were refused', 'Nothing was saved.', [{ path, message }]);
  const { substitutions = [], ...way } = remark;
  const wrong = checkWay({ ...way, instrument: findProtocol(way.motion, way.position)?.instruments[0] ?? 'visual' });
  if (wrong && wrong.field !== 'instrument') throw refuse(wrong.field, wrong.message);
  const known = protocolOf(way).substitutions.map((s) => s.id);
  const unknown = substitutions.find((s) => !known.includes(s));
  if (unknown !== undefined) throw refuse('substitutions', `"${unknown}" is not one of the allowed: ${known.join(', ')}`);
}

/** Inserts a row unless one with its key is there already; true when it was inserted. */
async function insertOnce<T extends object>(manager: EntityManager, entity: new () => T, row: QueryDeepPartialEntity<T>): Promise<boolean> {
  const result = await manager.createQueryBuilder().insert().into(entity).values(row).orIgnore().updateEntity(false).execute();
  return (result.raw as { affectedRows: number }).affectedRows > 0;
}
