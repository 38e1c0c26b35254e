import type { AttemptLimiter } from '../records/identity/attempts.js';
import type { Strength } from '../records/identity/strength.js';
import type { Mailer } from '../shared/mail.js';
import type { Auditor } from '../use-cases/auditing/auditor.js';
import type { Cohorts } from '../use-cases/cohort/cohorts.js';
import type { LiveHub } from '../use-cases/live/hub.js';
import type { QueueRefresher } from '../use-cases/queue/queue-refresher.js';
import type { KnownDevices } from './known-devices.js';
import type { SessionCookies } from './session.js';

/** What a server is composed of, for endpoints that need more than a unit of work. */
export interface Services {
  readonly sessions: SessionCookies;
  readonly limiter: AttemptLimiter;
  readonly devices: KnownDevices;
  readonly auditor: Auditor;
  readonly queue: QueueRefresher;
  readonly cohorts: Cohorts;
  /** null: no live instruments here. */
  readonly live: LiveHub | null;
  /** null: there is no mail server. */
  readonly mailer: Mailer | null;
  /** What second factors are kept with; null: there are none here. */
  readonly key: Buffer | null;
  /** Years that a record is kept before it may be erased. */
  readonly keepYears: number;
  readonly clock: () => Date;
  /** @param from where it is asked from: each has a fair share */
  readonly judgePassword: (password: string, words: readonly string[], from: string) => Promise<Strength> | Strength;
}

declare module 'express-serve-static-core' {
  interface Request {
    services: Services;
  }
}
