import { readFileSync } from 'node:fs';
import { startStack } from '../bin/lib/stack.mjs';
import { ms, rawConnection, signedIn, timed, words } from './lib.mjs';

const TRIALS = Number(process.env.TRIALS ?? 1_000_000);
const [OF_A_VISIT, PEOPLE_PER_VISIT] = [24, 4];
const STEP = 20_000;

const idOf = (letter, seq) => `CONCAT('${letter}0000000-0000-4000-8000-', LPAD(${seq}, 12, '0'))`;
const MOTIONS = ['knee.flexion', 'knee.extension', 'hip.flexion', 'hip.abduction', 'hip.internalRotation', 'hip.externalRotation'];

/** Visits of many people, each of both sides, active and passive, of six motions: so many readings in all. */
async function fill(raw) {
  const [[of]] = await raw.query('SELECT clinic_id, examiner_id FROM visit LIMIT 1');
  const visits = Math.ceil(TRIALS / OF_A_VISIT);
  const people = Math.ceil(visits / PEOPLE_PER_VISIT);
  await raw.query('SET foreign_key_checks = 0, unique_checks = 0');
  await raw.query(
    `INSERT INTO patient (id, clinic_id, given_name, family_name, birth_date, sex, occupation)
     SELECT ${idOf('b', 'seq')}, ?, 'Given', 'Family', '1930-01-01' + INTERVAL seq % 26000 DAY, IF(seq % 2, 'female', 'male'), '' FROM seq_0_to_${people}`,
    [of.clinic_id],
  );
  await raw.query(
    `INSERT INTO episode (id, clinic_id, patient_id, complaint, involved_side, opened_on, ended_on, procedure_id, procedure_on, sort_name, stale, stale_on)
     SELECT ${idOf('e', 'seq')}, ?, ${idOf('b', 'seq')}, 'knee', IF(seq % 2, 'left', 'right'), '2020-01-01', '2021-01-01', 'knee-replacement', '2020-01-01', 'Family, Given', 0, '2199-01-01' FROM seq_0_to_${people}`,
    [of.clinic_id],
  );
  for (let from = 0; from < visits; from += STEP) {
    const seq = `seq_${from}_to_${Math.min(visits, from + STEP) - 1}`;
    await raw.query(
      `INSERT INTO visit (id, clinic_id, episode_id, examiner_id, assessed_on, started_at)
       SELECT ${idOf('a', 'seq')}, ?, ${idOf('e', `FLOOR(seq / ${PEOPLE_PER_VISIT})`)}, ?, '2020-01-15' + INTERVAL seq % ${PEOPLE_PER_VISIT} * 2 WEEK, '2020-01-15' FROM ${seq}`,
      [of.clinic_id, of.examiner_id],
    );
    const way = `w.seq % 6`;
    await raw.query(
      `INSERT INTO measurement (id, clinic_id, visit_id, motion, side, mode, position, protocol, pain_where, substitutions)
       SELECT ${idOf('c', `s.seq * ${OF_A_VISIT} + w.seq`)}, ?, ${idOf('a', 's.seq')}, ELT(1 + ${way}, ${MOTIONS.map((m) => `'${m}'`).join(',')}), IF(w.seq < 12, 'left', 'right'),
         IF(w.seq % 12 < 6, 'active', 'passive'), 'supine', 'x@1', '', '[]' FROM ${seq} s JOIN seq_0_to_${OF_A_VISIT - 1} w`,
      [of.clinic_id],
    );
    await raw.query(
      `INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at)
       SELECT ${idOf('d', `s.seq * ${OF_A_VISIT} + w.seq`)}, ?, ${idOf('c', `s.seq * ${OF_A_VISIT} + w.seq`)}, 'goniometer', 0, 90 + FLOOR(RAND() * 40), ?, '2020-01-15', '2020-01-15'
       FROM ${seq} s JOIN seq_0_to_${OF_A_VISIT - 1} w`,
      [of.clinic_id, of.examiner_id],
    );
  }
  await raw.query('SET foreign_key_checks = 1, unique_checks = 1');
  return visits * OF_A_VISIT;
}

const residentMB = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1_000;

/** The clinic's own people counted over many readings: how long, in how much memory, and who waits meanwhile. */
export async function benchCohort({ server, database }) {
  const raw = await rawConnection(database);
  const api = await signedIn(server.url);
  // What is counted by itself at the start is done.
  for (let counting = true; counting;) {
    counting = (await api('GET', '/cohort')).counting !== null;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  const filled = performance.now();
  const trials = await fill(raw);
  const { rows } = await api('GET', '/caseload?order=latest');
  const ask = () => api('GET', `/visits/${rows[0].lastVisit.id}`);
  const before = ms(await timed(50, ask));
  const began = performance.now();
  await api('POST', '/cohort/counts', { id: crypto.randomUUID() });
  const memory = [];
  const waits = [];
  for (let view; ;) {
    view = await api('GET', '/cohort');
    if (view.counting === null) break;
    memory.push(residentMB(server.child.pid));
    waits.push(...(await timed(5, ask, 0)));
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  const { counted, norms, outcomes } = await api('GET', '/cohort');
  const third = Math.ceil(memory.length / 3);
  const most = (values) => Math.max(...values).toFixed(0);
  console.log(
    `own people over ${trials} readings (filled in ${((began - filled) / 1000).toFixed(0)} s): counted in ${((performance.now() - began) / 1000).toFixed(0)} s, ${counted.visits} visits, ` +
      `${norms.length} ways told, ${outcomes.length} outcomes; memory of the server at most ${most(memory.slice(0, third))} MB in the first third, ${most(memory.slice(-third))} MB in the last; ` +
      `a visit opened meanwhile ${words(ms(waits))}, worst ${ms(waits).worst.toFixed(0)} ms (before ${words(before)})`,
  );
  await raw.end();
}

if (process.argv[1]?.endsWith('cohort.mjs')) {
  const stack = await startStack();
  await benchCohort(stack).finally(() => stack.stop());
  process.exit(0);
}
