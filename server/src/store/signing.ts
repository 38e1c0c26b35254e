import { randomUUID } from 'node:crypto';
import type { NewAmendment, NewSignature, SignatureView, SignedCopy, SigningView } from '@dial-gauge/contract';
import { endPosition, describeEnd, modedName, motion, storedTrial, type Digit, type Judgement } from '@dial-gauge/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { Caller } from '../caller.js';
import { HttpProblem, notFound, refused } from '../problem.js';
import { Amendment, Episode, MeasurementRow, Patient, RecordChange, Signature, TrialRow, Visit } from './entities/index.js';
import { namesOf, type Names } from './views.js';

/**
 * Refuses a change of a visit that is signed and not being amended. A reading
 * that was held before the signature and arrives late is taken: it was
 * entered in time, and nothing entered is lost.
 *
 * The row of the visit is held until the change is committed, so that none
 * slips in while somebody signs.
 */
export async function mustBeOpen(manager: EntityManager, clinicId: string, visitId: string, heldAt?: Date): Promise<void> {
  const visit = await manager.findOne(Visit, { where: { id: visitId, clinicId }, lock: { mode: 'pessimistic_read' } });
  if (!visit) throw notFound('visit');
  if (!visit.signed) return;
  const last = await manager.findOneOrFail(Signature, { where: { clinicId, visitId }, order: { number: 'DESC' } });
  if (heldAt && heldAt < last.signedAt) return;
  throw isSigned();
}

/** What a change of a signed visit is answered. */
export const isSigned = (): HttpProblem =>
  new HttpProblem(
    409,
    'This visit is signed',
    'Nothing was changed: the visit is signed. Open it with “Amend” on Judge, say why, and enter it again.',
    [{ path: 'visit', message: 'is signed; allowed: changes after it was opened to be amended' }],
  );

