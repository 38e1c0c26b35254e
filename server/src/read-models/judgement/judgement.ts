import { createHash } from 'node:crypto';
import { assessmentOfVisit, type JudgementView, type VisitRecord } from '@dial-gauge/contract';
import { assess, judgementOfToday, type Judgement } from '@dial-gauge/core';
import { lateEntries } from '../late-entries/late-entries.js';
import { criteriaOf } from '../clinic-criteria/criteria.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { screensForJudging } from '../screens/screens.js';
import { Visit } from '../../records/visits/entities.js';
import { visitRecord } from '../visit-record/record.js';
import { changesSince } from './changes.js';
import { Signature } from '../../records/signatures/entities.js';
import { signatureViews } from '../../records/signatures/views.js';
import { notTheirs } from './whose.js';

/** Names findings by what they say: other findings have another name. */
export function revisionOf(judgement: Judgement): string {
  return createHash('sha256').update(JSON.stringify(judgement)).digest('base64url');
}

/** What a visit's readings come to by what the clinic judges by now. */
export async function judge(work: UnitOfWork, record: VisitRecord): Promise<Judgement> {
  const { screens, done, before } = await screensForJudging(work, record.visit.id);
  return assess({ ...assessmentOfVisit(record), screens: done, screensBefore: before }, { ...(await criteriaOf(work)), screens });
}

/** A visit judged, and where it stands between open and signed. Signed, it shows what was signed. */
export async function judgementView(work: UnitOfWork, visitId: string): Promise<JudgementView> {
  const { manager, clinicId } = work;
  const row = await work.one(Visit, visitId, 'visit');
  const signatures = await manager.find(Signature, { where: { clinicId, visitId }, order: { number: 'ASC' } });
  const last = signatures[signatures.length - 1];
  const copy = row.signed ? last : undefined;
  const record = await visitRecord(work, visitId);
  const { visit, patient, episode, previous, measurements, odd } = record;
  const judgement = copy ? judgementOfToday(copy.judgement) : await judge(work, record);
  return {
    visit,
    patient: copy?.context?.patient ?? patient,
    episode: copy?.context?.episode ?? episode,
    previousOn: previous?.assessedOn ?? null,
    aside: measurements.filter((m) => m.notDone !== null || m.note !== '' || m.trials.some((trial) => trial.pastLimit)),
    judgement,
    seen: { revision: revisionOf(judgement), at: work.now.toISOString() },
    summary: row.summary,
    signing: {
      signatures: await signatureViews(work, signatures),
      notYours: await notTheirs(work, row),
      amending: row.amending,
      changes: last ? await changesSince(work, visitId, last.signedAt) : [],
      late: await lateEntries(work, visitId),
    },
    odd,
  };
}
