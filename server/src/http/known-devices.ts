import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { cookieName, cookieOptions } from './cookies.js';

const COOKIE = 'dial-gauge-device';
const LASTS_MS = 400 * 86_400_000;
/** A tablet of the clinic is shared: so many people are remembered on it. */
const MOST = 20;
const ID_BYTES = 16;
const TAG_BYTES = 16;

/** What was right on a device before: somebody's sign-in, a patient page, the pairing of a phone. */
export type DeviceSubject = `user ${string}` | `page ${string}` | 'phone' | 'device';

/**
 * Devices from which a password or code was right before, told by a signed
 * cookie. It opens nothing: such a device only has tries of its own, so that
 * wrong tries of strangers do not keep its people out. Without a key of the
 * server it lasts until the server starts again.
 */
export class KnownDevices {
  private readonly key: Buffer;

  constructor(
    key: Buffer | null,
    private readonly secure: boolean,
  ) {
    this.key = createHmac('sha256', key ?? randomBytes(32))
      .update('known devices')
      .digest();
  }

  /** The device, where the subject was right on it before. */
  knows(request: Request, subject: DeviceSubject): string | null {
    const { device, tags } = this.read(request);
    if (device === null) return null;
    const tag = Buffer.from(this.tagOf(device, subject));
    return tags.some((one) => one.length === tag.length && timingSafeEqual(Buffer.from(one), tag)) ? device : null;
  }

  /** The device, where anything was right on it before. */
  deviceOf(request: Request): string | null {
    return this.knows(request, 'device');
  }

  /** The subject was right just now. */
  remember(request: Request, response: Response, subject: DeviceSubject): void {
    const { device, tags } = this.read(request);
    const id = device ?? randomBytes(ID_BYTES).toString('base64url');
    const tag = this.tagOf(id, subject);
    const own = this.tagOf(id, 'device');
    const value = [id, own, tag, ...tags.filter((one) => one !== tag && one !== own)].slice(0, MOST + 2).join('.');
    response.cookie(this.name, value, { ...cookieOptions(this.secure), maxAge: LASTS_MS });
  }

  private read(request: Request): { readonly device: string | null; readonly tags: readonly string[] } {
    const [device, ...tags] = (parse(request.headers.cookie ?? '')[this.name] ?? '').split('.');
    return device && /^[\w-]{22}$/.test(device) ? { device, tags: tags.slice(0, MOST + 1) } : { device: null, tags: [] };
  }

  private tagOf(device: string, subject: DeviceSubject): string {
    return createHmac('sha256', this.key).update(`${device} ${subject}`).digest().subarray(0, TAG_BYTES).toString('base64url');
  }

  private get name(): string {
    return cookieName(COOKIE, this.secure);
  }
}
