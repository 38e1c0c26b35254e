import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { executed } from '../../database/database.js';
import { hashOf } from '../../shared/hash.js';
import { HttpProblem } from '../../shared/problems.js';
import { codeOf } from '../../database/unit-of-work.js';

const SECOND = 1_000;
const MINUTE = 60 * SECOND;

/** How many wrong tries are free, and how long the wait is after the next one; it doubles with each. */
interface Limit {
  readonly free: number;
  readonly firstWait: number;
  readonly longestWait: number;
  /** Milliseconds without a wrong try after which all is forgotten. */
  readonly forgottenAfter: number;
}

/** Something that is guessed at, counted by whom or what: one row. */
export interface Budget {
  readonly bucket: string;
  readonly limit: Limit;
  /** Whether a right try forgives the wrong ones before it, or is merely not counted. */
  readonly forgives: boolean;
}

/** One person at one place: ten free tries, then waits of a minute to a quarter of an hour. */
const NARROW: Limit = { free: 10, firstWait: MINUTE, longestWait: 15 * MINUTE, forgottenAfter: 30 * MINUTE };
/** Tries of many at one thing: they slow down and never stop. */
const wide = (free: number, longestWait: number): Limit => ({
  free,
  firstWait: 2 * SECOND,
  longestWait,
  forgottenAfter: Math.max(15 * MINUTE, 2 * longestWait),
});

const bucketOf = (...parts: string[]): string => hashOf(JSON.stringify(parts));

/** A code of six digits that stands for months: an hour between wrong tries in the end. */
const PAGE_LONGEST_WAIT = 60 * MINUTE;

/** Who tries: an address, or a device from which the same was right before. */
export interface Trier {
  readonly address: string;
  readonly device: string | null;
}

/** What a try of `what` about `about` is counted by. A known device has a budget of its own: strangers cannot use it up. */
export function budgetsOf(what: 'sign-in' | 'page' | 'pairing' | 'founding', about: string, { address, device }: Trier): readonly Budget[] {
  if (device !== null) return [{ bucket: bucketOf(what, 'device', device, about), limit: NARROW, forgives: true }];
  const all = what === 'page' ? wide(60, PAGE_LONGEST_WAIT) : what === 'pairing' ? wide(200, 5 * SECOND) : wide(60, MINUTE);
  return [
    { bucket: bucketOf(what, 'pair', address, about), limit: NARROW, forgives: true },
    { bucket: bucketOf(what, 'address', address), limit: wide(100, MINUTE), forgives: false },
    { bucket: bucketOf(what, 'all', about), limit: all, forgives: false },
  ];
}

/** Somebody who is signed in proves it again: nobody else can use this up. */
export const proofBudget = (what: 'proof' | 'factor', userId: string): readonly Budget[] => [
  { bucket: bucketOf(what, userId), limit: NARROW, forgives: true },
];

interface Row {
  readonly last_id: string;
  readonly free_at: number;
}

/**
 * Counts tries at passwords and codes, in the database, so that several
 * servers count together. A try is taken from its budgets before it is made,
 * and given back when it was right: many at once are no more than their count.
 */
export class AttemptLimiter {
  constructor(
    private readonly dataSource: DataSource,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  /**
   * @param attempt answers null where it was wrong; what it throws is no wrong try
   * @throws a problem that says how long to wait
   */
  async attempt<T>(budgets: readonly Budget[], attempt: () => Promise<T | null>): Promise<T | null> {
    const taken: Budget[] = [];
    for (const budget of budgets) {
      const wait = await this.take(budget);
      if (wait > 0) {
        await this.giveBack(taken, false);
        throw tooMany(wait);
      }
      taken.push(budget);
    }
    let done: T | null;
    try {
      done = await attempt();
    } catch (error) {
      await this.giveBack(taken, false);
      throw error;
    }
    if (done !== null) await this.giveBack(taken, true);
    return done;
  }

  /** Removes what is forgotten. */
  async prune(): Promise<void> {
    await this.dataSource.query('DELETE FROM attempt_budget WHERE expires_at <= ?', [this.clock().getTime()]);
  }

  /**
   * One statement, committed by itself.
   *
   * @returns 0 where the try may be made; else how long to wait, in milliseconds
   */
  private async take({ bucket, limit }: Budget): Promise<number> {
    const now = this.clock().getTime();
    const mine = randomUUID();
    const { free, firstWait, longestWait, forgottenAfter } = limit;
    // The assignments are made from left to right, each with what those before it came to.
    const rows = await this.retried(() =>
      executed<Row[]>(
        this.dataSource,
        `INSERT INTO attempt_budget (bucket, tries, free_at, expires_at, last_id) VALUES (?, 1, 0, ?, ?)
         ON DUPLICATE KEY UPDATE
           last_id = IF(expires_at <= ? OR free_at <= ?, ?, last_id),
           tries = IF(last_id <> ?, tries, IF(expires_at <= ?, 1, tries + 1)),
           free_at = IF(last_id <> ?, free_at, IF(tries < ?, 0, ? + LEAST(?, ? * POW(2, LEAST(tries - ?, 30))))),
           expires_at = IF(last_id <> ?, expires_at, ?)
         RETURNING last_id, free_at`,
        [
          ...[bucket, now + forgottenAfter, mine],
          ...[now, now, mine],
          ...[mine, now],
          ...[mine, free, now, longestWait, firstWait, free],
          ...[mine, now + forgottenAfter],
        ],
      ),
    );
    const [row] = rows;
    return !row || row.last_id === mine ? 0 : Math.max(1, Number(row.free_at) - now);
  }

  private async giveBack(budgets: readonly Budget[], right: boolean): Promise<void> {
    const now = this.clock().getTime();
    for (const { bucket, forgives } of budgets)
      await this.retried(() =>
        right && forgives
          ? this.dataSource.query('DELETE FROM attempt_budget WHERE bucket = ?', [bucket])
          : this.dataSource.query(
              'UPDATE attempt_budget SET tries = GREATEST(tries - 1, 0), free_at = LEAST(free_at, ?) WHERE bucket = ?',
              [now, bucket],
            ),
      );
  }

  private async retried<T>(statement: () => Promise<T>): Promise<T> {
    for (let tried = 1; ; tried += 1)
      try {
        return await statement();
      } catch (error) {
        if (codeOf(error) !== 'ER_LOCK_DEADLOCK' || tried === MOST_RETRIES) throw error;
      }
  }
}

const MOST_RETRIES = 5;

function tooMany(wait: number): HttpProblem {
  const seconds = Math.max(1, Math.ceil(wait / SECOND));
  const words = seconds < 90 ? `${seconds} s` : `${Math.ceil(seconds / 60)} min`;
  return new HttpProblem(
    429,
    'Too many tries',
    `Too many wrong tries. Wait ${words}, then try again. The wait gets longer with each wrong try.`,
    { retryAfter: seconds },
  );
}
