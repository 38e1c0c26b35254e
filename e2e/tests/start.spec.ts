import { spawn, type ChildProcess } from 'node:child_process';
import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { freePort } from '../../bin/lib/ports.mjs';
import { client } from '../client';
import { DEMO } from '../fixtures';

const ROOT = join(import.meta.dirname, '../..');

/** `npm start`, with a data folder and ports of its own. */
class Start {
  output = '';
  private readonly child: ChildProcess;
  private readonly ended: Promise<number | null>;

  constructor(
    private readonly data: string,
    port: number,
    dbPort: number,
    { npm = false, args = [] as string[] } = {},
  ) {
    const env = { ...process.env, DIAL_GAUGE_DATA: data, DIAL_GAUGE_PORT: String(port), DIAL_GAUGE_DB_PORT: String(dbPort) };
    const [command, ...rest] = npm ? ['npm', 'start', '--silent'] : [process.execPath, 'bin/start.mjs', ...args];
    this.child = spawn(command!, rest, { cwd: ROOT, env });
    for (const stream of [this.child.stdout, this.child.stderr]) stream?.on('data', (chunk) => (this.output += String(chunk)));
    this.ended = new Promise((resolve) => this.child.once('exit', resolve));
  }

  async ready(): Promise<void> {
    await Promise.race([expect.poll(() => this.output).toContain('Dial Gauge is ready'), this.ended]);
    expect(this.output).toContain('Dial Gauge is ready');
  }

  /** Ctrl-C. */
  interrupt(): Promise<number | null> {
    this.child.kill('SIGINT');
    return this.ended;
  }

  /** Cut off without a chance to tidy up. */
  kill(): Promise<number | null> {
    this.child.kill('SIGKILL');
    return this.ended;
  }

  /** Any signal, to the command alone. */
  signal(name: NodeJS.Signals): Promise<number | null> {
    this.child.kill(name);
    return this.ended;
  }

  end(): Promise<number | null> {
    return this.ended;
  }

  /** Processes of this start that are still there, by what they were started with. */
  async leftRunning(): Promise<string[]> {
    return (await this.processes()).map(({ line }) => line);
  }

  async processes(): Promise<{ readonly pid: number; readonly line: string }[]> {
    const pids = (await readdir('/proc')).filter((name) => /^\d+$/.test(name));
    const lines = await Promise.all(
      pids.map(async (pid) => {
        const [line, environment] = await Promise.all(
          ['cmdline', 'environ'].map((file) => readFile(`/proc/${pid}/${file}`, 'utf8').catch(() => '')),
        );
        const isOurs = line!.includes(this.data) || environment!.includes(`DIAL_GAUGE_DATA=${this.data}`);
        return { pid: Number(pid), line: isOurs ? line!.replaceAll('\0', ' ') : '' };
      }),
    );
    return lines.filter(({ line }) => line !== '');
  }
}

