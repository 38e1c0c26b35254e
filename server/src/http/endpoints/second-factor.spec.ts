import { randomUUID } from 'node:crypto';
import { problemType } from '@dial-gauge/contract';
import { Secret, TOTP } from 'otpauth';
import request, { type Agent } from 'supertest';
import { seal, unseal } from '../../shared/sealing.js';
import { KEY, startClinics, type Clinics } from '../../testing/harness.js';
import { User } from '../../records/identity/entities.js';
import { takesCode } from '../../records/identity/second-factor.js';

const GOOD = 'harbour-lichen-teaspoon-9';

describe('a second factor', () => {
  let clinics: Clinics;
  const query = (sql: string, values: unknown[] = []) => clinics.dataSource.query(sql, values);
  beforeAll(async () => {
    clinics = await startClinics();
  });
  afterAll(() => clinics.stop());

  const codeOf = (secret: string, at = Date.now()) => new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: at });
  const withFactor = async () => {
    const who = await clinics.somebody();
    const offer = await who.agent.post('/api/account/second-factor').send({ password: who.password }).expect(200);
    const wrong = codeOf(offer.body.secret) === '000000' ? '000001' : '000000';
    await who.agent.post('/api/account/second-factor/confirmation').send({ code: wrong }).expect(422);
    const { body } = await who.agent
      .post('/api/account/second-factor/confirmation')
      .send({ code: codeOf(offer.body.secret, Date.now() - 30_000) })
      .expect(200);
    return { ...who, secret: offer.body.secret as string, codes: body.codes as string[] };
  };
  const signIn = (who: { email: string; password: string }, code?: string) =>
    request(clinics.app).post('/api/session').send({ email: who.email, password: who.password, code });

  it('agrees with the vectors of RFC 6238 (appendix B, SHA-1, the last six figures), and takes no code twice', async () => {
    const { id } = await clinics.somebody();
    const user = await clinics.dataSource.getRepository(User).findOneByOrFail({ id });
    const secret = seal(KEY, Secret.fromUTF8('12345678901234567890').base32, id);
    const { manager } = clinics.dataSource;
    await query('INSERT INTO second_factor (user_id, secret, confirmed_at, last_step) VALUES (?, ?, NOW(3), 0)', [id, secret]);
    const row = { userId: id, secret, confirmedAt: new Date(), lastStep: 0 };
    const take = (seconds: number, code: string) => takesCode(manager, row, user, KEY, code, new Date(seconds * 1000));
    expect(await take(59, '287082')).toBeTrue();
    expect(await take(59, '287082')).toBeFalse();
    expect(await take(1_111_111_109, '081804')).toBeTrue();
    expect(await take(1_111_111_111, '050471')).toBeTrue();
    // An earlier one that nobody used is not taken after a later one.
    expect(await take(1_111_111_109, '081804')).toBeFalse();
    expect(await take(2_000_000_000, '279037')).toBeTrue();
  });

  it('is asked for after the right password alone, and its codes are taken once each', async () => {
    const who = await withFactor();
    const wanted = await signIn(who).expect(401);
    expect(wanted.body.type).toBe(problemType('second-factor'));
    expect((await signIn({ ...who, password: 'wrong' }).expect(401)).body.type).not.toBe(problemType('second-factor'));
    const code = codeOf(who.secret);
    const both = await Promise.all([signIn(who, code), signIn(who, code)]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 401]);
    const [lost] = who.codes as [string];
    await signIn(who, lost.toUpperCase()).expect(200);
    await signIn(who, lost).expect(401);
    const { body } = await who.agent.get('/api/account').expect(200);
    expect(body.secondFactor.recoveryCodesLeft).toBe(9);
  });

  it('is not guessed by asking for it again and again: a sign-in without a code forgives no refused one', async () => {
    const who = await withFactor();
    for (let n = 0; n < 10; n += 1) {
      await signIn(who, `guess-${n}`).expect(401);
      if (n < 9) await signIn(who).expect(401);
    }
    await signIn(who, codeOf(who.secret)).expect(429);
  });

  it('lies sealed in the database, and opens with another key or for another person not at all', async () => {
    const who = await withFactor();
    const [row] = await query('SELECT secret FROM second_factor WHERE user_id = ?', [who.id]);
    expect(row.secret).not.toContain(who.secret);
    expect(unseal(KEY, row.secret, who.id)).toBe(who.secret);
    expect(() => unseal(KEY, row.secret, clinics.ids.ours)).toThrow();
    expect(() => unseal(Buffer.alloc(32, 8), row.secret, who.id)).toThrow();
    const codes = await query('SELECT code_hash FROM recovery_code WHERE user_id = ?', [who.id]);
    expect(codes.length).toBe(10);
    expect(JSON.stringify(codes)).not.toContain(who.codes[0]!.replace('-', ''));
  });

  it('opens a password link that a lead has seen, and nothing else does', async () => {
    const who = await withFactor();
    const { body } = await clinics.agent.post(`/api/staff/${who.id}/password-link`).send({ id: randomUUID() }).expect(200);
    expect(body.mailedTo).toBeNull();
    const opened = await request(clinics.app).post('/api/joining/opening').send({ token: body.token }).expect(200);
    expect(opened.body.needsFactor).toBeTrue();
    const join = (code?: string) => request(clinics.app).post('/api/joining').send({ token: body.token, name: 'x', password: GOOD, code });
    expect((await join().expect(401)).body.type).toBe(problemType('second-factor'));
    const wrong = codeOf(who.secret) === '000000' ? '000001' : '000000';
    expect((await join(wrong).expect(422)).body.errors[0].path).toBe('code');
    await signIn({ ...who, password: GOOD }).expect(401);
    const joined = await join(codeOf(who.secret)).expect(200);
    expect(joined.body.session.user.id).toBe(who.id);
    expect(joined.body.session.passwordLink.madeBy).toBe('ours');
  });

  it('is counted when it is guessed: at a link, and at its first code', async () => {
    const who = await withFactor();
    const { body } = await clinics.agent.post(`/api/staff/${who.id}/password-link`).send({ id: randomUUID() }).expect(200);
    const guess = () =>
      request(clinics.app).post('/api/joining').send({ token: body.token, name: 'x', password: GOOD, code: 'abcde-fghij' });
    const answers = await Promise.all(Array.from({ length: 20 }, guess));
    expect(answers.filter(({ status }) => status === 422).length).toBe(10);
    expect(answers.filter(({ status }) => status === 429).length).toBe(10);
    const other = await clinics.somebody();
    await other.agent.post('/api/account/second-factor').send({ password: other.password }).expect(200);
    const confirm = () => other.agent.post('/api/account/second-factor/confirmation').send({ code: '000000' });
    const confirmed = await Promise.all(Array.from({ length: 20 }, confirm));
    expect(confirmed.filter(({ status }) => status === 422).length).toBeLessThanOrEqual(10);
    expect(confirmed.some(({ status }) => status === 429)).toBeTrue();
  });

  it('that was taken off opens no link that was made before, and no other link is made', async () => {
    const who = await withFactor();
    const { body } = await clinics.agent.post(`/api/staff/${who.id}/password-link`).send({ id: randomUUID() }).expect(200);
    await clinics.agent.post(`/api/staff/${who.id}/second-factor-removal`).send({}).expect(200);
    await request(clinics.app).post('/api/joining').send({ token: body.token, name: 'x', password: GOOD, code: who.codes[0] }).expect(409);
    await clinics.agent.post(`/api/staff/${who.id}/password-link`).send({ id: randomUUID() }).expect(409);
    await signIn(who).expect(200);
  });

  it('is done without again by whoever proves password and code', async () => {
    const who = await withFactor();
    await who.agent.post('/api/account/second-factor/removal').send({ password: who.password }).expect(401);
    await who.agent.post('/api/account/second-factor').send({ password: who.password, code: who.codes[0] }).expect(409);
    await who.agent.post('/api/account/second-factor/removal').send({ password: who.password, code: who.codes[1] }).expect(200);
    await signIn(who).expect(200);
  });

  it('asked of everybody is wanted of whoever signs in from then on: until they have one the account alone is open', async () => {
    const own = await startClinics();
    try {
      const { agent: lead } = own;
      const rule = (asked: boolean) => lead.put('/api/second-factor-rule').send({ asked });
      const setUp = async (agent: Agent, password: string) => {
        const { body } = await agent.post('/api/account/second-factor').send({ password }).expect(200);
        await agent
          .post('/api/account/second-factor/confirmation')
          .send({ code: codeOf(body.secret) })
          .expect(200);
        return body.secret as string;
      };
      expect((await rule(true).expect(409)).body.detail).toContain('You have no second factor yourself');
      await setUp(lead, 'ours-password');
      const { visitId } = await own.startVisit();
      expect((await rule(true).expect(200)).body.secondFactorSince).not.toBeNull();

      // Who was signed in goes on; whoever comes later does not come in.
      await own.hold(visitId, {}, own.second).expect(200);
      const late = await own.signIn('second');
      expect((await late.get('/api/session').expect(200)).body.secondFactorMissing).toBeTrue();
      for (const asked of [late.get(`/api/visits/${visitId}`), own.hold(visitId, {}, late), late.get('/api/at-hand')]) {
        const { body } = await asked.expect(403);
        expect(body.type).toBe(problemType('second-factor-missing'));
      }
      await late.get('/api/account').expect(200);
      await late.get('/api/sessions').expect(200);

      const secret = await setUp(late, 'second-password');
      expect((await late.get('/api/session').expect(200)).body.secondFactorMissing).toBeFalse();
      await own.hold(visitId, {}, late).expect(200);
      const proof = { password: 'second-password', code: codeOf(secret, Date.now() + 30_000) };
      expect((await late.post('/api/account/second-factor/removal').send(proof).expect(409)).body.title).toBe('The clinic asks for it');

      // Another clinic has its own rule.
      await own.stranger.get('/api/caseload').expect(200);
      expect((await own.stranger.get('/api/session').expect(200)).body.secondFactorMissing).toBeFalse();
      expect((await rule(false).expect(200)).body.secondFactorSince).toBeNull();
      const [logged] = await own.dataSource.query("SELECT COUNT(*) AS n FROM change_log WHERE field = 'secondFactorAsked'");
      expect(Number(logged.n)).toBe(2);
    } finally {
      await own.stop();
    }
  });

  it('is not begun on a server that has no key for it', async () => {
    const app = clinics.harness.appWith({ key: null });
    const agent = await clinics.signIn('ours', app);
    const { body } = await agent.post('/api/account/second-factor').send({ password: 'ours-password' }).expect(409);
    expect(body.detail).toContain('DIAL_GAUGE_KEY_FILE');
  });
});
