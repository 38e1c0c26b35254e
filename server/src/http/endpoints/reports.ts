import { REPORTS } from '@dial-gauge/contract';
import { serve, stream, type Resource } from '../endpoint.js';
import { allReadings } from '../../use-cases/documents/all-readings.js';
import { exportVisit, reportFile, reportView } from '../../use-cases/documents/reports.js';

// Judging, drawing and writing take longer than others should wait.
const thread = true;

/** Pages and files that go out. Nothing is kept of them: they are made anew from what is kept. */
export const reports: Resource = {
  entities: [],
  routes: [
    serve(REPORTS.report, (work, { params, query }) => reportView(work, params.id, query), { thread }),
    serve(REPORTS.reportFile, (work, { params, query }) => reportFile(work, params.id, query), { thread }),
    serve(REPORTS.exportVisit, (work, { params, query }) => exportVisit(work, params.id, query.to), { thread }),
    stream(REPORTS.allReadings, (work) => allReadings(work)),
  ],
};
