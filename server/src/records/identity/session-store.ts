import { randomBytes } from 'node:crypto';
import type { Role } from '@dial-gauge/contract';
import { LessThan, type DataSource } from 'typeorm';
import { executed } from '../../database/database.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import type { Caller } from '../../shared/caller.js';
import { hashOf } from '../../shared/hash.js';
import { HttpProblem } from '../../shared/problems.js';
import { SessionRow, type User } from './entities.js';

/** A session as it is in the database. */
export interface Session {
  readonly sid: string;
  readonly caller: Caller;
  /** Milliseconds: when it began, and when it was written down last that it is in use. */
  readonly startedAt: number;
  readonly seenAt: number;
  /** The password is asked for again before what wants proof: there was a rest since it was entered. */
  readonly wantsProof: boolean;
  /** The clinic had asked for a second factor when it began, and there is none: the account alone is open. */
  readonly factorMissing: boolean;
  /** Not looked up with this request: it may have ended meanwhile. */
  readonly remembered: boolean;
}

export interface SessionSettings {
  /** True behind TLS: the cookie then travels encrypted only, and belongs to this host alone. */
  readonly secure: boolean;
  /** How long a session lasts without an act of the person, and at the most, in milliseconds. */
  readonly idleMs: number;
  readonly longestMs: number;
  /** After how long without an act the password is asked for again before what wants proof; a quarter of an hour where it is left out. */
  readonly restMs?: number;
}

/** What a session may begin with: the password, and the second factor as it is kept, that were verified. */
export interface Verified {
  readonly user: Pick<User, 'id' | 'passwordHash'>;
  readonly factor: string | null;
}

const changedSinceVerified = (): HttpProblem =>
  new HttpProblem(
    401,
    'Sign-in changed',
    'The password or the second factor of this account was changed a moment ago. Sign in with the new one.',
  );

/** That a session is in use is written down at most so often. */
const SEEN_EVERY = 60_000;

/** How long it is remembered whose a session is, for how many; whether it still stands is asked with every request. */
const REMEMBERED = { ms: 60_000, most: 5_000 };

/** After so long without an act somebody else may sit there. */
const REST = 15 * 60_000;

/** SHA-256 of the cookie's session id: a copy of the table signs nobody in. */
export const sessionKey = (sid: string): string => hashOf(sid);

/** Whose a session is, as long as both are there, the account is open and the password is the one it began with. */
const OF_USER = `FROM session s JOIN user u ON u.id = s.user_id AND u.ended_at IS NULL
  AND s.credential = CONVERT(SHA2(u.password_hash, 256) USING ascii) COLLATE ascii_bin`;

/** Who was signed in before it was asked for goes on. */
const FACTOR_MISSING = `(c.second_factor_since IS NOT NULL AND s.started_at >= c.second_factor_since
  AND NOT EXISTS (SELECT 1 FROM second_factor f WHERE f.user_id = u.id AND f.confirmed_at IS NOT NULL))`;

/** A condition for a statement that itself sees to it that the caller's session stands, in the role it was allowed for, with the values that it takes. */
export const SESSION_STANDS = `EXISTS (SELECT 1 ${OF_USER} WHERE s.id = ? AND u.role = ? AND s.expires_at > ?)`;
export const standing = ({ caller, now }: UnitOfWork): unknown[] => [caller.session, caller.role, now];

interface Found {
  user_id: string;
  clinic_id: string;
  name: string;
  role: Role;
  wants_proof: number | boolean;
  factor_missing: number | boolean;
  started_at: Date;
  seen_at: Date;
}

/**
 * Sessions in the database: they outlive a restart of the server. Whoever
 * comes with one is looked up with every request, in one query: a user who is
 * gone, or whose password is another one by now, has none. Where a statement
 * does that itself, what is remembered is enough to tell who is asking.
 */
export class SessionStore {
  private readonly memory = new Map<string, { readonly at: number; readonly session: Session }>();

