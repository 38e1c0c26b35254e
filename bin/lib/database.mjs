import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { madeOnce } from './made-once.mjs';
import { socketFolder } from './paths.mjs';
import { run, which } from './run.mjs';
import { Stop } from './say.mjs';

const NAME = 'dial_gauge';
const USER = 'dial_gauge';
const SCHEMA_USER = 'dial_gauge_schema';

/** Rows and not statements, each in the log before it is acknowledged; a week of them. */
const BINLOG = [
  '--log-bin=binlog',
  '--binlog-format=ROW',
  '--sync-binlog=1',
  '--server-id=1',
  '--expire-logs-days=8',
  '--log-bin-trust-function-creators=1',
];

/** A MariaDB server of our own: own folder, socket and loopback port; never the system's service. */
export class PrivateDatabase {
  /**
   * @param options.binlog whether what is written is also kept in a binary log, from which it can be done again
   * @param options.tls a folder with key.pem and cert.pem: nobody comes in over the network without encryption
   */
  constructor(folder, port, { binlog = false, tls } = {}) {
    this.tls = tls;
    this.binlog = binlog;
    this.folder = folder;
    this.port = port;
    this.data = join(folder, 'mysql');
    const sockets = socketFolder(folder);
    mkdirSync(sockets, { recursive: true, mode: 0o700 });
    this.socket = join(sockets, 'db.sock');
    this.pidFile = join(sockets, 'db.pid');
    this.log = join(folder, 'mysql.log');
    // Of its own: a MariaDB that starts clears its folder for temporary tables, also of those of others.
    this.temporary = join(folder, 'tmp');
    this.me = userInfo().username;
  }

  /** What the server's environment needs to reach it. */
  environment() {
    const { password } = this.secrets();
    return {
      DIAL_GAUGE_DB_PORT: String(this.port),
      DIAL_GAUGE_DB_USER: USER,
      DIAL_GAUGE_DB_PASSWORD: password,
      DIAL_GAUGE_DB_NAME: NAME,
      DIAL_GAUGE_DB_SCHEMA_USER: SCHEMA_USER,
      DIAL_GAUGE_DB_SCHEMA_PASSWORD: password,
      DIAL_GAUGE_KEY_FILE: this.serverKey(),
    };
  }

  /** The file of the server's own key, made once and kept beside the data. */
  serverKey() {
    const file = join(this.folder, 'server.key');
    madeOnce(file, () => `${randomBytes(32).toString('base64')}\n`);
    return file;
  }

  /** Makes the folder on the first start, starts the server, and waits until it answers. */
  async start() {
    for (const folder of [this.folder, this.temporary]) mkdirSync(folder, { recursive: true, mode: 0o700 });
    await this.stopLeftover();
    await this.install();
    await this.launch();
    const { password } = this.secrets();
    await this.sql(
      `CREATE DATABASE IF NOT EXISTS ${NAME};` +
        [USER, SCHEMA_USER]
          .map(
            (user) =>
              `CREATE USER IF NOT EXISTS '${user}'@'127.0.0.1' IDENTIFIED BY '${password}';` +
              `ALTER USER '${user}'@'127.0.0.1' IDENTIFIED BY '${password}';`,
          )
          .join('') +
        // The server's own account may come in; what it may do is granted table by table, with each change of the schema.
        `GRANT SHOW VIEW ON ${NAME}.* TO '${USER}'@'127.0.0.1';` +
        `GRANT ALL ON ${NAME}.* TO '${SCHEMA_USER}'@'127.0.0.1' WITH GRANT OPTION;`,
    );
  }

  async stop() {
    const runs = () => this.child?.exitCode === null && this.child.signalCode === null;
    if (runs()) await Promise.race([this.admin('shutdown'), wait(1_000, undefined, { ref: false })]);
    for (let i = 0; i < 25 && runs(); i += 1) await wait(100);
    // It recovers at the next start: nothing that was committed is lost.
    if (runs()) await this.kill();
  }

