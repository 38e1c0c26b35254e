import type { Bundle } from '@medplum/fhirtypes';
import { measurementKey } from '../../assessment.js';
import type { AssessmentDocument } from '../document.js';
import { measured, screened } from './observations.js';
import type { FhirContext, Put, Resource, Writing } from './writing.js';
import { conditionOf, encounterOf, judgingOf, limitsOf, patientOf, procedureOf } from './around.js';
import { carePlanOf, goalOf, provenanceOf, reportOf } from './plans.js';

/**
 * An assessment as a FHIR R4 Bundle: every fact in its place, so that reading
 * gives back the document, and beside the facts what they were held against.
 *
 * @see HL7 FHIR R4 (4.0.1), resources by name; one Observation per joint, side, motion, mode, position and occasion
 */
export function documentToFhir(document: AssessmentDocument, context: FhirContext = {}): Bundle {
  const resources = new Map<string, Resource>();
  const put: Put = (resource) => {
    const at = `${resource.resourceType}/${resource.id}`;
    if (!resources.has(at)) resources.set(at, resource);
    return { reference: at };
  };
  const visitId = context.ids?.visit ?? 'visit';
  const patient = put(patientOf(document, context));
  const people = new Map<string, string>();
  const about: Writing = {
    ...document,
    put,
    patient,
    by: (name) => {
      const id = people.get(name) ?? `${visitId}-by${people.size + 1}`;
      people.set(name, id);
      return { ...put({ resourceType: 'Practitioner', id, name: [{ text: name }] }), display: name };
    },
  };
  const reasons = [procedureOf(about, visitId), conditionOf(about, visitId)].filter((one) => one !== undefined);
  limitsOf(about, visitId);
  const encounter = put(encounterOf(about, visitId, document.assessedOn, judgingOf(document), reasons));
  const judged = new Map(context.judgement?.measurements.map((one) => [measurementKey(one.measurement), one]));
  const status = context.signed ? 'final' : 'preliminary';
  const results = [
    ...document.measurements.map((entry, at) =>
      put({ ...measured(about, encounter, `${visitId}-m${at + 1}`, document.assessedOn, entry, judged), status }),
    ),
    ...(document.screens ?? []).flatMap((screen, at) =>
      screened(about, encounter, `${visitId}-s${at + 1}`, screen, at + 1).map((one) => put({ ...one, status })),
    ),
  ];
  if (document.previous) {
    const before = put(encounterOf(about, `${visitId}-before`, document.previous.assessedOn, [], []));
    document.previous.measurements.forEach((entry, at) =>
      put({ ...measured(about, before, `${visitId}-before-m${at + 1}`, document.previous!.assessedOn, entry, new Map()), status: 'final' }),
    );
  }
  const goals = (context.goals ?? []).map((goal, at) => put(goalOf(about, `${visitId}-goal${at + 1}`, goal)));
  if (context.program) put(carePlanOf(about, visitId, encounter, goals, context.program));
  const report = put(reportOf(about, visitId, encounter, results, context));
  put(provenanceOf(about, visitId, [report, ...results], context));
  return {
    resourceType: 'Bundle',
    type: 'collection',
    entry: [...resources].map(([at, resource]) => ({ fullUrl: `https://dial-gauge.example/fhir/${at}`, resource })),
  };
}
