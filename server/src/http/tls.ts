import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
export interface TlsSettings {
  readonly how: 'self-signed' | 'files';
  readonly folder: string;
}

export interface Certificate {
  readonly key: string;
  readonly cert: string;
}

const YEAR = 365 * 86_400_000;

/** Key and certificate: those that lie in a folder, or a pair of our own that is made once and kept there. */
export async function tlsOf(settings: TlsSettings | null, host: string): Promise<Certificate | null> {
  if (!settings) return null;
  const [keyFile, certFile] = [join(settings.folder, 'key.pem'), join(settings.folder, 'cert.pem')];
  if (settings.how === 'self-signed' && !(existsSync(keyFile) && existsSync(certFile))) {
    const { private: key, cert } = await ownCertificate(host);
    mkdirSync(settings.folder, { recursive: true, mode: 0o700 });
    writeFileSync(keyFile, key, { mode: 0o600 });
    writeFileSync(certFile, cert);
  }
  return { key: readFileSync(keyFile, 'utf8'), cert: readFileSync(certFile, 'utf8') };
}

/** For this machine under every name and address it has: a phone warns once, and then trusts it. */
function ownCertificate(host: string) {
  const addresses = Object.values(networkInterfaces()).flatMap((all) => all?.map(({ address }) => address.split('%')[0]!) ?? []);
  const named = /^[\d.:]+$/.test(host) ? [] : [{ type: 2 as const, value: host }];
  return generate([{ name: 'commonName', value: 'Dial Gauge' }], {
    keySize: 2048,
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + YEAR),
    extensions: [
      { name: 'basicConstraints', cA: false },
      {
        name: 'subjectAltName',
        altNames: [{ type: 2, value: 'localhost' }, ...named, ...addresses.map((ip) => ({ type: 7 as const, ip }))],
      },
    ],
  });
}
