import { randomUUID } from 'node:crypto';
import type { DrillsView, NewProgram, ProgramsView } from '@dial-gauge/contract';
import { DRILLS, drillsToRows, type OwnDrill } from '@dial-gauge/core';
import Papa from 'papaparse';
import { startClinics, type Clinics } from '../../testing/harness.js';
import { episodes, intakeOf, type Episodes } from '../../testing/episodes.js';

const DRILL: OwnDrill = {
  id: 'own-heel-slide-towel',
  version: 1,
  name: 'Heel slide on a towel',
  stage: 'mobilise',
  serves: ['knee.flexion'],
  sides: 'each',
  position: 'supine',
  equipment: ['towel'],
  cues: ['Heel on a towel.', 'Slide it to the seat.', 'Help with both hands.'],
  cheat: 'the hip rolls out',
  dose: { sets: 1, reps: 12, seconds: null, timesADay: 2, daysAWeek: 7 },
  easier: 'heel-slide',
  harder: 'heel-slide-strap',
  mode: 'passive',
  imposes: [{ what: 'moves', limb: 'measured', motion: 'knee.flexion', degrees: 110, load: 'none', by: 'passive', isFigure: false }],
  notWith: { lax: true, pain: null, healingWeeks: 0 },
  stop: 'Stop at sharp pain.',
  moves: [{ protocol: 'knee.flexion/supine', mode: 'passive' }],
  start: { protocol: 'knee.flexion/supine', value: 20 },
  end: { protocol: 'knee.flexion/supine', value: 110 },
};
const day = (from: number) => new Date(Date.now() + from * 86_400_000).toISOString().slice(0, 10);

