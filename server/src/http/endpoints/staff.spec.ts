import { openDatabase } from '../../records/open-database.js';
import { randomUUID } from 'node:crypto';
import { problemType } from '@dial-gauge/contract';
import request, { type Agent } from 'supertest';
import { User } from '../../records/identity/entities.js';
import { addUser, startClinics, startHarness, type Clinics, type Harness } from '../../testing/harness.js';
import type { Mailer } from '../../shared/mail.js';
import { newFoundingCode } from '../../use-cases/accounts/links.js';
import { wayBack } from '../../use-cases/accounts/way-back.js';

const GOOD = 'harbour-lichen-teaspoon-9';

describe('founding a clinic', () => {
  let harness: Harness;
  beforeAll(async () => {
    harness = await startHarness();
  });
  afterAll(() => harness.stop());
  const founding = (over: object = {}) => ({
    code: 'x',
    clinicName: 'Tidewater Rooms',
    name: 'Juno Fell',
    email: 'Juno@tidewater.example',
    password: GOOD,
    ...over,
  });

  it('takes the code that the server printed, once, however many try at the same moment', async () => {
    const app = harness.appWith();
    const { manager } = harness.dataSource;
    // Two servers have started, and each printed one.
    const codes = [(await newFoundingCode(manager, new Date()))!, (await newFoundingCode(manager, new Date()))!];
    const wrong = await request(app).post('/api/founding').send(founding()).expect(422);
    expect(wrong.body.errors[0].path).toBe('code');
    const weak = await request(app)
      .post('/api/founding')
      .send(founding({ code: codes[0], password: 'tidewater-juno-1' }))
      .expect(422);
    expect(weak.body.errors[0]).toEqual(
      jasmine.objectContaining({ path: 'password', message: jasmine.stringContaining('too easy to guess') }),
    );
    const tries = await Promise.all(
      [0, 1, 0].map((at, n) =>
        request(app)
          .post('/api/founding')
          .send(founding({ code: codes[at], email: `juno${n}@tidewater.example` })),
      ),
    );
    expect(tries.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
    const [counts] = await harness.dataSource.query(
      'SELECT (SELECT COUNT(*) FROM clinic) AS clinics, (SELECT COUNT(*) FROM user) AS users, (SELECT COUNT(*) FROM founding_code) AS codes',
    );
    expect(Object.values(counts as object).map(Number)).toEqual([1, 1, 0]);
    const winner = tries.find(({ status }) => status === 200)!;
    expect(winner.body.user.role).toBe('lead');
    expect(winner.headers['set-cookie']?.[0]).toContain('dial-gauge=');
    const entries = await harness.dataSource.query('SELECT user_id, did FROM audit_entry');
    expect(entries).toEqual([{ user_id: winner.body.user.id, did: 'signed-in' }]);
    expect(await newFoundingCode(manager, new Date())).toBeNull();
    await request(app)
      .post('/api/founding')
      .send(founding({ code: codes[1] }))
      .expect(409);
  });
});

describe('accounts', () => {
  let clinics: Clinics;
  const query = (sql: string, values: unknown[] = []) => clinics.dataSource.query(sql, values);
  beforeAll(async () => {
    clinics = await startClinics();
  });
  afterAll(() => clinics.stop());

  const invitation = (over: object = {}) => ({
    id: randomUUID(),
    name: 'Fenn Corrie',
    email: `fenn-${randomUUID().slice(0, 6)}@clinic.example`,
    role: 'examiner',
    ...over,
  });
  const invite = async (over: object = {}, by: Agent = clinics.agent) =>
    (await by.post('/api/invitations').send(invitation(over)).expect(200)).body;
  const join = (token: string, over: object = {}) =>
    request(clinics.app)
      .post('/api/joining')
      .send({ token, name: 'Fenn Corrie', password: GOOD, ...over });

  describe('an invitation', () => {
    it('works once, for whoever holds its link, however many use it at the same moment', async () => {
      const { token, staff } = await invite({ role: 'assistant' });
      expect(staff.links[0]).toEqual(jasmine.objectContaining({ kind: 'joining', role: 'assistant', madeBy: 'ours' }));
      expect(JSON.stringify(await query('SELECT * FROM account_link'))).not.toContain(token);
      const opened = await request(clinics.app).post('/api/joining/opening').send({ token }).expect(200);
      expect(opened.body).toEqual(jasmine.objectContaining({ clinic: jasmine.any(String), role: 'assistant' }));
      const weak = await join(token, { password: 'fenn-corrie-2026' }).expect(422);
      expect(weak.body.errors[0].path).toBe('password');
      const tries = await Promise.all([join(token), join(token), join(token)]);
      expect(tries.map(({ status }) => status).sort()).toEqual([200, 404, 404]);
      expect(tries.find(({ status }) => status === 200)!.body.session.user.role).toBe('assistant');
      await request(clinics.app).post('/api/joining/opening').send({ token }).expect(404);
    });

    it('that was taken back or has run out opens nothing, and nobody takes back one of another clinic', async () => {
      const back = await invite();
      await clinics.stranger.delete(`/api/invitations/${back.staff.links[0].id}`).expect(404);
      await clinics.agent.delete(`/api/invitations/${back.staff.links[0].id}`).expect(200);
      await join(back.token).expect(404);
      const late = await invite();
      const { id } = late.staff.links[0];
      // The database keeps what a link was for: its end is not moved.
      await expectAsync(query('UPDATE account_link SET expires_at = NOW(3) WHERE id = ?', [id])).toBeRejected();
      const { body } = await clinics.agent.get('/api/staff').expect(200);
      expect(body.links.some((link: { id: string }) => link.id === id)).toBeTrue();
    });

    it('is made once for an id, and not for somebody who has an account here', async () => {
      const one = invitation();
      await clinics.agent.post('/api/invitations').send(one).expect(200);
      await clinics.agent.post('/api/invitations').send(one).expect(409);
      const { body } = await clinics.agent
        .post('/api/invitations')
        .send(invitation({ email: 'Second@clinic.example' }))
        .expect(422);
      expect(body.errors[0].path).toBe('email');
      // Of another clinic: it is asked by whoever joins, not told to whoever invites.
      const { token } = await invite({ email: 'other@clinic.example' });
      await join(token).expect(422);
    });
  });

  const mails: { to: string; text: string }[] = [];
  const mailer = {
    settings: { url: '', from: 'Dial Gauge <no-reply@clinic.example>', publicUrl: 'https://gauge.example' },
    send: (mail: { to: string; text: string }) => Promise.resolve(void mails.push(mail)),
  } as unknown as Mailer;
  /** The token of a password link, as it arrives by mail. */
  const linkByMail = async (userId: string): Promise<string> => {
    const agent = await clinics.signIn('ours', clinics.harness.appWith({ mailer }));
    const { body } = await agent.post(`/api/staff/${userId}/password-link`).send({ id: randomUUID() }).expect(200);
    const mail = mails.at(-1)!;
    expect([body.token, body.mailedTo]).toEqual([null, mail.to]);
    return /https:\/\/gauge\.example\/join#(\S+)/.exec(mail.text)![1]!;
  };

  it('that is closed ends at once, stays on record by its name, and opens again', async () => {
    const who = await clinics.somebody();
    const { visitId } = await clinics.startVisit(who.agent);
    await clinics.hold(visitId, {}, who.agent).expect(200);
    const made = await linkByMail(who.id);
    await clinics.stranger.post(`/api/staff/${who.id}/ending`).send({}).expect(404);
    const { body } = await clinics.agent.post(`/api/staff/${who.id}/ending`).send({}).expect(200);
    expect(body.people.find((person: { id: string }) => person.id === who.id).endedAt).toMatch(/^20/);
    await who.agent.get('/api/session').expect(401);
    await clinics.hold(visitId, {}, who.agent).expect(401);
    await join(made).expect(404);
    const refused = await request(clinics.app).post('/api/session').send({ email: who.email, password: who.password }).expect(401);
    expect(refused.body.detail).toContain('E-mail or password is wrong');
    const { body: visit } = await clinics.agent.get(`/api/visits/${visitId}`).expect(200);
    expect(visit.visit.examiner).toBe(who.name);
    await clinics.agent.post(`/api/staff/${who.id}/return`).send({}).expect(200);
    await clinics.signIn(who.name);
  });

  it('of a lead is never the last that is lost: nobody changes their own, and two who close each other’s leave one', async () => {
    const [one, two] = [await clinics.somebody('lead'), await clinics.somebody('lead')];
    await one.agent.put(`/api/staff/${one.id}/role`).send({ role: 'reader' }).expect(409);
    await one.agent.post(`/api/staff/${one.id}/ending`).send({}).expect(409);
    const answers = await Promise.all([
      one.agent.post(`/api/staff/${two.id}/ending`).send({}),
      two.agent.post(`/api/staff/${one.id}/ending`).send({}),
    ]);
    expect(answers.filter(({ status }) => status === 200).length).toBe(1);
    const rows = await query('SELECT ended_at FROM user WHERE id IN (?)', [[one.id, two.id]]);
    expect(rows.filter((row: { ended_at: unknown }) => row.ended_at === null).length).toBe(1);
  });

  it('that gets another role signs in again, and who did it stays on record', async () => {
    const who = await clinics.somebody();
    await clinics.agent.put(`/api/staff/${who.id}/role`).send({ role: 'reader' }).expect(200);
    await who.agent.get('/api/session').expect(401);
    const again = await clinics.signIn(who.name);
    expect((await again.get('/api/session').expect(200)).body.user.role).toBe('reader');
    const [row] = await query("SELECT * FROM change_log WHERE subject = 'user' AND subject_id = ? AND field = 'role'", [who.id]);
    expect([JSON.parse(row.old_value), JSON.parse(row.new_value), row.user_id]).toEqual(['examiner', 'reader', clinics.ids.ours]);
  });

  it('of a lead whom nobody can help opens again by whoever looks after the server, and that is in the audit', async () => {
    const { dataSource } = clinics;
    await expectAsync(wayBack(openDatabase(dataSource), 'nobody@clinic.example', false)).toBeRejectedWithError(
      /No open account has the address/,
    );
    const id = randomUUID();
    await addUser(dataSource, clinics.clinicId, id, 'stuck@clinic.example', 'stuck-password');
    const lead = await clinics.signIn('stuck');
    const token = await wayBack(openDatabase(dataSource), 'Stuck@clinic.example', true);
    // Whoever was in is out.
    await lead.get('/api/session').expect(401);
    await request(clinics.app).post('/api/joining').send({ token, name: 'stuck', password: GOOD }).expect(200);
    const [{ n }] = await dataSource.query(
      "SELECT COUNT(*) AS n FROM audit_entry WHERE user_id = ? AND did = 'changed' AND about IN ('passwordLink', 'secondFactor')",
      [id],
    );
    expect(Number(n)).toBe(2);
  });

  it('whose password is forgotten gets a link by mail, which no lead sees; those made before work no more', async () => {
    const who = await clinics.somebody();
    const [first, second] = [await linkByMail(who.id), await linkByMail(who.id)];
    await join(first).expect(404);
    await join(second, { name: 'whatever' }).expect(200);
    await who.agent.get('/api/session').expect(401);
    const there = await request(clinics.app).post('/api/session').send({ email: who.email, password: GOOD }).expect(200);
    // A name is not changed on the way.
    expect((await clinics.dataSource.getRepository(User).findOneByOrFail({ id: who.id })).name).toBe(who.name);
    // Told at the next sign-in, until it was seen; and it is in the audit.
    expect(there.body.passwordLink).toEqual({ usedAt: jasmine.stringMatching(/^20/), madeBy: 'ours' });
    const agent = request.agent(clinics.app);
    await agent.post('/api/session').send({ email: who.email, password: GOOD }).expect(200);
    expect((await agent.get('/api/session').expect(200)).body.passwordLink).not.toBeNull();
    expect((await agent.post('/api/account/password-link-seen').send({}).expect(200)).body.passwordLink).toBeNull();
    expect((await agent.get('/api/session').expect(200)).body.passwordLink).toBeNull();
    const [row] = await query("SELECT COUNT(*) AS n FROM audit_entry WHERE user_id = ? AND did = 'new-password'", [who.id]);
    expect(Number(row.n)).toBe(1);
  });

  it('gets no link that others could use unseen: not without mail and without a second factor', async () => {
    const who = await clinics.somebody();
    const refused = await clinics.agent.post(`/api/staff/${who.id}/password-link`).send({ id: randomUUID() }).expect(409);
    expect(refused.body.detail).toContain('npm run account:link');
    const [row] = await query('SELECT COUNT(*) AS n FROM account_link WHERE user_id = ?', [who.id]);
    expect(Number(row.n)).toBe(0);
    // A mail that was not taken leaves no link that opens.
    const failing = { ...mailer, send: () => Promise.reject(new Error('greylisted')) } as unknown as Mailer;
    const agent = await clinics.signIn('ours', clinics.harness.appWith({ mailer: failing }));
    await agent.post(`/api/staff/${who.id}/password-link`).send({ id: randomUUID() }).expect(502);
    const [open] = await query('SELECT COUNT(*) AS n FROM account_link WHERE user_id = ? AND withdrawn_at IS NULL', [who.id]);
    expect(Number(open.n)).toBe(0);
  });

  it('gets another password with the one before, hard to guess; every other place is signed out', async () => {
    const who = await clinics.somebody();
    const elsewhere = await clinics.signIn(who.name);
    const change = (over: object) => who.agent.put('/api/account/password').send({ password: who.password, next: GOOD, ...over });
    expect((await change({ password: 'wrong' }).expect(422)).body.errors[0].path).toBe('password');
    expect((await change({ next: 'short' }).expect(422)).body.errors[0].path).toBe('next');
    expect((await change({ next: `${who.name}@clinic.example` }).expect(422)).body.errors[0].message).toContain('too easy to guess');
    expect((await change({ next: 'password123456' }).expect(422)).body.errors[0].message).toContain('too easy to guess');
    expect((await change({}).expect(200)).body.passwordSince).toMatch(/^20/);
    await who.agent.get('/api/session').expect(200);
    await elsewhere.get('/api/session').expect(401);
    await request(clinics.app).post('/api/session').send({ email: who.email, password: who.password }).expect(401);
    await request(clinics.app).post('/api/session').send({ email: who.email, password: GOOD }).expect(200);
  });

  it('changed at two places at once is changed at one of them, and the other is told', async () => {
    const who = await clinics.somebody();
    const there = await clinics.signIn(who.name);
    const change = (agent: Agent, next: string) => agent.put('/api/account/password').send({ password: who.password, next });
    const answers = await Promise.all([change(who.agent, GOOD), change(there, 'gravel-otter-lantern-4')]);
    expect(answers.filter(({ status }) => status === 200).length).toBe(1);
    expect(answers.every(({ status }) => [200, 401, 409, 422].includes(status))).toBeTrue();
  });

  describe('after a rest', () => {
    it('the password is asked for again before signing and before accounts are looked after, and for nothing else', async () => {
      let now = Date.now();
      const app = clinics.harness.appWith({ session: { restMs: 900_000 }, clock: () => new Date(now) });
      const agent = await clinics.signIn('ours', app);
      const { visitId } = await clinics.startVisit(agent);
      await clinics.hold(visitId, {}, agent).expect(200);
      await agent.get('/api/staff').expect(200);
      now += 901_000;
      // Measuring goes on.
      await clinics.hold(visitId, {}, agent).expect(200);
      const refused = await clinics.sign(visitId, agent);
      expect([refused.status, refused.body.type]).toEqual([403, problemType('proof')]);
      await agent.get('/api/staff').expect(403);
      // Neither time nor being busy proves anything.
      await agent.get('/api/caseload').expect(200);
      expect((await clinics.sign(visitId, agent)).status).toBe(403);
      await agent.post('/api/session/proof').send({ password: 'wrong' }).expect(422);
      await agent.post('/api/session/proof').send({ password: 'ours-password' }).expect(200);
      expect((await clinics.sign(visitId, agent)).status).toBe(200);
      await agent.get('/api/staff').expect(200);
    });
  });
});
