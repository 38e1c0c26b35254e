/* global document, MutationObserver, requestAnimationFrame */
import { createHash, randomBytes } from 'node:crypto';
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import WebSocket from 'ws';
import { PrivateBroker } from '../bin/lib/broker.mjs';
import { freePort } from '../bin/lib/ports.mjs';
import { say } from '../bin/lib/say.mjs';
import { ms, rawConnection, signedIn } from './lib.mjs';

/** Samples a second of one phone. */
const RATE = 30;
const SECONDS = 8;
/** Screens of one user, as many as the server lets one have, and a few less. */
const OF_USER = 12;
const hash = (secret) => createHash('sha256').update(secret).digest('hex');

/** Seconds of processor time that a process has used. */
function cpuOf({ child }) {
  const fields = readFileSync(`/proc/${child.pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

/** Visits with a paired phone each, and sessions to look at them with. */
async function addPairs(raw, count) {
  const [[of]] = await raw.query(
    'SELECT v.clinic_id, v.episode_id, v.examiner_id, u.password_hash FROM visit v JOIN user u ON u.id = v.examiner_id LIMIT 1',
  );
  const [now, later] = [new Date(), new Date(Date.now() + 3_600_000)];
  const cookies = [];
  for (let n = 0; n < Math.ceil(count / OF_USER); n += 1) {
    const [user, sid] = [crypto.randomUUID(), randomBytes(32).toString('base64url')];
    await raw.query("INSERT INTO user (id, clinic_id, email, name, password_hash, role) VALUES (?, ?, ?, ?, ?, 'examiner')", [
      ...[user, of.clinic_id, `${user}@bench.example`, 'Bench', of.password_hash],
    ]);
    await raw.query(
      'INSERT INTO session (id, user_id, credential, device, started_at, seen_at, expires_at) SELECT ?, id, SHA2(password_hash, 256), ?, ?, ?, ? FROM user WHERE id = ?',
      [hash(sid), 'bench', now, now, later, user],
    );
    cookies.push(`dial-gauge=${sid}`);
  }
  const pairs = [];
  for (let n = 0; n < count; n += 1) {
    const [visit, key] = [crypto.randomUUID(), randomBytes(32).toString('base64url')];
    await raw.query('INSERT INTO visit (id, clinic_id, episode_id, examiner_id, assessed_on, started_at) VALUES (?, ?, ?, ?, ?, ?)', [
      ...[visit, of.clinic_id, of.episode_id, of.examiner_id, now, now],
    ]);
    await raw.query(
      'INSERT INTO pairing (id, clinic_id, visit_id, code_hash, made_by, made_at, expires_at, used_at, key_hash, ends_at) VALUES (UUID(), ?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [of.clinic_id, visit, hash(key), of.examiner_id, now, now, now, hash(key), later],
    );
    pairs.push({ visit, key, cookie: cookies[Math.floor(n / OF_USER)] });
  }
  return pairs;
}

/** Runs a load, and tells what came through, how late, and what it cost whom. */
async function load(pairs, processes) {
  const child = fork(fileURLToPath(new URL('live-load.mjs', import.meta.url)));
  const hear = () => new Promise((resolve) => child.once('message', resolve));
  child.send({ pairs, rate: RATE, seconds: SECONDS });
  await hear();
  const before = processes.map(cpuOf);
  const result = await hear();
  const used = processes.map((process, n) => cpuOf(process) - before[n]);
  return { ...result, ...ms(result.took), used };
}

/** From a sample on its way to the frame in which the needle has moved. */
async function toTheNeedle(stack) {
  const api = await signedIn(stack.url);
  const raw = await rawConnection(stack.database);
  const [{ visit, key }] = await addPairs(raw, 1);
  await raw.end();
  void api;
  const browser = await chromium.launch({ executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(stack.url);
    await page.getByRole('button', { name: /^Sign in as Wren/ }).click();
    await page.locator('dg-caseload li').first().waitFor();
    await page.goto(`${stack.url}/visits/${visit}/measure`);
    await page.getByLabel(/^Reading in /).focus();
    await page.keyboard.press('d');
    await page.getByRole('button', { name: 'Read what is connected' }).click();
    await page.keyboard.press('Escape');
    const socket = new WebSocket(`${stack.url.replace('http', 'ws')}/api/live`, { headers: { origin: stack.url } });
    await new Promise((resolve) => socket.once('open', resolve));
    const asked = new Promise((resolve) =>
      socket.on('message', (data) => {
        const said = JSON.parse(data);
        if (said.k === 'asks') resolve(said.place);
      }),
    );
    socket.send(JSON.stringify({ as: 'phone', key }));
    const place = await asked;
    await page.evaluate(() => {
      globalThis.seen = [];
      const dial = document.querySelector('dg-dial');
      new MutationObserver(() => {
        const [, at] = /needle at (\d+)°/.exec(dial.querySelector('svg').getAttribute('aria-label')) ?? [];
        // The frame after the change is the one that shows it.
        if (at) requestAnimationFrame(() => globalThis.seen.push([Number(at), performance.timeOrigin + performance.now()]));
      }).observe(dial, { subtree: true, attributes: true, attributeFilter: ['aria-label'] });
    });
    const sent = new Map();
    const [from, to] = [10, 110];
    for (let n = 0; n < 300; n += 1) {
      const degrees = from + (n % (to - from));
      sent.set(n, [degrees, performance.timeOrigin + performance.now()]);
      const shows = {
        t: n / 30 + 1,
        degrees,
        held: degrees,
        peak: degrees,
        outOfPlane: 3,
        still: 1,
        way: 1,
        lost: false,
        zero: 'start',
        zeroedAt: place,
      };
      socket.send(JSON.stringify({ k: 'shows', shows }));
      await new Promise((resolve) => setTimeout(resolve, 1000 / RATE));
    }
    await page.waitForTimeout(500);
    const seen = await page.evaluate(() => globalThis.seen);
    socket.terminate();
    // In order: each needle belongs to the last sample with its figure that was sent before.
    const took = seen.flatMap(([degrees, at]) => {
      const of = [...sent.values()].filter(([was, when]) => was === degrees && when <= at).at(-1);
      return of ? [at - of[1]] : [];
    });
    return { sent: sent.size, seen: seen.length, ...ms(took) };
  } finally {
    await browser.close();
  }
}

export async function benchLive(stack) {
  const needle = await toTheNeedle(stack);
  say(
    `sample to the frame with the needle, over loopback: p50 ${needle.p50.toFixed(1)} ms, p95 ${needle.p95.toFixed(1)} ms (${needle.seen} of ${needle.sent} samples drawn by themselves)`,
  );
  const raw = await rawConnection(stack.database);
  const pairs = await addPairs(raw, 500);
  await raw.end();
  const one = await load(
    pairs.slice(0, 50).map((pair) => ({ ...pair, screenAt: stack.url, phoneAt: stack.url })),
    [stack.server],
  );
  say(
    `50 streams of ${RATE} a second on one server: ${((one.heard / one.sent) * 100).toFixed(1)} % heard, p95 ${one.p95.toFixed(1)} ms; ` +
      `${((one.used[0] / SECONDS / 50) * 100).toFixed(2)} % of a core a stream`,
  );
  const broker = new PrivateBroker(await freePort());
  await broker.start();
  try {
    const [first, second] = [await stack.serve({ DIAL_GAUGE_BUS: broker.url }), await stack.serve({ DIAL_GAUGE_BUS: broker.url })];
    // Every phone at one server, its screen at the other: all of it crosses the broker.
    const across = pairs.map((pair, n) => ({
      ...pair,
      ...(n % 2 ? { screenAt: first.url, phoneAt: second.url } : { screenAt: second.url, phoneAt: first.url }),
    }));
    for (const count of [100, 500]) {
      const many = await load(across.slice(0, count), [first, second, broker]);
      say(
        `${count} streams of ${RATE} a second over two servers and a broker: ${((many.heard / many.sent) * 100).toFixed(1)} % heard, ` +
          `${(many.sent / SECONDS).toFixed(0)} sent a second, p50 ${many.p50.toFixed(1)} ms, p95 ${many.p95.toFixed(1)} ms; cores used: ` +
          `servers ${many.used
            .slice(0, 2)
            .map((used) => (used / SECONDS).toFixed(2))
            .join(' and ')}, broker ${(many.used[2] / SECONDS).toFixed(2)}, those who speak and hear ${(many.own / SECONDS).toFixed(2)}`,
      );
    }
  } finally {
    await broker.stop();
  }
}
