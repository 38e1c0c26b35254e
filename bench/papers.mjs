import { readFileSync } from 'node:fs';
import { get } from 'node:http';
import { rawConnection, signedIn, timed, words, ms } from './lib.mjs';

/** Readings of a clinic: what is written for so many may not take more room for ten times as many. */
const READINGS = [10_000, 100_000];

/** Memory of a process that is in use, in MB. */
const inUse = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1000;

/** Reads an answer as it comes and keeps none of it: its bytes, and the most that the server took for it beyond what it had. */
function streamed(url, cookie, pid) {
  const before = inUse(pid);
  let [bytes, most] = [0, before];
  return new Promise((resolve, reject) => {
    get(url, { headers: { cookie } }, (answer) => {
      answer.on('data', (chunk) => {
        bytes += chunk.length;
        most = Math.max(most, inUse(pid));
      });
      answer.on('end', () => resolve({ status: answer.statusCode, bytes, grown: most - before }));
    }).on('error', reject);
  });
}

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
  const add = (count) =>
    raw.query(
      `INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at)
       SELECT UUID(), ?, ?, 'goniometer', 0, 90, ?, '2020-01-01', '2020-01-01' FROM seq_1_to_${count}`,
      [clinic, measurement, examiner],
    );
  let there = 0;
  for (const readings of READINGS) {
    await add(readings - there);
    there = readings;
    // Once unmeasured: what is made once is not what grows.
    await streamed(`${server.url}/api/readings.csv`, api.cookie(), server.child.pid);
    const begun = performance.now();
    const { status, bytes, grown } = await streamed(`${server.url}/api/readings.csv`, api.cookie(), server.child.pid);
    console.log(
      `${readings} readings and the demo’s as CSV: ${(bytes / 1e6).toFixed(1)} MB, status ${status}, ${(performance.now() - begun).toFixed(0)} ms, the server ${grown.toFixed(0)} MB larger at most`,
    );
  }
  await raw.end();
}
