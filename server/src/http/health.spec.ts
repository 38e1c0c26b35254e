import type { Express } from 'express';
import request from 'supertest';
import { startClinics, type Clinics } from '../testing/harness.js';
import { Health } from './health.js';

const TOKEN = 'figures-of-saltmarsh-lane';

describe('how a server is', () => {
  let clinics: Clinics;
  let health: Health;
  let app: Express;
  beforeAll(async () => {
    clinics = await startClinics();
  });
  beforeEach(() => {
    health = new Health(clinics.harness.dataSource, { metricsToken: TOKEN });
    app = clinics.harness.appWith({ health });
  });
  afterAll(() => clinics.stop());

  const figures = async (): Promise<string> =>
    (await request(app).get('/metrics').set('Authorization', `Bearer ${TOKEN}`).expect(200)).text;

  it('lives and is ready while the database answers', async () => {
    await request(app).get('/healthz').expect(200, 'lives\n');
    await request(app).get('/readyz').expect(200, 'ready\n');
    const lost = new Health({ query: () => Promise.reject(new Error('gone')) } as never, { metricsToken: '' });
    const without = clinics.harness.appWith({ health: lost });
    await request(without).get('/healthz').expect(200);
    await request(without).get('/readyz').expect(503, 'not ready: the database does not answer\n');
    const mute = new Health({ query: () => new Promise(() => {}) } as never, { metricsToken: '' });
    await request(clinics.harness.appWith({ health: mute }))
      .get('/readyz')
      .expect(503);
  });

  it('is worth a line in the log only where the answer is a bad one', async () => {
    const lines = () =>
      clinics.harness
        .log()
        .split('\n')
        .filter((line) => /"path":"\/(readyz|healthz|metrics)"/.test(line));
    const before = lines().length;
    await request(app).get('/readyz').expect(200);
    await figures();
    expect(lines().length).toBe(before);
    health.drain();
    await request(app).get('/readyz').expect(503);
    expect(
      lines()
        .slice(before)
        .map((line) => (JSON.parse(line) as { status: number }).status),
    ).toEqual([503]);
  });

  it('asks the database no more often than twice a second, however often it is asked', async () => {
    let asked = 0;
    const counting = new Health({ query: () => Promise.resolve((asked += 1)) } as never, { metricsToken: '' });
    const counted = clinics.harness.appWith({ health: counting });
    await Promise.all(Array.from({ length: 20 }, () => request(counted).get('/readyz').expect(200)));
    expect(asked).toBe(1);
  });

  it('says while it ends that it takes nothing, and answers what comes as the last of its connection', async () => {
    const kept = () => request(app).get('/api/session').set('Connection', 'keep-alive');
    expect((await kept()).headers['connection']).not.toBe('close');
    health.drain();
    await request(app).get('/readyz').expect(503, 'not ready: is ending\n');
    await request(app).get('/healthz').expect(200);
    const last = await kept();
    expect([last.status, last.headers['connection']]).toEqual([401, 'close']);
    expect(await figures()).toContain('dial_gauge_draining 1');
  });

  it('tells its figures to whoever has the token, by route and never by address', async () => {
    const mine = await clinics.signIn('ours', app);
    const { visitId } = await clinics.startVisit(mine);
    await mine.get(`/api/visits/${visitId}`).expect(200);
    await mine.get('/api/visits/00000000-0000-4000-8000-000000000000').expect(404);
    await request(app).get('/api/nowhere').expect(404);
    const text = await figures();
    const counted = (route: string, status: number) =>
      new RegExp(`dial_gauge_request_seconds_count\\{method="GET",route="${route}",status="${status}"\\} (\\d+)`).exec(text)?.[1];
    expect(counted('/visits/:id', 200)).toBe('1');
    expect(counted('/visits/:id', 404)).toBe('1');
    expect(counted('other', 404)).toBe('1');
    expect(text).not.toContain(visitId);
    for (const header of ['', 'Bearer wrong', `Basic ${TOKEN}`, `Bearer ${TOKEN}x`])
      await request(app).get('/metrics').set('Authorization', header).expect(401);
    const closed = clinics.harness.appWith({ health: new Health(clinics.harness.dataSource, { metricsToken: '' }) });
    await request(closed).get('/metrics').set('Authorization', 'Bearer ').expect(404);
  });
});
