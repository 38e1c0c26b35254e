import { randomUUID } from 'node:crypto';
import { startClinics, type Clinics } from '../../testing/harness.js';
import { episodes, type Episodes } from '../../testing/episodes.js';

const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);

describe('goals and retests', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let stranger: Clinics['stranger'];
  let patient: Episodes['patient'];
  let visit: Episodes['visit'];
  let hold: Episodes['hold'];
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent, stranger } = clinics);
    ({ patient, visit, hold } = episodes(agent));
  });
  afterAll(() => clinics.stop());

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
      expect(await goal()).toEqual({ source: 'hand', value: 118, note: 'surgeon' });
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
});