  constructor(
    private readonly dataSource: DataSource,
    readonly settings: SessionSettings,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  /** The session of an id, remembered from a moment ago or as it is in the database. */
  async get(sid: string): Promise<Session | null> {
    const known = this.memory.get(sid);
    return known && this.now - known.at < REMEMBERED.ms ? known.session : this.find(sid);
  }

  /** The session of an id, as it is in the database now. */
  async find(sid: string): Promise<Session | null> {
    const key = sessionKey(sid);
    const { now } = this;
    const [row] = await executed<Found[]>(
      this.dataSource,
      `SELECT s.user_id, u.clinic_id, u.name, u.role, s.wants_proof, ${FACTOR_MISSING} AS factor_missing, s.started_at, s.seen_at
       ${OF_USER} JOIN clinic c ON c.id = u.clinic_id WHERE s.id = ? AND s.expires_at > ? AND s.started_at > ?`,
      [key, new Date(now), new Date(now - this.settings.longestMs)],
    );
    this.memory.delete(sid);
    if (!row) return null;
    const seenAt = row.seen_at.getTime();
    const session: Session = {
      sid,
      caller: { userId: row.user_id, name: row.name, clinicId: row.clinic_id, role: row.role, session: key },
      startedAt: row.started_at.getTime(),
      seenAt,
      wantsProof: Boolean(row.wants_proof) || now - seenAt >= this.rest,
      factorMissing: Boolean(row.factor_missing),
      remembered: true,
    };
    if (this.memory.size >= REMEMBERED.most) this.memory.clear();
    this.memory.set(sid, { at: now, session });
    return { ...session, remembered: false };
  }

  /**
   * A fresh session, in the database before anything is answered. It begins
   * only while the password and the second factor are those that were verified.
   *
   * @param device the browser as it names itself
   * @returns the id for the cookie
   * @throws where one of them was changed meanwhile
   */
  async begin({ user, factor }: Verified, device: string): Promise<string> {
    const sid = randomBytes(32).toString('base64url');
    const now = this.clock();
    const { affectedRows } = await this.dataSource.query<{ affectedRows: number }>(
      `INSERT INTO session (id, user_id, credential, device, started_at, seen_at, expires_at)
       SELECT ?, u.id, SHA2(u.password_hash, 256), ?, ?, ?, ? FROM user u
       WHERE u.id = ? AND u.ended_at IS NULL AND SHA2(u.password_hash, 256) = ?
         AND (SELECT SHA2(f.secret, 256) FROM second_factor f WHERE f.user_id = u.id AND f.confirmed_at IS NOT NULL) <=> ?`,
      [
        ...[sessionKey(sid), device.slice(0, 120), now, now, this.endAfter(now, now.getTime())],
        ...[user.id, hashOf(user.passwordHash), factor === null ? null : hashOf(factor)],
      ],
    );
    if (affectedRows !== 1) throw changedSinceVerified();
    return sid;
  }

  async end(sid: string): Promise<void> {
    this.memory.delete(sid);
    await this.dataSource.getRepository(SessionRow).delete({ id: sessionKey(sid) });
  }

  /** Whether it is time to write down that a session is in use. */
  isToMoveOn({ seenAt }: Session): boolean {
    return this.now - seenAt >= Math.min(SEEN_EVERY, this.settings.idleMs / 4, this.rest / 4);
  }

  /** Moves the end of a session that is in use. One that has run out or was ended meanwhile is not brought back by it. */
  async moveOn({ sid, startedAt }: Session): Promise<void> {
    const now = this.clock();
    this.memory.delete(sid);
    // In this order: whether there was a rest is told by when it was seen before.
    await this.dataSource.query(
      'UPDATE session SET wants_proof = IF(seen_at <= ?, 1, wants_proof), seen_at = ?, expires_at = ? WHERE id = ? AND expires_at > ?',
      [new Date(now.getTime() - this.rest), now, this.endAfter(now, startedAt), sessionKey(sid), now],
    );
  }

  /** The password was entered again. @throws where it is another one by now than the one that was verified */
  async proved({ sid }: Session, { passwordHash }: Pick<User, 'passwordHash'>): Promise<void> {
    this.memory.delete(sid);
    const { affectedRows } = await this.dataSource.query<{ affectedRows: number }>(
      'UPDATE session SET wants_proof = 0, seen_at = ? WHERE id = ? AND credential = ?',
      [this.clock(), sessionKey(sid), hashOf(passwordHash)],
    );
    if (affectedRows !== 1) throw changedSinceVerified();
  }

  /** Removes sessions that have run out. */
  async prune(): Promise<void> {
    const rows = this.dataSource.getRepository(SessionRow);
    await rows.delete({ expiresAt: LessThan(new Date(this.now)) });
    await rows.delete({ startedAt: LessThan(new Date(this.now - this.settings.longestMs)) });
  }

  private get now(): number {
    return this.clock().getTime();
  }

  private get rest(): number {
    return this.settings.restMs ?? REST;
  }

  private endAfter(now: Date, startedAt: number): Date {
    return new Date(Math.min(now.getTime() + this.settings.idleMs, startedAt + this.settings.longestMs));
  }
}
