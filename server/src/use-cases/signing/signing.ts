import type { NewAmendment, NewSignature, SignedCopy, SummaryChange } from '@dial-gauge/contract';
import { inWords, judgementOfToday } from '@dial-gauge/core';
import { writeSigned } from '../../records/audit/write.js';
import { Episode } from '../../records/episodes/entities.js';
import { goalsOf } from '../../read-models/goals/goals.js';
import { Patient } from '../../records/patients/entities.js';
import { same } from '../../database/change-log.js';
import { changedMeanwhile, HttpProblem, idTaken, refused } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from '../../records/visits/entities.js';
import { openVisit } from '../../records/visits/open.js';
import { mustBeOfAPerson } from '../../records/visits/rehearsal.js';
import { visitRecord } from '../../read-models/visit-record/record.js';
import { changesSince, groundsChangedSince } from '../../read-models/judgement/changes.js';
import { Countersignature, Signature } from '../../records/signatures/entities.js';
import { judge, revisionOf } from '../../read-models/judgement/judgement.js';
import { signatureViews } from '../../records/signatures/views.js';
import { mustAmend, mustBeTheirs } from '../../read-models/judgement/whose.js';

/** Keeps what somebody wrote; empty text goes back to the draft. Refused where somebody else wrote meanwhile. */
export async function setSummary(work: UnitOfWork, visitId: string, { summary, was }: SummaryChange): Promise<void> {
  const { manager, clinicId, log } = work;
  const visit = await openVisit(work, visitId, 'pessimistic_write');
  const after = summary || null;
  if (visit.summary === after) return;
  if (!same(visit.summary, was)) {
    const last = await log.last('visit', visitId, 'summary');
    // One's own earlier text, sent from another tab, is no conflict.
    if (last?.userId !== work.caller.userId) throw changedMeanwhile('The summary', last?.name ?? 'somebody else');
  }
  await log.write('visit', visitId, [['summary', visit.summary, after]]);
  await manager.update(Visit, { id: visitId, clinicId }, { summary: after });
}

/**
 * Signs a visit with the findings as they stand now, which have to be those
 * that were seen. Sent twice it is signed once.
 */
export async function sign(work: UnitOfWork, visitId: string, { id, summary, seen }: NewSignature): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  const visit = await work.one(Visit, visitId, 'visit', 'pessimistic_write');
  work.markStale('episode', visit.episodeId);
  const before = await manager.findOneBy(Signature, { id });
  if (before) {
    if (before.clinicId === clinicId && before.visitId === visitId && before.summary === summary && before.signedBy === caller.userId)
      return;
    throw idTaken('signature');
  }
  if (visit.signed) {
    throw new HttpProblem(
      409,
      'Already signed',
      'Somebody has signed this visit meanwhile. Look at what was signed; open it with “Amend” to change it.',
    );
  }
  await mustBeTheirs(work, visit);
  // Nobody can change the visit any more until this is done: what is signed is what is there.
  const record = await visitRecord(work, visitId);
  const judgement = await judge(work, record);
  if (judgement.measurements.length === 0 && !judgement.screens?.length)
    throw refused('visit', 'holds no reading; allowed: a visit with something measured or screened', 'Nothing was signed.');
  mustBeOfAPerson(record.visit, 'Nothing was signed.');
  if (seen.revision !== revisionOf(judgement)) throw await otherThanSeen(work, visit, new Date(seen.at));
  const { patient, episode } = record;
  const signature: Signature = {
    id,
    clinicId,
    visitId,
    number: 1 + (await manager.countBy(Signature, { clinicId, visitId })),
    summary,
    why: visit.amending?.why ?? '',
    // A copy reads as it read.
    judgement: { ...judgement, findings: judgement.findings.map(inWords) },
    context: { patient, episode, goals: await goalsOf(work, visit.episodeId) },
    signedBy: caller.userId,
    signedAt: now,
  };
  await work.insertFact(Signature, signature, 'signature', ['visitId', 'summary']);
  await work.log.write('visit', visitId, [
    ['signed', false, true],
    ['summary', visit.summary, summary],
  ]);
  await writeSigned(manager, signature);
  await manager.query('CALL sign_visit(?, ?, ?, ?)', [clinicId, visitId, id, summary]);
}

