import { randomUUID } from 'node:crypto';
import { DEFAULT_THRESHOLDS, NORM_SETS, normSetToRows, saidOf, type Finding, type NormSet } from '@dial-gauge/core';
import type { Express } from 'express';
import Papa from 'papaparse';
import request, { type Agent } from 'supertest';
import { ChangeRow } from '../../database/change-log.js';
import { NormSetRow } from '../../records/norms/entities.js';
import { addClinic, startHarness, type Harness } from '../../testing/harness.js';

const TODAY = new Date().toISOString().slice(0, 10);
const OWN: NormSet = {
  id: 'harbour-2026',
  title: 'Harbour clinics, 2026',
  short: 'Harbour 2026',
  year: 2026,
  where: 'own records',
  source: { cite: 'measured by ourselves; "quoted", with a comma', fromMemory: false },
  entries: [
    {
      motion: 'hip.flexion',
      mode: 'passive',
      position: 'supine',
      sex: 'any',
      ages: { from: 18, to: 70, label: '18–69 years' },
      value: { kind: 'distribution', mean: 118.5, sd: 4.2 },
      confidence: 'high',
      note: 'größer; "as printed"',
    },
  ],
};
const csvOf = (set: NormSet, newline = '\r\n') => Papa.unparse(normSetToRows(set), { newline });

