import { actOf, type Act, type AuditDeed, type Route } from '@dial-gauge/contract';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import type { Caller } from '../../shared/caller.js';
import { chainOpen } from '../../records/audit/chain.js';
import type { AuditSubject } from '../../database/ports.js';
import { writeAudit } from '../../records/audit/write.js';

/** The same person at the same part of the same record is written down once in so long. */
const AGAIN_MS = 15 * 60_000;
const MOST_REMEMBERED = 50_000;
/** Open entries become links so often. */
const CHAIN_MS = 5_000;

/** What each act is as a deed; what is left out stands in the change log, or touches nobody's record. */
const DEEDS: Readonly<Partial<Record<Act, AuditDeed>>> = {
  look: 'looked',
  measure: 'entered',
  screen: 'entered',
  sign: 'entered',
  countersign: 'entered',
  send: 'wrote-out',
  export: 'wrote-out',
};

/** By the first word of a route: what its id is. */
const SUBJECTS: Readonly<Record<string, AuditSubject>> = {
  patients: 'patient',
  episodes: 'episode',
  visits: 'visit',
  signatures: 'signature',
  clips: 'clip',
  stills: 'still',
};

/** Whose record a route opens, by its path; none where it opens nobody's. */
export const subjectOf = ({ path }: Pick<Route, 'path'>): AuditSubject => SUBJECTS[/^\/([^/]+)\/:id/.exec(path)?.[1] ?? ''] ?? 'none';

/** A request that was done, as far as an audit wants to know. */
export interface Asked {
  readonly route: Route;
  readonly caller: Caller;
  readonly id: string | undefined;
}

/**
 * Writes down who looks at and enters into whose record, before it is
 * answered, and makes links of the chain. Fields that were changed are written
 * by the change log itself, within their transaction.
 */
export class Auditor {
  private readonly written = new Map<string, number>();
  private chaining: NodeJS.Timeout | undefined;
  private running: Promise<void> = Promise.resolve();

  constructor(
    private readonly dataSource: DataSource,
    private readonly key: Buffer | null,
    private readonly logger: Logger,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  start(): void {
    this.chaining = setInterval(() => void this.chain(), CHAIN_MS);
    this.chaining.unref();
  }

  async close(): Promise<void> {
    clearInterval(this.chaining);
    await this.running;
  }

  /**
   * Awaited before it is answered: a look at a record is in the database before
   * the record is seen. What was entered is there by then, and is answered all
   * the same: the record itself says who entered it.
   */
  async note({ route, caller, id }: Asked): Promise<void> {
    const did = DEEDS[actOf(route)];
    if (!did || !caller.userId) return;
    const subject = subjectOf(route);
    // Of lists nobody's record is opened; of files everything is written out.
    if (subject === 'none' && did !== 'wrote-out') return;
    const writing = this.once(caller, did, route.path, subject, id ?? '');
    if (did !== 'entered') return writing;
    await writing.catch((error: unknown) => this.logger.warn({ err: error }, 'what was entered is not in the audit'));
  }

  signedIn({ userId, clinicId }: Pick<Caller, 'userId' | 'clinicId'>): Promise<void> {
    return writeAudit(this.dataSource.manager, {
      clinicId,
      userId,
      at: this.clock(),
      did: 'signed-in',
      about: '/session',
      subject: 'none',
      subjectId: '',
    });
  }

  /** Makes links of what is open; one run after the other. */
  chain(): Promise<void> {
    this.running = this.running
      .then(() => chainOpen(this.dataSource, this.key))
      .catch((error: unknown) => this.logger.warn({ err: error }, 'the audit was not chained'));
    return this.running;
  }

  private async once({ userId, clinicId }: Caller, did: AuditDeed, about: string, subject: AuditSubject, subjectId: string): Promise<void> {
    const key = [userId, did, about, subjectId].join(' ');
    const now = this.clock().getTime();
    if (now - (this.written.get(key) ?? 0) < AGAIN_MS) return;
    await writeAudit(this.dataSource.manager, { clinicId, userId, at: new Date(now), did, about, subject, subjectId });
    // Remembered once it is written: another request at the same moment writes it as well, and none is let through before.
    if (this.written.size >= MOST_REMEMBERED) this.written.clear();
    this.written.set(key, now);
  }
}
