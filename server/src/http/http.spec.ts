import { randomUUID } from 'node:crypto';
import type { CaseloadRow } from '@dial-gauge/contract';
import type { Express } from 'express';
import request, { type Agent } from 'supertest';
import { addClinic, newPatient, newReading, startClinics, startHarness, TODAY, type Clinics, type Harness } from '../testing/harness.js';

describe('HTTP interface', () => {
  let harness: Harness;
  let app: Express;
  let agent: Agent;
  let stranger: Agent;

  let signIn: Clinics['signIn'];
  let startVisit: Clinics['startVisit'];
  let hold: Clinics['hold'];
  beforeAll(async () => {
    ({ harness, app, agent, stranger, signIn, startVisit, hold } = await startClinics());
  });
  afterAll(() => harness.stop());

  describe('sign-in', () => {
    it('tells who is signed in, and ends', async () => {
      const mine = await signIn('ours');
      const { body } = await mine.get('/api/session').expect(200);
      expect(body.user.email).toBe('ours@clinic.example');
      expect(JSON.stringify(body)).not.toContain('argon2');
      await mine.delete('/api/session').expect(200);
      await mine.get('/api/session').expect(401);
    });

    it('sets a cookie that scripts and other sites cannot use', async () => {
      const answer = await request(app).post('/api/session').send({ email: 'OURS@clinic.example', password: 'ours-password' }).expect(200);
      expect(answer.headers['set-cookie']?.[0]).toMatch(/^dial-gauge=.*HttpOnly.*SameSite=Strict/);
    });

    it('keeps neither the password nor the cookie in the database', async () => {
      const [users, sessions] = await Promise.all(['SELECT * FROM user', 'SELECT * FROM session'].map((q) => harness.dataSource.query(q)));
      expect(JSON.stringify(users)).not.toContain('ours-password');
      expect(users[0].password_hash).toMatch(/^\$argon2id\$/);
      expect(sessions.length).toBeGreaterThan(0);
      expect(sessions[0].id).toMatch(/^[0-9a-f]{64}$/);
    });

    it('refuses a wrong password and an unknown person alike, then slows down', async () => {
      const attempt = (email: string) => request(app).post('/api/session').send({ email, password: 'wrong' });
      const [wrong, unknown] = [await attempt('other@clinic.example'), await attempt('nobody@clinic.example')];
      expect([wrong.status, unknown.status]).toEqual([401, 401]);
      expect(wrong.body).toEqual(unknown.body);
      for (let i = 1; i < 10; i += 1) expect((await attempt('nobody@clinic.example')).status).toBe(401);
      const slowed = await attempt('nobody@clinic.example');
      expect(slowed.status).toBe(429);
      expect(slowed.body.detail).toContain('Wait');
    });

    /** A sign-in that ends after so long without a request. Its cookie is sent by hand: the test client would drop it by its own clock. */
    const signedInFor = async (idleMs: number) => {
      let now = Date.now();
      const short = harness.appWith({ session: { idleMs }, clock: () => new Date(now) });
      const signedIn = await request(short)
        .post('/api/session')
        .send({ email: 'ours@clinic.example', password: 'ours-password' })
        .expect(200);
      return { short, cookie: signedIn.headers['set-cookie']![0]!.split(';')[0]!, passes: (ms: number) => (now += ms) };
    };

    it('moves the end of a session on while it is used, in the cookie too, but not with every request', async () => {
      const { short, cookie, passes } = await signedInFor(4_000);
      const ask = () => request(short).get('/api/caseload').set('Cookie', cookie).expect(200);
      expect((await ask()).headers['set-cookie']).toBeUndefined();
      passes(1_100);
      const moved = await ask();
      expect(moved.headers['set-cookie']?.[0]?.split(';')[0]).toBe(cookie);
      expect((await ask()).headers['set-cookie']).toBeUndefined();
      passes(3_200);
      await ask();
    });

    it('ends a session by itself, with words for the person', async () => {
      const { short, cookie, passes } = await signedInFor(1_500);
      const ask = () => request(short).get('/api/caseload').set('Cookie', cookie);
      await ask().expect(200);
      passes(1_600);
      const { body, headers } = await ask().expect(401);
      expect(headers['content-type']).toContain('application/problem+json');
      expect(body.detail).toContain('Sign in again; what you typed stays');
    });
  });

  it('answers in words where something takes longer than a request may, and throws away what comes after that', async () => {
    const agent = request.agent(app);
    const signedIn = await agent.post('/api/session').send({ email: 'ours@clinic.example', password: 'ours-password' }).expect(200);
    const patient = newPatient();
    await agent.post('/api/patients').send(patient).expect(200);
    // Only the request that waits for the lock has so little time.
    const hurried = request(harness.appWith({ longestRequestMs: 200 }));
    const holder = harness.dataSource.createQueryRunner();
    await holder.startTransaction();
    await holder.query('SELECT id FROM episode WHERE id = ? FOR UPDATE', [patient.episode.id]);
    const intake = { complaint: 'another', involvedSide: 'left', revision: 0 };
    const late = await hurried
      .put(`/api/episodes/${patient.episode.id}/intake`)
      .set('Cookie', signedIn.headers['set-cookie']![0]!.split(';')[0]!)
      .send(intake);
    await holder.rollbackTransaction();
    await holder.release();
    expect([late.status, late.body.title, late.headers['retry-after']]).toEqual([503, 'Took too long', '5']);
    await agent.get('/api/session').expect(200);
  });

  it('asks for a session everywhere but at its doors and for its own description', async () => {
    const key = 'x'.repeat(43);
    const day = { id: randomUUID(), on: '2026-11-20', done: [], easy: null, pain: null, swelling: null, worse: null, note: '' };
    // A page of the person’s own has a key of its own, without which it is as shut.
    const doors: Readonly<Record<string, object>> = {
      '/api/own-page/opening': { token: 'x', code: '1' },
      '/api/own-page': { key },
      '/api/own-page/days': { key, day },
      // A code that nobody made.
      '/api/phone-pairing': { code: '000000' },
    };
    // Where there is a clinic, none is founded; a link that nobody made is not there.
    const shut: Readonly<Record<string, readonly [number, object]>> = {
      '/api/founding': [409, { code: 'x', clinicName: 'x', name: 'x', email: 'x@clinic.example', password: 'x'.repeat(12) }],
      '/api/joining/opening': [404, { token: 'x' }],
      '/api/joining': [404, { token: 'x', name: 'x', password: 'x'.repeat(12) }],
    };
    const { body: document } = await request(app).get('/api/openapi.json').expect(200);
    const operations = Object.entries(document.paths as Record<string, object>).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => [method, path] as const),
    );
    expect(operations.length).toBeGreaterThan(10);
    for (const [method, path] of operations) {
      if (method === 'post' && path === '/api/session') continue;
      const url = path.replace('{id}', randomUUID());
      const [status, body] = shut[url] ?? [401, doors[url]];
      const answer = await request(app)[method as 'get'](url).send(body);
      expect(answer.status).withContext(`${method} ${url}`).toBe(status);
    }
  });

  it('sends strict headers', async () => {
    const { headers } = await request(app).get('/api/session');
    expect(headers['content-security-policy']).toContain("default-src 'none'");
    expect(headers['content-security-policy']).not.toContain('unsafe');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['cache-control']).toBe('no-store');
    expect(headers['x-powered-by']).toBeUndefined();
  });

  describe('readings', () => {
    it('are saved as entered and come back', async () => {
      const { visitId } = await startVisit();
      await hold(visitId, { start: 10, end: 98 }).expect(200);
      await hold(visitId, { end: 101 }).expect(200);
      const { body } = await agent.get(`/api/visits/${visitId}`).expect(200);
      expect(body.measurements.length).toBe(1);
      expect(body.measurements[0].trials.map((t: { start: number; end: number }) => [t.start, t.end])).toEqual([
        [10, 98],
        [0, 101],
      ]);
      expect(body.measurements[0].trials[0].examiner).toBe('ours');
      expect(body.visit.readings).toBe(2);
    });

    it('are saved once when the same request comes again, even at the same moment', async () => {
      const { visitId } = await startVisit();
      const id = randomUUID();
      const answers = await Promise.all([1, 2, 3, 4].map(() => hold(visitId, { id })));
      expect(answers.map((a) => a.status)).toEqual([200, 200, 200, 200]);
      expect(answers.filter((a) => a.body.repeated === false).length).toBe(1);
      expect((await agent.get(`/api/visits/${visitId}`)).body.measurements[0].trials.length).toBe(1);
    });

    it('refuse an identifier that another reading carries', async () => {
      const { visitId } = await startVisit();
      const id = randomUUID();
      await hold(visitId, { id, end: 90 }).expect(200);
      const { body } = await hold(visitId, { id, end: 91 }).expect(409);
      expect(body.errors[0].path).toBe('id');
    });

    it('stay on record when withdrawn', async () => {
      const { visitId } = await startVisit();
      const id = randomUUID();
      await hold(visitId, { id }).expect(200);
      await agent.post(`/api/readings/${id}/withdrawal`).send({}).expect(200);
      await agent.post(`/api/readings/${id}/withdrawal`).send({}).expect(200);
      expect((await agent.get(`/api/visits/${visitId}`)).body.visit.readings).toBe(0);
      const [row] = await harness.dataSource.query('SELECT end_angle, withdrawn_at, withdrawn_by FROM trial WHERE id = ?', [id]);
      expect(row.end_angle).toBe(107);
      expect(row.withdrawn_at).not.toBeNull();
      expect(row.withdrawn_by).not.toBeNull();
    });

    it('name every refused field, what is wrong and what is allowed', async () => {
      const { visitId } = await startVisit();
      const { body } = await agent
        .post(`/api/visits/${visitId}/readings`)
        .send({ ...newReading({ end: 400 }), heldAt: 'noon', extra: 1 })
        .expect(422);
      expect(body.errors.map((e: { path: string }) => e.path).sort()).toEqual(['end', 'extra', 'heldAt']);
      const range = await hold(visitId, { end: 400 }).expect(422);
      expect(range.body.errors).toEqual([{ path: 'end', message: '400° is more than hip flexion can hold; allowed: −60 to 170°' }]);
      expect((await agent.post(`/api/visits/${visitId}/readings`).type('json').send('{').expect(400)).body.title).toBe('Not JSON');
    });
  });

  it('keeps what a remark said before', async () => {
    const { visitId } = await startVisit();
    const way = { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine' };
    await agent
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, pain: 4, painWhere: 'groin' })
      .expect(200);
    const { body } = await agent
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, pain: 2, endFeel: 'firm', substitutions: ['leg-turns-out'] })
      .expect(200);
    expect(body).toEqual(jasmine.objectContaining({ pain: 2, painWhere: 'groin', endFeel: 'firm', substitutions: ['leg-turns-out'] }));
    const rows = await harness.dataSource.query(
      "SELECT field, old_value, new_value FROM change_log WHERE field = 'pain' ORDER BY changed_at",
    );
    expect(rows.map((r: Record<string, string | null>) => [r['old_value'], r['new_value']])).toEqual([
      [null, '4'],
      ['4', '2'],
    ]);
    const wrong = await agent
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, substitutions: ['juggles'] })
      .expect(422);
    expect(wrong.body.errors[0].message).toContain('leg-turns-out');
  });

  it('judges a visit against the one before and shows progress', async () => {
    const { visitId, episodeId } = await startVisit();
    await hold(visitId, { end: 80 });
    const later = randomUUID();
    await agent.post(`/api/episodes/${episodeId}/visits`).send({ id: later, assessedOn: TODAY }).expect(200);
    await hold(later, { end: 95 });
    const { body } = await agent.get(`/api/visits/${later}/judgement`).expect(200);
    expect(body.judgement.findings.map((f: { kind: string }) => f.kind)).toEqual(['short-of-normal', 'changed']);
    expect(body.previousOn).toBe(TODAY);
    const progress = await agent.get(`/api/visits/${later}/progress`).expect(200);
    expect(progress.body.series[0].sinceLast).toEqual(jasmine.objectContaining({ before: 80, now: 95, verdict: 'more' }));
    const first = await agent.get(`/api/visits/${visitId}/progress`).expect(200);
    expect([first.body.visits.length, first.body.series[0].points.length]).toEqual([1, 1]);
  });

  it('lists the caseload with the last visit first, and adds a patient once', async () => {
    const patient = newPatient({ familyName: 'Once' });
    await agent.post('/api/patients').send(patient).expect(200);
    await agent.post('/api/patients').send(patient).expect(200);
    const { body } = await agent.get('/api/caseload').expect(200);
    expect(body.rows.filter((row: { patient: { familyName: string } }) => row.patient.familyName === 'Once').length).toBe(1);
    const days = body.rows.map((row: CaseloadRow) => row.lastVisit?.assessedOn ?? row.episode.openedOn);
    expect(days).toEqual([...days].sort().reverse());
    const future = await agent
      .post('/api/patients')
      .send(newPatient({ birthDate: '2190-01-01' }))
      .expect(422);
    expect(future.body.errors[0]).toEqual({ path: 'birthDate', message: jasmine.stringContaining('lies in the future') });
  });

  it('shows nothing of one clinic to another', async () => {
    const { visitId, episodeId, patientId } = await startVisit();
    const id = randomUUID();
    await hold(visitId, { id });
    const { body } = await stranger.get('/api/caseload').expect(200);
    expect(body).toEqual({ rows: [], odd: [], next: null });
    const attempts: [string, request.Test][] = [
      ['patient', stranger.get(`/api/patients/${patientId}`)],
      ['visit', stranger.get(`/api/visits/${visitId}`)],
      ['judgement', stranger.get(`/api/visits/${visitId}/judgement`)],
      ['progress', stranger.get(`/api/visits/${visitId}/progress`)],
      ['start', stranger.post(`/api/episodes/${episodeId}/visits`).send({ id: randomUUID(), assessedOn: TODAY })],
      ['hold', hold(visitId, {}, stranger)],
      [
        'remark',
        stranger
          .put(`/api/visits/${visitId}/remarks`)
          .send({ motion: 'hip.flexion', side: 'left', mode: 'active', position: 'supine', pain: 1 }),
      ],
      ['withdraw', stranger.post(`/api/readings/${id}/withdrawal`).send({})],
    ];
    for (const [what, attempt] of attempts) {
      const answer = await attempt;
      expect(answer.status).withContext(what).toBe(404);
      expect(answer.body.detail).toContain('in this clinic');
    }
    // Their own visit, our reading's identifier: refused, and nothing of ours is told.
    const theirs = await startVisit(stranger);
    const clash = await hold(theirs.visitId, { id }, stranger).expect(409);
    expect(JSON.stringify(clash.body)).not.toContain('107');
    const samePatient = await stranger
      .post('/api/patients')
      .send(newPatient({ id: patientId }))
      .expect(409);
    expect(samePatient.body.title).toBe('Identifier already used');
    expect((await agent.get(`/api/visits/${visitId}`)).body.visit.readings).toBe(1);
  });

  it('will not hang a row below another clinic even when the code above is wrong', async () => {
    const { visitId } = await startVisit();
    const [{ id: otherClinic }] = await harness.dataSource.query("SELECT clinic_id AS id FROM user WHERE email = 'other@clinic.example'");
    const forged = harness.dataSource.query(
      "INSERT INTO measurement (id, clinic_id, visit_id, motion, side, mode, position, protocol, pain_where, substitutions) VALUES (?, ?, ?, 'hip.flexion', 'left', 'active', 'supine', 'x', '', '[]')",
      [randomUUID(), otherClinic, visitId],
    );
    await expectAsync(forged).toBeRejectedWithError(/foreign key/);
  });

  it('answers a malformed identifier as not found', async () => {
    const { body } = await agent.get('/api/visits/abc').expect(404);
    expect(body.detail).toContain('caseload');
  });

  it('answers an unknown address with a problem', async () => {
    expect((await agent.get('/api/nowhere').expect(404)).body.status).toBe(404);
  });

  it('logs requests without names, notes or cookies', async () => {
    await agent.post('/api/patients').send(newPatient()).expect(200);
    const log = harness.log();
    expect(log).toContain('"path":"/api/patients"');
    for (const secret of ['Marsh', 'Ilka', 'stiff left hip', 'ours-password', 'dial-gauge=', 'clinic.example']) {
      expect(log).withContext(secret).not.toContain(secret);
    }
  });
});