describe('norm sets and thresholds over HTTP', () => {
  let harness: Harness;
  let app: Express;
  let agent: Agent;
  let stranger: Agent;
  const clinicId = randomUUID();

  beforeAll(async () => {
    harness = await startHarness();
    app = harness.appWith();
    await addClinic(harness.dataSource, clinicId, randomUUID(), 'ours@clinic.example', 'ours-password');
    await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'other@clinic.example', 'other-password');
    const signIn = async (who: string): Promise<Agent> => {
      const fresh = request.agent(app);
      await fresh
        .post('/api/session')
        .send({ email: `${who}@clinic.example`, password: `${who}-password` })
        .expect(200);
      return fresh;
    };
    agent = await signIn('ours');
    stranger = await signIn('other');
  });
  afterAll(() => harness.stop());

  it('need a session', async () => {
    await request(app).get('/api/norms').expect(401);
    await request(app).post('/api/norm-sets').send({ csv: 'x' }).expect(401);
    await request(app).delete('/api/norm-sets/x').expect(401);
  });

  it('list every installed set, from memory where it is', async () => {
    const { body } = await stranger.get('/api/norms').expect(200);
    expect(body.sets.map((set: { id: string }) => set.id)).toEqual(NORM_SETS.map((set) => set.id));
    expect(body.sets[0]).toEqual(
      jasmine.objectContaining({ id: 'aaos-1965', fromMemory: true, own: false, values: NORM_SETS[0]!.entries.length }),
    );
    expect(body.thresholds).toEqual(JSON.parse(JSON.stringify(DEFAULT_THRESHOLDS)));
  });

  it('write any set as CSV that comes back the same', async () => {
    for (const id of ['boone-azen-1979', 'soucie-2011', 'rikli-jones-1999']) {
      const { body } = await agent.get(`/api/norm-sets/${id}/csv`).expect(200);
      const set = NORM_SETS.find((s) => s.id === id)!;
      expect(body.fileName).toBe(`${id}.csv`);
      expect(Papa.parse(body.csv.trimEnd()).data).toEqual(Papa.parse(csvOf(set)).data);
    }
    await agent.get('/api/norm-sets/nothing/csv').expect(404);
  });

  it('bring in a set, judge by it, and hand it back unchanged', async () => {
    for (const newline of ['\n', '\r\n']) {
      const id = newline === '\n' ? 'harbour-2025' : OWN.id;
      const { body } = await agent
        .post('/api/norm-sets')
        .send({ csv: `\uFEFF${csvOf({ ...OWN, id }, newline)}${newline}` })
        .expect(200);
      expect(body).toEqual(jasmine.objectContaining({ id, own: true, values: 1, motions: 1, fromMemory: false }));
    }
    const { body: back } = await agent.get(`/api/norm-sets/${OWN.id}/csv`).expect(200);
    expect(back.csv.trimEnd()).toBe(csvOf(OWN));

    const patient = { id: randomUUID(), givenName: 'Ilka', familyName: 'Marsh', birthDate: '1984-05-02', sex: 'female' };
    const episode = { id: randomUUID(), complaint: 'stiff hip' };
    await agent
      .post('/api/patients')
      .send({ ...patient, episode })
      .expect(200);
    const visit = randomUUID();
    await agent.post(`/api/episodes/${episode.id}/visits`).send({ id: visit, assessedOn: TODAY }).expect(200);
    const way = { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer' };
    await agent
      .post(`/api/visits/${visit}/readings`)
      .send({ id: randomUUID(), ...way, end: 105, heldAt: new Date().toISOString() })
      .expect(200);
    const short = async () => {
      const { body } = await agent.get(`/api/visits/${visit}/judgement`).expect(200);
      const found = body.judgement.findings.find((f: { kind: string }) => f.kind === 'short-of-normal');
      return found && [saidOf(found as Finding).verdict, found.agreement.of];
    };
    const before = (await short())!;
    // Passive: the first set has active figures alone, the next one that may be compared judges.
    expect(before[0]).toBe('15° short of 120°, by AAOS 1965');
    const { body: now } = await agent
      .put('/api/norms')
      .send({ normSets: [OWN.id] })
      .expect(200);
    expect([now.normSets[0], now.normSets.length]).toEqual([OWN.id, now.sets.length]);
    expect((await short())![0]).toBe(`14° short of 119°, by ${OWN.short}`);
    for (const normSets of [['nobody'], [OWN.id, OWN.id], []]) await agent.put('/api/norms').send({ normSets }).expect(422);
    const { body: record } = await agent.get(`/api/visits/${visit}`).expect(200);
    expect(record.ownNormSets).toContain(OWN);

    // The set in use cannot be taken away; another clinic neither sees nor uses it.
    const held = await agent.delete(`/api/norm-sets/${OWN.id}`).expect(422);
    expect(held.body.errors[0].message).toContain('put another one before it');
    expect((await stranger.get('/api/norms')).body.ownSets).toEqual([]);
    await stranger
      .put('/api/norms')
      .send({ normSets: [OWN.id] })
      .expect(422);
    await stranger.delete(`/api/norm-sets/harbour-2025`).expect(404);

    await agent
      .put('/api/norms')
      .send({ normSets: ['aaos-1965', OWN.id] })
      .expect(200);
    expect((await short())![0]).toBe('15° short of 120°, by AAOS 1965');
    await agent.delete(`/api/norm-sets/${OWN.id}`).expect(200);
    expect((await agent.get('/api/norms')).body.ownSets.map((s: { id: string }) => s.id)).toEqual(['harbour-2025']);
    // Out of use, on record; and its name is free again.
    expect(await harness.dataSource.getRepository(NormSetRow).countBy({ clinicId, setId: OWN.id })).toBe(1);
    await agent
      .post('/api/norm-sets')
      .send({ csv: csvOf(OWN) })
      .expect(200);
  });

  it('refuse a file with wrong rows whole, naming every one', async () => {
    const lines = csvOf({ ...OWN, id: 'bad-rows' }).split('\r\n');
    const good = lines[lines.length - 1]!;
    const csv = [...lines, good.replace('hip.flexion', 'hip.swing'), good.replace('4.2', '-4.2'), good.replace('18,70', '70,18')].join(
      '\r\n',
    );
    const count = () => harness.dataSource.getRepository(NormSetRow).countBy({ clinicId });
    const before = await count();
    const { body } = await agent.post('/api/norm-sets').send({ csv }).expect(422);
    expect(body.detail).toContain('Nothing was brought in: 3 lines are wrong');
    expect(body.errors.map((e: { path: string }) => e.path)).toEqual(['line 12, motion', 'line 13, sd', 'line 14, age_to']);
    expect(await count()).toBe(before);
  });

  it('refuse what is no table, an id in use, an unclosed quotation and a body that is too large', async () => {
    const refused = async (csv: string) => (await agent.post('/api/norm-sets').send({ csv }).expect(422)).body.errors[0];
    expect((await refused('hello'))['path']).toBe('line 1, format');
    expect((await refused(csvOf({ ...OWN, id: 'aaos-1965' })))['message']).toContain('installed already');
    expect(
      (
        await refused(
          csvOf({ ...OWN, id: 'q' })
            .replace('"measured', '"""measured')
            .replace('comma"', 'comma'),
        )
      )['path'],
    ).toMatch(/^line/);
    await agent
      .post('/api/norm-sets')
      .send({ csv: 'x'.repeat(1_600_000) })
      .expect(422);
    await agent
      .post('/api/norm-sets')
      .send({ csv: 'x'.repeat(2_200_000) })
      .expect(413);
  });

  it('keep what the clinic judged by before', async () => {
    const thresholds = { ...DEFAULT_THRESHOLDS, sideDifference: { ...DEFAULT_THRESHOLDS.sideDifference, deg: 5 } };
    const { body } = await agent.put('/api/norms').send({ thresholds }).expect(200);
    expect(body.thresholds.sideDifference.deg).toBe(5);
    await agent.put('/api/norms').send({ thresholds }).expect(200);
    const changes = await harness.dataSource.getRepository(ChangeRow).findBy({ clinicId, field: 'thresholds' });
    expect(changes.length).withContext('the same again is no change').toBe(1);
    expect(changes[0]!.oldValue).toBeNull();
    await agent
      .put('/api/norms')
      .send({ thresholds: { ...thresholds, activeGap: -1 } })
      .expect(422);
    expect((await stranger.get('/api/norms')).body.thresholds.sideDifference.deg).toBe(10);
  });
});