test.describe('the start command', () => {
  let data: string;
  let port: number;
  let dbPort: number;
  const url = () => `http://127.0.0.1:${port}`;
  const start = (how: { npm?: boolean; args?: string[] } = {}) => new Start(data, port, dbPort, how);

  test.beforeEach(async () => {
    data = await mkdtemp(join(tmpdir(), 'dial-gauge-start-'));
    [port, dbPort] = [await freePort(), await freePort()];
  });
  test.afterEach(() => rm(data, { recursive: true, force: true }));

  test('starts, stops cleanly, keeps the readings at the second start, and forgets them on a reset', async () => {
    const first = start();
    await first.ready();
    expect(first.output).toContain(`${url()}\n  e-mail    ${DEMO.email}`);
    const api = await client(url());
    const { rows } = await api('/caseload?order=latest');
    const [row] = rows;
    const visits = (all: { visits: number }[]) => all.map((r) => r.visits);
    expect(visits(rows)[0]).toBe(8);
    const visit = crypto.randomUUID();
    await api(`/episodes/${row.episode.id}/visits`, { id: visit, assessedOn: new Date().toISOString().slice(0, 10) });
    const way = { motion: 'hip.flexion', side: 'left', mode: 'active', position: 'supine', instrument: 'goniometer' };
    await api(`/visits/${visit}/readings`, { id: crypto.randomUUID(), ...way, end: 99, heldAt: new Date().toISOString() });
    expect(await first.interrupt()).toBe(0);
    expect(first.output).toContain('Stopped.');

    const second = start();
    await second.ready();
    const record = await (await client(url()))(`/visits/${visit}`);
    expect(record.measurements[0].trials[0].end).toBe(99);
    await second.interrupt();

    const reset = start({ args: ['--reset'] });
    await reset.ready();
    const { rows: fresh } = await (await client(url()))('/caseload?order=latest');
    expect(visits(fresh)).toEqual(visits(rows));
    await reset.interrupt();
  });

  test('starts a server again that ended by itself, and leaves the database running', async () => {
    const run = start();
    await run.ready();
    const pidOf = async (part: string) => (await run.processes()).find(({ line }) => line.includes(part))?.pid;
    const [server, database] = [await pidOf('server/dist/main.js'), await pidOf('mariadbd')];
    process.kill(server!, 'SIGKILL');
    await expect.poll(() => run.output).toContain('Starting it again');
    await expect
      .poll(() =>
        fetch(`${url()}/readyz`).then(
          ({ status }) => status,
          () => 0,
        ),
      )
      .toBe(200);
    expect(await pidOf('server/dist/main.js')).not.toBe(server);
    expect(await pidOf('mariadbd')).toBe(database);
    expect((await (await client(url()))('/caseload?order=latest')).rows.length).toBe(8);
    expect(await run.interrupt()).toBe(0);
  });

  test('says so when its port is taken', async () => {
    const squatter = createServer().listen(port, '127.0.0.1');
    const refused = start();
    expect(await refused.end()).toBe(1);
    expect(refused.output).toContain(`Port ${port} on 127.0.0.1 is taken`);
    expect(refused.output).toContain('DIAL_GAUGE_PORT=');
    squatter.close();
  });

  test('recovers from a first start that was cut off', async () => {
    // Half an installation, as a power cut leaves it.
    await mkdir(join(data, 'demo/mysql.part'), { recursive: true });
    await writeFile(join(data, 'demo/mysql.part/ibdata1'), 'half');
    const cut = start();
    await expect.poll(() => cut.output).toContain('Starting the server');
    await cut.kill();
    const again = start();
    await again.ready();
    expect((await (await client(url()))('/caseload?order=latest')).rows.length).toBe(8);
    expect(await again.interrupt()).toBe(0);
  });

  test('recovers from first starts that were cut off at any moment of making the schema', async () => {
    // One folder, killed again and again, a little later each time.
    for (const after of [0, 120, 240, 400, 600, 900]) {
      const cut = start();
      await expect.poll(() => cut.output).toContain('Starting the server');
      await new Promise((resolve) => setTimeout(resolve, 300 + after));
      await cut.kill();
    }
    const last = start();
    await last.ready();
    expect((await (await client(url()))('/caseload?order=latest')).rows.length).toBe(8);
    expect(await last.interrupt()).toBe(0);
  });

  test('ends although it is busy, however it is asked to, and leaves nothing running', async () => {
    for (const [how, signal] of [
      [{}, 'SIGINT'],
      [{}, 'SIGHUP'],
      [{ npm: true }, 'SIGTERM'],
      [{ npm: true }, 'SIGKILL'],
    ] as const) {
      const run = start(how);
      await run.ready();
      const api = await client(url());
      const [row] = (await api('/caseload?order=latest')).rows;
      // Held open: requests that do not come to an end by themselves, and others on the way.
      const open = Array.from({ length: 20 }, () => connect(port, '127.0.0.1'));
      for (const socket of open) {
        socket.on('error', () => {});
        socket.write('POST /api/session HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 90\r\n\r\n{');
      }
      const busy = Array.from({ length: 12 }, () => api(`/visits/${row.lastVisit.id}/progress`).catch(() => {}));
      await run.signal(signal);
      await expect.poll(() => run.leftRunning(), { message: `${signal}${'npm' in how ? ' to npm' : ''}` }).toEqual([]);
      await Promise.all(busy);
      for (const socket of open) socket.destroy();
    }
  });
});
