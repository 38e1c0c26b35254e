import { Agent, request } from 'node:http';
import { createConnection } from 'mysql2/promise';
import { median, quantile } from 'simple-statistics';

export const DEMO = { email: 'wren@saltmarsh.example', password: 'tide-and-table' };

export const ms = (values) => ({ p50: median(values), p95: quantile(values, 0.95), worst: Math.max(...values) });
export const words = ({ p50, p95 }) => `p50 ${p50.toFixed(2)} ms, p95 ${p95.toFixed(2)} ms`;

/** A connection beside the program, as the bench sets its stage and counts. */
export function rawConnection(database) {
  const env = database.environment();
  return createConnection({
    host: '127.0.0.1',
    port: Number(env.DIAL_GAUGE_DB_PORT),
    user: env.DIAL_GAUGE_DB_SCHEMA_USER,
    password: env.DIAL_GAUGE_DB_PASSWORD,
    database: env.DIAL_GAUGE_DB_NAME,
  });
}

/** Connections that stay open, as a browser's do. */
const agent = new Agent({ keepAlive: true, maxSockets: 256 });

function send(url, method, headers, body) {
  return new Promise((resolve, reject) => {
    const sent = request(url, { method, headers, agent }, (answer) => {
      let text = '';
      answer.setEncoding('utf8');
      answer.on('data', (chunk) => (text += chunk));
      answer.on('end', () => resolve({ status: answer.statusCode, text, cookies: answer.headers['set-cookie'] ?? [] }));
      answer.on('error', reject);
    });
    sent.on('error', reject);
    sent.end(body);
  });
}

/** Talks to the API with a session; answers the body, and its size. */
export async function signedIn(url, who = DEMO) {
  let cookie = '';
  const ask = async (method, path, body, { plain = false } = {}) => {
    const { status, text, cookies } = await send(
      `${url}/api${path}`,
      method,
      { cookie, ...(body ? { 'content-type': 'application/json' } : {}) },
      body && JSON.stringify(body),
    );
    cookie = cookies[0]?.split(';')[0] ?? cookie;
    return { status, text, body: text && !plain ? JSON.parse(text) : null };
  };
  const api = async (method, path, body) => {
    const { status, text, body: answer } = await ask(method, path, body);
    if (status !== 200) throw new Error(`${method} ${path}: ${status} ${text.slice(0, 300)}`);
    return Object.defineProperty(answer, 'bytes', { value: Buffer.byteLength(text), enumerable: false });
  };
  await api('POST', '/session', who);
  return Object.assign(api, { ask, cookie: () => cookie });
}

/** Times of some work, done one after another. */
export async function timed(rounds, work, warm = 3) {
  const times = [];
  for (let i = 0; i < rounds + warm; i += 1) {
    const start = performance.now();
    await work(i);
    if (i >= warm) times.push(performance.now() - start);
  }
  return times;
}

export const newReading = (over = {}) => ({
  id: crypto.randomUUID(),
  motion: 'hip.flexion',
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  end: 107,
  heldAt: new Date().toISOString(),
  ...over,
});

export async function newVisit(api, episodeId) {
  const id = crypto.randomUUID();
  await api('POST', `/episodes/${episodeId}/visits`, { id, assessedOn: new Date().toISOString().slice(0, 10) });
  return id;
}
