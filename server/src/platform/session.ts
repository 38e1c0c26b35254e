import { createHash } from 'node:crypto';
import type { RequestHandler } from 'express';
import session, { Store, type SessionData } from 'express-session';
import { LessThan, type DataSource } from 'typeorm';
import { SessionRow } from '../account/entities.js';
import type { Caller } from './caller.js';

declare module 'express-session' {
  interface SessionData {
    caller?: Caller;
    /** The browser as it names itself. */
    device?: string;
    /** Milliseconds: when it began, and when it was written down last that it is in use. */
    startedAt?: number;
    seenAt?: number;
  }
}

export interface SessionSettings {
  readonly secret: string;
  /** True behind TLS: the cookie then travels encrypted only, and belongs to this host alone. */
  readonly secure: boolean;
  /** How long a session lasts without a request, and at the most, in milliseconds. */
  readonly idleMs: number;
  readonly longestMs: number;
}

export const cookieName = (secure: boolean): string => (secure ? '__Host-dial-gauge' : 'dial-gauge');

/** That a session is in use is written down at most so often. */
const SEEN_EVERY = 60_000;

/** SHA-256 of the cookie's session id: a copy of the table signs nobody in. */
export const sessionKey = (sid: string): string => createHash('sha256').update(sid).digest('hex');

interface Found {
  user_id: string;
  clinic_id: string;
  name: string;
  device: string;
  started_at: Date;
  seen_at: Date;
  expires_at: Date;
}

/**
 * Sessions in the database: they outlive a restart of the server. Whoever
 * comes with one is looked up with it, in one query: a user who is gone, or
 * whose password is another one by now, has none.
 */
export class DatabaseSessionStore extends Store {
  constructor(
    private readonly dataSource: DataSource,
    private readonly settings: Pick<SessionSettings, 'idleMs' | 'longestMs'>,
  ) {
    super();
  }

  override get(sid: string, done: (error: unknown, session?: SessionData | null) => void): void {
    this.find(sid).then((found) => done(null, found), done);
  }

  private async find(sid: string): Promise<SessionData | null> {
    const now = Date.now();
    const [row] = (await this.dataSource.query(
      `SELECT s.user_id, u.clinic_id, u.name, s.device, s.started_at, s.seen_at, s.expires_at
         FROM session s JOIN user u ON u.id = s.user_id AND s.credential = CONVERT(SHA2(u.password_hash, 256) USING ascii) COLLATE ascii_bin
        WHERE s.id = ? AND s.expires_at > ? AND s.started_at > ?`,
      [sessionKey(sid), new Date(now), new Date(now - this.settings.longestMs)],
    )) as Found[];
    if (!row) return null;
    return {
      cookie: { originalMaxAge: this.settings.idleMs, expires: row.expires_at, httpOnly: true, path: '/' },
      caller: { userId: row.user_id, name: row.name, clinicId: row.clinic_id },
      device: row.device,
      startedAt: row.started_at.getTime(),
      seenAt: row.seen_at.getTime(),
    };
  }

  /** Written once, at sign-in; from then on a session only moves its end. */
  override set(sid: string, { caller, device = '' }: SessionData, done: (error?: unknown) => void = () => {}): void {
    if (!caller) return done();
    const now = new Date();
    this.dataSource
      .query(
        `INSERT INTO session (id, user_id, credential, device, started_at, seen_at, expires_at)
         SELECT ?, u.id, SHA2(u.password_hash, 256), ?, ?, ?, ? FROM user u WHERE u.id = ?
         ON DUPLICATE KEY UPDATE seen_at = VALUES(seen_at), expires_at = VALUES(expires_at)`,
        [sessionKey(sid), device, now, now, new Date(now.getTime() + this.settings.idleMs), caller.userId],
      )
      .then(() => done(), done);
  }

  override destroy(sid: string, done: (error?: unknown) => void = () => {}): void {
    this.dataSource
      .getRepository(SessionRow)
      .delete({ id: sessionKey(sid) })
      .then(() => done(), done);
  }

  /** Moves the end of the session on; written at most once a minute, since every request asks for it. */
  override touch(sid: string, { seenAt = 0 }: SessionData, done: (error?: unknown) => void = () => {}): void {
    const now = Date.now();
    if (now - seenAt < Math.min(SEEN_EVERY, this.settings.idleMs / 4)) return done();
    const [seen, ends] = [new Date(now), new Date(now + this.settings.idleMs)];
    this.dataSource
      .getRepository(SessionRow)
      .update({ id: sessionKey(sid) }, { seenAt: seen, expiresAt: ends })
      .then(() => done(), done);
  }

  /** Removes sessions that have run out. */
  async prune(): Promise<void> {
    const now = Date.now();
    const rows = this.dataSource.getRepository(SessionRow);
    await rows.delete({ expiresAt: LessThan(new Date(now)) });
    await rows.delete({ startedAt: LessThan(new Date(now - this.settings.longestMs)) });
  }
}

export function sessions(dataSource: DataSource, settings: SessionSettings): RequestHandler {
  const { secret, secure, idleMs } = settings;
  return session({
    name: cookieName(secure),
    secret,
    store: new DatabaseSessionStore(dataSource, settings),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', secure, path: '/', maxAge: idleMs },
  });
}
