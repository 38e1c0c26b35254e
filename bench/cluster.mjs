import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { Cluster } from '../bin/lib/cluster.mjs';
import { freePort } from '../bin/lib/ports.mjs';
import { ServerProcess } from '../bin/lib/server.mjs';
import { newReading, newVisit, signedIn } from './lib.mjs';

const WRITERS = 50;
const BEFORE_MS = 3_000;
const AFTER_MS = 9_000;
const GONE_MS = 2_000;

/** One of two servers with its node of the database: whoever is refused or cut off by one goes to the other, as through a balancer. */
async function hold(apis, first, visit, reading, slowest) {
  const began = performance.now();
  for (let tries = 0; performance.now() - began < 60_000; tries += 1) {
    const api = apis[(first + tries) % apis.length];
    const answer = await Promise.race([
      api.ask('POST', `/visits/${visit}/readings`, reading).catch(() => ({ status: 0 })),
      new Promise((resolve) => setTimeout(() => resolve({ status: 0 }), 15_000)),
    ]);
    if (answer.status === 200) {
      slowest.ms = Math.max(slowest.ms, performance.now() - began);
      return true;
    }
    if (answer.status !== 0 && answer.status < 500) throw new Error(`${answer.status} ${answer.text}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return false;
}

/** A node killed among many writers, each with a reading on its way: what was acknowledged is on the others, once, and on the node when it is back. */
export async function benchCluster() {
  const cluster = await Cluster.start();
  const servers = [];
  const apis = [];
  try {
    for (const node of cluster.nodes.slice(0, 2)) {
      const server = new ServerProcess({
        port: await freePort(),
        log: join(cluster.folder, `server-${node.n}.log`),
        env: { ...cluster.environment(node), DIAL_GAUGE_DEMO: 'yes', DIAL_GAUGE_LOG: 'warn' },
      });
      servers.push(server);
      // The lock of the schema is local to a node: one server first.
      await server.start();
      apis.push(await signedIn(server.url));
    }
    const { rows } = await apis[0]('GET', '/caseload?order=latest');
    const visits = [];
    for (let n = 0; n < 10; n += 1) visits.push(await newVisit(apis[n % 2], rows[n % rows.length].episode.id));
    const held = new Set();
    const slowest = { ms: 0 };
    let [going, unsure] = [true, 0];
    const writers = Array.from({ length: WRITERS }, async (_, n) => {
      while (going) {
        const reading = newReading({ side: n % 2 ? 'left' : 'right' });
        if (await hold(apis, n % 2, visits[n % visits.length], reading, slowest)) held.add(reading.id);
        else unsure += 1;
      }
    });
    await new Promise((resolve) => setTimeout(resolve, BEFORE_MS));
    const before = { held: held.size, ms: slowest.ms };
    await cluster.kill(cluster.nodes[1]);
    await new Promise((resolve) => setTimeout(resolve, AFTER_MS));
    const after = held.size;
    going = false;
    await Promise.all(writers);
    const began = performance.now();
    await cluster.rejoin(cluster.nodes[1]);
    const rejoined = performance.now() - began;
    await new Promise((resolve) => setTimeout(resolve, GONE_MS));
    const found = [];
    for (const node of cluster.nodes) {
      const env = cluster.environment(node);
      const raw = await createConnection({
        host: '127.0.0.1',
        port: node.port,
        user: env.DIAL_GAUGE_DB_USER,
        password: env.DIAL_GAUGE_DB_PASSWORD,
        database: env.DIAL_GAUGE_DB_NAME,
      });
      const [stored] = await raw.query('SELECT t.id FROM trial t JOIN measurement m ON m.id = t.measurement_id WHERE m.visit_id IN (?)', [
        visits,
      ]);
      await raw.end();
      const there = new Set(stored.map(({ id }) => id));
      found.push({
        lost: [...held].filter((id) => !there.has(id)).length,
        doubled: stored.length - there.size,
        more: [...there].filter((id) => !held.has(id)).length,
      });
    }
    const lost = found.map((node) => node.lost);
    const doubled = found.map((node) => node.doubled);
    console.log(
      `three nodes, two servers, ${WRITERS} writers, one node killed: ${held.size} readings acknowledged (${before.held} before, ${after - before.held} in the ${AFTER_MS / 1000} s after), ` +
        `lost on any node ${lost.join('/')}, doubled ${doubled.join('/')}, there without an answer ${found[0].more}; ` +
        `longest wait ${before.ms.toFixed(0)} ms before, ${(slowest.ms / 1000).toFixed(1)} s over the kill; back in after ${(rejoined / 1000).toFixed(1)} s; given up ${unsure}`,
    );
  } finally {
    for (const server of servers) await server.stop();
    await cluster.stop();
  }
}
if (process.argv[1]?.endsWith('cluster.mjs')) await benchCluster().then(() => process.exit(0));
