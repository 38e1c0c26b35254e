import type { Cautions, NewVisit, PlanChange, PlanView } from '@dial-gauge/contract';
import { cautionOutcome } from '@dial-gauge/core';
import type { QueryDeepPartialEntity } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import { same } from '../../database/change-log.js';
import { mustBeInCare } from '../patients/ending.js';
import { Patient } from '../../records/patients/entities.js';
import { notBeforeBirth, notInTheFuture } from '../../shared/days.js';
import { changedMeanwhile } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from '../../records/visits/entities.js';
import { openVisit } from '../../records/visits/open.js';

/** Starts a visit. Sent twice it is started once. */
export async function startVisit(work: UnitOfWork, episodeId: string, { id, assessedOn, sheet }: NewVisit): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  notInTheFuture('assessedOn', assessedOn, now);
  // Held, so that two visits started at once are both counted.
  const episode = await work.one(Episode, episodeId, 'episode of care', 'pessimistic_write');
  if (!(await manager.existsBy(Visit, { id }))) mustBeInCare(episode);
  notBeforeBirth('assessedOn', assessedOn, (await work.one(Patient, episode.patientId, 'patient')).birthDate);
  const visit: Visit = {
    id,
    clinicId,
    episodeId,
    examinerId: caller.userId,
    assessedOn,
    startedAt: now,
    sheet: sheet ?? null,
    cautions: null,
    plan: null,
    screenPlan: null,
    revision: 0,
    summary: null,
    signed: false,
    amending: null,
  };
  if (!(await work.insertFact(Visit, visit, 'visit', ['episodeId', 'assessedOn']))) return;
  await manager.update(Episode, { id: episodeId, clinicId }, { visitCount: episode.visitCount + 1 });
  work.markStale('episode', episodeId);
  await manager.query(LATEST, [clinicId, episodeId, clinicId, episodeId]);
}

/** The visit an episode was seen at last, by day and then by when it was begun. */
const LATEST = `UPDATE episode e JOIN (
    SELECT id, TIMESTAMP(assessed_on, TIME(started_at)) AS latest_at FROM visit WHERE clinic_id = ? AND episode_id = ?
    ORDER BY assessed_on DESC, started_at DESC, id DESC LIMIT 1) v
  SET e.last_visit_id = v.id, e.latest_at = v.latest_at WHERE e.clinic_id = ? AND e.id = ?`;

/** Records the answers to the caution questions of a visit; refused where somebody else has answered since. */
export async function setCautions(work: UnitOfWork, id: string, { revision, ...answers }: Cautions): Promise<void> {
  const visit = await openVisit(work, id, 'pessimistic_write');
  const { asked, yes, note, where = {} } = visit.cautions ?? { asked: null, yes: null, note: null };
  if (same({ asked, yes, note, where }, answers)) return;
  await mustBeAsRead(work, visit, revision, 'The visit');
  const cautions = { ...answers, outcome: cautionOutcome(answers.yes), by: work.caller.name, at: work.now.toISOString() };
  await change(work, visit, 'cautions', { cautions });
}

/**
 * Sets the run sheet of a visit; refused where somebody else has changed it
 * since it was read. Without a revision it is added to, as at the dial: what
 * stands there stays, in its order.
 */
export async function setPlan(work: UnitOfWork, id: string, { plan: sent, sheet, revision }: PlanChange): Promise<void> {
  const visit = await openVisit(work, id, 'pessimistic_write');
  const plan = revision === undefined ? addedTo(visit.plan, sent) : sent;
  if (same(visit.plan, plan)) return;
  if (revision !== undefined) await mustBeAsRead(work, visit, revision, 'The run sheet');
  await change(work, visit, 'plan', { plan, ...(sheet ? { sheet } : {}) });
}

async function mustBeAsRead(work: UnitOfWork, visit: Visit, revision: number, what: string): Promise<void> {
  if (visit.revision !== revision) throw changedMeanwhile(what, (await work.log.last('visit', visit.id))?.name ?? 'somebody else');
}

async function change(
  { log, manager, clinicId }: UnitOfWork,
  visit: Visit,
  field: 'plan' | 'cautions',
  values: Partial<Visit>,
): Promise<void> {
  await log.write('visit', visit.id, [[field, visit[field], values[field]]]);
  const changed = { ...values, revision: visit.revision + 1 } as QueryDeepPartialEntity<Visit>;
  await manager.update(Visit, { id: visit.id, clinicId }, changed);
}

/** A run sheet with what was sent and is not on it yet, at its end. */
function addedTo(stored: PlanView | null, sent: PlanView): PlanView {
  if (!stored) return sent;
  const key = ({ protocol, digit, side, mode }: PlanView['steps'][number]) => [protocol, digit, side, mode].join(' ');
  const known = new Set(stored.steps.map(key));
  return { ...stored, trials: sent.trials, steps: [...stored.steps, ...sent.steps.filter((step) => !known.has(key(step)))] };
}
