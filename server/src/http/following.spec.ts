import { randomUUID } from 'node:crypto';
import type { Express } from 'express';
import request, { type Agent } from 'supertest';
import { addClinic, startHarness, type Harness } from '../testing/harness.js';

const TODAY = new Date().toISOString().slice(0, 10);
const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);

describe('signing, goals, retests and own errors over HTTP', () => {
  let harness: Harness;
  let app: Express;
  let agent: Agent;
  let stranger: Agent;

  const signIn = async (who: string): Promise<Agent> => {
    const fresh = request.agent(app);
    await fresh
      .post('/api/session')
      .send({ email: `${who}@clinic.example`, password: `${who}-password` })
      .expect(200);
    return fresh;
  };
  beforeAll(async () => {
    harness = await startHarness();
    app = harness.appWith();
    await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'ours@clinic.example', 'ours-password');
    await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'other@clinic.example', 'other-password');
    agent = await signIn('ours');
    stranger = await signIn('other');
  }, 120_000);
  afterAll(() => harness.stop());

  const patient = async (over: object = {}) => {
    const [id, episodeId] = [randomUUID(), randomUUID()];
    await agent
      .post('/api/patients')
      .send({
        id,
        givenName: 'Ilka',
        familyName: 'Marsh',
        birthDate: '1984-05-02',
        sex: 'male',
        episode: { id: episodeId, complaint: 'stiff', involvedSide: 'left', ...over },
      })
      .expect(200);
    return episodeId;
  };
  const visit = async (episodeId: string, assessedOn = TODAY) => {
    const id = randomUUID();
    await agent.post(`/api/episodes/${episodeId}/visits`).send({ id, assessedOn }).expect(200);
    return id;
  };
  const reading = (end: number, over: object = {}) => ({
    id: randomUUID(),
    motion: 'knee.flexion',
    side: 'left',
    mode: 'passive',
    position: 'supine',
    instrument: 'goniometer',
    end,
    heldAt: new Date().toISOString(),
    ...over,
  });
  const hold = (id: string, end: number, over: object = {}) => agent.post(`/api/visits/${id}/readings`).send(reading(end, over));
  const judgement = async (id: string) => (await agent.get(`/api/visits/${id}/judgement`).expect(200)).body;

  describe('a signed visit', () => {
    it('keeps its own copy of the findings, refuses changes until it is opened with a reason, and lists them', async () => {
      const id = await visit(await patient());
      await agent.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'Nothing yet.' }).expect(422);
      const first = reading(98);
      await agent.post(`/api/visits/${id}/readings`).send(first).expect(200);
      await agent.put(`/api/visits/${id}/summary`).send({ summary: 'Left knee bends less.' }).expect(200);
      expect((await judgement(id)).summary).toBe('Left knee bends less.');
      const signature = { id: randomUUID(), summary: 'Left knee bends less.' };
      for (let twice = 0; twice < 2; twice++) await agent.post(`/api/visits/${id}/signatures`).send(signature).expect(200);
      const signed = await judgement(id);
      expect(signed.visit.signed).toBeTrue();
      expect(signed.signing.signatures).toEqual([
        jasmine.objectContaining({ id: signature.id, number: 1, by: 'ours', why: '', summary: 'Left knee bends less.' }),
      ]);

      const refusal = await hold(id, 110).expect(409);
      expect(refusal.body.detail).toContain('Amend');
      await agent.post(`/api/readings/${first.id}/withdrawal`).send({}).expect(409);
      await agent.post(`/api/readings/${first.id}/correction`).send({ id: randomUUID(), end: 100, why: 'slip' }).expect(409);
      await agent
        .put(`/api/visits/${id}/remarks`)
        .send({ motion: 'knee.flexion', side: 'left', mode: 'passive', position: 'supine', pain: 3 })
        .expect(409);
      await agent.put(`/api/visits/${id}/summary`).send({ summary: 'x' }).expect(409);
      await agent.put(`/api/visits/${id}/cautions`).send({ asked: [], yes: [], note: '' }).expect(409);
      await agent.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'again' }).expect(409);

      await agent.post(`/api/visits/${id}/amendment`).send({ why: ' ' }).expect(422);
      await agent.post(`/api/visits/${id}/amendment`).send({ why: 'side mixed up' }).expect(200);
      await agent.post(`/api/readings/${first.id}/correction`).send({ id: randomUUID(), end: 120, why: 'typed 98 for 120' }).expect(200);
      await hold(id, 131, { side: 'right' }).expect(200);
      await agent
        .put(`/api/visits/${id}/remarks`)
        .send({ motion: 'knee.flexion', side: 'left', mode: 'passive', position: 'supine', pain: 3 })
        .expect(200);
      const open = await judgement(id);
      expect(open.signing.amending).toEqual(jasmine.objectContaining({ why: 'side mixed up', by: 'ours' }));
      expect(open.signing.changes.map((c: { what: string }) => c.what)).toEqual([
        'Left knee flexion, passive: put right to 120° (typed 98 for 120)',
        'Right knee flexion, passive: 131° added',
        'Left knee flexion, passive: pain was nothing, now 3',
      ]);
      await agent.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'Amended.' }).expect(200);
      const again = await judgement(id);
      expect(again.signing.signatures.map((s: { number: number; why: string }) => [s.number, s.why])).toEqual([
        [1, ''],
        [2, 'side mixed up'],
      ]);
      expect([again.visit.signed, again.signing.changes]).toEqual([true, []]);

      const { body: copy } = await agent.get(`/api/signatures/${signature.id}`).expect(200);
      expect(copy.judgement.measurements[0].value).toBe(98);
      expect(again.judgement.measurements.map((m: { value: number }) => m.value)).toEqual([120, 131]);
    });

    it('says what it said although the clinic judges by other rules since', async () => {
      const id = await visit(await patient());
      await hold(id, 98).expect(200);
      const before = await judgement(id);
      await agent.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'x' }).expect(200);
      await agent.put('/api/judging').send({ normSet: 'aaos-1965', ranking: 'ground-up' }).expect(200);
      const after = await judgement(id);
      expect(after.judgement).toEqual(before.judgement);
      await agent.post(`/api/visits/${id}/amendment`).send({ why: 'look again' }).expect(200);
      expect((await judgement(id)).judgement).toEqual(
        jasmine.objectContaining({ ranking: 'ground-up', normSet: jasmine.objectContaining({ id: 'aaos-1965' }) }),
      );
      await agent.put('/api/judging').send({ normSet: 'boone-azen-1979', ranking: 'largest-first' }).expect(200);
    });

    it('takes a reading that was held before the signature and comes late', async () => {
      const id = await visit(await patient());
      await hold(id, 98).expect(200);
      const late = reading(99);
      await agent.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'x' }).expect(200);
      await agent.post(`/api/visits/${id}/readings`).send(late).expect(200);
      expect((await judgement(id)).signing.changes).toEqual([jasmine.objectContaining({ what: 'Left knee flexion, passive: 99° added' })]);
    });

    it('is nobody else’s to see, sign or amend', async () => {
      const id = await visit(await patient());
      await hold(id, 98).expect(200);
      const signature = randomUUID();
      await stranger.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'x' }).expect(404);
      await agent.post(`/api/visits/${id}/signatures`).send({ id: signature, summary: 'x' }).expect(200);
      await stranger.post(`/api/visits/${id}/amendment`).send({ why: 'because' }).expect(404);
      await stranger.get(`/api/signatures/${signature}`).expect(404);
      await request(app).get(`/api/signatures/${signature}`).expect(401);
    });
  });

  describe('goals', () => {
    it('are chosen, replaced and taken back, and show in progress', async () => {
      const episodeId = await patient();
      const [first, second] = [await visit(episodeId, daysAgo(30)), await visit(episodeId)];
      await hold(first, 90).expect(200);
      await hold(second, 104).expect(200);
      await hold(second, 132, { side: 'right' }).expect(200);
      const goal = async () => {
        const { body } = await agent.get(`/api/visits/${second}/progress`).expect(200);
        return body.series.find((s: { side: string }) => s.side === 'left').goal;
      };
      expect(await goal()).toEqual(jasmine.objectContaining({ source: 'other-side', value: 132 }));
      const set = (choice: object | null, status = 200) =>
        agent
          .put(`/api/episodes/${episodeId}/goal`)
          .send({ protocol: 'knee.flexion/supine', side: 'left', mode: 'passive', goal: choice })
          .expect(status);
      await set({ source: 'hand', value: 118, note: 'surgeon' });
      expect((await goal()).words).toBe('118° set by hand (surgeon)');
      await set({ source: 'task', task: 'rising from a chair' });
      expect((await goal()).value).toBe(93);
      await set(null);
      expect((await goal()).source).toBe('other-side');
      const wrong = await set({ source: 'hand', value: 400 }, 422);
      expect(wrong.body.errors[0].path).toBe('goal.value');
      expect((await set({ source: 'task', task: 'grasping' }, 422)).body.errors[0].message).toContain('asks nothing of this motion');
      await stranger
        .put(`/api/episodes/${episodeId}/goal`)
        .send({ protocol: 'knee.flexion/supine', side: 'left', mode: 'passive', goal: null })
        .expect(404);
    });
  });

  describe('a retest', () => {
    const marker = { protocol: 'hip.flexion/supine', side: 'left', mode: 'passive', instrument: 'goniometer' };

    it('keeps every reading, in turn, and remembers at the next visit what helped', async () => {
      const episodeId = await patient();
      const id = await visit(episodeId, daysAgo(7));
      const retest = randomUUID();
      await agent
        .post(`/api/visits/${id}/retests`)
        .send({ id: retest, markers: [marker] })
        .expect(200);
      const read = (round: number, value: number, status = 200) =>
        agent.post(`/api/retests/${retest}/readings`).send({ id: randomUUID(), round, marker: 0, value }).expect(status);
      const drill = (number: number, words: string, status = 200) =>
        agent.post(`/api/retests/${retest}/rounds`).send({ id: randomUUID(), number, drill: words }).expect(status);
      await read(0, 95);
      await read(0, 96);
      expect((await read(1, 107, 422)).body.errors[0].path).toBe('round');
      await drill(2, 'Too early', 422);
      await drill(1, 'Rock back');
      await drill(1, 'Something else', 409);
      const { body } = await read(1, 107);
      expect(body.retests[0].rounds).toEqual([
        { drill: '', values: [96] },
        { drill: 'Rock back', values: [107] },
      ]);
      expect(body.memory).toEqual([]);
      expect((await read(1, 400, 422)).body.errors[0].path).toBe('value');
      await agent.post(`/api/retests/${retest}/finish`).send({}).expect(200);
      await read(1, 100, 409);
      const next = await agent.get(`/api/visits/${await visit(episodeId)}/retests`).expect(200);
      expect(next.body.memory).toEqual([{ drill: 'Rock back', better: 1, same: 0, worse: 0 }]);
      await stranger.get(`/api/visits/${id}/retests`).expect(404);
      await stranger.post(`/api/retests/${retest}/finish`).send({}).expect(404);
    });

    it('has one to three markers, each once, of the library', async () => {
      const id = await visit(await patient());
      const start = (...markers: object[]) => agent.post(`/api/visits/${id}/retests`).send({ id: randomUUID(), markers });
      expect((await start().expect(422)).body.errors[0].path).toBe('markers');
      expect((await start(marker, marker).expect(422)).body.errors[0].message).toContain('is a marker already');
      expect((await start({ ...marker, protocol: 'hip.flexion/upside-down' }).expect(422)).body.errors[0].path).toBe('markers.0.protocol');
    });
  });

  describe('a study of the clinic’s own error', () => {
    const study = {
      name: 'Knees, goniometer',
      protocol: 'knee.flexion/supine',
      mode: 'passive',
      instrument: 'goniometer',
      kind: 'repeats',
      subjects: 4,
      raters: 2,
    };
    const TABLE = [
      [120, 121],
      [131, 130],
      [140, 141],
      [112, 111],
    ];

    it('stays blind until every cell is read, then is adopted and used in every judgement, and can be dropped', async () => {
      const id = randomUUID();
      const { body: planned } = await agent
        .post('/api/studies')
        .send({ id, ...study, seed: 5 })
        .expect(200);
      expect(planned.turns.length).toBe(8);
      const read = (subject: number, rater: number, value: number) =>
        agent.post(`/api/studies/${id}/readings`).send({ id: randomUUID(), subject, rater, value });
      await read(0, 0, 99).expect(200);
      for (const { subject, rater } of planned.turns) await read(subject, rater, TABLE[subject]![rater]!).expect(200);
      const { body: all } = await agent.get('/api/studies').expect(200);
      expect(all[0]).toEqual(jasmine.objectContaining({ read: [0, 1, 2, 3, 4, 5, 6, 7], table: TABLE, adopted: null }));

      const episodeId = await patient();
      const [before, after] = [await visit(episodeId, daysAgo(20)), await visit(episodeId)];
      await hold(before, 128, { heldAt: `${daysAgo(20)}T09:00:00.000Z` }).expect(200);
      await hold(after, 132).expect(200);
      const verdict = async () => {
        const { findings } = (await judgement(after)).judgement;
        return findings.find((f: { kind: string }) => ['changed', 'within-error'].includes(f.kind));
      };
      expect((await verdict()).kind).toBe('within-error');
      const { body: adopted } = await agent.post(`/api/studies/${id}/adoption`).send({ basis: 'agreement' }).expect(200);
      expect(adopted.adopted.sem).toBeCloseTo(Math.sqrt(2 / 3), 9);
      expect((await verdict()).kind).toBe('changed');
      expect((await verdict()).because.join(' ')).toContain('this clinic’s own study, 4 people × 2 repeats of one examiner');
      const { body: progress } = await agent.get(`/api/visits/${after}/progress`).expect(200);
      expect(progress.series[0].sinceLast.verdict).toBe('more');
      expect((await agent.get(`/api/visits/${after}`).expect(200)).body.ownErrors.length).toBe(1);
      expect((await agent.get('/api/judging').expect(200)).body.ownErrors.length).toBe(1);
      await read(0, 0, 125).expect(422);
      await agent.delete(`/api/studies/${id}/adoption`).expect(200);
      expect((await verdict()).kind).toBe('within-error');
    });

    it('is not adopted half read, and refuses what cannot be', async () => {
      const id = randomUUID();
      const { body } = await agent
        .post('/api/studies')
        .send({ id, ...study, seed: 6 })
        .expect(200);
      expect(body.table).toBeNull();
      const refusal = await agent.post(`/api/studies/${id}/adoption`).send({ basis: 'agreement' }).expect(422);
      expect(refusal.body.errors[0].message).toContain('0 of 8 readings');
      const wrong = (over: object) =>
        agent
          .post('/api/studies')
          .send({ id: randomUUID(), ...study, seed: 1, ...over })
          .expect(422);
      expect((await wrong({ subjects: 2 })).body.errors[0].path).toBe('subjects');
      expect((await wrong({ instrument: 'tape' })).body.errors[0].path).toBe('instrument');
      await agent.post(`/api/studies/${id}/readings`).send({ id: randomUUID(), subject: 4, rater: 0, value: 120 }).expect(422);
      await stranger.post(`/api/studies/${id}/readings`).send({ id: randomUUID(), subject: 0, rater: 0, value: 120 }).expect(404);
      expect((await stranger.get('/api/studies').expect(200)).body).toEqual([]);
    });
  });
});
