import { randomUUID } from 'node:crypto';
import type { Agent } from 'supertest';
import { DEMO_USER } from '../demo/clinic.js';
import { seedDemo } from '../demo/seed.js';
import { addClinic, newReading, startHarness, TODAY, type Harness } from '../testing/harness.js';
import { ROUTES } from '../testing/routes.js';
import request from 'supertest';

/** A picture of one pixel. */
const PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const way = { protocol: 'knee.flexion/supine', side: 'left', mode: 'passive' } as const;

/** A body that is taken, for every route with an id that takes one: what is refused is then the record, and not the body. */
const bodies = (): Readonly<Record<string, object>> => ({
  'staff.setRole': { role: 'reader' },
  'staff.resetPassword': { id: randomUUID() },
  'patients.changePatient': { givenName: 'X', familyName: 'X', birthDate: '1970-01-01', sex: 'male', revision: 0 },
  'patients.openEpisode': { id: randomUUID(), complaint: 'x' },
  'patients.discharge': { on: TODAY, outcome: 'other' },
  'patients.reopen': { why: 'because' },
  'patients.merge': { id: randomUUID(), other: randomUUID() },
  'persons.erase': { id: randomUUID(), why: 'because', name: 'X X' },
  'episodes.setIntake': { complaint: 'x', revision: 0 },
  'visits.startVisit': { id: randomUUID(), assessedOn: TODAY },
  'visits.setCautions': { asked: [], yes: [], revision: 0 },
  'visits.setPlan': { plan: { steps: [{ ...way, seconds: 30 }] }, revision: 0 },
  'readings.holdReading': newReading(),
  'readings.correctReading': { id: randomUUID(), why: 'side', end: 90 },
  'readings.withdrawReading': {},
  'readings.remark': { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', pain: 3 },
  'judgement.setSummary': { summary: 'x', was: null },
  'judgement.sign': { id: randomUUID(), summary: 'x', seen: { revision: 'x', at: new Date().toISOString() } },
  'judgement.amend': { why: 'because' },
  'judgement.countersign': { id: randomUUID() },
  'judgement.dismissLate': { why: 'because' },
  'goals.setGoal': { ...way, goal: { source: 'norm' } },
  'programs.giveProgram': {
    id: randomUUID(),
    choices: { equipment: [], minutesADay: 20, painTolerated: 3, order: 'stages' },
    drills: [],
    recheckOn: TODAY,
  },
  'pairings.pair': { id: randomUUID() },
  'clips.keepReview': { id: randomUUID(), clip: randomUUID(), version: 1, file: 'x.webm', view: 'side', marks: [], isShared: false },
  'clips.attachStill': { id: randomUUID(), words: 'x', base64: PIXEL },
  'practice.answerTask': { id: randomUUID(), task: 0, exercise: 'side', answer: { side: 'left' } },
  'practice.studyOfRound': { id: randomUUID(), name: 'x', protocol: way.protocol, mode: way.mode },
  'patientPages.makePage': { id: randomUUID(), days: 14 },
  'past.bringIn': {
    id: randomUUID(),
    fileName: 'x.csv',
    rows: [
      ['Date', 'Left hip flexion passive'],
      ['2020-01-01', '90'],
    ],
    choices: {
      columns: [{ role: 'day' }, { role: 'reading', about: { motion: 'hip.flexion', side: 'left', mode: 'passive' } }],
      ...{ dateOrder: 'day-month-year', minus: null, mode: null, instrument: null, without: [] },
    },
  },
  'retests.startRetest': { id: randomUUID(), markers: [{ ...way, instrument: 'goniometer' }] },
  'retests.noteDrill': { id: randomUUID(), number: 1, drill: 'rock back' },
  'retests.readMarker': { id: randomUUID(), round: 0, marker: 0, value: 90 },
  'screens.planScreens': { choose: ['squat'] },
  'screens.holdScreenTry': { id: randomUUID(), screen: 'patterns', item: 'toeTouch', skipped: 'no time' },
  'screens.correctScreenTry': { id: randomUUID(), try: null },
  'reliability.readStudy': { id: randomUUID(), subject: 0, rater: 0, value: 70 },
  'reliability.adoptError': { basis: 'agreement' },
});

/** What stands behind the question mark, where it has to. */
const QUERIES: Readonly<Record<string, object>> = { 'reports.exportVisit': { to: 'csv' } };

describe('between clinics', () => {
  let harness: Harness;
  let ours: Agent;
  let stranger: Agent;
  let clinicId: string;
  const query = (sql: string, values: unknown[] = []) => harness.dataSource.query(sql, values);
  beforeAll(async () => {
    harness = await startHarness();
    await seedDemo(harness.dataSource, new Date());
    await addClinic(harness.dataSource, randomUUID(), randomUUID(), 'other@clinic.example', 'other-password');
    const app = harness.appWith();
    [ours, stranger] = [request.agent(app), request.agent(app)];
    await ours.post('/api/session').send({ email: DEMO_USER.email, password: DEMO_USER.password }).expect(200);
    await stranger.post('/api/session').send({ email: 'other@clinic.example', password: 'other-password' }).expect(200);
    [{ id: clinicId }] = await query("SELECT id FROM clinic WHERE name LIKE 'Saltmarsh%'");
    // What the demo has none of.
    const [{ id: episode, last_visit_id: visit }] = await query(
      'SELECT id, last_visit_id FROM episode WHERE clinic_id = ? AND last_visit_id IS NOT NULL LIMIT 1',
      [clinicId],
    );
    await ours.post(`/api/episodes/${episode}/patient-pages`).send({ id: randomUUID(), days: 14 }).expect(200);
    await ours
      .post('/api/invitations')
      .send({ id: randomUUID(), name: 'Fenn', email: 'fenn@saltmarsh.example', role: 'reader' })
      .expect(200);
    await ours.post('/api/exam-sets').send({ id: randomUUID(), name: 'Ours', items: [{ ...way, modes: ['passive'], sides: ['left'] }] });
    await ours.get(`/api/visits/${visit}`).expect(200);
  });
  afterAll(() => harness.stop());

  /** Tables whose rows belong to a clinic and have an id. */
  const owned = async (): Promise<string[]> =>
    (
      await query(
        "SELECT table_name AS t FROM information_schema.columns WHERE table_schema = DATABASE() AND column_name IN ('clinic_id', 'id') GROUP BY table_name HAVING COUNT(*) = 2",
      )
    ).map((row: { t: string }) => row.t);
  /** Everything that the demo clinic has, but that somebody was here. */
  const everything = async (): Promise<string> => {
    const all: unknown[] = [];
    for (const table of await owned())
      all.push(table, await query(`SELECT * FROM \`${table}\` WHERE clinic_id = ? ORDER BY id`, [clinicId]));
    return JSON.stringify(all);
  };

  it('has a body for every route with an id that takes one', () => {
    const takes = ROUTES.filter(({ route }) => route.path.includes('/:') && ['post', 'put'].includes(route.method));
    const known = bodies();
    const empty = takes.filter(({ name, route }) => !(name in known) && !route.body.safeParse({}).success);
    expect(empty.map(({ name }) => name)).toEqual([]);
  });

  it('nothing is read, changed or told apart: every id of another clinic, of whatever kind, is not there', async () => {
    const ids: { table: string; id: string }[] = [];
    for (const table of await owned()) {
      const rows = await query(`SELECT id FROM \`${table}\` WHERE clinic_id = ? LIMIT 1`, [clinicId]);
      if (rows[0]) ids.push({ table, id: rows[0].id });
    }
    expect(ids.length).toBeGreaterThan(18);
    const names = (await query('SELECT family_name AS n FROM patient WHERE clinic_id = ?', [clinicId])).map((row: { n: string }) => row.n);
    const before = await everything();
    const known = bodies();
    const leaks: string[] = [];
    let probes = 0;
    for (const { name, route, act } of ROUTES) {
      if (act === 'door' || !route.path.includes('/:')) continue;
      for (const { table, id } of ids) {
        const asked = stranger[route.method](`/api${route.path.replace(/:\w+/, id)}`).query(QUERIES[name] ?? {});
        const answer = ['post', 'put'].includes(route.method) ? await asked.send(known[name] ?? {}) : await asked;
        probes += 1;
        if (answer.status !== 404) leaks.push(`${name} with an id of ${table}: ${answer.status} ${answer.text.slice(0, 160)}`);
        if (names.some((word: string) => answer.text.includes(word))) leaks.push(`${name} with an id of ${table} names somebody`);
      }
    }
    expect(probes).toBeGreaterThan(1_000);
    expect([...new Set(leaks.map((leak) => leak.replace(/ with an id of \w+/, '')))]).toEqual([]);
    expect(await everything()).toBe(before);
  });

  it('lists hold nobody of another clinic, and an id that is theirs is not taken', async () => {
    const names = (await query('SELECT family_name AS n FROM patient WHERE clinic_id = ?', [clinicId])).map((row: { n: string }) => row.n);
    const before = await everything();
    for (const { name, route, act } of ROUTES) {
      if (act === 'door' || route.path.includes('/:') || route.method !== 'get') continue;
      const { text } = await stranger.get(`/api${route.path}`);
      expect([...names, 'saltmarsh.example'].filter((word: string) => text.includes(word)))
        .withContext(name)
        .toEqual([]);
    }
    const one = async (table: string): Promise<string> =>
      (await query(`SELECT id FROM \`${table}\` WHERE clinic_id = ? LIMIT 1`, [clinicId]))[0].id;
    const patient = { givenName: 'X', familyName: 'X', birthDate: '1970-01-01', sex: 'male' };
    const taken: [string, object][] = [
      ['/api/patients', { id: await one('patient'), ...patient, episode: { id: randomUUID(), complaint: 'x' } }],
      ['/api/patients', { id: randomUUID(), ...patient, episode: { id: await one('episode'), complaint: 'x' } }],
      ['/api/invitations', { id: await one('account_link'), name: 'X', email: 'x@clinic.example', role: 'lead' }],
    ];
    for (const [path, body] of taken)
      expect((await stranger.post(path).send(body)).status)
        .withContext(path)
        .toBe(409);
    expect(await everything()).toBe(before);
  });
});
