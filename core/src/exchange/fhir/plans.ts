import type { CarePlan, DiagnosticReport, Encounter, Goal, Observation, Practitioner, Provenance, Reference } from '@medplum/fhirtypes';
import { motion } from '../../catalogue/index.js';
import { saidOf } from '../../finding/index.js';
import { OWN, TERMINOLOGY } from './codes.js';
import { coded, quantity } from './parts.js';
import type { ExchangedGoal, FhirContext, Writing } from './writing.js';

export function goalOf(about: Writing, id: string, goal: ExchangedGoal): Goal {
  return {
    resourceType: 'Goal',
    id,
    lifecycleStatus: 'active',
    description: { text: goal.words },
    subject: about.patient,
    startDate: goal.since,
    target: [
      { measure: coded(OWN.motion, goal.motion, motion(goal.motion).name), detailQuantity: quantity(goal.value, motion(goal.motion).unit) },
    ],
  };
}

export function carePlanOf(
  about: Writing,
  id: string,
  encounter: Reference<Encounter>,
  goals: readonly Reference<Goal>[],
  { drills, recheckOn, givenOn }: NonNullable<FhirContext['program']>,
): CarePlan {
  return {
    resourceType: 'CarePlan',
    id: `${id}-programme`,
    status: 'active',
    intent: 'plan',
    title: 'Programme of exercises',
    subject: about.patient,
    encounter,
    period: { start: givenOn, end: recheckOn },
    created: givenOn,
    ...(goals.length > 0 && { goal: [...goals] }),
    activity: drills.map((drill) => ({
      detail: { status: 'in-progress', code: coded(OWN.drill, drill.id, drill.id), description: drill.words },
    })),
  };
}

export function reportOf(
  about: Writing,
  id: string,
  encounter: Reference<Encounter>,
  results: readonly Reference<Observation>[],
  { judgement, signed }: FhirContext,
): DiagnosticReport {
  const sentences = (judgement?.findings ?? []).map((finding) => {
    const { subject, verdict } = saidOf(finding);
    return `${subject}: ${verdict}.`;
  });
  return {
    resourceType: 'DiagnosticReport',
    id: `${id}-report`,
    status: signed ? 'final' : 'preliminary',
    code: coded(OWN.word, 'joint-measurement', 'Measurement of joints'),
    subject: about.patient,
    encounter,
    effectiveDateTime: about.assessedOn,
    ...(signed && { issued: signed.at, resultsInterpreter: [about.by(signed.by)] }),
    ...(results.length > 0 && { result: [...results] }),
    ...(sentences.length > 0 && { conclusion: sentences.join('\n') }),
  };
}

export function provenanceOf(
  about: Writing,
  id: string,
  target: readonly Reference<DiagnosticReport | Observation>[],
  { signed }: FhirContext,
): Provenance {
  const who: Reference<Practitioner> = signed ? about.by(signed.by) : { display: 'nobody has signed this' };
  return {
    resourceType: 'Provenance',
    id: `${id}-provenance`,
    target: [...target],
    recorded: signed?.at ?? `${about.assessedOn}T00:00:00Z`,
    agent: [{ type: { coding: [{ system: `${TERMINOLOGY}/provenance-participant-type`, code: signed ? 'verifier' : 'author' }] }, who }],
  };
}
