import { X509Certificate } from 'node:crypto';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { createServer, get } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readSettings } from '../settings.js';
import { tlsOf } from './tls.js';

describe('a certificate of our own', () => {
  let folder: string;
  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'dial-gauge-tls-'));
  });
  afterEach(() => rm(folder, { recursive: true, force: true }));
  const own = () => tlsOf({ how: 'self-signed', folder: join(folder, 'tls') }, '127.0.0.1');

  it('is made once, for every name and address of this machine, with a key that nobody else reads', async () => {
    const made = (await own())!;
    const { subjectAltName = '', validTo } = new X509Certificate(made.cert);
    expect(subjectAltName).toContain('DNS:localhost');
    expect(subjectAltName).toContain('IP Address:127.0.0.1');
    expect(Date.parse(validTo)).toBeGreaterThan(Date.now() + 300 * 86_400_000);
    expect((await stat(join(folder, 'tls', 'key.pem'))).mode & 0o077).toBe(0);
    expect(await own()).toEqual(made);
    // What somebody else gave is taken as it is.
    expect(await tlsOf({ how: 'files', folder: join(folder, 'tls') }, '127.0.0.1')).toEqual(made);
    expect(await tlsOf(null, '127.0.0.1')).toBeNull();
  });

  it('serves: whoever trusts it connects, and nobody else', async () => {
    const made = (await own())!;
    const server = createServer(made, (_request, response) => response.end('served'));
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    const ask = (ca?: string) =>
      new Promise<string>((resolve, reject) => {
        get({ host: '127.0.0.1', port, ca }, (answer) => answer.on('data', (data: Buffer) => resolve(String(data)))).on('error', reject);
      });
    expect(await ask(made.cert)).toBe('served');
    await expectAsync(ask()).toBeRejectedWithError(/self-signed/);
    server.close();
  });

  it('is asked for by a setting, which makes the cookie travel encrypted only', () => {
    const given = {
      DIAL_GAUGE_PORT: '1',
      DIAL_GAUGE_DB_PORT: '2',
      DIAL_GAUGE_DB_USER: 'u',
      DIAL_GAUGE_DB_PASSWORD: 'p',
      DIAL_GAUGE_DB_NAME: 'n',
    };
    expect(readSettings(given).tls).toBeNull();
    const { tls, session } = readSettings({ ...given, DIAL_GAUGE_TLS: 'self-signed', DIAL_GAUGE_TLS_FOLDER: folder });
    expect([tls, session.secure]).toEqual([{ how: 'self-signed', folder }, true]);
    expect(() => readSettings({ ...given, DIAL_GAUGE_TLS: 'files' })).toThrowError(/DIAL_GAUGE_TLS_FOLDER is empty; allowed/);
  });
});
