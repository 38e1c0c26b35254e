import { randomUUID } from 'node:crypto';
import type { Cautions, EpisodeView, IntakeChange, OwnExamSet, PlanChange, PlanView, PracticeView } from '@dial-gauge/contract';
import { ASSUMED_HAND, cautionOutcome, recordedTimes, type HandWidths, type HeldAt, type MotionId } from '@dial-gauge/core';
import { IsNull, type DataSource, type EntityManager } from 'typeorm';
import type { Caller } from '../caller.js';
import { HttpProblem, notFound, refused } from '../problem.js';
import { Clinic, ClinicChange, Episode, ExamSetRow, MeasurementRow, RecordChange, TrialRow, User, Visit } from './entities/index.js';
import { episodeView } from './records.js';
import { isSigned } from './signing.js';
import { protocolIdOf } from './views.js';

const INTAKE = [
  'complaint',
  'involvedSide',
  'complaintAt',
  'procedureId',
  'procedure',
  'procedureOn',
  'dominantSide',
  'wanted',
  'precautions',
] as const;

/** How far back readings say how long things take. */
const TIMED = 4000;

/** Intake, cautions, run sheets, and how the clinic works. What stood before a change is kept. */
export class Preparing {
  constructor(
    private readonly dataSource: DataSource,
    private readonly caller: Caller,
  ) {}

  /** Changes what an episode is about; refused where somebody else has changed it since it was read. */
  async setIntake(id: string, { revision, ...intake }: IntakeChange): Promise<EpisodeView> {
    const { clinicId } = this.caller;
    return this.dataSource.transaction(async (manager) => {
      const episode = await manager.findOne(Episode, { where: { id, clinicId }, lock: { mode: 'pessimistic_write' } });
      if (!episode) throw notFound('episode of care');
      const changed = INTAKE.filter((field) => !same(episode[field] ?? (field === 'precautions' ? [] : null), intake[field]));
      if (changed.length === 0) return episodeView(episode);
      if (episode.revision !== revision) await this.refuseConflict(manager, id, 'The intake');
      for (const field of changed) await this.keep(manager, 'episode', id, field, episode[field], intake[field]);
      await manager.update(Episode, { id, clinicId }, { ...intake, revision: revision + 1 });
      return episodeView(await manager.findOneByOrFail(Episode, { id, clinicId }));
    });
  }

  /** Records the answers to the caution questions of a visit. */
  async setCautions(id: string, cautions: Cautions): Promise<void> {
    const { clinicId, name } = this.caller;
    await this.dataSource.transaction(async (manager) => {
      const visit = await this.visit(manager, id);
      const answered = { ...cautions, outcome: cautionOutcome(cautions.yes), by: name, at: new Date().toISOString() };
      await this.keep(manager, 'visit', id, 'cautions', visit.cautions, answered);
      await manager.update(Visit, { id, clinicId }, { cautions: answered });
    });
  }

  /**
   * Sets the run sheet of a visit; refused where somebody else has changed it since it was read. Without a
   * revision it is added to, as at the dial: what another examiner has put there stays.
   */
  async setPlan(id: string, { plan: sent, sheet, revision }: PlanChange): Promise<void> {
    const { clinicId } = this.caller;
    await this.dataSource.transaction(async (manager) => {
      const visit = await this.visit(manager, id);
      const plan = revision === undefined ? withStored(sent, visit.plan) : sent;
      if (same(visit.plan, plan)) return;
      if (revision !== undefined && visit.revision !== revision) await this.refuseConflict(manager, id, 'The run sheet');
      await this.keep(manager, 'visit', id, 'plan', visit.plan, plan);
      await manager.update(Visit, { id, clinicId }, { plan, ...(sheet ? { sheet } : {}), revision: visit.revision + 1 });
    });
  }

  async practice(): Promise<PracticeView> {
    const { clinicId } = this.caller;
    const clinic = await this.dataSource.getRepository(Clinic).findOneByOrFail({ id: clinicId });
    const rows = await this.dataSource
      .getRepository(ExamSetRow)
      .find({ where: { clinicId, removedAt: IsNull() }, order: { addedAt: 'ASC' } });
    return {
      examSets: rows.map(({ id, name, items }) => ({ id, name, items })),
      times: recordedTimes(await this.heldReadings()),
      hand: clinic.handWidths ?? ASSUMED_HAND,
    };
  }