/** One signs what one has seen: these are other findings, and this is what changed since. */
async function otherThanSeen(work: UnitOfWork, visit: Visit, at: Date): Promise<HttpProblem> {
  const changes = [...(await changesSince(work, visit.id, at)), ...(await groundsChangedSince(work, visit.episodeId, at))];
  return new HttpProblem(
    409,
    'The findings have changed',
    'Nothing was signed: the findings are not those you saw. Look at what changed, then sign.',
    {
      errors:
        changes.length > 0
          ? changes.map(({ what, by }) => ({ path: 'findings', message: `${what} (${by})` }))
          : [{ path: 'findings', message: 'are others than those that were shown; allowed: the findings as they stand now' }],
    },
  );
}

/** A second signature below one that stands: of the lead, who has read it, and never below one's own. @returns the visit */
export async function countersign(work: UnitOfWork, signatureId: string, id: string): Promise<string> {
  const { manager, clinicId, caller, now } = work;
  const signature = await work.one(Signature, signatureId, 'signature');
  if (signature.signedBy === caller.userId)
    throw new HttpProblem(409, 'Your own signature', 'Nobody countersigns what they signed themselves; another lead may.');
  const visit = await work.one(Visit, signature.visitId, 'visit', 'pessimistic_write');
  const last = await manager.findOneOrFail(Signature, { where: { clinicId, visitId: visit.id }, order: { number: 'DESC' } });
  if (!visit.signed || last.id !== signatureId)
    throw new HttpProblem(
      409,
      'Not the signature that stands',
      'This visit was opened or signed again meanwhile. Look at what stands there now.',
    );
  const row: Countersignature = { id, clinicId, signatureId, signedBy: caller.userId, signedAt: now };
  try {
    await work.insertFact(Countersignature, row, 'countersignature', ['signatureId', 'signedBy']);
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    const there = await manager.findOneByOrFail(Countersignature, { clinicId, signatureId });
    if (there.signedBy !== caller.userId)
      throw new HttpProblem(409, 'Countersigned already', `${await work.nameOf(there.signedBy)} has countersigned this visit meanwhile.`);
  }
  return visit.id;
}

/** Opens a signed visit to be changed. What was signed stays as it is. */
export async function amend(work: UnitOfWork, visitId: string, { why }: NewAmendment): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  const visit = await work.one(Visit, visitId, 'visit', 'pessimistic_write');
  work.markStale('episode', visit.episodeId);
  if (!visit.signed) {
    // Sent twice by the same person it is done once; another reason is not passed over.
    if ((visit.amending?.byId ?? caller.userId) === caller.userId && visit.amending?.by === caller.name && visit.amending.why === why)
      return;
    if (visit.amending)
      throw new HttpProblem(
        409,
        'Being amended',
        `${visit.amending.by} has opened this visit meanwhile: ${visit.amending.why}. It takes changes; sign it when it is done.`,
      );
    throw new HttpProblem(409, 'Not signed yet', 'This visit is open: change it, and sign it when it is done.');
  }
  await mustAmend(work, visit);
  const amending = { why, by: caller.name, byId: caller.userId, at: now.toISOString() };
  await work.log.write('visit', visitId, [['amending', null, amending]]);
  await manager.query('CALL amend_visit(?, ?, ?)', [clinicId, visitId, JSON.stringify(amending)]);
}

export async function signedCopy(work: UnitOfWork, id: string): Promise<SignedCopy> {
  const { manager, clinicId } = work;
  const row = await work.one(Signature, id, 'signed copy');
  const visit = await manager.findOneByOrFail(Visit, { id: row.visitId, clinicId });
  const episode = await manager.findOneByOrFail(Episode, { id: visit.episodeId, clinicId });
  const patient = row.context?.patient ?? (await manager.findOneByOrFail(Patient, { id: episode.patientId, clinicId }));
  return {
    signature: (await signatureViews(work, [row]))[0]!,
    assessedOn: visit.assessedOn,
    patient: `${patient.givenName} ${patient.familyName}`,
    judgement: judgementOfToday(row.judgement),
  };
}