  /** The hard way, as a power cut would. For tests. */
  async kill() {
    const gone = new Promise((resolve) => this.child.once('exit', resolve));
    process.kill(this.child.pid, 'SIGKILL');
    await gone;
  }

  /** At once, where nobody wants the data any more. */
  async discard() {
    if (this.child?.exitCode === null && this.child.signalCode === null) await this.kill();
  }

  /** A random password, made once and kept beside the data. */
  secrets() {
    return JSON.parse(madeOnce(join(this.folder, 'secrets.json'), () => JSON.stringify({ password: randomBytes(24).toString('hex') })));
  }

  /** A server that an interrupted run left behind on this folder is asked to stop. */
  async stopLeftover() {
    if (!existsSync(this.socket) || (await this.admin('ping')).code !== 0) return;
    const pid = Number(readFileSync(this.pidFile, 'utf8'));
    await this.admin('shutdown');
    for (let i = 0; i < 300 && isAlive(pid); i += 1) await wait(100);
  }

  /** Installed aside and moved into place, so that an interrupted first start leaves nothing half made. */
  async install() {
    if (existsSync(this.data)) return;
    const part = `${this.data}.part`;
    rmSync(part, { recursive: true, force: true });
    const { code, output } = await run(
      which('mariadb-install-db'),
      [
        '--no-defaults',
        `--datadir=${part}`,
        `--user=${this.me}`,
        '--auth-root-authentication-method=socket',
        `--auth-root-socket-user=${this.me}`,
        '--skip-test-db',
      ],
      { quiet: true, env: { TMPDIR: this.temporary } },
    );
    if (code !== 0) throw new Stop(`The database folder could not be made in ${this.data}:\n${output}`);
    renameSync(part, this.data);
  }

  async launch() {
    const log = openSync(this.log, 'a');
    // A group of its own: Ctrl-C in the terminal is for the start command, which then stops things in order.
    this.child = spawn(
      which('mariadbd'),
      [
        '--no-defaults',
        `--user=${this.me}`,
        `--datadir=${this.data}`,
        `--socket=${this.socket}`,
        `--pid-file=${this.pidFile}`,
        `--tmpdir=${this.temporary}`,
        '--bind-address=127.0.0.1',
        `--port=${this.port}`,
        '--skip-name-resolve',
        '--character-set-server=utf8mb4',
        '--collation-server=utf8mb4_unicode_ci',
        '--default-time-zone=+00:00',
        '--innodb-buffer-pool-size=512M',
        // A record is read row by row: found by hash, that takes two thirds of the time.
        '--innodb-adaptive-hash-index=ON',
        ...(this.binlog ? BINLOG : []),
        ...(this.tls
          ? [`--ssl-key=${join(this.tls, 'key.pem')}`, `--ssl-cert=${join(this.tls, 'cert.pem')}`, '--require-secure-transport=ON']
          : []),
      ],
      { detached: true, stdio: ['ignore', log, log] },
    );
    closeSync(log);
    for (let i = 0; i < 600; i += 1) {
      if (this.child.exitCode !== null || this.child.signalCode !== null) {
        const tail = readFileSync(this.log, 'utf8').split('\n').slice(-8).join('\n');
        throw new Stop(`The database did not start on port ${this.port}. The end of ${this.log}:\n${tail}`);
      }
      if ((await this.admin('ping')).code === 0) return;
      await wait(100);
    }
    throw new Stop(`The database did not answer within a minute; see ${this.log}`);
  }

  admin(command) {
    return run(which('mariadb-admin'), ['--no-defaults', `--socket=${this.socket}`, `--user=${this.me}`, '--silent', command], {
      quiet: true,
    });
  }

  async sql(statements) {
    const { code, output } = await run(
      which('mariadb'),
      ['--no-defaults', `--socket=${this.socket}`, `--user=${this.me}`, '-e', statements],
      { quiet: true },
    );
    if (code !== 0) throw new Stop(`The database refused its set-up: ${output}`);
  }
}

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
