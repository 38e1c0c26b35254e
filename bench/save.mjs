import { randomUUID } from 'node:crypto';
import { createConnection } from 'mysql2/promise';
import { median, quantile } from 'simple-statistics';

const ROUNDS = 400;
const INSERT =
  'INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at) VALUES (?, ?, ?, ?, ?, ?, ?, NOW(3), NOW(3))';
const DEMO = { email: 'wren@saltmarsh.example', password: 'tide-and-table' };

/** Holding a reading over HTTP, beside one bare INSERT of the same row on the same database, turn about. */
export async function benchSave({ server, database }) {
  const api = client(server.url);
  await api('POST', '/session', DEMO);
  const [{ episode }] = await api('GET', '/caseload');
  const visit = randomUUID();
  await api('POST', `/episodes/${episode.id}/visits`, { id: visit, assessedOn: new Date().toISOString().slice(0, 10) });
  const hold = () =>
    api('POST', `/visits/${visit}/readings`, {
      id: randomUUID(),
      motion: 'hip.flexion',
      side: 'left',
      mode: 'passive',
      position: 'supine',
      instrument: 'goniometer',
      end: 107,
      heldAt: new Date().toISOString(),
    });
  await hold();

  const env = database.environment();
  const raw = await createConnection({
    host: '127.0.0.1',
    port: Number(env.DIAL_GAUGE_DB_PORT),
    user: env.DIAL_GAUGE_DB_USER,
    password: env.DIAL_GAUGE_DB_PASSWORD,
    database: env.DIAL_GAUGE_DB_NAME,
  });
  const [[row]] = await raw.query('SELECT clinic_id, measurement_id, examiner_id FROM trial ORDER BY saved_at DESC LIMIT 1');
  const insert = () => raw.execute(INSERT, [randomUUID(), row.clinic_id, row.measurement_id, 'goniometer', 0, 107, row.examiner_id]);

  const times = { hold: [], insert: [] };
  for (let i = 0; i < ROUNDS + 20; i += 1) {
    for (const [name, work] of [
      ['hold', hold],
      ['insert', insert],
    ]) {
      const start = performance.now();
      await work();
      if (i >= 20) times[name].push(performance.now() - start);
    }
  }
  await raw.end();
  const ms = (values) => ({ p50: median(values), p95: quantile(values, 0.95) });
  const [a, b] = [ms(times.hold), ms(times.insert)];
  console.log(`save a reading over HTTP: p50 ${a.p50.toFixed(2)} ms, p95 ${a.p95.toFixed(2)} ms over ${ROUNDS}`);
  console.log(
    `raw single-row INSERT:    p50 ${b.p50.toFixed(2)} ms, p95 ${b.p95.toFixed(2)} ms; ratio p50 ${(a.p50 / b.p50).toFixed(1)}, p95 ${(a.p95 / b.p95).toFixed(1)}`,
  );
}

function client(url) {
  let cookie = '';
  return async (method, path, body) => {
    const answer = await fetch(`${url}/api${path}`, {
      method,
      headers: { 'content-type': 'application/json', cookie },
      body: body && JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
    cookie = answer.headers.getSetCookie()[0]?.split(';')[0] ?? cookie;
    return answer.json();
  };
}
