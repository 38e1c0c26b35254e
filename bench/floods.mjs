import { readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { startStack } from '../bin/lib/stack.mjs';
import { DEMO, ms, newReading, newVisit, signedIn, words } from './lib.mjs';

const WRITERS = 50;
const READINGS = 20;
const REFUSALS = 200;
const GUEST_REQUESTS = 30;
const JUDGEMENTS = 40;

const post = (url, path, body) =>
  fetch(`${url}/api${path}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

async function took(into, work) {
  const began = performance.now();
  await work();
  into.push(performance.now() - began);
}

/** So many write at once, each at a visit of their own: what each waits for a reading to be saved. */
async function writing(lead, visits) {
  const times = [];
  await Promise.all(
    visits.map(async (visit) => {
      for (let n = 0; n < READINGS; n += 1) await took(times, () => lead('POST', `/visits/${visit}/readings`, newReading()));
    }),
  );
  return times;
}

/** Wrong passwords, so many at once, again and again until the others are done. */
async function refusals(url, isDone) {
  const counts = {};
  for (let wave = 0; wave < 200 && !isDone(); wave += 1)
    await Promise.all(
      Array.from({ length: REFUSALS }, async (_, n) => {
        const answer = await post(url, '/session', { email: n % 2 ? DEMO.email : `nobody${n}@clinic.example`, password: 'wrong' });
        await answer.text();
        counts[answer.status] = (counts[answer.status] ?? 0) + 1;
      }),
    );
  return counts;
}

async function besideRefusals(lead, url, visits) {
  await writing(lead, visits);
  const alone = ms(await writing(lead, visits));
  let done = false;
  const flood = refusals(url, () => done);
  const beside = ms(await writing(lead, visits).finally(() => (done = true)));
  const counts = await flood;
  const faults = Object.entries(counts).reduce((sum, [status, count]) => sum + (Number(status) >= 500 ? count : 0), 0);
  console.log(
    `${WRITERS} who write at once, alone: ${words(alone)}; beside ${REFUSALS} wrong sign-ins at once, again and again: ${words(beside)}, ` +
      `ratio of p95 ${(beside.p95 / alone.p95).toFixed(2)}; answers to the wrong ones ${JSON.stringify(counts)}, 5xx ${faults}`,
  );
}

async function besideOneGuest(lead, url, episode, visit) {
  const page = await lead('POST', `/episodes/${episode}/patient-pages`, { id: crypto.randomUUID(), days: 14 });
  const { key } = await (await post(url, '/own-page/opening', { token: page.token, code: page.code })).json();
  let done = false;
  const counts = {};
  const flood = (async () => {
    for (let wave = 0; wave < 400 && !done; wave += 1)
      await Promise.all(
        Array.from({ length: GUEST_REQUESTS }, async () => {
          const answer = await post(url, '/own-page', { key, locale: 'en-GB' });
          await answer.text();
          counts[answer.status] = (counts[answer.status] ?? 0) + 1;
        }),
      );
  })();
  const times = [];
  for (let n = 0; n < JUDGEMENTS; n += 1) {
    await took(times, () => lead('GET', `/visits/${visit}/judgement`));
    await wait(50);
  }
  done = true;
  await flood;
  console.log(
    `a judgement beside one patient page that asks ${GUEST_REQUESTS} times at once: ${words(ms(times))}, worst ${ms(times).worst.toFixed(0)} ms; answers to the page ${JSON.stringify(counts)}`,
  );
}

const memoryOf = (pid) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1000;

/** Readings, pages, judgements, progress, wrong sign-ins and patient pages together, for minutes: does memory come back? */
async function mixedLoad(lead, { url, child }, visits, seconds) {
  const start = memoryOf(child.pid);
  const end = performance.now() + seconds * 1_000;
  const failed = [];
  let done = 0;
  const again = async (work, pause) => {
    while (performance.now() < end) {
      await work().then(
        () => (done += 1),
        (error) => failed.push(error.message),
      );
      await wait(pause);
    }
  };
  await Promise.all([
    ...visits.slice(0, 20).map((visit) => again(() => lead('POST', `/visits/${visit}/readings`, newReading()), 500)),
    ...visits.slice(0, 4).map((visit) => again(() => lead('GET', `/visits/${visit}/judgement`), 300)),
    ...visits.slice(0, 2).map((visit) => again(() => lead('GET', `/visits/${visit}/progress`), 300)),
    again(() => lead('GET', '/caseload'), 200),
    again(async () => (await post(url, '/session', { email: 'nobody@clinic.example', password: 'wrong' })).text(), 100),
  ]);
  const atEnd = memoryOf(child.pid);
  await wait(30_000);
  console.log(
    `${seconds} s of mixed load, ${done} requests, failed ${failed.length}${failed.length ? ` (${failed[0]})` : ''}: memory ${start.toFixed(0)} MB at the start, ` +
      `${atEnd.toFixed(0)} MB at the end, ${memoryOf(child.pid).toFixed(0)} MB after 30 s of rest`,
  );
}

/** What others do to the server beside those who work. */
export async function benchFloods({ server }, seconds = 300) {
  const lead = await signedIn(server.url);
  const first = performance.now();
  const { rows } = await lead('GET', '/caseload?order=name');
  const judged = rows.find(({ lastVisit }) => lastVisit) ?? rows[0];
  const began = performance.now();
  await lead('GET', `/visits/${judged.lastVisit.id}/judgement`);
  console.log(
    `the first judgement after a start, ${Math.round(began - first)} ms after signing in: ${Math.round(performance.now() - began)} ms`,
  );
  const visits = [];
  for (let n = 0; n < WRITERS; n += 1) visits.push(await newVisit(lead, rows[n % rows.length].episode.id));
  await besideRefusals(lead, server.url, visits);
  await besideOneGuest(lead, server.url, judged.episode.id, judged.lastVisit.id);
  await mixedLoad(lead, server, visits, seconds);
}

if (process.argv[1]?.endsWith('floods.mjs')) {
  const stack = await startStack();
  await benchFloods(stack, Number(process.argv[2] ?? 300)).finally(() => stack.stop());
  process.exit(0);
}
