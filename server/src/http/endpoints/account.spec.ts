import { randomUUID } from 'node:crypto';
import { createServer as createPlain, request as forward, type Server } from 'node:http';
import { createServer as createTls, request as overTls } from 'node:https';
import type { AddressInfo } from 'node:net';
import type { Express } from 'express';
import request from 'supertest';
import { generate } from 'selfsigned';
import { addUser, newReading, startClinics, type Clinics } from '../../testing/harness.js';

const EMAIL = 'ours@clinic.example';
const SIGN_IN = { email: EMAIL, password: 'ours-password' };

describe('doors', () => {
  let clinics: Clinics;
  const query = (sql: string, values: unknown[] = []) => clinics.dataSource.query(sql, values);
  beforeAll(async () => {
    clinics = await startClinics();
  });
  afterAll(() => clinics.stop());

  describe('a session', () => {
    const somebody = async (): Promise<{ name: string; id: string }> => {
      const [name, id] = [`n${randomUUID().slice(0, 8)}`, randomUUID()];
      await addUser(clinics.dataSource, clinics.clinicId, id, `${name}@clinic.example`, `${name}-password`);
      return { name, id };
    };

    it('ends when its user is gone or has another password', async () => {
      const [gone, changed] = [await somebody(), await somebody()];
      const [one, two] = [await clinics.signIn(gone.name), await clinics.signIn(changed.name)];
      await one.get('/api/caseload').expect(200);
      // Nobody who was here is taken out: what they did stays under their name.
      await expectAsync(query('DELETE FROM user WHERE id = ?', [gone.id])).toBeRejected();
      await query('UPDATE user SET ended_at = NOW(3) WHERE id = ?', [gone.id]);
      await one.get('/api/caseload').expect(401);
      await query("UPDATE user SET password_hash = CONCAT(password_hash, 'x') WHERE id = ?", [changed.id]);
      await two.get('/api/caseload').expect(401);
    });

    it('that ended takes no reading, though it was in use a moment ago', async () => {
      const { visitId } = await clinics.startVisit();
      const ends: ((who: { id: string; name: string }) => Promise<unknown>)[] = [
        ({ id }) => query("UPDATE user SET password_hash = CONCAT(password_hash, 'x') WHERE id = ?", [id]),
        ({ id }) => query('UPDATE session SET expires_at = NOW(3) - INTERVAL 1 SECOND WHERE user_id = ?', [id]),
        async ({ name }) => (await clinics.signIn(name)).delete('/api/sessions').expect(200),
      ];
      for (const end of ends) {
        const who = await somebody();
        const agent = await clinics.signIn(who.name);
        // Once a way that was measured before, once a new one.
        await clinics.hold(visitId, {}, agent).expect(200);
        await end(who);
        const [before] = await query('SELECT (SELECT COUNT(*) FROM trial) AS trials, (SELECT COUNT(*) FROM measurement) AS measurements');
        const { body } = await clinics.hold(visitId, {}, agent).expect(401);
        expect(body.detail).toContain('Sign in again');
        await clinics.hold(visitId, { motion: 'knee.flexion' }, agent).expect(401);
        const [after] = await query('SELECT (SELECT COUNT(*) FROM trial) AS trials, (SELECT COUNT(*) FROM measurement) AS measurements');
        expect(after).toEqual(before);
      }
    });

    it('is listed with the others of its user, and ends elsewhere on demand', async () => {
      const { name } = await somebody();
      const here = await clinics.signIn(name);
      const [there, yonder] = [await clinics.signIn(name), await clinics.signIn(name)];
      const { body } = await here.get('/api/sessions').expect(200);
      expect(body.map((session: { here: boolean }) => session.here).sort()).toEqual([false, false, true]);
      const own = body.find((session: { here: boolean }) => session.here);
      const other = body.find((session: { here: boolean }) => !session.here);
      await here.delete(`/api/sessions/${own.id}`).expect(409);
      await clinics.stranger.delete(`/api/sessions/${other.id}`).expect(404);
      await here.delete(`/api/sessions/${other.id}`).expect(200);
      expect((await here.delete('/api/sessions').expect(200)).body.length).toBe(1);
      await there.get('/api/session').expect(401);
      await yonder.get('/api/session').expect(401);
      await here.get('/api/session').expect(200);
    });

    it('leaves nothing behind in the browser but what waits to be sent', async () => {
      const { name } = await somebody();
      const { headers } = await (await clinics.signIn(name)).delete('/api/session').expect(200);
      expect(headers['clear-site-data']).toBe('"cache"');
      expect(headers['set-cookie']?.[0]).toMatch(/^dial-gauge=;.*Expires=Thu, 01 Jan 1970/);
    });
  });

  describe('sign-in', () => {
    let behind: Express;
    beforeAll(() => (behind = clinics.harness.appWith({ trustProxy: 'loopback' })));
    const attempt = (email: string, password: string, address: string, app = behind) =>
      request(app).post('/api/session').set('x-forwarded-for', address).send({ email, password });

    it('locks out whoever guesses, for that account and from there, and nobody else behind the same proxy', async () => {
      // Many at once do not slip past the count.
      const tries = await Promise.all(Array.from({ length: 14 }, () => attempt(EMAIL, 'wrong', '203.0.113.7')));
      expect(tries.filter((answer) => answer.status === 401).length).toBe(10);
      const locked = await attempt(EMAIL, 'ours-password', '203.0.113.7').expect(429);
      expect(Number(locked.headers['retry-after'])).toBeGreaterThan(50);
      await attempt(EMAIL, 'ours-password', '203.0.113.8').expect(200);
      await attempt('second@clinic.example', 'second-password', '203.0.113.7').expect(200);
    });

    it('lets whoever was there before in, and prove it is still them, however many others guess', async () => {
      const { name, email } = await clinics.somebody();
      const knows = request.agent(behind);
      const asKnown = (password: string) => knows.post('/api/session').set('x-forwarded-for', '203.0.113.50').send({ email, password });
      await asKnown(`${name}-password`).expect(200);
      // From everywhere, and from the same address too.
      for (let n = 0; n < 80; n += 1) await attempt(email, 'wrong', n % 8 === 0 ? '203.0.113.50' : `198.51.100.${n}`);
      await attempt(email, `${name}-password`, '198.51.100.250').expect(429);
      await knows
        .post('/api/session/proof')
        .set('x-forwarded-for', '203.0.113.50')
        .send({ password: `${name}-password` })
        .expect(200);
      await asKnown(`${name}-password`).expect(200);
      // A cookie that somebody made up is no known device.
      const made = `dial-gauge-device=${'A'.repeat(22)}.${'B'.repeat(22)}`;
      await request(behind)
        .post('/api/session')
        .set('x-forwarded-for', '198.51.100.251')
        .set('cookie', made)
        .send({ email, password: `${name}-password` })
        .expect(429);
    });

    it('counts failures only, and in the database: another process counts on', async () => {
      for (let n = 0; n < 12; n += 1) await attempt(EMAIL, 'ours-password', '203.0.113.9').expect(200);
      for (let n = 0; n < 9; n += 1) await attempt(EMAIL, 'wrong', '203.0.113.9').expect(401);
      const another = clinics.harness.appWith({ trustProxy: 'loopback' });
      await attempt(EMAIL, 'wrong', '203.0.113.9', another).expect(401);
      await attempt(EMAIL, 'ours-password', '203.0.113.9', another).expect(429);
      await attempt(EMAIL, 'ours-password', '203.0.113.9').expect(429);
    });

    it('that is refused can be told apart in the log, by the user’s id, without a name', async () => {
      await attempt(EMAIL, 'wrong', '203.0.113.10').expect(401);
      await attempt('nobody@clinic.example', 'wrong', '203.0.113.10').expect(401);
      const lines = clinics
        .log()
        .split('\n')
        .filter((line) => line.includes('sign-in refused') && line.includes('203.0.113.10'));
      expect(lines.map((line) => JSON.parse(line).user)).toEqual([clinics.ids.ours, 'unknown']);
      expect(lines.join()).not.toContain('clinic.example');
    });
  });

  describe('behind TLS', () => {
    let app: Server;
    let proxy: Server;
    let key: { cert: string };
    const portOf = (server: Server) => (server.address() as AddressInfo).port;
    beforeAll(async () => {
      app = createPlain(clinics.harness.appWith({ session: { secure: true }, trustProxy: 'loopback' }));
      await new Promise<void>((resolve) => app.listen(0, '127.0.0.1', resolve));
      const made = await generate([{ name: 'commonName', value: 'localhost' }], { keySize: 2048 });
      key = made;
      proxy = createTls({ key: made.private, cert: made.cert }, (incoming, outgoing) => {
        const headers = {
          ...incoming.headers,
          'x-forwarded-proto': 'https',
          'x-forwarded-for': '198.51.100.4',
          'x-forwarded-host': incoming.headers.host,
        };
        const passed = forward({ host: '127.0.0.1', port: portOf(app), method: incoming.method, path: incoming.url, headers }, (answer) => {
          outgoing.writeHead(answer.statusCode!, answer.headers);
          answer.pipe(outgoing);
        });
        incoming.pipe(passed);
      });
      await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
    });
    afterAll(() => {
      proxy.close();
      app.close();
    });

    const ask = (
      method: string,
      path: string,
      { body, cookie, origin = true }: { body?: object; cookie?: string; origin?: boolean } = {},
    ) =>
      new Promise<{ status: number; headers: Record<string, string | string[] | undefined>; text: string }>((resolve, reject) => {
        const host = `localhost:${portOf(proxy)}`;
        const headers = {
          host,
          ...(body ? { 'content-type': 'application/json' } : {}),
          ...(cookie ? { cookie } : {}),
          ...(origin ? { origin: `https://${host}` } : {}),
        };
        const sent = overTls(
          { host: '127.0.0.1', port: portOf(proxy), method, path, headers, ca: key.cert, servername: 'localhost' },
          (answer) => {
            let text = '';
            answer.on('data', (chunk) => (text += chunk));
            answer.on('end', () => resolve({ status: answer.statusCode!, headers: answer.headers, text }));
          },
        );
        sent.on('error', reject);
        sent.end(body && JSON.stringify(body));
      });

    it('people sign in, with a cookie that belongs to this host alone and travels encrypted only', async () => {
      const answer = await ask('POST', '/api/session', { body: SIGN_IN });
      expect(answer.status).withContext(answer.text).toBe(200);
      const [cookie] = answer.headers['set-cookie'] as string[];
      expect(cookie).toMatch(/^__Host-dial-gauge=[^;]+; Path=\/; Expires=[^;]+; HttpOnly; Secure; SameSite=Strict$/);
      expect(cookie).not.toContain('Domain');
      const session = await ask('GET', '/api/session', { cookie: cookie!.split(';')[0]! });
      expect(JSON.parse(session.text).user.email).toBe(EMAIL);
    });

    it('whoever comes without it is told so, instead of being signed in for nothing', async () => {
      const { body } = await request(app).post('/api/session').send(SIGN_IN).expect(400);
      expect(body.title).toBe('Not over TLS');
    });
  });

  describe('what comes from elsewhere', () => {
    it('changes nothing: no form, no other origin, no other site', async () => {
      const { visitId } = await clinics.startVisit();
      const path = `/api/visits/${visitId}/readings`;
      const post = () => clinics.agent.post(path);
      await post().type('form').send({ a: 1 }).expect(415);
      await post().type('text/plain').send('{}').expect(415);
      await post().set('origin', 'https://evil.example').send(newReading()).expect(403);
      await post().set('sec-fetch-site', 'cross-site').send(newReading()).expect(403);
      await post().set('sec-fetch-site', 'same-site').send(newReading()).expect(403);
      await clinics.agent.delete('/api/session').set('origin', 'https://evil.example').expect(403);
      await clinics.agent.post(`/api/readings/${randomUUID()}/withdrawal`).type('form').send('a=1').expect(415);
      await post().set('sec-fetch-site', 'same-origin').send(newReading()).expect(200);
      await clinics.agent.get('/api/session').expect(200);
    });

    it('is not read before its session is looked at', async () => {
      const large = { csv: 'x'.repeat(1_900_000) };
      await request(clinics.app).post('/api/norm-sets').send(large).expect(401);
      await request(clinics.app).post('/api/norm-sets').type('json').send('{"csv": broken').expect(401);
      await clinics.agent.post('/api/norm-sets').type('json').send('{"csv": broken').expect(400);
      await clinics.agent
        .post('/api/patients')
        .send({ x: 'x'.repeat(150_000) })
        .expect(413);
    });
  });
});
