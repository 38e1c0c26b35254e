import { randomUUID } from 'node:crypto';
import { inWords } from '@dial-gauge/core';
import { startClinics, type Clinics } from '../../testing/harness.js';
import request, { type Test } from 'supertest';
import { Threads } from '../threads.js';
import { episodes, kneeReading, type Episodes } from '../../testing/episodes.js';

/** What is written from now on carries a later moment: records are told apart by milliseconds. */
const nextMoment = async (): Promise<void> => {
  for (const before = Date.now(); Date.now() === before;) await new Promise((resolve) => setImmediate(resolve));
};

describe('a signed visit', () => {
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

  it('keeps its own copy of the findings, refuses changes until it is opened with a reason, and lists them', async () => {
    const id = await visit(await patient());
    const { seen: nothing } = await judgement(id);
    const early = { id: randomUUID(), summary: 'Nothing yet.', seen: nothing };
    await agent.post(`/api/visits/${id}/signatures`).send(early).expect(422);
    const first = kneeReading(98);
    await agent.post(`/api/visits/${id}/readings`).send(first).expect(200);
    await agent.put(`/api/visits/${id}/summary`).send({ summary: 'Left knee bends less.', was: null }).expect(200);
    expect((await judgement(id)).summary).toBe('Left knee bends less.');
    const signature = { id: randomUUID(), summary: 'Left knee bends less.', seen: (await judgement(id)).seen };
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
    await agent.put(`/api/visits/${id}/summary`).send({ summary: 'x', was: 'Left knee bends less.' }).expect(409);
    await agent.put(`/api/visits/${id}/cautions`).send({ asked: [], yes: [], note: '', revision: 0 }).expect(409);
    expect((await clinics.sign(id)).status).toBe(409);

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
    expect(open.signing.changes.map((c) => c.what)).toEqual([
      'Left knee flexion, passive: put right to 120° (typed 98 for 120)',
      'Right knee flexion, passive: 131° added',
      'Left knee flexion, passive: pain was nothing, now 3',
    ]);
    expect((await clinics.sign(id)).status).toBe(200);
    const again = await judgement(id);
    expect(again.signing.signatures.map((s) => [s.number, s.why])).toEqual([
      [1, ''],
      [2, 'side mixed up'],
    ]);
    expect([again.visit.signed, again.signing.changes]).toEqual([true, []]);

    const { body: copy } = await agent.get(`/api/signatures/${signature.id}`).expect(200);
    expect(copy.judgement.measurements[0].value).toBe(98);
    expect(again.judgement.measurements.map((m) => m.value)).toEqual([120, 131]);
  });

  it('says what it said although the clinic judges by other rules since', async () => {
    const id = await visit(await patient());
    await hold(id, 98).expect(200);
    const before = await judgement(id);
    expect((await clinics.sign(id)).status).toBe(200);
    await agent
      .put('/api/norms')
      .send({ normSets: ['aaos-1965'], ranking: 'ground-up' })
      .expect(200);
    const after = await judgement(id);
    // The same findings, and the words in which they were read.
    expect(after.judgement).toEqual({ ...before.judgement, findings: before.judgement.findings.map(inWords) });
    await agent.post(`/api/visits/${id}/amendment`).send({ why: 'look again' }).expect(200);
    expect((await judgement(id)).judgement).toEqual(
      jasmine.objectContaining({ ranking: 'ground-up', normSet: jasmine.objectContaining({ id: 'aaos-1965' }) }),
    );
    await agent
      .put('/api/norms')
      .send({ normSets: ['boone-azen-1979'], ranking: 'largest-first' })
      .expect(200);
  });

  it('is nobody else’s to see, sign or amend', async () => {
    const id = await visit(await patient());
    await hold(id, 98).expect(200);
    const signature = randomUUID();
    const { seen } = await judgement(id);
    await stranger.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'x', seen }).expect(404);
    expect((await clinics.sign(id, agent, signature)).status).toBe(200);
    await stranger.post(`/api/visits/${id}/amendment`).send({ why: 'because' }).expect(404);
    await stranger.get(`/api/signatures/${signature}`).expect(404);
    await request(clinics.app).get(`/api/signatures/${signature}`).expect(401);
  });

  describe('takes nothing more', () => {
    const signed = async () => {
      const episodeId = await patient();
      const id = await visit(episodeId);
      await hold(id, 98).expect(200);
      expect((await clinics.sign(id)).status).toBe(200);
      return { id, episodeId };
    };
    const refused = async (test: Test) => {
      const { body } = await test.expect(409);
      expect(body.title).toBe('This visit is signed');
    };

    it('neither a run sheet, retests, an intake nor goals, until it is amended or the next visit begins', async () => {
      const { id, episodeId } = await signed();
      const step = { protocol: 'knee.flexion/supine', side: 'left', mode: 'active', seconds: 10 };
      const markers = [{ protocol: 'knee.flexion/supine', side: 'left', mode: 'passive', instrument: 'goniometer' }];
      const intake = { complaint: 'another knee', revision: 0 };
      const goal = { protocol: 'knee.flexion/supine', side: 'left', mode: 'passive', goal: { source: 'hand', value: 120 } };
      const changes = () => [
        agent.put(`/api/visits/${id}/plan`).send({ plan: { steps: [step] }, revision: 0 }),
        agent.post(`/api/visits/${id}/retests`).send({ id: randomUUID(), markers }),
        agent.put(`/api/episodes/${episodeId}/intake`).send(intake),
        agent.put(`/api/episodes/${episodeId}/goal`).send(goal),
      ];
      for (const change of changes()) await refused(change);
      await visit(episodeId);
      const [plan, retest, ...ofEpisode] = changes();
      for (const change of ofEpisode) await change!.expect(200);
      await refused(plan!);
      await refused(retest!);
      expect((await judgement(id)).episode.complaint)
        .withContext('what was signed is what is shown')
        .toBe('stiff left hip');
    });

    it('nor the end of a retest that was left open', async () => {
      const id = await visit(await patient());
      await hold(id, 98).expect(200);
      const retest = randomUUID();
      const markers = [{ protocol: 'knee.flexion/supine', side: 'left', mode: 'passive', instrument: 'goniometer' }];
      await agent.post(`/api/visits/${id}/retests`).send({ id: retest, markers }).expect(200);
      expect((await clinics.sign(id)).status).toBe(200);
      await refused(agent.post(`/api/retests/${retest}/finish`).send({}));
      await refused(agent.post(`/api/retests/${retest}/rounds`).send({ id: randomUUID(), number: 1, drill: 'Rock back' }));
      await refused(agent.post(`/api/retests/${retest}/readings`).send({ id: randomUUID(), round: 0, marker: 0, value: 90 }));
    });

    it('keeps what was entered before and comes late for review, once, and takes it in only when it is amended', async () => {
      const id = await visit(await patient());
      await hold(id, 98).expect(200);
      const late = kneeReading(99);
      const entered = new Date().toISOString();
      expect((await clinics.sign(id)).status).toBe(200);
      const send = () => agent.post(`/api/visits/${id}/readings`).set('x-dial-gauge-entered', entered).send(late);
      expect((await send().expect(202)).body.detail).toContain('kept for review');
      await send().expect(202);
      const remark = { motion: 'knee.flexion', side: 'left', mode: 'passive', position: 'supine', pain: 4 };
      for (let twice = 0; twice < 2; twice += 1)
        await agent.put(`/api/visits/${id}/remarks`).set('x-dial-gauge-entered', entered).send(remark).expect(202);
      const before = await judgement(id);
      expect(before.signing.late.map((entry) => [entry.what, entry.by])).toEqual([
        ['Left knee flexion, passive: 99°', 'ours'],
        ['Left knee flexion, passive: pain 4', 'ours'],
      ]);
      expect([before.signing.changes, before.judgement.measurements[0]!.ends]).toEqual([[], [98]]);
      // Entered after the signature, it is no late entry: it is refused.
      await refused(
        agent
          .post(`/api/visits/${id}/readings`)
          .set('x-dial-gauge-entered', new Date(Date.now() + 1).toISOString())
          .send(kneeReading(97)),
      );

      const [reading, note] = before.signing.late;
      await agent.post(`/api/late-entries/${reading!.id}/taking`).send({}).expect(409);
      await stranger.post(`/api/late-entries/${reading!.id}/taking`).send({}).expect(404);
      await agent.post(`/api/visits/${id}/amendment`).send({ why: 'a reading came late' }).expect(200);
      const { body: taken } = await clinics.second.post(`/api/late-entries/${reading!.id}/taking`).send({}).expect(200);
      expect(taken.judgement.measurements[0].ends).toEqual([98, 99]);
      expect(taken.signing.changes.map((c: { what: string; by: string }) => [c.what, c.by]))
        .withContext('under the name of whoever entered it')
        .toEqual([['Left knee flexion, passive: 99° added', 'ours']]);
      await agent.post(`/api/late-entries/${note!.id}/dismissal`).send({ why: 'x' }).expect(422);
      const { body: left } = await agent.post(`/api/late-entries/${note!.id}/dismissal`).send({ why: 'noted already' }).expect(200);
      expect(left.signing.late).toEqual([]);
      await agent.post(`/api/late-entries/${note!.id}/taking`).send({}).expect(409);
      expect((await send().expect(200)).body.repeated)
        .withContext('it is there by now')
        .toBeTrue();
    });

    it('answers a reading that was saved before the signature as saved, not as late', async () => {
      const id = await visit(await patient());
      const first = kneeReading(98);
      await agent.post(`/api/visits/${id}/readings`).send(first).expect(200);
      expect((await clinics.sign(id)).status).toBe(200);
      const again = await agent.post(`/api/visits/${id}/readings`).set('x-dial-gauge-entered', first.heldAt).send(first).expect(200);
      expect(again.body.repeated).toBeTrue();
    });
  });

  describe('is signed as it was seen', () => {
    it('and refused, with what changed, when the findings are others by then', async () => {
      const id = await visit(await patient());
      await hold(id, 98).expect(200);
      const { seen } = await judgement(id);
      const sign = () => agent.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'x', seen });
      await nextMoment();
      await clinics.second
        .post(`/api/visits/${id}/readings`)
        .send(kneeReading(131, { side: 'right' }))
        .expect(200);
      const { body } = await sign().expect(409);
      expect(body.title).toBe('The findings have changed');
      expect(body.errors).toEqual([{ path: 'findings', message: 'Right knee flexion, passive: 131° added (second)' }]);
      const next = (await judgement(id)).seen;
      await nextMoment();
      await clinics.second
        .put('/api/norms')
        .send({ normSets: ['aaos-1965'] })
        .expect(200);
      const grounds = await agent.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'x', seen: next }).expect(409);
      expect(grounds.body.errors[0].message).toMatch(
        /^what this clinic judges by: normOrder was boone-azen-1979, .* and \d+ more, now aaos-1965, boone-azen-1979, .* and \d+ more \(second\)$/,
      );
      await clinics.second
        .put('/api/norms')
        .send({ normSets: ['boone-azen-1979'] })
        .expect(200);
      expect((await clinics.sign(id)).status).toBe(200);
    });

    it('ten at once: one signature each, nobody waits for ever, and others are served meanwhile', async () => {
      const threads = new Threads(clinics.settings.database, undefined, new URL('../../worker.ts', import.meta.url).href);
      try {
        const busy = await clinics.signIn('ours', clinics.harness.appWith({ threads }));
        const visits = await Promise.all(
          Array.from({ length: 10 }, async () => {
            const id = await visit(await patient());
            await hold(id, 98).expect(200);
            return { id, seen: (await judgement(id)).seen };
          }),
        );
        const signing = visits.flatMap(({ id, seen }) =>
          [1, 2].map(() => busy.post(`/api/visits/${id}/signatures`).send({ id: randomUUID(), summary: 'x', seen })),
        );
        const answers = Promise.all(signing.map((test) => test.then((answer) => answer.status)));
        await busy.get('/api/caseload').expect(200);
        const statuses = await answers;
        expect(statuses.filter((status) => status === 200).length).toBe(10);
        expect(statuses.filter((status) => status === 409).length).toBe(10);
      } finally {
        await threads.close();
      }
    });
  });
});
