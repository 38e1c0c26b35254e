import { randomUUID } from 'node:crypto';
import { ms, newReading, newVisit, rawConnection, signedIn, words } from './lib.mjs';

const ROUNDS = 600;
/** A server that has been in use for a while, as at a clinic. */
const WARM = 2_000;
const WRITERS = [10, 50, 200];
const EACH = 20;
const INSERT =
  'INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at) VALUES (?, ?, ?, ?, ?, ?, ?, NOW(3), NOW(3))';

/** Holding a reading over HTTP, beside one bare INSERT of the same row on the same database, turn about; then by many at once. */
export async function benchSave({ server, database }) {
  const api = await signedIn(server.url);
  const { rows } = await api('GET', '/caseload');
  const visit = await newVisit(api, rows[0].episode.id);
  const hold = (into = visit) => api('POST', `/visits/${into}/readings`, newReading());
  await hold();

  const raw = await rawConnection(database);
  const [[row]] = await raw.query('SELECT clinic_id, measurement_id, examiner_id FROM trial ORDER BY saved_at DESC LIMIT 1');
  const values = () => [randomUUID(), row.clinic_id, row.measurement_id, 'goniometer', 0, 107, row.examiner_id];
  const times = { hold: [], insert: [] };
  for (let i = 0; i < ROUNDS + WARM; i += 1) {
    for (const [name, work] of [
      ['hold', () => hold()],
      ['insert', () => raw.execute(INSERT, values())],
    ]) {
      const start = performance.now();
      await work();
      if (i >= WARM) times[name].push(performance.now() - start);
    }
  }
  const [a, b] = [ms(times.hold), ms(times.insert)];
  console.log(`save a reading over HTTP: ${words(a)} over ${ROUNDS}`);
  console.log(`raw single-row INSERT:    ${words(b)}; ratio p50 ${(a.p50 / b.p50).toFixed(1)}, p95 ${(a.p95 / b.p95).toFixed(1)}`);

  for (const writers of WRITERS) {
    const visits = await Promise.all(Array.from({ length: Math.min(writers, 20) }, () => newVisit(api, rows[0].episode.id)));
    const many = await atOnce(writers, (n) => hold(visits[n % visits.length]));
    // As many connections as the program may have.
    const pool = await Promise.all(Array.from({ length: 10 }, () => rawConnection(database)));
    const bare = await atOnce(10, (n) => pool[n].execute(INSERT, values()), Math.ceil((writers * EACH) / 10));
    await Promise.all(pool.map((connection) => connection.end()));
    console.log(
      `${writers} writers: ${many.perSecond.toFixed(0)} readings a second, ${words(many)}; raw INSERTs over 10 connections ${bare.perSecond.toFixed(0)} a second, ${words(bare)}`,
    );
  }
  await raw.end();
}

/** Some at once, each doing the work again and again. */
async function atOnce(count, work, each = EACH) {
  const times = [];
  const begun = performance.now();
  await Promise.all(
    Array.from({ length: count }, async (_, n) => {
      for (let i = 0; i < each; i += 1) {
        const start = performance.now();
        await work(n);
        times.push(performance.now() - start);
      }
    }),
  );
  return { ...ms(times), perSecond: (times.length / (performance.now() - begun)) * 1000 };
}
