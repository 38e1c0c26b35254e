import { rawConnection, signedIn, timed, words, ms } from './lib.mjs';

const READINGS = 10_000;

/** Pages as PDF, and every reading of a clinic as CSV: how long, and how much memory the server takes for it. */
export async function benchPapers({ server, database }) {
  const api = await signedIn(server.url);
  const { rows } = await api('GET', '/caseload');
  const visits = rows.flatMap(({ lastVisit }) => (lastVisit ? [lastVisit.id] : []));
  for (const kind of ['referrer', 'patient', 'evidence']) {
    let at = 0;
    const ask = () => api('GET', `/visits/${visits[(at += 1) % visits.length]}/report/pdf?for=${kind}`);
    console.log(`PDF for ${kind}, the last visit of ${visits.length} people in turn: ${words(ms(await timed(80, ask, 16)))}`);
  }
  const raw = await rawConnection(database);
  const [[{ id: measurement, clinic_id: clinic, examiner_id: examiner }]] = await raw.query(
    'SELECT m.id, m.clinic_id, v.examiner_id FROM measurement m JOIN visit v ON v.id = m.visit_id LIMIT 1',
  );
  await raw.query(
    `INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at)
     SELECT UUID(), ?, ?, 'goniometer', 0, 90, ?, '2020-01-01', '2020-01-01' FROM seq_1_to_${READINGS}`,
    [clinic, measurement, examiner],
  );
  await raw.end();
  const begun = performance.now();
  const { status, text } = await api.ask('GET', '/readings.csv', undefined, { plain: true });
  const lines = text.split('\r\n').length - 2;
  console.log(
    `every reading of a clinic as CSV: ${lines} rows, ${(text.length / 1e6).toFixed(1)} MB, status ${status}, ${(performance.now() - begun).toFixed(0)} ms`,
  );
}
