import { createHash } from 'node:crypto';
import { Store, type SessionData } from 'express-session';
import { LessThan, MoreThan, type DataSource } from 'typeorm';
import { SessionRow } from './entities/index.js';

const keyOf = (sid: string): string => createHash('sha256').update(sid).digest('hex');

function expiryOf({ cookie }: SessionData): Date {
  return cookie.expires ? new Date(cookie.expires) : new Date(Date.now() + 3_600_000);
}

/** Sessions in the database: they outlive a restart of the server. */
export class DatabaseSessionStore extends Store {
  constructor(private readonly dataSource: DataSource) {
    super();
  }

  private get rows() {
    return this.dataSource.getRepository(SessionRow);
  }

  override get(sid: string, done: (error: unknown, session?: SessionData | null) => void): void {
    this.rows
      .findOneBy({ id: keyOf(sid), expiresAt: MoreThan(new Date()) })
      .then((row) => done(null, row ? (JSON.parse(row.data) as SessionData) : null), done);
  }

  override set(sid: string, session: SessionData, done: (error?: unknown) => void = () => {}): void {
    this.rows.upsert({ id: keyOf(sid), data: JSON.stringify(session), expiresAt: expiryOf(session) }, ['id']).then(() => done(), done);
  }

  override destroy(sid: string, done: (error?: unknown) => void = () => {}): void {
    this.rows.delete({ id: keyOf(sid) }).then(() => done(), done);
  }

  /** Moves the end of the session on; written at most once a minute, since every request asks for it. */
  override touch(sid: string, session: SessionData, done: (error?: unknown) => void = () => {}): void {
    const expiresAt = expiryOf(session);
    const stale = new Date(expiresAt.getTime() - 60_000);
    this.rows.update({ id: keyOf(sid), expiresAt: LessThan(stale) }, { expiresAt }).then(() => done(), done);
  }

  /** Removes sessions that have run out. */
  async prune(): Promise<void> {
    await this.rows.delete({ expiresAt: LessThan(new Date()) });
  }
}