/** Signs visits, opens them to be amended, and tells what was changed since. */
export class Signing {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clinicId: string,
  ) {}

  async view(visitId: string): Promise<SigningView & { summary: string | null; copy: Judgement | null }> {
    const { clinicId } = this;
    const { manager } = this.dataSource;
    const visit = await manager.findOneBy(Visit, { id: visitId, clinicId });
    if (!visit) throw notFound('visit');
    const names = await namesOf(manager, clinicId);
    const rows = await manager.find(Signature, { where: { clinicId, visitId }, order: { number: 'ASC' } });
    const last = rows[rows.length - 1];
    return {
      signatures: rows.map((row) => signatureView(row, names)),
      amending: visit.amending,
      changes: last ? await this.changesSince(visitId, last.signedAt, names) : [],
      summary: visit.summary,
      copy: visit.signed && last ? last.judgement : null,
    };
  }

  /** Keeps what somebody wrote; empty text goes back to the draft. */
  async setSummary({ clinicId, userId }: Caller, visitId: string, summary: string): Promise<void> {
    await this.dataSource.transaction(async (manager) => {
      await mustBeOpen(manager, clinicId, visitId);
      const { summary: oldValue } = await manager.findOneByOrFail(Visit, { id: visitId, clinicId });
      const newValue = summary || null;
      if (oldValue === newValue) return;
      const change = {
        id: randomUUID(),
        clinicId,
        subject: 'visit' as const,
        subjectId: visitId,
        field: 'summary',
        oldValue,
        newValue,
        userId,
        changedAt: new Date(),
      };
      await manager.save(RecordChange, change, { reload: false });
      await manager.update(Visit, { id: visitId, clinicId }, { summary: newValue });
    });
  }

  /**
   * Signs a visit with the findings as they stand now. Sent twice it is signed once.
   *
   * @param judge asked once nobody can change the visit any more: what is signed is what is there
   */
  async sign({ clinicId, userId }: Caller, visitId: string, { id, summary }: NewSignature, judge: () => Promise<Judgement>): Promise<void> {
    await this.dataSource.transaction(async (manager) => {
      const visit = await manager.findOne(Visit, { where: { id: visitId, clinicId }, lock: { mode: 'pessimistic_write' } });
      if (!visit) throw notFound('visit');
      if (await manager.existsBy(Signature, { id, clinicId, visitId })) return;
      if (visit.signed) {
        throw new HttpProblem(
          409,
          'Already signed',
          'Somebody has signed this visit meanwhile. Look at what was signed; open it with “Amend” to change it.',
        );
      }
      const judgement = await judge();
      if (judgement.measurements.length === 0)
        throw refused('visit', 'holds no reading; allowed: a visit with something measured', 'Nothing was signed.');
      const number = 1 + (await manager.countBy(Signature, { clinicId, visitId }));
      const why = visit.amending?.why ?? '';
      await manager.save(
        Signature,
        { id, clinicId, visitId, number, summary, why, judgement, signedBy: userId, signedAt: new Date() },
        { reload: false },
      );
      await manager.update(Visit, { id: visitId, clinicId }, { signed: true, amending: null, summary });
    });
  }

  /** Opens a signed visit to be changed. What was signed stays as it is. */
  async amend({ clinicId, name }: Caller, visitId: string, { why }: NewAmendment): Promise<void> {
    await this.dataSource.transaction(async (manager) => {
      const visit = await manager.findOne(Visit, { where: { id: visitId, clinicId }, lock: { mode: 'pessimistic_write' } });
      if (!visit) throw notFound('visit');
      if (!visit.signed) {
        if (visit.amending) return;
        throw new HttpProblem(409, 'Not signed yet', 'This visit is open: change it, and sign it when it is done.');
      }
      await manager.update(Visit, { id: visitId, clinicId }, { signed: false, amending: { why, by: name, at: new Date().toISOString() } });
    });
  }

  async copy(id: string): Promise<SignedCopy> {
    const { clinicId } = this;
    const { manager } = this.dataSource;
    const row = await manager.findOneBy(Signature, { id, clinicId });
    if (!row) throw notFound('signed copy');
    const visit = await manager.findOneByOrFail(Visit, { id: row.visitId, clinicId });
    const episode = await manager.findOneByOrFail(Episode, { id: visit.episodeId, clinicId });
    const { givenName, familyName } = await manager.findOneByOrFail(Patient, { id: episode.patientId, clinicId });
    const signature = signatureView(row, await namesOf(manager, clinicId));
    return { signature, assessedOn: visit.assessedOn, patient: `${givenName} ${familyName}`, judgement: row.judgement };
  }

  /** Readings added, put right or taken back, and remarks changed, after a moment. */
  private async changesSince(visitId: string, since: Date, names: Names): Promise<SigningView['changes']> {
    const { clinicId } = this;
    const { manager } = this.dataSource;
    const rows = new Map((await manager.findBy(MeasurementRow, { clinicId, visitId })).map((row) => [row.id, row]));
    if (rows.size === 0) return [];
    const ids = [...rows.keys()];
    const trials = await manager
      .createQueryBuilder(TrialRow, 't')
      .where('t.clinicId = :clinicId AND t.measurementId IN (:...ids) AND (t.savedAt > :since OR t.withdrawnAt > :since)', {
        clinicId,
        ids,
        since,
      })
      .getMany();
    const remarks = await manager
      .createQueryBuilder(Amendment, 'a')
      .where('a.clinicId = :clinicId AND a.measurementId IN (:...ids) AND a.amendedAt > :since', { clinicId, ids, since })
      .getMany();
    const corrected = new Set(trials.map((trial) => trial.corrects));
    const nameOf = (id: string) => {
      const row = rows.get(id)!;
      return modedName(row.motion, row.side, row.mode, (row.digit || undefined) as Digit | undefined);
    };
    const valueOf = (trial: TrialRow) => {
      const { motion: motionId } = rows.get(trial.measurementId)!;
      const { startAngle: start, endAngle: end, lowerZero, lowerEnd, scale, sense } = trial;
      const lower = lowerZero === null || lowerEnd === null ? null : { zero: lowerZero, end: lowerEnd };
      return describeEnd(motion(motionId), endPosition(storedTrial(motionId, { start, end, lower, scale, sense })));
    };
    const who = (id: string | null) => names.get(id ?? '') ?? '';
    return [
      ...trials.flatMap((trial) => {
        const changes = [];
        const { savedAt, withdrawnAt, corrects, withdrawnWhy } = trial;
        if (savedAt > since) {
          const old = trials.find((t) => t.id === corrects);
          const what = corrects
            ? `${nameOf(trial.measurementId)}: put right to ${valueOf(trial)}${old?.withdrawnWhy ? ` (${old.withdrawnWhy})` : ''}`
            : `${nameOf(trial.measurementId)}: ${valueOf(trial)} added`;
          changes.push({ at: savedAt, by: who(trial.examinerId), what });
        }
        if (withdrawnAt && withdrawnAt > since && !corrected.has(trial.id))
          changes.push({
            at: withdrawnAt,
            by: who(trial.withdrawnBy),
            what: `${nameOf(trial.measurementId)}: ${valueOf(trial)} taken back${withdrawnWhy ? ` (${withdrawnWhy})` : ''}`,
          });
        return changes;
      }),
      ...remarks.map((remark) => ({
        at: remark.amendedAt,
        by: who(remark.userId),
        what: `${nameOf(remark.measurementId)}: ${remark.field} was ${plain(remark.oldValue)}, now ${plain(remark.newValue)}`,
      })),
    ]
      .sort((a, b) => a.at.getTime() - b.at.getTime())
      .map((change) => ({ ...change, at: change.at.toISOString() }));
  }
}

const plain = (value: string | number | string[] | null): string =>
  value === null || value === '' ? 'nothing' : Array.isArray(value) ? value.join(', ') || 'nothing' : String(value);

function signatureView({ id, number, summary, why, signedBy, signedAt }: Signature, names: Names): SignatureView {
  return { id, number, summary, why, by: names.get(signedBy) ?? '', at: signedAt.toISOString() };
}
