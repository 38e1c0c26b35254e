import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { ms, rawConnection, signedIn, timed, words } from './lib.mjs';

const PATIENTS = [10, 100_000];
const VISITS = 1_000_000;
const OF_ONE = [10, 100, 1_000];

/** What is asked of a caseload: a ninth begin with "family7", and come late in the order of names; half are "stiff". */
const ASKED = [
  ['a beginning of many names, in order of names', '/caseload?find=family7&order=name'],
  ['the same by urgency', '/caseload?find=family7'],
  ['a letter that all have', '/caseload?find=f&order=name'],
  ['a word that half of them have', '/caseload?find=stiff'],
  ['a name and a word', '/caseload?find=family77%20stiff'],
  ['one person', '/caseload?find=family77123'],
  ['one’s own of them', '/caseload?find=stiff&whose=mine'],
  ['how many stand where', '/queue'],
];

/** As it is told of somebody in care. */
const STANDING = { reasons: [{ kind: 'due', since: '2026-11-01' }], urgency: 6, since: '2026-11-01', next: '2026-12-01', line: null };

/** A clinic with so many people in care, each in care once and not measured yet; its user signs in with the demo's password. */
async function addClinic(raw, name, patients) {
  const [[demo]] = await raw.query('SELECT password_hash FROM user LIMIT 1');
  const clinic = crypto.randomUUID();
  await raw.query("INSERT INTO clinic (id, name, norm_set) VALUES (?, ?, 'boone-azen-1979')", [clinic, name]);
  const email = `${name}@bench.example`;
  await raw.query("INSERT INTO user (id, clinic_id, email, name, password_hash, role) VALUES (UUID(), ?, ?, ?, ?, 'lead')", [
    clinic,
    email,
    name,
    demo.password_hash,
  ]);
  await raw.query(
    `INSERT INTO patient (id, clinic_id, given_name, family_name, birth_date, sex, occupation)
     SELECT UUID(), ?, CONCAT('Given', seq % 700), CONCAT('Family', seq), '1970-01-01', 'female', 'Potter' FROM seq_1_to_${patients}`,
    [clinic],
  );
  await raw.query(
    `INSERT INTO episode (id, clinic_id, patient_id, complaint, opened_on, sort_name, latest_at, rank_key, queue_standing, stale, stale_on)
     SELECT UUID(), clinic_id, id, IF(RAND() < 0.5, 'stiff left hip', 'knee after a fall'), '2026-01-01', CONCAT(family_name, ', ', given_name),
       '2026-01-01' + INTERVAL FLOOR(RAND() * 20000000) SECOND, CONCAT(1 + FLOOR(RAND() * 9), '2026', 1000 + FLOOR(RAND() * 228)), ?, 0, '2199-01-01'
       FROM patient WHERE clinic_id = ?`,
    [JSON.stringify(STANDING), clinic],
  );
  for (const word of [`LOWER(SUBSTRING_INDEX(sort_name, ',', 1))`, `SUBSTRING_INDEX(complaint, ' ', 1)`])
    await raw.query(
      `INSERT INTO episode_word (clinic_id, word, episode_id) SELECT clinic_id, ${word}, id FROM episode WHERE clinic_id = ?`,
      [clinic],
    );
  return { email, password: 'tide-and-table' };
}

