import { randomUUID } from 'node:crypto';
import type { JudgingChange, JudgingView, NormSetSummary } from '@dial-gauge/contract';
import { DEFAULT_THRESHOLDS, findNormSet, NORM_SETS, type NormSet, type OwnError, type Ranking, type Thresholds } from '@dial-gauge/core';
import { IsNull, type DataSource } from 'typeorm';
import type { Caller } from '../caller.js';
import { notFound, refused, type HttpProblem } from '../problem.js';
import { Clinic, ClinicChange, NormSetRow, OwnErrorRow } from './entities/index.js';

/** What a clinic judges by, ready for `assess()`. */
export interface Judging {
  readonly normSet: string;
  readonly thresholds: Thresholds;
  readonly ownSets: readonly NormSet[];
  readonly ownErrors: readonly OwnError[];
  readonly ranking: Ranking;
}

/** Reads and changes what one clinic judges by. What stood before a change is kept. */
export class JudgingStore {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clinicId: string,
  ) {}

  async current(): Promise<Judging> {
    const clinic = await this.dataSource.getRepository(Clinic).findOneByOrFail({ id: this.clinicId });
    const [ownSets, ownErrors] = await Promise.all([this.ownSets(), this.ownErrors()]);
    return { normSet: clinic.normSet, thresholds: clinic.thresholds ?? DEFAULT_THRESHOLDS, ownSets, ownErrors, ranking: clinic.ranking };
  }

  async view(): Promise<JudgingView> {
    const { normSet, thresholds, ownSets, ownErrors, ranking } = await this.current();
    return {
      normSet,
      thresholds: { ...thresholds, severityPercent: [...thresholds.severityPercent], severityTimes: [...thresholds.severityTimes] },
      sets: [...NORM_SETS.map((set) => summaryOf(set, false)), ...ownSets.map((set) => summaryOf(set, true))],
      ownSets: [...ownSets],
      ownErrors: [...ownErrors],
      ranking,
    };
  }

  /** An installed set: one of the program's or one of the clinic's own. */
  async find(id: string): Promise<NormSet> {
    const set = findNormSet(id, await this.ownSets());
    if (!set) throw notFound('norm set');
    return set;
  }

  async change({ userId }: Caller, change: JudgingChange): Promise<void> {
    const { clinicId } = this;
    if (change.normSet !== undefined && !findNormSet(change.normSet, await this.ownSets())) {
      throw refuse('normSet', `"${change.normSet}" is not installed; choose one of the list`);
    }
    await this.dataSource.transaction(async (manager) => {
      const clinic = await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
      for (const field of ['normSet', 'thresholds', 'ranking'] as const) {
        const [oldValue, newValue] = [clinic[field], change[field]];
        if (newValue === undefined || JSON.stringify(oldValue) === JSON.stringify(newValue)) continue;
        await manager.save(
          ClinicChange,
          { id: randomUUID(), clinicId, field, oldValue, newValue, userId, changedAt: new Date() },
          { reload: false },
        );
        await manager.update(Clinic, { id: clinicId }, { [field]: newValue });
      }
    });
  }

  /** Brings in a set that has been read and found right. */
  async add({ userId }: Caller, set: NormSet): Promise<NormSetSummary> {
    const { id: setId, source, entries, title, short, year, where } = set;
    await this.dataSource.getRepository(NormSetRow).insert({
      id: randomUUID(),
      clinicId: this.clinicId,
      setId,
      title,
      short,
      year,
      where,
      cite: source.cite,
      fromMemory: source.fromMemory,
      entries: [...entries],
      addedBy: userId,
      addedAt: new Date(),
    });
    return summaryOf(set, true);
  }

  /** Takes one of the clinic's own sets out of use. It stays on record. */
  async remove({ userId }: Caller, setId: string): Promise<void> {
    const { clinicId } = this;
    if (NORM_SETS.some((set) => set.id === setId)) throw refuse('id', 'comes with the program and cannot be removed');
    await this.dataSource.transaction(async (manager) => {
      const clinic = await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
      if (clinic.normSet === setId) throw refuse('id', 'is the set this clinic judges by; choose another one first');
      const { affected } = await manager.update(
        NormSetRow,
        { clinicId, setId, removedAt: IsNull() },
        { removedAt: new Date(), removedBy: userId },
      );
      if (!affected) throw notFound('norm set');
    });
  }

  /** Errors the clinic found out for itself and has adopted. */
  async ownErrors(): Promise<OwnError[]> {
    const rows = await this.dataSource
      .getRepository(OwnErrorRow)
      .find({ where: { clinicId: this.clinicId, removedAt: IsNull() }, order: { adoptedAt: 'DESC' } });
    return rows.map(({ motion, instrument, protocol, examiners, sem, subjects, raters, adoptedOn }) => ({
      motion,
      instrument,
      protocol,
      examiners,
      sem,
      subjects,
      raters,
      adoptedOn,
    }));
  }

  private async ownSets(): Promise<NormSet[]> {
    const rows = await this.dataSource
      .getRepository(NormSetRow)
      .find({ where: { clinicId: this.clinicId, removedAt: IsNull() }, order: { addedAt: 'ASC' } });
    return rows.map(({ setId, title, short, year, where, cite, fromMemory, entries }) => ({
      id: setId,
      title,
      short,
      year,
      where,
      source: { cite, fromMemory },
      entries,
    }));
  }
}

const refuse = (path: string, message: string): HttpProblem =>
  refused(path, message, 'Nothing was changed. Correct the fields named and send again.');

function summaryOf({ id, title, short, year, where, source, entries }: NormSet, own: boolean): NormSetSummary {
  return {
    id,
    title,
    short,
    year,
    where,
    cite: source.cite,
    fromMemory: source.fromMemory,
    values: entries.length,
    motions: new Set(entries.map((entry) => entry.motion)).size,
    own,
  };
}
