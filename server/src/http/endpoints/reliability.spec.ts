import { randomUUID } from 'node:crypto';
import { saidOf } from '@dial-gauge/core';
import { startClinics, type Clinics } from '../../testing/harness.js';
import { episodes, type Episodes } from '../../testing/episodes.js';

const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);

describe('own errors', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let stranger: Clinics['stranger'];
  let patient: Episodes['patient'];
  let visit: Episodes['visit'];
  let hold: Episodes['hold'];
  let judgement: Episodes['judgement'];
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent, stranger } = clinics);
    ({ patient, visit, hold, judgement } = episodes(agent));
  });
  afterAll(() => clinics.stop());

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
      await hold(before, 128).expect(200);
      await hold(after, 132).expect(200);
      const verdict = async () => {
        const { findings } = (await judgement(after)).judgement;
        return findings.find((f) => ['changed', 'within-error'].includes(f.kind));
      };
      expect((await verdict())!.kind).toBe('within-error');
      const { body: adopted } = await agent.post(`/api/studies/${id}/adoption`).send({ basis: 'agreement' }).expect(200);
      expect(adopted.adopted.sem).toBeCloseTo(Math.sqrt(2 / 3), 9);
      expect((await verdict())!.kind).toBe('changed');
      expect(saidOf((await verdict())!).because.join(' ')).toContain('this clinic’s own study, 4 people × 2 repeats of one examiner');
      const { body: progress } = await agent.get(`/api/visits/${after}/progress`).expect(200);
      expect(progress.series[0].sinceLast.verdict).toBe('more');
      expect((await agent.get(`/api/visits/${after}`).expect(200)).body.ownErrors.length).toBe(1);
      expect((await agent.get('/api/norms').expect(200)).body.ownErrors.length).toBe(1);
      await read(0, 0, 125).expect(422);
      await agent.delete(`/api/studies/${id}/adoption`).expect(200);
      expect((await verdict())!.kind).toBe('within-error');
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
