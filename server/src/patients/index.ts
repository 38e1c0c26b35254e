import { PATIENTS } from '@dial-gauge/contract';
import { serve, type Resource } from '../platform/resource.js';
import { caseload } from './caseload.js';
import { Patient } from './entities.js';
import { addPatient, patientRecord } from './store.js';

/** People in care. */
export const patients: Resource = {
  entities: [Patient],
  routes: [
    serve(PATIENTS.caseload, (work, { query }) => caseload(work, query)),
    serve(PATIENTS.patient, (work, { params }) => patientRecord(work, params.id)),
    serve(PATIENTS.addPatient, async (work, { body }) => {
      await addPatient(work, body);
      return (after) => patientRecord(after, body.id);
    }),
  ],
};
