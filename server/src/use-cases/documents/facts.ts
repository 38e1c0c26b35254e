import { operationOf, type JudgementView, type ProgressView, limitsOf } from '@dial-gauge/contract';
import { draftSummary, drillsWith, type ReportFacts } from '@dial-gauge/core';
import { Clinic } from '../../records/clinic/entities.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { standingProgram, type StandingProgram } from '../../read-models/programmes/programmes.js';
import { progressView } from '../../read-models/progress/progress.js';
import { judgementView } from '../../read-models/judgement/judgement.js';

/** Everything a page about a visit is made from. */
export interface ReportGround {
  readonly clinic: string;
  readonly judged: JudgementView;
  readonly progress: ProgressView;
  /** The one that holds: of this visit, or of one before it. */
  readonly program: StandingProgram | null;
}

export async function reportGround(work: UnitOfWork, visitId: string): Promise<ReportGround> {
  const judged = await judgementView(work, visitId);
  const progress = await progressView(work, visitId);
  const program = await standingProgram(work, visitId);
  const { name } = await work.manager.findOneByOrFail(Clinic, { id: work.clinicId });
  return { clinic: name, judged, progress, program };
}

/** The signature that stands: none while a visit is open or being amended. */
export function standingSignature({ visit, signing }: Pick<JudgementView, 'visit' | 'signing'>) {
  return visit.signed ? (signing.signatures.at(-1) ?? null) : null;
}

/** Facts in the words that are spoken. What is signed is told as it was signed. */
export function factsOf({ clinic, judged, progress, program }: ReportGround): ReportFacts {
  const { visit, patient, episode, judgement, summary } = judged;
  const signature = standingSignature(judged);
  return {
    clinic,
    person: patient,
    complaint: episode.complaint,
    wanted: episode.wanted,
    involvedSide: episode.involvedSide ?? undefined,
    operation: operationOf(episode),
    operationWords: episode.procedure,
    limits: limitsOf({ episode, visit }),
    assessedOn: visit.assessedOn,
    visitNumber: visit.number,
    examiner: visit.examiner,
    judgement,
    summary: signature?.summary ?? summary ?? draftSummary(judgement),
    series: progress.series,
    firstOn: progress.visits[0]!.assessedOn,
    program: program && {
      drills: program.drills,
      known: drillsWith(program.own),
      recheckOn: program.recheckOn,
      note: program.note,
      by: program.by,
      on: program.at.slice(0, 10),
    },
    signed: signature && {
      by: signature.by,
      on: signature.at.slice(0, 10),
      number: signature.number,
      countersigned: signature.countersigned ? { by: signature.countersigned.by, on: signature.countersigned.at.slice(0, 10) } : undefined,
    },
  };
}
