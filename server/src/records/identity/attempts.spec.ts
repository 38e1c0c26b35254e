import { randomUUID } from 'node:crypto';
import { networkOf } from '../../shared/address.js';
import { startHarness, type Harness } from '../../testing/harness.js';
import { AttemptLimiter, budgetsOf, proofBudget, type Trier } from './attempts.js';

const MINUTE = 60_000;

describe('wrong tries', () => {
  let harness: Harness;
  let now = Date.now();
  let limiter: AttemptLimiter;
  beforeAll(async () => {
    harness = await startHarness();
    limiter = new AttemptLimiter(harness.dataSource, () => new Date(now));
  });
  afterAll(() => harness.stop());

  const from = (address: string, device: string | null = null): Trier => ({ address, device });
  /** One try: whether it was made, and was right. */
  const attempt = (about: string, trier: Trier, right = false, what: 'sign-in' | 'page' | 'pairing' = 'sign-in') =>
    limiter
      .attempt(budgetsOf(what, about, trier), () => Promise.resolve(right ? true : null))
      .then(
        (done) => (done ? 'right' : 'wrong'),
        (problem: { retryAfter: number }) => problem.retryAfter,
      );

  it('are counted before they are made: however many come at once, no more than the free ones are', async () => {
    const about = randomUUID();
    let made = 0;
    const tries = await Promise.allSettled(
      Array.from({ length: 200 }, () =>
        limiter.attempt(budgetsOf('sign-in', about, from('203.0.113.1')), () => {
          made += 1;
          return Promise.resolve(null);
        }),
      ),
    );
    expect(made).toBe(10);
    expect(tries.filter(({ status }) => status === 'rejected').length).toBe(190);
  });

  it('wait longer each time and are never locked for good', async () => {
    const about = randomUUID();
    for (let n = 0; n < 10; n += 1) expect(await attempt(about, from('203.0.113.2'))).toBe('wrong');
    for (const minutes of [1, 2, 4, 8, 15, 15]) {
      expect(await attempt(about, from('203.0.113.2'))).toBe(minutes * 60);
      now += minutes * MINUTE;
      expect(await attempt(about, from('203.0.113.2'))).toBe('wrong');
    }
    now += 15 * MINUTE;
    expect(await attempt(about, from('203.0.113.2'), true)).toBe('right');
    for (let n = 0; n < 10; n += 1) expect(await attempt(about, from('203.0.113.2'))).toBe('wrong');
  });

  it('of an account from everywhere slow down, and a known device has a budget of its own', async () => {
    const about = randomUUID();
    for (let n = 0; n < 60; n += 1) expect(await attempt(about, from(`198.51.100.${n}`))).toBe('wrong');
    expect(await attempt(about, from('198.51.100.200'))).toBe(2);
    expect(await attempt(about, from('198.51.100.200', 'a tablet'), true)).toBe('right');
    for (let n = 0; n < 10; n += 1) expect(await attempt(about, from('198.51.100.200', 'a tablet'))).toBe('wrong');
    expect(await attempt(about, from('198.51.100.200', 'a tablet'))).toBe(60);
    expect(await attempt(about, from('198.51.100.201', 'another tablet'))).toBe('wrong');
    // The longest wait for everybody else is a minute.
    for (let n = 0; n < 20; n += 1) {
      now += MINUTE;
      await attempt(about, from(`198.51.100.${n}`));
    }
    expect(await attempt(about, from('198.51.100.201'))).toBeLessThanOrEqual(60);
  });

  it('from one address are counted over all accounts, and lock nobody out who was there before', async () => {
    for (let n = 0; n < 100; n += 1) expect(await attempt(randomUUID(), from('203.0.113.3'))).toBe('wrong');
    expect(await attempt(randomUUID(), from('203.0.113.3'))).toBe(2);
    expect(await attempt(randomUUID(), from('203.0.113.3', 'known'), true)).toBe('right');
    // Refused by the address, the account was not counted.
    const about = randomUUID();
    for (let n = 0; n < 70; n += 1) await attempt(about, from('203.0.113.3'));
    expect(await attempt(about, from('203.0.113.4'))).toBe('wrong');
  });

  it('of all phones together have a limit, and so have those of one page from everywhere', async () => {
    now += 60 * MINUTE;
    for (let n = 0; n < 200; n += 1) expect(await attempt('any code', from(`10.0.${n}.1`), false, 'pairing')).toBe('wrong');
    expect(await attempt('any code', from('10.1.0.1'), false, 'pairing')).toBe(2);
    expect(await attempt('any code', from('10.1.0.1', 'a phone'), true, 'pairing')).toBe('right');
    const page = randomUUID();
    for (let n = 0; n < 60; n += 1) await attempt(page, from(`10.2.${n}.1`), false, 'page');
    let tried = 0;
    // A day of somebody who waits each time: a code of six digits is not found by that.
    for (const end = now + 24 * 60 * MINUTE; now < end;) {
      const wait = await attempt(page, from(`10.3.${tried}.1`), false, 'page');
      if (typeof wait === 'number') now += wait * 1000;
      else tried += 1;
    }
    expect(tried).toBeLessThan(40);
  });

  it('are not what fails otherwise, and a right one among many wrong ones is given back', async () => {
    const user = randomUUID();
    const failing = () => limiter.attempt(proofBudget('proof', user), () => Promise.reject(new Error('the database is away')));
    for (let n = 0; n < 30; n += 1) await expectAsync(failing()).toBeRejectedWithError('the database is away');
    expect(await limiter.attempt(proofBudget('proof', user), () => Promise.resolve(null))).toBeNull();
  });

  it('are forgotten after a while', async () => {
    now += 24 * 60 * MINUTE;
    await limiter.prune();
    expect(Number((await harness.dataSource.query('SELECT COUNT(*) AS n FROM attempt_budget'))[0].n)).toBe(0);
  });
});

describe('where a request comes from', () => {
  it('is an IPv4 address, or the /64 of an IPv6 address', () => {
    expect(networkOf('203.0.113.7')).toBe('203.0.113.7');
    expect(networkOf('::ffff:203.0.113.7')).toBe('203.0.113.7');
    expect(networkOf('2001:db8:1:2:3:4:5:6')).toBe('2001:db8:1:2::/64');
    expect(networkOf('2001:db8:1:2:ffff::1')).toBe('2001:db8:1:2::/64');
    expect(networkOf('2001:db8:1:3::1')).toBe('2001:db8:1:3::/64');
    expect(networkOf(undefined)).toBe('unknown');
    expect(networkOf('x')).toBe('unknown');
  });
});
