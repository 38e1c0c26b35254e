import { newReading, newVisit, rawConnection, signedIn } from './lib.mjs';

const TIMES = 20;
const WRITERS = 50;

/** The server and the database killed under many writers, again and again: what was acknowledged is there, once. */
export async function benchKilled({ database, serve }) {
  let [lost, doubled, acknowledged] = [0, 0, 0];
  for (let time = 0; time < TIMES; time += 1) {
    const server = await serve();
    const api = await signedIn(server.url);
    const { rows } = await api('GET', '/caseload');
    const visits = await Promise.all(Array.from({ length: 5 }, () => newVisit(api, rows[0].episode.id)));
    const held = new Set();
    let going = true;
    const writers = Array.from({ length: WRITERS }, async (_, n) => {
      for (let i = 0; going && i < 2_000; i += 1) {
        const reading = newReading({ side: n % 2 ? 'left' : 'right' });
        try {
          const { status } = await api.ask('POST', `/visits/${visits[n % visits.length]}/readings`, reading);
          if (status === 200) held.add(reading.id);
        } catch {
          return;
        }
      }
    });
    await new Promise((resolve) => setTimeout(resolve, 250 + 40 * time));
    await Promise.all([server.kill(), database.kill()]);
    going = false;
    await Promise.all(writers);
    await database.start();
    const raw = await rawConnection(database);
    const [stored] = await raw.query('SELECT t.id FROM trial t JOIN measurement m ON m.id = t.measurement_id WHERE m.visit_id IN (?)', [
      visits,
    ]);
    await raw.end();
    const there = stored.map((row) => row.id);
    lost += [...held].filter((id) => !there.includes(id)).length;
    doubled += there.length - new Set(there).size;
    acknowledged += held.size;
  }
  console.log(
    `server and database killed ${TIMES} times under ${WRITERS} writers: ${acknowledged} readings acknowledged, lost ${lost}, doubled ${doubled}`,
  );
}