/** Visits of other people, each with one reading: what a database holds after years. */
async function addVisits(raw, count) {
  const [[of]] = await raw.query('SELECT clinic_id, examiner_id FROM visit LIMIT 1');
  const episodes = Math.ceil(count / 10);
  await raw.query('SET foreign_key_checks = 0, unique_checks = 0');
  await raw.query(
    `INSERT INTO patient (id, clinic_id, given_name, family_name, birth_date, sex, occupation)
     SELECT CONCAT('b0000000-0000-4000-8000-', LPAD(seq, 12, '0')), ?, 'Given', 'Family', '1970-01-01', 'female', '' FROM seq_1_to_${episodes}`,
    [of.clinic_id],
  );
  await raw.query(
    `INSERT INTO episode (id, clinic_id, patient_id, complaint, opened_on, sort_name, stale, stale_on)
     SELECT CONCAT('e0000000-0000-4000-8000-', LPAD(seq, 12, '0')), ?, CONCAT('b0000000-0000-4000-8000-', LPAD(seq, 12, '0')), 'hip', '2020-01-01', 'Family, Given', 0, '2199-01-01' FROM seq_1_to_${episodes}`,
    [of.clinic_id],
  );
  const STEP = 100_000;
  for (let from = 1; from <= count; from += STEP) {
    const seq = `seq_${from}_to_${Math.min(count, from + STEP - 1)}`;
    await raw.query(
      `INSERT INTO visit (id, clinic_id, episode_id, examiner_id, assessed_on, started_at)
       SELECT CONCAT('a0000000-0000-4000-8000-', LPAD(seq, 12, '0')), ?, CONCAT('e0000000-0000-4000-8000-', LPAD(1 + FLOOR(seq / 10), 12, '0')), ?,
         '2020-01-01' + INTERVAL seq % 10 WEEK, '2020-01-01' FROM ${seq} WHERE FLOOR(seq / 10) < ${episodes}`,
      [of.clinic_id, of.examiner_id],
    );
    await raw.query(
      `INSERT INTO measurement (id, clinic_id, visit_id, motion, side, mode, position, protocol, pain_where, substitutions)
       SELECT CONCAT('c0000000-0000-4000-8000-', LPAD(seq, 12, '0')), ?, CONCAT('a0000000-0000-4000-8000-', LPAD(seq, 12, '0')), 'hip.flexion', 'left', 'passive', 'supine',
         'hip.flexion/supine@1', '', '[]' FROM ${seq}`,
      [of.clinic_id],
    );
    await raw.query(
      `INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at)
       SELECT CONCAT('d0000000-0000-4000-8000-', LPAD(seq, 12, '0')), ?, CONCAT('c0000000-0000-4000-8000-', LPAD(seq, 12, '0')), 'goniometer', 0, 100, ?, '2020-01-01', '2020-01-01' FROM ${seq}`,
      [of.clinic_id, of.examiner_id],
    );
  }
  await raw.query('SET foreign_key_checks = 1, unique_checks = 1');
}

/** One person with so many visits of 24 readings; the last visit is answered. */
async function addLongRecord(raw, visits) {
  const [[of]] = await raw.query(
    'SELECT v.clinic_id, v.examiner_id, m.visit_id, COUNT(*) AS n FROM visit v JOIN measurement m ON m.visit_id = v.id GROUP BY v.id HAVING n >= 24 ORDER BY n LIMIT 1',
  );
  const [patient, episode] = [crypto.randomUUID(), crypto.randomUUID()];
  await raw.query(
    "INSERT INTO patient (id, clinic_id, given_name, family_name, birth_date, sex, occupation) VALUES (?, ?, 'Long', 'Record', '1960-01-01', 'female', '')",
    [patient, of.clinic_id],
  );
  await raw.query(
    "INSERT INTO episode (id, clinic_id, patient_id, complaint, opened_on, sort_name, stale, stale_on) VALUES (?, ?, ?, 'hip', '2000-01-01', 'Record, Long', 0, '2199-01-01')",
    [episode, of.clinic_id, patient],
  );
  const [last] = [crypto.randomUUID()];
  for (let n = 0; n < visits; n += 1) {
    const visit = n === visits - 1 ? last : crypto.randomUUID();
    await raw.query(
      "INSERT INTO visit (id, clinic_id, episode_id, examiner_id, assessed_on, started_at) VALUES (?, ?, ?, ?, '2006-01-01' + INTERVAL ? WEEK, '2006-01-01')",
      [visit, of.clinic_id, episode, of.examiner_id, n],
    );
    await raw.query(
      `INSERT INTO measurement (id, clinic_id, visit_id, motion, side, mode, position, variant, digit, protocol, pain_where, substitutions)
       SELECT UUID(), clinic_id, ?, motion, side, mode, position, variant, digit, protocol, '', '[]' FROM measurement WHERE visit_id = ? LIMIT 24`,
      [visit, of.visit_id],
    );
    await raw.query(
      `INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at)
       SELECT UUID(), clinic_id, id, 'goniometer', 0, 20 + ROUND(RAND() * 6) + ?, ?, '2006-01-01', '2006-01-01' FROM measurement WHERE visit_id = ?`,
      [Math.min(n, 20), of.examiner_id, visit],
    );
  }
  return last;
}