describe('a clinic’s own drills', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let stranger: Clinics['stranger'];
  let patient: Episodes['patient'];
  let visit: Episodes['visit'];
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent, stranger } = clinics);
    ({ patient, visit } = episodes(agent));
  });
  afterAll(() => clinics.stop());

  const keep = async (drill: object, { inUse = true, status = 200, who = agent } = {}): Promise<DrillsView> =>
    (await who.post('/api/drills').send({ drill, inUse }).expect(status)).body;
  const listed = async (who = agent): Promise<string[]> =>
    ((await who.get('/api/drills').expect(200)).body as DrillsView).own.map(
      ({ drill, inUse }) => `${drill.id} ${drill.version}${inUse ? '' : ' out'}`,
    );
  const named = (name: string, over: Partial<OwnDrill> = {}): OwnDrill => ({
    ...DRILL,
    id: `own-${name}`,
    name,
    easier: null,
    harder: null,
    ...over,
  });
  const program = (drills: NewProgram['drills']): NewProgram => ({
    id: randomUUID(),
    choices: { equipment: ['towel'], minutesADay: 15, painTolerated: 3, order: 'stages' },
    drills,
    recheckOn: day(28),
    note: '',
  });
  const given = (drill: OwnDrill, over: object = {}) => ({
    drill: drill.id,
    version: drill.version,
    side: 'left' as const,
    dose: drill.dose,
    words: '',
    ...over,
  });
  const errors = (body: { errors?: { path: string; message: string }[] }) => (body.errors ?? []).map(({ path }) => path);

  it('are kept version by version, sent twice once, and stay with their clinic', async () => {
    for (let twice = 0; twice < 2; twice += 1) await keep(DRILL);
    await keep({ ...DRILL, version: 2, cheat: 'the foot turns out' });
    const ofIt = (await keep({ ...DRILL, version: 2, cheat: 'the foot turns out' })).own.filter(({ drill }) => drill.id === DRILL.id);
    expect(ofIt.map(({ drill, inUse, by }) => [drill.version, drill.cheat, inUse, by])).toEqual([[2, 'the foot turns out', true, 'ours']]);
    expect((await listed(stranger)).filter((one) => one.includes('towel'))).toEqual([]);
    await keep(DRILL, { who: stranger });
    expect([(await listed()).includes('own-heel-slide-towel 2'), (await listed(stranger)).includes('own-heel-slide-towel 1')]).toEqual([
      true,
      true,
    ]);
    const sql = (statement: string) => clinics.harness.dataSource.query(statement);
    await expectAsync(sql("UPDATE drill_version SET drill = '{}'")).toBeRejectedWithError(/keeps its meaning/);
    await expectAsync(sql('DELETE FROM drill_version')).toBeRejectedWithError(/denied|is kept/);
  });

  it('are changed by one at a time: who changed an older version is told, and nothing is lost', async () => {
    const first = named('turns');
    await keep(first);
    const at = await Promise.all(
      ['a', 'b', 'c'].map((cheat) => agent.post('/api/drills').send({ drill: { ...first, version: 2, cheat }, inUse: true })),
    );
    expect(at.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
    expect(at.find(({ status }) => status === 409)!.body.detail).toContain('was changed by ours meanwhile');
    await keep({ ...first, version: 4 }, { status: 409 });
    await keep(named('unborn', { version: 2 }), { status: 409 });
  });

  it('are refused with the field, what is wrong and what is allowed, and nothing is kept', async () => {
    await keep(named('taken'));
    const before = await listed();
    const wrong = async (over: object) =>
      errors(
        (
          await agent
            .post('/api/drills')
            .send({ drill: { ...named('wrong'), ...over }, inUse: true })
            .expect(422)
        ).body,
      );
    expect(await wrong({ id: 'heel-slide' })).toEqual(['drill.id']);
    expect(await wrong({ name: 'Heel slide' })).toEqual(['drill.name']);
    expect(await wrong({ name: 'Taken ' })).toEqual(['drill.name']);
    expect(await wrong({ serves: ['knee.bending'] })).toEqual(['drill.serves.0']);
    expect(await wrong({ cues: ['one', 'two'] })).toEqual(['drill.cues']);
    expect(await wrong({ dose: { ...DRILL.dose, reps: 0 } })).toEqual(['drill.dose.reps']);
    expect(await wrong({ imposes: [{ ...DRILL.imposes[0], degrees: 300 }] })).toEqual(['drill.imposes.0.degrees']);
    expect(await wrong({ harder: 'own-nothing' })).toEqual(['drill.harder']);
    expect(await wrong({ moves: [] })).toEqual(['drill.moves']);
    expect(await wrong({ colour: 'red' })).toEqual(['drill.colour']);
    expect(await listed()).toEqual(before);
  });

  it('are given in a version that keeps its meaning, held to limits, and no more once they are out of use', async () => {
    const [one, two] = [named('slides'), named('slides', { version: 2, cues: ['Slower.', 'Then more.', 'Rest.'] })];
    await keep(one);
    const episodeId = await patient();
    const id = await visit(episodeId);
    const give = (drills: object[], status = 200) =>
      agent
        .post(`/api/visits/${id}/programs`)
        .send(program(drills as NewProgram['drills']))
        .expect(status);
    await give([given(one)]);
    await keep(two);
    const { given: kept, own } = (await agent.get(`/api/visits/${id}/programs`).expect(200)).body as ProgramsView;
    expect(kept[0]!.drills[0]).toEqual(jasmine.objectContaining({ drill: one.id, version: 1 }));
    expect(own.filter(({ drill }) => drill.id === one.id).map(({ drill }) => drill.version)).toEqual([2, 1]);
    const page = (await agent.get(`/api/visits/${id}/report?for=patient`).expect(200)).body;
    expect(JSON.stringify(page.report)).toContain('Help with both hands.');
    expect(JSON.stringify(page.report)).not.toContain('Slower.');
    const calendar = (await agent.get(`/api/visits/${id}/export?to=ics`).expect(200)).body as { base64: string };
    expect(Buffer.from(calendar.base64, 'base64').toString()).toContain('SUMMARY:slides');

    const paths = async (drill: object) => errors((await give([drill], 422)).body);
    expect(await paths({ ...given(one), version: undefined })).toEqual(['drills.0.version']);
    expect(await paths({ ...given(one), version: 7 })).toEqual(['drills.0.version']);
    expect(await paths({ ...given(one), drill: 'own-nothing' })).toEqual(['drills.0.drill']);
    expect(await paths({ ...given(one), side: 'midline' })).toEqual(['drills.0.side']);
    expect(await paths({ ...given(one), drill: 'heel-slide' })).toEqual(['drills.0.version']);
    const { body: record } = await agent.get(`/api/visits/${id}`).expect(200);
    await agent
      .put(`/api/episodes/${episodeId}/intake`)
      .send({
        ...intakeOf(record.episode),
        precautions: [{ motion: 'knee.flexion', side: 'left', limit: 90, until: null, source: 'surgeon' }],
      })
      .expect(200);
    expect(await paths(given(one))).toEqual(['drills.0.drill']);
    await keep({ ...two, version: 3 }, { inUse: false });
    expect(await paths(given(two, { side: 'right' }))).toEqual(['drills.0.drill']);
    expect(await listed()).toContain('own-slides 3 out');
  });

  it('of another clinic are given by nobody else', async () => {
    await keep(named('theirs'), { who: stranger });
    const id = await visit(await patient());
    const { body } = await agent
      .post(`/api/visits/${id}/programs`)
      .send(program([given(named('theirs'))]))
      .expect(422);
    expect(errors(body)).toEqual(['drills.0.drill']);
  });

  it('come in from CSV all or none, each refused cell named; what is there already is passed over', async () => {
    const csv = (drills: readonly OwnDrill[], change = (text: string) => text) => change(Papa.unparse(drillsToRows(drills)));
    const send = (text: string, status = 200) => agent.post('/api/drill-files').send({ csv: text }).expect(status);
    const three = ['first', 'second', 'third'].map((name, at) =>
      named(`file-${name}`, { easier: at === 0 ? null : `own-file-${['first', 'second'][at - 1]}` }),
    );
    const before = await listed();
    const { body: refusedBody } = await send(
      csv(three, (text) => text.replace('file-second', 'Heel slide').replace(/mobilise(?!.*mobilise)/s, 'bounce')),
      422,
    );
    expect(errors(refusedBody)).toEqual(['line 4, stage']);
    const { body: second } = await send(csv([three[0]!, { ...three[1]!, name: 'Heel slide', cheat: 'x'.repeat(200) }]), 422);
    expect(errors(second)).toEqual(['line 3, cheat']);
    const { body: third } = await send(csv([three[0]!, { ...three[1]!, name: 'Heel slide' }]), 422);
    expect(errors(third)).toEqual(['line 3, name']);
    expect(await listed()).toEqual(before);
    expect((await send(csv(three))).body).toEqual(jasmine.objectContaining({ kept: 3, alike: 0 }));
    expect((await send(csv([three[0]!, { ...three[2]!, stop: 'Stop early.' }]).replace(/,/g, ','))).body).toEqual(
      jasmine.objectContaining({ kept: 1, alike: 1 }),
    );
    expect(await listed()).toEqual(jasmine.arrayContaining(['own-file-first 1', 'own-file-second 1', 'own-file-third 2']));
    expect(errors((await send('name,stage\n"open', 422)).body)).toEqual(['line 2']);
    const { body: file } = await agent.get('/api/drill-files/own').expect(200);
    expect((await send(file.csv)).body).toEqual(jasmine.objectContaining({ kept: 0 }));
    const all = (await agent.get('/api/drill-files/all').expect(200)).body.csv as string;
    expect(Papa.parse<string[]>(all.trim()).data.length).toBeGreaterThan(DRILLS.length);
  });

  it('are no more than can be overseen', async () => {
    const many = Array.from({ length: 301 }, (_, at) => named(`many-${at}`));
    const { body } = await agent
      .post('/api/drill-files')
      .send({ csv: Papa.unparse(drillsToRows(many)) })
      .expect(422);
    expect(body.detail).toContain('allowed: 300');
    expect((await listed()).some((one) => one.includes('many'))).toBeFalse();
  });

  it('are walked on the person’s own page, up to what ships and down again', async () => {
    const own = named('walked', { easier: 'heel-slide', harder: 'heel-slide-strap' });
    await keep(own);
    const episodeId = await patient();
    const id = await visit(episodeId);
    await agent
      .post(`/api/visits/${id}/programs`)
      .send({ ...program([given(own)]), choices: { equipment: ['towel', 'strap'], minutesADay: 15, painTolerated: 3, order: 'stages' } })
      .expect(200);
    const { body: page } = await agent.post(`/api/episodes/${episodeId}/patient-pages`).send({ id: randomUUID(), days: 30 }).expect(200);
    const { body: opened } = await agent.post('/api/own-page/opening').send({ token: page.token, code: page.code }).expect(200);
    const log = (on: string, over = {}) =>
      agent
        .post('/api/own-page/days')
        .send({
          key: opened.key,
          day: { id: randomUUID(), on, done: [own.id], easy: true, pain: 1, swelling: false, worse: false, note: '', ...over },
        })
        .expect(200);
    const shown = async () => (await agent.post('/api/own-page').send({ key: opened.key }).expect(200)).body.drills[0];
    expect((await shown()).block.title).toBe('walked, left');
    await log(day(0), { swelling: true });
    expect((await shown()).block.title).toBe('Heel slide, left');
    const { steps } = (await agent.get(`/api/episodes/${episodeId}/patient-pages`).expect(200)).body;
    expect([steps[0].givenName, steps[0].drillName, steps[0].move]).toEqual(['walked', 'Heel slide', 'down']);
  });
});