  async setHand(hand: HandWidths): Promise<void> {
    const { clinicId, userId } = this.caller;
    await this.dataSource.transaction(async (manager) => {
      const clinic = await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
      if (same(clinic.handWidths, hand)) return;
      const change = {
        id: randomUUID(),
        clinicId,
        field: 'handWidths',
        oldValue: clinic.handWidths,
        newValue: hand,
        userId,
        changedAt: new Date(),
      };
      await manager.save(ClinicChange, change, { reload: false });
      await manager.update(Clinic, { id: clinicId }, { handWidths: hand });
    });
  }

  async addExamSet({ id, name, items }: OwnExamSet): Promise<void> {
    const { clinicId, userId } = this.caller;
    const rows = this.dataSource.getRepository(ExamSetRow);
    if (await rows.existsBy({ id, clinicId })) return;
    if (await rows.existsBy({ clinicId, name, removedAt: IsNull() })) {
      throw refused('name', `"${name}" is the name of another set of this clinic; allowed: a name that is not in use`);
    }
    await rows.insert({ id, clinicId, name, items, addedBy: userId, addedAt: new Date(), removedAt: null });
  }

  async removeExamSet(id: string): Promise<void> {
    const { clinicId } = this.caller;
    const { affected } = await this.dataSource
      .getRepository(ExamSetRow)
      .update({ id, clinicId, removedAt: IsNull() }, { removedAt: new Date() });
    if (!affected) throw notFound('exam set');
  }

  /** The clinic's latest readings, with the moments they were held. */
  private async heldReadings(): Promise<HeldAt[]> {
    const rows = await this.dataSource
      .createQueryBuilder(TrialRow, 't')
      .innerJoin(MeasurementRow, 'm', 'm.id = t.measurementId')
      .select('m.visitId', 'visit')
      .addSelect([
        'm.motion AS motion',
        'm.variant AS variant',
        'm.position AS position',
        'm.side AS side',
        'm.mode AS mode',
        't.heldAt AS heldAt',
      ])
      .where('t.clinicId = :clinicId AND t.corrects IS NULL', { clinicId: this.caller.clinicId })
      .orderBy('t.heldAt', 'DESC')
      .limit(TIMED)
      .getRawMany<Omit<HeldAt, 'at' | 'protocol'> & { motion: MotionId; variant: string; heldAt: Date }>();
    return rows.flatMap(({ motion, variant, heldAt, ...row }) => {
      const protocol = protocolIdOf({ motion, position: row.position, variant });
      return protocol ? [{ ...row, protocol, at: heldAt.getTime() }] : [];
    });
  }

  private async visit(manager: EntityManager, id: string): Promise<Visit> {
    const visit = await manager.findOne(Visit, { where: { id, clinicId: this.caller.clinicId }, lock: { mode: 'pessimistic_write' } });
    if (!visit) throw notFound('visit');
    if (visit.signed) throw isSigned();
    return visit;
  }

  private async keep(
    manager: EntityManager,
    subject: RecordChange['subject'],
    subjectId: string,
    field: string,
    oldValue: unknown,
    newValue: unknown,
  ): Promise<void> {
    const { clinicId, userId } = this.caller;
    const change = { id: randomUUID(), clinicId, subject, subjectId, field, oldValue, newValue, userId, changedAt: new Date() };
    await manager.save(RecordChange, change, { reload: false });
  }

  private async refuseConflict(manager: EntityManager, subjectId: string, what: string): Promise<never> {
    const { clinicId } = this.caller;
    const last = await manager.findOne(RecordChange, { where: { clinicId, subjectId }, order: { changedAt: 'DESC' } });
    const who = last && (await manager.findOneBy(User, { id: last.userId, clinicId }));
    throw new HttpProblem(
      409,
      'Changed by somebody else',
      `${what} was changed by ${who?.name ?? 'somebody else'} meanwhile. Yours was not saved: look at what stands there now, then change it again.`,
    );
  }
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** A run sheet with the steps that stood there and are not in it, at its end. */
function withStored(sent: PlanView, stored: PlanView | null): PlanView {
  const key = ({ protocol, digit, side, mode }: PlanView['steps'][number]) => [protocol, digit, side, mode].join(' ');
  const known = new Set(sent.steps.map(key));
  return { ...sent, steps: [...sent.steps, ...(stored?.steps ?? []).filter((step) => !known.has(key(step)))] };
}
