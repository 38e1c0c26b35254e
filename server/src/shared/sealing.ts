import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';

const NONCE = 12;
const TAG = 16;

/**
 * Seals a short secret with the key of the server (AES-256-GCM): a copy of the
 * database alone does not open it.
 *
 * @param about what it belongs to: sealed for one, it opens for no other
 */
export function seal(key: Buffer, text: string, about: string): string {
  const nonce = randomBytes(NONCE);
  const cipher = createCipheriv('aes-256-gcm', key, nonce).setAAD(Buffer.from(about));
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
}

/** @throws where it was sealed with another key, for something else, or changed since */
export function unseal(key: Buffer, sealed: string, about: string): string {
  const bytes = Buffer.from(sealed, 'base64');
  const decipher = createDecipheriv('aes-256-gcm', key, bytes.subarray(0, NONCE))
    .setAAD(Buffer.from(about))
    .setAuthTag(bytes.subarray(NONCE, NONCE + TAG));
  return Buffer.concat([decipher.update(bytes.subarray(NONCE + TAG)), decipher.final()]).toString('utf8');
}
