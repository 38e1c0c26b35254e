import { startStack } from '../bin/lib/stack.mjs';
import { ms, newReading, newVisit, signedIn, words } from './lib.mjs';

const THERAPISTS = 200;
const SECONDS = 60;
/** A reading each so often, and a page now and then, as somebody goes through a visit. */
const READING_MS = 10_000;
const PAGE_MS = 20_000;

/** So many at once, each at an exam of their own: what each waits for a reading to be saved, and for a page. */
export async function benchTherapists({ server }) {
  const lead = await signedIn(server.url);
  const { rows } = await lead('GET', '/caseload?order=name');
  const visits = [];
  for (let n = 0; n < THERAPISTS; n += 1) visits.push(await newVisit(lead, rows[n % rows.length].episode.id));
  const pages = (visit, row) => [
    '/caseload',
    '/queue',
    `/visits/${visit}`,
    `/visits/${visit}/judgement`,
    `/patients/${row.patient.id}`,
    '/norms',
  ];
  const [readings, loads, failed] = [[], [], []];
  const end = performance.now() + SECONDS * 1_000;
  const every = async (period, offset, work) => {
    for (let at = performance.now() + offset; at < end; at += period) {
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, at - performance.now())));
      await work().catch((error) => failed.push(error.message));
    }
  };
  const took = async (into, ask) => {
    const began = performance.now();
    await ask();
    into.push(performance.now() - began);
  };
  await Promise.all(
    visits.flatMap((visit, n) => {
      const list = pages(visit, rows[n % rows.length]);
      let page = n;
      return [
        every(READING_MS, (n / THERAPISTS) * READING_MS, () =>
          took(readings, () => lead('POST', `/visits/${visit}/readings`, newReading({ side: n % 2 ? 'left' : 'right' }))),
        ),
        every(PAGE_MS, (n / THERAPISTS) * PAGE_MS, () => took(loads, () => lead('GET', list[(page += 1) % list.length]))),
      ];
    }),
  );
  console.log(
    `${THERAPISTS} therapists at once for ${SECONDS} s, a reading every ${READING_MS / 1000} s and a page every ${PAGE_MS / 1000} s each: ` +
      `${readings.length} readings saved, ${words(ms(readings))}, worst ${ms(readings).worst.toFixed(0)} ms; ${loads.length} pages, ${words(ms(loads))}, worst ${ms(loads).worst.toFixed(0)} ms; failed ${failed.length}${failed.length ? ` (${failed[0]})` : ''}`,
  );
}

if (process.argv[1]?.endsWith('therapists.mjs')) {
  const stack = await startStack();
  await benchTherapists(stack).finally(() => stack.stop());
  process.exit(0);
}
