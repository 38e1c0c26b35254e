import type { Condition, Encounter, Extension, Patient, Procedure, Reference } from '@medplum/fhirtypes';
import { regionName } from '../../catalogue/index.js';
import { findProcedure } from '../../procedure/index.js';
import { precautionWords } from '../../precaution/precaution.js';
import type { IsoDate, Joint } from '../../terms.js';
import type { AssessmentDocument } from '../document.js';
import { leavesOf } from '../leaves.js';
import { EXTENSION, GENDERS, JOINT_STRUCTURES, OWN, SIDE_CODES, SNOMED, TERMINOLOGY } from './codes.js';
import { coded, extensionOf, recalledCoding } from './parts.js';
import type { FhirContext, Writing } from './writing.js';

export function patientOf({ person }: AssessmentDocument, { ids, name }: FhirContext): Patient {
  return {
    resourceType: 'Patient',
    id: ids?.patient ?? 'patient',
    ...(name && { name: [{ family: name.family, given: [name.given] }] }),
    gender: GENDERS[person.sex],
    birthDate: person.birthDate,
  };
}

export function encounterOf(
  { patient }: Writing,
  id: string,
  on: IsoDate,
  extension: Extension[],
  reasons: readonly Reference<Condition | Procedure>[],
): Encounter {
  return {
    resourceType: 'Encounter',
    id,
    ...(extension.length > 0 && { extension }),
    status: 'finished',
    class: { system: `${TERMINOLOGY}/v3-ActCode`, code: 'AMB', display: 'ambulatory' },
    subject: patient,
    ...(reasons.length > 0 && { reasonReference: [...reasons] }),
    period: { start: on, end: on },
  };
}

/** How it is judged: no element of FHIR says so. */
export function judgingOf({ ranking, normSet, normSets }: AssessmentDocument): Extension[] {
  const leaves = leavesOf({ ranking, normSet, normSets });
  return Object.keys(leaves).length === 0 ? [] : [extensionOf(EXTENSION.judging, leaves)];
}

export function procedureOf({ procedure, involvedSide, put, patient }: Writing, id: string): Reference<Procedure> | undefined {
  if (!procedure) return undefined;
  return put({
    resourceType: 'Procedure',
    id: `${id}-operation`,
    status: 'completed',
    code: coded(OWN.procedure, procedure.id, findProcedure(procedure.id)?.name ?? procedure.id),
    subject: patient,
    performedDateTime: procedure.on,
    ...(involvedSide && { bodySite: [coded(OWN.side, involvedSide, involvedSide, recalledCoding(SNOMED, SIDE_CODES[involvedSide]))] }),
  });
}

/** What the complaint is about: a joint, a side; never a diagnosis. */
export function conditionOf({ complaintAt, involvedSide, put, patient }: Writing, id: string): Reference<Condition> | undefined {
  if (complaintAt === undefined && involvedSide === undefined) return undefined;
  const joint: Joint | undefined = complaintAt;
  return put({
    resourceType: 'Condition',
    id: `${id}-complaint`,
    clinicalStatus: { coding: [{ system: `${TERMINOLOGY}/condition-clinical`, code: 'active' }] },
    code: coded(OWN.word, 'complaint', 'What the person came with'),
    bodySite: [
      ...(joint ? [coded(OWN.region, joint, regionName(joint), recalledCoding(SNOMED, JOINT_STRUCTURES[joint]))] : []),
      ...(involvedSide ? [coded(OWN.side, involvedSide, involvedSide, recalledCoding(SNOMED, SIDE_CODES[involvedSide]))] : []),
    ],
    subject: patient,
  });
}

export function limitsOf({ precautions = [], put, patient }: Writing, id: string): void {
  precautions.forEach((by, at) =>
    put({
      resourceType: 'Flag',
      id: `${id}-limit${at + 1}`,
      extension: [extensionOf(EXTENSION.limit, leavesOf(by))],
      status: 'active',
      category: [{ coding: [{ system: `${TERMINOLOGY}/flag-category`, code: 'safety', display: 'Safety' }] }],
      code: coded(OWN.word, 'limit', `${by.side ? `${by.side} ` : ''}${precautionWords(by)}`),
      subject: patient,
      ...(by.until !== null && by.until !== undefined && { period: { end: by.until } }),
    }),
  );
}
