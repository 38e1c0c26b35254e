import { spawn } from 'node:child_process';
import { closeSync, openSync, readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { inRoot } from './paths.mjs';
import { Stop } from './say.mjs';

/** How long a stop may take before it is made one, in milliseconds. What was acknowledged is in the database by then. */
const LONGEST_STOP = 6_500;
const LONGEST_MIGRATION = 60_000;
/** Room for what lives as long as a request: with the usual one it is cleared away many times a second. */
const NODE = ['--enable-source-maps', '--max-semi-space-size=64'];

/** The built server as a child process on one loopback port. */
export class ServerProcess {
  constructor({ port, log, env }) {
    this.port = port;
    this.log = log;
    this.env = env;
  }

  get url() {
    return `http://127.0.0.1:${this.port}`;
  }

  /** Its exit code; null while it runs. */
  get exitCode() {
    return this.child?.exitCode;
  }

  /** Resolves once it listens: migrations done, demo seeded. */
  async start() {
    const log = openSync(this.log, 'a');
    this.child = spawn(process.execPath, [...NODE, inRoot('server/dist/main.js')], {
      env: {
        ...process.env,
        NODE_ENV: 'production',
        DIAL_GAUGE_PORT: String(this.port),
        DIAL_GAUGE_WEB_ROOT: inRoot('web/dist/web/browser'),
        ...this.env,
      },
      detached: true,
      stdio: ['ignore', log, log, 'ipc'],
    });
    closeSync(log);
    this.gone = new Promise((resolve) => this.child.once('exit', resolve));
    const ready = new Promise((resolve) => {
      this.child.on('message', (message) => {
        this.migrating = message === 'migrating';
        if (message.foundingCode) this.foundingCode = message.foundingCode;
        if (message === 'ready') resolve();
      });
    });
    await Promise.race([
      ready,
      this.gone.then(() => {
        throw new Stop(
          `The server did not start. The end of ${this.log}:\n${readFileSync(this.log, 'utf8').split('\n').slice(-12).join('\n')}`,
        );
      }),
    ]);
  }

  /** In order, and within a time; a schema that is being changed is waited for longer. */
  async stop() {
    if (this.child?.exitCode === null && this.child.signalCode === null) this.child.kill('SIGTERM');
    else return;
    const late = Symbol('late');
    const patience = this.migrating ? LONGEST_MIGRATION : LONGEST_STOP;
    if ((await Promise.race([this.gone, wait(patience, late, { ref: false })])) !== late) return;
    process.kill(this.child.pid, 'SIGKILL');
    await this.gone;
  }

  /** The hard way. For tests. */
  async kill() {
    process.kill(this.child.pid, 'SIGKILL');
    await this.gone;
  }
}
