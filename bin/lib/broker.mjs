import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { run } from './run.mjs';
import { Stop } from './say.mjs';

/**
 * A broker of our own on a loopback port, for several servers that share live
 * instruments. The server program comes with Debian's redis-tools under another
 * name, so that nothing has to be installed that runs by itself.
 */
export class PrivateBroker {
  /** @param options.tls a folder with key.pem and cert.pem: nobody comes in without encryption */
  constructor(port, { tls } = {}) {
    this.port = port;
    this.tls = tls;
  }

  get url() {
    return `redis${this.tls ? 's' : ''}://127.0.0.1:${this.port}`;
  }

  async start() {
    const cert = this.tls && join(this.tls, 'cert.pem');
    const at = cert
      ? ['--port', '0', '--tls-port', String(this.port), '--tls-cert-file', cert, '--tls-key-file', join(this.tls, 'key.pem')]
      : ['--port', String(this.port)];
    const settings = [...at, '--tls-auth-clients', 'no', '--bind', '127.0.0.1', '--save', '', '--daemonize', 'no'];
    const asked = ['-h', '127.0.0.1', '-p', String(this.port), ...(cert ? ['--tls', '--cacert', cert] : []), 'ping'];
    this.child = spawn('redis-check-rdb', settings, { argv0: 'redis-server', stdio: 'ignore' });
    this.gone = new Promise((resolve) => this.child.once('exit', resolve));
    for (let i = 0; i < 100; i += 1) {
      const { code, output } = await run('redis-cli', asked, { quiet: true });
      if (code === 0 && output.includes('PONG')) return;
      await wait(50);
    }
    await this.stop();
    throw new Stop(`The broker did not start on port ${this.port}.`);
  }

  async stop() {
    if (this.child?.exitCode === null && this.child.signalCode === null) {
      this.child.kill('SIGTERM');
      await this.gone;
    }
  }
}