describe('a database that goes away', () => {
  it('is told as such, loses no acknowledged reading, and is found again when it is back', async () => {
    const harness = await startHarness();
    try {
      await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'ours@clinic.example', 'ours-password');
      const agent = request.agent(harness.appWith());
      await agent.post('/api/session').send({ email: 'ours@clinic.example', password: 'ours-password' }).expect(200);
      const episode = randomUUID();
      const visit = randomUUID();
      await agent
        .post('/api/patients')
        .send({
          id: randomUUID(),
          givenName: 'A',
          familyName: 'B',
          birthDate: '1970-01-01',
          sex: 'male',
          episode: { id: episode, complaint: 'hip' },
        })
        .expect(200);
      await agent.post(`/api/episodes/${episode}/visits`).send({ id: visit, assessedOn: TODAY }).expect(200);
      const reading = newReading();
      await agent.post(`/api/visits/${visit}/readings`).send(reading).expect(200);
      await harness.database.kill();
      const refused = await agent.post(`/api/visits/${visit}/readings`).send({ ...reading, id: randomUUID() });
      expect(refused.status).toBe(503);
      expect(refused.body.detail).toContain('What you typed stays on the screen');
      expect(refused.headers['retry-after']).toBe('2');
      await harness.database.start();
      const { body } = await agent.get(`/api/visits/${visit}`).expect(200);
      expect(body.measurements[0].trials.map((t: { id: string }) => t.id)).toEqual([reading.id]);
      const again = await agent.post(`/api/visits/${visit}/readings`).send(reading).expect(200);
      expect(again.body.repeated).toBeTrue();
    } finally {
      await harness.stop();
    }
  });
});
