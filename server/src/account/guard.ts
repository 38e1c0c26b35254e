import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../platform/problems.js';

const QUARTER = 15 * 60;

/**
 * How many refused sign-ins there may be in a quarter of an hour: of one
 * account from one address, of one account from anywhere, from one address.
 * Kept in the database, so that several servers count together.
 */
const LIMITS = { pair: 10, account: 60, address: 100 } as const;
type Limit = keyof typeof LIMITS;

export interface SignInGuard {
  /**
   * Tries a sign-in: refused outright where too many were refused before. Tries
   * of the same account from the same address come one after the other, so that
   * many at once do not slip past the count.
   *
   * @param attempt says whether the sign-in was right
   * @throws a problem that says how long to wait
   */
  attempt<T>(account: string, address: string, attempt: () => Promise<T | null>): Promise<T | null>;
}

export function signInGuard(dataSource: DataSource): SignInGuard {
  const waiting = new Map<string, Promise<unknown>>();
  let limiters: Readonly<Record<Limit, RateLimiterMySQL>> | undefined;
  const limitersOf = () =>
    (limiters ??= Object.fromEntries(
      Object.entries(LIMITS).map(([name, points]) => {
        const { pool } = dataSource.driver as unknown as { pool: unknown };
        const { database } = dataSource.options as { database: string };
        // The table comes with the migrations.
        const options = { storeClient: pool, dbName: database, tableName: 'sign_in_failure', tableCreated: true, storeType: 'mysql2' };
        return [name, new RateLimiterMySQL({ ...options, keyPrefix: name, points, duration: QUARTER, clearExpiredByTimeout: false })];
      }),
    ) as Record<Limit, RateLimiterMySQL>);
  const keysOf = (account: string, address: string): Record<Limit, string> => ({ pair: `${account}|${address}`, account, address });

  async function attempt<T>(account: string, address: string, tryIt: () => Promise<T | null>): Promise<T | null> {
    const all = limitersOf();
    const keys = keysOf(account, address);
    for (const name of Object.keys(LIMITS) as Limit[]) {
      const spent = await all[name].get(keys[name]);
      if (spent && spent.consumedPoints >= LIMITS[name]) throw tooMany(spent);
    }
    const done = await tryIt();
    if (done === null) for (const name of Object.keys(LIMITS) as Limit[]) await consume(all[name], keys[name]);
    else await all.pair.delete(keys.pair);
    return done;
  }

  return {
    attempt(account, address, tryIt) {
      const key = `${account}|${address}`;
      const before = waiting.get(key) ?? Promise.resolve();
      const mine = before.catch(() => {}).then(() => attempt(account, address, tryIt));
      waiting.set(key, mine);
      return mine.finally(() => {
        if (waiting.get(key) === mine) waiting.delete(key);
      });
    },
  };
}

async function consume(limiter: RateLimiterMySQL, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (spent) {
    // Over the limit is no fault here: the next try is refused.
    if (!(spent instanceof RateLimiterRes)) throw spent;
  }
}

function tooMany({ msBeforeNext }: RateLimiterRes): HttpProblem {
  const seconds = Math.max(1, Math.ceil(msBeforeNext / 1000));
  return new HttpProblem(
    429,
    'Too many tries',
    `Too many refused sign-ins. Wait ${Math.ceil(seconds / 60)} min, or ask the clinic lead to check the account.`,
    undefined,
    seconds,
  );
}