/** How long what is asked takes when there is little and when there is much, and who waits meanwhile. */
export async function benchGrowth({ server, database }) {
  const raw = await rawConnection(database);
  const api = await signedIn(server.url);
  const { rows } = await api('GET', '/caseload');
  const visit = rows.find(({ lastVisit }) => lastVisit?.readings >= 24 && lastVisit.readings <= 60).lastVisit.id;
  const asked = ['', '/judgement', '/progress'];
  const askAll = async () => {
    const found = {};
    for (const path of asked) found[path] = ms(await timed(60, () => api('GET', `/visits/${visit}${path}`), 10));
    return found;
  };

  const first = await askAll();
  const pages = [];
  for (const patients of PATIENTS) {
    const own = await signedIn(server.url, await addClinic(raw, `clinic-of-${patients}`, patients));
    let bytes = 0;
    const page = ms(await timed(60, async () => (bytes = (await own('GET', '/caseload')).bytes), 10));
    const found = [];
    for (const [what, path] of ASKED) found.push(`${what} ${words(ms(await timed(30, () => own('GET', path), 5)))}`);
    pages.push({ patients, page, found, bytes });
  }
  for (const { patients, page, found, bytes } of pages)
    console.log(`caseload among ${patients} patients: first page ${words(page)}, ${(bytes / 1000).toFixed(1)} kB; ${found.join('; ')}`);
  console.log(`caseload, first page: ratio p50 ${(pages[1].page.p50 / pages[0].page.p50).toFixed(2)}`);

  const begun = performance.now();
  await addVisits(raw, VISITS);
  await raw.query('ANALYZE TABLE visit, measurement, trial, episode');
  console.log(`${VISITS} visits added in ${((performance.now() - begun) / 1000).toFixed(0)} s`);
  const then = await askAll();
  for (const path of asked)
    console.log(
      `GET /visits/…${path} among a few visits ${words(first[path])}, among ${VISITS} ${words(then[path])}: ratio p50 ${(then[path].p50 / first[path].p50).toFixed(2)}`,
    );
  console.log(`GET /clinic among ${VISITS} readings: ${words(ms(await timed(20, () => api('GET', '/clinic'), 3)))}`);

  for (const visits of OF_ONE) {
    const last = await addLongRecord(raw, visits);
    const opened = ms(await timed(20, () => api('GET', `/visits/${last}`), 3));
    const judged = ms(await timed(20, () => api('GET', `/visits/${last}/judgement`), 3));
    const long = visits > 500;
    const ask = () => api('GET', `/visits/${last}/progress`);
    const progress = ms(await timed(long ? 5 : 20, ask, long ? 3 : 30));
    const other = new Worker(new URL('./waits.mjs', import.meta.url), { workerData: { url: server.url } });
    await once(other, 'message');
    await timed(long ? 5 : 20, ask, 0);
    other.postMessage('stop');
    const [waits] = await once(other, 'message');
    console.log(
      `one person with ${visits} visits of 24: open ${words(opened)}, judgement ${words(judged)}, progress ${words(progress)}; others meanwhile ${words(ms(waits))}, worst ${Math.max(...waits).toFixed(0)} ms`,
    );
  }
  await raw.end();
}
