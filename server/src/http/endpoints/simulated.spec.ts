import { randomUUID } from 'node:crypto';
import type { JudgementView, ProgressView, ReportView, VisitRecord } from '@dial-gauge/contract';
import { startClinics, TODAY, type Clinics } from '../../testing/harness.js';

describe('readings of simulated instruments', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let visitId: string;
  let episodeId: string;
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent } = clinics);
  });
  beforeEach(async () => ({ visitId, episodeId } = await clinics.startVisit()));
  afterAll(() => clinics.stop());

  const made = { instrument: 'inclinometer', simulated: true, end: 99 } as const;
  const get = async <T>(path: string): Promise<T> => (await agent.get(`/api${path}`).expect(200)).body as T;
  const record = (id = visitId) => get<VisitRecord>(`/visits/${id}`);

  it('are told apart for good: sent again otherwise they are refused, put right they are made up still', async () => {
    const id = randomUUID();
    await clinics.hold(visitId, { id, ...made }).expect(200);
    await clinics.hold(visitId, { id, ...made }).expect(200);
    await clinics.hold(visitId, { id, ...made, simulated: undefined }).expect(409);
    const { body } = await agent
      .post(`/api/readings/${id}/correction`)
      .send({ id: randomUUID(), end: 98, why: 'read off wrongly' })
      .expect(200);
    expect(body.reading.simulated).toBeTrue();
    await agent.post(`/api/readings/${id}/correction`).send({ id: randomUUID(), end: 98, why: 'x', simulated: false }).expect(422);
    await expectAsync(clinics.harness.dataSource.query('UPDATE trial SET simulated = 0')).toBeRejectedWithError(/stays as it was entered/);
    const [measurement] = (await record()).measurements;
    expect(measurement!.trials.map(({ end, simulated }) => [end, simulated])).toEqual([[98, true]]);
    expect((await record()).visit).toEqual(jasmine.objectContaining({ readings: 1, simulated: 1 }));
  });

  it('make a visit a rehearsal: it is judged, says so on every page, and is not signed until they are taken back', async () => {
    await clinics.hold(visitId, made).expect(200);
    await clinics.hold(visitId, { side: 'right', end: 120 }).expect(200);
    const { judgement, visit } = await get<JudgementView>(`/visits/${visitId}/judgement`);
    expect([judgement.measurements.length, visit.simulated]).toEqual([2, 1]);
    for (const kind of ['referrer', 'patient', 'evidence']) {
      const { report } = await get<ReportView>(`/visits/${visitId}/report?for=${kind}`);
      expect(report.blocks[0]).toEqual(
        jasmine.objectContaining({ text: 'A rehearsal: 1 reading is a made-up number. Nothing on this page is about a person.' }),
      );
    }
    const refused = await clinics.sign(visitId);
    expect(refused.status).toBe(409);
    expect(refused.body.errors[0].message).toContain('allowed: a visit of a person, with those taken back');
    for (const to of ['fhir', 'csv', 'sftr', 'json', 'ics']) {
      const { body } = await agent.get(`/api/visits/${visitId}/export?to=${to}`).expect(409);
      expect(body.detail).toContain('No file was written.');
    }
    const program = {
      id: randomUUID(),
      choices: { equipment: [], minutesADay: 20, painTolerated: 3, order: 'stages' },
      recheckOn: '2099-01-01',
      note: '',
    };
    const drill = { drill: 'heel-slide', side: 'left', dose: { sets: 1, reps: 12, seconds: null, timesADay: 3, daysAWeek: 7 }, words: '' };
    const given = await agent
      .post(`/api/visits/${visitId}/programs`)
      .send({ ...program, drills: [drill] })
      .expect(409);
    expect(given.body.detail).toContain('No programme was given.');
    const [of] = (await record()).measurements.flatMap(({ trials }) => trials.filter(({ simulated }) => simulated));
    await agent
      .post(`/api/readings/${of!.id}/withdrawal`)
      .send({})
      .expect((answer) => expect([200, 204]).toContain(answer.status));
    expect((await clinics.sign(visitId)).status).toBe(200);
    const clean = await get<ReportView>(`/visits/${visitId}/report?for=referrer`);
    expect(JSON.stringify(clean.report.blocks)).not.toContain('rehearsal');
  });

  it('count in no progress, are no last time, and are named in what goes out of the clinic', async () => {
    await clinics.hold(visitId, { end: 100 }).expect(200);
    await clinics.hold(visitId, { side: 'right', ...made }).expect(200);
    const next = randomUUID();
    await agent.post(`/api/episodes/${episodeId}/visits`).send({ id: next, assessedOn: TODAY }).expect(200);
    await clinics.hold(next, made).expect(200);
    const { previous } = await record(next);
    expect(previous!.measurements.map(({ side, trials }) => [side, trials.map(({ end }) => end)])).toEqual([['left', [100]]]);
    const { series } = await get<ProgressView>(`/visits/${next}/progress`);
    expect(series.map(({ side, points }) => [side, points.map(({ value }) => value)])).toEqual([['left', [100]]]);
    // A visit of nothing but made-up numbers is none that anything is compared with.
    const third = randomUUID();
    await agent.post(`/api/episodes/${episodeId}/visits`).send({ id: third, assessedOn: TODAY }).expect(200);
    expect((await record(third)).previous!.measurements.length).toBe(1);
    const { text } = await agent.get('/api/readings.csv').expect(200);
    const [head, ...rows] = text
      .trim()
      .split(/\r?\n/)
      .map((line) => line.split(','));
    const at = head!.indexOf('simulated');
    const ofVisit = rows.filter((row) => row[head!.indexOf('visit')] === next);
    expect(ofVisit.map((row) => row[at])).toEqual(['1']);
  });
});
