import { randomUUID } from 'node:crypto';
import type { NewReading, PlanView } from '@dial-gauge/contract';
import type { Express } from 'express';
import request, { type Agent } from 'supertest';
import { ChangeRow } from '../../database/change-log.js';
import { TrialRow } from '../../records/readings/entities.js';
import { addClinic, addUser, startHarness, type Harness } from '../../testing/harness.js';

const TODAY = new Date().toISOString().slice(0, 10);
const LIMIT = { motion: 'knee.flexion', side: 'left', limit: 90, until: '2099-01-01', source: 'surgeon' };
const PLAN: PlanView = {
  steps: [
    { protocol: 'knee.flexion/supine', side: 'right', mode: 'active', seconds: 22 },
    { protocol: 'knee.flexion/supine', side: 'left', mode: 'active', seconds: 22, stopAt: 90 },
  ],
  leftOut: [],
  minutesAvailable: 20,
  trials: 1,
};

describe('preparing over HTTP', () => {
  let harness: Harness;
  let app: Express;
  let wren: Agent;
  let rook: Agent;
  let stranger: Agent;
  const clinicId = randomUUID();
  const wrenId = randomUUID();

  const signIn = async (email: string): Promise<Agent> => {
    const agent = request.agent(app);
    await agent.post('/api/session').send({ email, password: 'a-password' }).expect(200);
    return agent;
  };
  const start = async () => {
    const episodeId = randomUUID();
    const visitId = randomUUID();
    const episode = { id: episodeId, complaint: 'new left knee', involvedSide: 'left' };
    const patient = { id: randomUUID(), givenName: 'Ilka', familyName: 'Marsh', birthDate: '1960-04-01', sex: 'female', episode };
    await wren.post('/api/patients').send(patient).expect(200);
    await wren.post(`/api/episodes/${episodeId}/visits`).send({ id: visitId, assessedOn: TODAY }).expect(200);
    return { episodeId, visitId };
  };
  const reading = (over: Partial<NewReading> = {}) => ({
    id: randomUUID(),
    motion: 'knee.flexion',
    side: 'left',
    mode: 'passive',
    position: 'supine',
    instrument: 'goniometer',
    start: 0,
    end: 85,
    heldAt: new Date().toISOString(),
    ...over,
  });
  const hold = (visitId: string, over: Partial<NewReading> = {}, by = wren) =>
    by.post(`/api/visits/${visitId}/readings`).send(reading(over));

  beforeAll(async () => {
    harness = await startHarness();
    app = harness.appWith();
    await addClinic(harness.dataSource, clinicId, wrenId, 'wren@one.example', 'a-password');
    await addUser(harness.dataSource, clinicId, randomUUID(), 'rook@one.example', 'a-password');
    await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'other@two.example', 'a-password');
    [wren, rook, stranger] = await Promise.all([signIn('wren@one.example'), signIn('rook@one.example'), signIn('other@two.example')]);
  });
  afterAll(() => harness.stop());

  it('keeps the intake with its precautions, and what stood before', async () => {
    const { episodeId, visitId } = await start();
    const intake = {
      complaint: 'new left knee',
      involvedSide: 'left',
      procedureId: 'knee-replacement',
      procedureOn: '2026-10-01',
      wanted: 'ladders',
      precautions: [LIMIT],
    };
    const { body } = await wren
      .put(`/api/episodes/${episodeId}/intake`)
      .send({ ...intake, revision: 0 })
      .expect(200);
    expect(body).toEqual(jasmine.objectContaining({ ...intake, revision: 1, dominantSide: null }));
    const visit = await wren.get(`/api/visits/${visitId}`).expect(200);
    expect(visit.body.episode.precautions).toEqual([LIMIT]);
    const kept = await harness.dataSource.getRepository(ChangeRow).findBy({ subjectId: episodeId });
    expect(kept.map((change) => change.field).sort()).toEqual(['precautions', 'procedureId', 'procedureOn', 'wanted']);
    expect(kept.find((change) => change.field === 'wanted')).toEqual(
      jasmine.objectContaining({ oldValue: '', newValue: 'ladders', userId: wrenId }),
    );
    await stranger
      .put(`/api/episodes/${episodeId}/intake`)
      .send({ ...intake, revision: 1 })
      .expect(404);
  });

  it('starts no visit and takes no operation before the patient was born', async () => {
    const { episodeId } = await start();
    const visit = await wren.post(`/api/episodes/${episodeId}/visits`).send({ id: randomUUID(), assessedOn: '1960-03-31' }).expect(422);
    expect(visit.body.errors).toEqual([{ path: 'assessedOn', message: 'lies before the birth; allowed: 1960-04-01 or later' }]);
    await wren.post(`/api/episodes/${episodeId}/visits`).send({ id: randomUUID(), assessedOn: '1960-04-01' }).expect(200);
    const intake = { complaint: 'new left knee', procedureId: 'knee-replacement', procedureOn: '1950-01-01', revision: 0 };
    const refused = await wren.put(`/api/episodes/${episodeId}/intake`).send(intake);
    expect([refused.status, refused.body.errors?.[0]?.path]).toEqual([422, 'procedureOn']);
  });

  it('does not let one examiner overwrite what another changed meanwhile', async () => {
    const { episodeId, visitId } = await start();
    const intake = { complaint: 'new left knee', involvedSide: 'left', revision: 0 };
    await rook
      .put(`/api/episodes/${episodeId}/intake`)
      .send({ ...intake, wanted: 'stairs' })
      .expect(200);
    const { body } = await wren
      .put(`/api/episodes/${episodeId}/intake`)
      .send({ ...intake, wanted: 'ladders' })
      .expect(409);
    expect(body.detail).toContain('changed by rook meanwhile');
    await rook.put(`/api/visits/${visitId}/plan`).send({ plan: PLAN, revision: 0 }).expect(200);
    const other = { ...PLAN, steps: [...PLAN.steps].reverse() };
    const refused = await wren.put(`/api/visits/${visitId}/plan`).send({ plan: other, revision: 0 }).expect(409);
    expect(refused.body.detail).toContain('The run sheet was changed by rook');
    // The same plan again is no conflict: a repeated request is harmless.
    await rook.put(`/api/visits/${visitId}/plan`).send({ plan: PLAN, revision: 0 }).expect(200);
  });

  it('adds to a run sheet from the dial without taking away what another examiner has put there', async () => {
    const { visitId } = await start();
    const add = (by: Agent, protocol: string) =>
      by
        .put(`/api/visits/${visitId}/plan`)
        .send({ plan: { ...PLAN, steps: [...PLAN.steps, { protocol, side: 'left', mode: 'active', seconds: 0 }] } });
    await add(rook, 'hip.flexion/supine').expect(200);
    const { body } = await add(wren, 'hip.abduction/supine').expect(200);
    expect(body.plan.steps.map((step: { protocol: string }) => step.protocol)).toEqual([
      'knee.flexion/supine',
      'knee.flexion/supine',
      'hip.flexion/supine',
      'hip.abduction/supine',
    ]);
  });

  it('refuses a precaution past what the motion can hold, naming the field', async () => {
    const { episodeId } = await start();
    const { body } = await wren
      .put(`/api/episodes/${episodeId}/intake`)
      .send({ complaint: 'x', revision: 0, precautions: [{ ...LIMIT, limit: 400 }] })
      .expect(422);
    expect(body.errors[0]).toEqual({ path: 'precautions.0.limit', message: '400 is not an end of knee flexion; allowed: -30 to 170' });
  });

  it('records the answers to the caution questions, and every change of them', async () => {
    const { visitId } = await start();
    const first = await wren
      .put(`/api/visits/${visitId}/cautions`)
      .send({ asked: ['clot-leg', 'fracture'], yes: ['clot-leg'], revision: 0 })
      .expect(200);
    expect(first.body.cautions).toEqual(jasmine.objectContaining({ outcome: 'refer', by: 'wren', yes: ['clot-leg'] }));
    const again = await rook
      .put(`/api/visits/${visitId}/cautions`)
      .send({ asked: ['clot-leg', 'fracture'], yes: [], note: 'cleared by the clinic next door', revision: 1 })
      .expect(200);
    expect(again.body.cautions).toEqual(jasmine.objectContaining({ outcome: 'measure', by: 'rook' }));
    const kept = await harness.dataSource.getRepository(ChangeRow).find({ where: { subjectId: visitId }, order: { changedAt: 'ASC' } });
    expect(kept.length).toBe(2);
    expect(kept[1]!.oldValue).toEqual(jasmine.objectContaining({ outcome: 'refer' }));
    await wren
      .put(`/api/visits/${visitId}/cautions`)
      .send({ asked: ['mood'], yes: [], revision: 2 })
      .expect(422);
  });

  it('keeps a prepared run sheet, and refuses one that names what is not measured so', async () => {
    const { visitId } = await start();
    const { body } = await wren.put(`/api/visits/${visitId}/plan`).send({ plan: PLAN, revision: 0 }).expect(200);
    expect(body.plan).toEqual(PLAN);
    expect(body.revision).toBe(1);
    const wrong = { ...PLAN, steps: [{ ...PLAN.steps[0]!, side: 'midline' }, PLAN.steps[1]!, PLAN.steps[1]!] };
    const refused = await wren.put(`/api/visits/${visitId}/plan`).send({ plan: wrong }).expect(422);
    expect(refused.body.errors.map((e: { path: string }) => e.path)).toEqual(['plan.steps.0.side', 'plan.steps.2']);
  });

  it('keeps what the device showed, how it counts, and as it was entered', async () => {
    const { visitId } = await start();
    const { body } = await hold(visitId, {
      instrument: 'inclinometer',
      start: 350,
      end: 75,
      scale: '360',
      sense: 1,
      entered: '350/75',
    }).expect(200);
    expect(body.reading).toEqual(jasmine.objectContaining({ start: 350, end: 75, scale: '360', sense: 1, entered: '350/75' }));
    const judged = await wren.get(`/api/visits/${visitId}/judgement`).expect(200);
    expect(judged.body.judgement.measurements[0].value).toBe(85);
    await hold(visitId, { scale: '360', sense: 1 }).expect(422);
    const far = await hold(visitId, { instrument: 'inclinometer', start: 0, end: 200, scale: '360', sense: 1 }).expect(422);
    expect(far.body.errors[0].message).toContain('from zero to end: 200° is more than knee flexion can hold');
  });

  it('keeps the reason for passing a limit', async () => {
    const { visitId } = await start();
    await hold(visitId, { end: 95, pastLimit: { limit: 90, why: 'surgeon present and asked for it' } }).expect(200);
    const { body } = await wren.get(`/api/visits/${visitId}`).expect(200);
    expect(body.measurements[0].trials[0].pastLimit).toEqual({ limit: 90, why: 'surgeon present and asked for it' });
    await hold(visitId, { end: 95, pastLimit: { limit: 90, why: ' ' } }).expect(422);
  });

  it('puts a reading right and keeps the old value, who, when and why', async () => {
    const { visitId } = await start();
    const first = await hold(visitId, { end: 58 }).expect(200);
    await hold(visitId, { end: 84, heldAt: new Date(Date.now() + 1000).toISOString() }).expect(200);
    const correction = { id: randomUUID(), end: 85, why: 'digits turned round' };
    const correct = (by: Agent, body: object = correction) => by.post(`/api/readings/${first.body.reading.id}/correction`).send(body);
    await correct(stranger).expect(404);
    await correct(wren, { ...correction, end: 400 }).expect(422);
    expect((await correct(rook).expect(200)).body.repeated).toBeFalse();
    expect((await correct(rook).expect(200)).body.repeated).toBeTrue();
    await correct(wren, { id: randomUUID(), end: 86, why: 'no, 86' }).expect(409);
    const { body } = await wren.get(`/api/visits/${visitId}`).expect(200);
    const { trials } = body.measurements[0];
    expect(trials.map((trial: { end: number }) => trial.end)).toEqual([85, 84]);
    expect(trials[0].corrected).toEqual([
      jasmine.objectContaining({ value: 58, examiner: 'wren', by: 'rook', why: 'digits turned round' }),
    ]);
    expect(await harness.dataSource.getRepository(TrialRow).countBy({ id: first.body.reading.id })).toBe(1);
  });

  it('keeps that something was not done, why, and a remark', async () => {
    const { visitId } = await start();
    const way = { motion: 'knee.flexion', side: 'left', mode: 'active', position: 'supine' };
    const { body } = await wren
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, notDone: 'refused', notDoneWhy: 'too sore', note: 'try later' })
      .expect(200);
    expect(body).toEqual(jasmine.objectContaining({ notDone: 'refused', notDoneWhy: 'too sore', note: 'try later', trials: [] }));
    await wren
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, notDone: 'lazy' })
      .expect(422);
  });

  it('shows a conflict of two examiners, and overwrites nothing', async () => {
    const { visitId } = await start();
    const way = { motion: 'knee.flexion', side: 'left', mode: 'active', position: 'supine' };
    await rook
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, pain: 3, was: { pain: null } })
      .expect(200);
    const { body } = await wren
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, pain: 6, was: { pain: null } })
      .expect(409);
    expect(body.detail).toBe('rook noted pain: 3. Yours was not saved; note it again to replace it.');
    await wren
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, pain: 6, was: { pain: 3 } })
      .expect(200);
    // One's own change from another tab is none.
    await wren
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, pain: 7, was: { pain: 3 } })
      .expect(200);
  });

  it('saves nothing under the name of whoever signed in after', async () => {
    const { visitId } = await start();
    const { body } = await rook.post(`/api/visits/${visitId}/readings`).set('x-dial-gauge-user', wrenId).send(reading()).expect(403);
    expect(body.detail).toContain('rook is signed in now');
    await wren.post(`/api/visits/${visitId}/readings`).set('x-dial-gauge-user', wrenId).send(reading()).expect(200);
  });

  it('keeps the clinic’s own exam sets and hands, and learns how long things take', async () => {
    const set = { id: randomUUID(), name: 'Our knee', items: [{ protocol: 'knee.flexion/supine' }] };
    const added = await wren.post('/api/exam-sets').send(set).expect(200);
    expect(added.body.examSets).toContain(set);
    await wren.post('/api/exam-sets').send(set).expect(200);
    await wren
      .post('/api/exam-sets')
      .send({ ...set, id: randomUUID() })
      .expect(422);
    expect((await stranger.get('/api/clinic').expect(200)).body.examSets).toEqual([]);
    const hand = await rook.put('/api/clinic/hand').send({ fist: 9, finger: 2 }).expect(200);
    expect(hand.body.hand).toEqual({ fist: 9, finger: 2 });
    await rook.put('/api/clinic/hand').send({ fist: 90, finger: 2 }).expect(422);
    const { visitId } = await start();
    // A visit that began a while ago.
    await harness.dataSource.query('UPDATE visit SET started_at = started_at - INTERVAL 10 MINUTE WHERE id = ?', [visitId]);
    const begin = Date.now() - 500_000;
    for (let i = 0; i < 7; i += 1) {
      const side = i % 2 ? 'left' : 'right';
      await hold(visitId, { motion: 'hip.flexion', side, heldAt: new Date(begin + i * 17_000).toISOString() }).expect(200);
    }
    expect((await wren.get('/api/clinic').expect(200)).body.times.first['hip.flexion/supine']).toBe(17);
    const removed = await wren.delete(`/api/exam-sets/${set.id}`).expect(200);
    expect(removed.body.examSets).not.toContain(set);
    await wren.delete(`/api/exam-sets/${set.id}`).expect(404);
  });
});
