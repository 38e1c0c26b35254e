import { PATIENTS } from '@dial-gauge/contract';
import { queueCounts } from '../../read-models/caseload/counts.js';
import { serve, type Resource } from '../endpoint.js';
import { discharge, messagesSeen, reopen } from '../../use-cases/patients/ending.js';
import { caseload } from '../../read-models/caseload/caseload.js';
import { Patient, PatientMergeRow } from '../../records/patients/entities.js';
import { merge, undoMerge } from '../../use-cases/patients/merging.js';
import { addPatient, changePatient, openEpisode } from '../../use-cases/patients/patients.js';
import { patientRecord, personChanges } from '../../read-models/patient-record/patient-record.js';

/** People in care. */
export const patients: Resource = {
  entities: [Patient, PatientMergeRow],
  routes: [
    serve(PATIENTS.caseload, (work, { query }) => caseload(work, query)),
    serve(PATIENTS.queueCounts, (work, { query }) => queueCounts(work, query.whose)),
    serve(PATIENTS.messagesSeen, async (work, { params }) => {
      await messagesSeen(work, params.id);
      return {};
    }),
    serve(PATIENTS.patient, (work, { params }) => patientRecord(work, params.id)),
    serve(PATIENTS.addPatient, async (work, { body }) => {
      await addPatient(work, body);
      return (after) => patientRecord(after, body.id);
    }),
    serve(PATIENTS.changePatient, async (work, { params, body }) => {
      await changePatient(work, params.id, body);
      return (after) => patientRecord(after, params.id);
    }),
    serve(PATIENTS.personChanges, (work, { params }) => personChanges(work, params.id)),
    serve(PATIENTS.openEpisode, async (work, { params, body }) => {
      await openEpisode(work, params.id, body);
      return (after) => patientRecord(after, params.id);
    }),
    serve(PATIENTS.discharge, async (work, { params, body }) => {
      const patientId = await discharge(work, params.id, body);
      return (after) => patientRecord(after, patientId);
    }),
    serve(PATIENTS.reopen, async (work, { params, body }) => {
      const patientId = await reopen(work, params.id, body.why);
      return (after) => patientRecord(after, patientId);
    }),
    serve(PATIENTS.merge, async (work, { params, body }) => {
      await merge(work, params.id, body);
      return (after) => patientRecord(after, params.id);
    }),
    serve(PATIENTS.undoMerge, async (work, { params }) => {
      const keptId = await undoMerge(work, params.id);
      return (after) => patientRecord(after, keptId);
    }),
  ],
};
