import type { PatientView } from '@dial-gauge/contract';
import type { Patient } from './entities.js';

export function patientView({ id, givenName, familyName, birthDate, sex, occupation }: Patient): PatientView {
  return { id, givenName, familyName, birthDate, sex, occupation };
}

/** What a caseload is ordered by: the family name first. */
export const sortNameOf = ({ familyName, givenName }: Pick<Patient, 'familyName' | 'givenName'>): string => `${familyName}, ${givenName}`;