describe('every way of measuring over HTTP', () => {
  let harness: Harness;
  let agent: Agent;
  let visit: string;
  beforeAll(async () => {
    harness = await startHarness();
    await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'ours@clinic.example', 'ours-password');
    agent = request.agent(harness.appWith());
    await agent.post('/api/session').send({ email: 'ours@clinic.example', password: 'ours-password' }).expect(200);
  });
  // A visit of its own for every test: they may come in any order.
  beforeEach(async () => {
    const episode = { id: randomUUID(), complaint: 'stiff hand' };
    await agent
      .post('/api/patients')
      .send({ id: randomUUID(), givenName: 'Ilka', familyName: 'Marsh', birthDate: '1984-05-02', sex: 'female', episode })
      .expect(200);
    visit = randomUUID();
    await agent.post(`/api/episodes/${episode.id}/visits`).send({ id: visit, assessedOn: TODAY }).expect(200);
  });
  afterAll(() => harness.stop());

  const hold = (over: object) =>
    agent.post(`/api/visits/${visit}/readings`).send({
      id: randomUUID(),
      motion: 'shoulder.externalRotation',
      side: 'left',
      mode: 'passive',
      position: 'supine',
      instrument: 'goniometer',
      end: 40,
      heldAt: new Date().toISOString(),
      ...over,
    });

  it('keeps fingers, ways in one position, the midline and lengths apart, and judges them', async () => {
    await hold({}).expect(200);
    await hold({ protocol: 'shoulder.externalRotation/supine-at-side', end: 10 }).expect(200);
    for (const digit of [2, 3]) await hold({ motion: 'fingerPip.flexion', digit, position: 'sitting', end: 60 + digit }).expect(200);
    await hold({
      motion: 'distance.fingerToFloor',
      side: 'midline',
      mode: 'active',
      position: 'standing',
      instrument: 'tape',
      end: 24.5,
    }).expect(200);
    const { body } = await agent.get(`/api/visits/${visit}/judgement`).expect(200);
    const measured = body.judgement.measurements.map(
      (m: { value: number; measurement: { motion: string; digit?: number; protocol?: string } }) => [
        m.measurement.motion,
        m.measurement.protocol ?? m.measurement.digit ?? '',
        m.value,
      ],
    );
    expect(measured).toEqual([
      ['shoulder.externalRotation', '', 40],
      ['shoulder.externalRotation', 'shoulder.externalRotation/supine-at-side', 10],
      ['fingerPip.flexion', 2, 62],
      ['fingerPip.flexion', 3, 63],
      ['distance.fingerToFloor', '', 24.5],
    ]);
  });

  // Invented: 96 − 41 = 55
  it('keeps both sites of a two-site reading as entered, and subtracts them', async () => {
    const two = { motion: 'lumbar.flexion', side: 'midline', mode: 'active', position: 'standing', instrument: 'dualInclinometer' };
    const id = randomUUID();
    const reading = { ...two, id, start: 0, end: 96, lower: { zero: 0, end: 41 } };
    expect((await hold(reading).expect(200)).body.reading.lower).toEqual({ zero: 0, end: 41 });
    expect((await hold(reading).expect(200)).body.repeated).toBeTrue();
    await hold({ ...reading, lower: { zero: 0, end: 50 } }).expect(409);
    const { body } = await agent.get(`/api/visits/${visit}/judgement`).expect(200);
    const back = body.judgement.measurements.find((m: { measurement: { motion: string } }) => m.measurement.motion === 'lumbar.flexion');
    expect([back.value, back.measurement.trials]).toEqual([55, [{ upper: { zero: 0, end: 96 }, lower: { zero: 0, end: 41 } }]]);
    const missing = await hold({ ...two, end: 96 }).expect(422);
    expect(missing.body.errors).toEqual([{ path: 'lower', message: 'is missing; allowed: zero and end of the lower site' }]);
    const wrong = await hold({ ...reading, id: randomUUID(), end: 182 }).expect(422);
    expect(wrong.body.errors[0].message).toContain('upper less lower: 141° is more than lumbar flexion can hold');
    await hold({ lower: { zero: 0, end: 4 } }).expect(422);
  });

  it('keeps what is to be measured, and refuses what is not in the library', async () => {
    const items = [{ protocol: 'knee.flexion/supine' }, { protocol: 'fingerPip.flexion/sitting', digit: 2 }];
    const [{ episode_id: episode } = { episode_id: '' }] = await harness.dataSource.query('SELECT episode_id FROM visit WHERE id = ?', [
      visit,
    ]);
    const start = (sheet: object[]) => agent.post(`/api/episodes/${episode}/visits`).send({ id: randomUUID(), assessedOn: TODAY, sheet });
    expect((await start(items).expect(200)).body.sheet).toEqual(items);
    const refused = async (wrong: object[]) => (await start(wrong).expect(422)).body.errors[0];
    expect((await refused([{ protocol: 'knee.swing/air' }])).path).toBe('sheet.0.protocol');
    expect((await refused([{ protocol: 'fingerPip.flexion/sitting' }])).path).toBe('sheet.0.digit');
    expect((await refused([items[0]!, items[0]!])).message).toContain('on the sheet already');
    expect((await refused([])).path).toBe('sheet');
  });

  it('refuses a finger that is not named and a remark that does not fit the way of measuring', async () => {
    const { body } = await hold({ motion: 'fingerPip.flexion', position: 'sitting' }).expect(422);
    expect(body.errors[0].path).toBe('digit');
    const remark = {
      motion: 'shoulder.externalRotation',
      side: 'left',
      mode: 'passive',
      position: 'supine',
      protocol: 'shoulder.externalRotation/supine-at-side',
    };
    await agent
      .put(`/api/visits/${visit}/remarks`)
      .send({ ...remark, substitutions: ['elbow-leaves-the-side'] })
      .expect(200);
    const refused = await agent
      .put(`/api/visits/${visit}/remarks`)
      .send({ ...remark, substitutions: ['back-arches'] })
      .expect(422);
    expect(refused.body.errors[0].message).toContain('allowed: elbow-leaves-the-side');
  });
});
