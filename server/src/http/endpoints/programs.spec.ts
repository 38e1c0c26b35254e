import { randomUUID } from 'node:crypto';
import type { NewProgram, ProgramsView } from '@dial-gauge/contract';
import { startClinics, type Clinics } from '../../testing/harness.js';
import { episodes, intakeOf, type Episodes } from '../../testing/episodes.js';

const day = (from: number) => new Date(Date.now() + from * 86_400_000).toISOString().slice(0, 10);

describe('programmes', () => {
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

  const DOSE = { sets: 1, reps: 12, seconds: null, timesADay: 3, daysAWeek: 7 };
  const slide = { drill: 'heel-slide', side: 'left', dose: DOSE, words: '' } as const;
  const program = (over: Partial<NewProgram> = {}): NewProgram => ({
    id: randomUUID(),
    choices: { equipment: ['towel'], minutesADay: 15, painTolerated: 3, order: 'stages' },
    drills: [slide],
    recheckOn: day(28),
    note: '',
    ...over,
  });
  const give = (id: string, body: object, status = 200) => agent.post(`/api/visits/${id}/programs`).send(body).expect(status);
  const view = async (id: string): Promise<ProgramsView> => (await agent.get(`/api/visits/${id}/programs`).expect(200)).body;

  it('are given whole; a change keeps what was given before, with who and when', async () => {
    const id = await visit(await patient());
    const first = program();
    for (let twice = 0; twice < 2; twice++) await give(id, first);
    await give(id, program({ drills: [{ ...slide, dose: { ...DOSE, reps: 10 }, words: 'slowly' }], note: 'less, it was sore' }));
    const { given, before } = await view(id);
    expect(given.map(({ number, by, note }) => [number, by, note])).toEqual([
      [1, 'ours', ''],
      [2, 'ours', 'less, it was sore'],
    ]);
    expect(given[0]!.drills).toEqual([slide]);
    expect(given[1]!.drills[0]).toEqual(jasmine.objectContaining({ words: 'slowly', dose: { ...DOSE, reps: 10 } }));
    expect([given[0]!.recheckOn, Date.parse(given[0]!.at) > 0, before]).toEqual([day(28), true, null]);
    const sql = (statement: string) => clinics.harness.dataSource.query(statement, [id]);
    await expectAsync(sql("UPDATE program SET note = 'x' WHERE visit_id = ?")).toBeRejectedWithError(/stays as it is/);
    await expectAsync(sql('DELETE FROM program WHERE visit_id = ?')).toBeRejectedWithError(/denied|is kept/);
  });

  it('stand at the next visit as what was given before, the last of the latest', async () => {
    const episodeId = await patient();
    const [old, last, now] = [await visit(episodeId, day(-28)), await visit(episodeId, day(-7)), await visit(episodeId)];
    await give(old, program({ note: 'old', recheckOn: day(1) }));
    await give(last, program({ note: 'first', recheckOn: day(1) }));
    await give(last, program({ note: 'second', recheckOn: day(1) }));
    const { given, before } = await view(now);
    expect([given, before!.note, before!.number, before!.visitId]).toEqual([[], 'second', 2, last]);
    expect((await view(last)).before!.note).toBe('old');
    // Of another person of the clinic nothing is told.
    expect((await view(await visit(await patient()))).before).toBeNull();
  });

  it('tell since when each drill is done without a break', async () => {
    const episodeId = await patient();
    const visits: string[] = [];
    for (const days of [-60, -30, -7, 0]) visits.push(await visit(episodeId, day(days)));
    const curl = { ...slide, drill: 'knee-curl' };
    for (const [at, drills] of [
      [0, [slide]],
      [1, [slide, curl]],
      [2, [curl]],
    ] as const)
      await give(visits[at]!, program({ drills: [...drills], recheckOn: day(1) }));
    const { running } = await view(visits[3]!);
    // Given on one day here, each visit's last programme counts; what was left out in between begins anew.
    expect(running.map(({ drill, side }) => [drill, side])).toEqual([['knee-curl', 'left']]);
    expect((await view(visits[2]!)).running.map(({ drill }) => drill)).toEqual(['heel-slide', 'knee-curl']);
    expect((await view(visits[0]!)).running).toEqual([]);
  });

  it('of ten at once are each kept, numbered one after the other', async () => {
    const id = await visit(await patient());
    await Promise.all(Array.from({ length: 10 }, () => give(id, program())));
    expect((await view(id)).given.map(({ number }) => number)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
  });

  it('remember what drills did in retests', async () => {
    const id = await visit(await patient());
    const retest = randomUUID();
    const marker = { protocol: 'knee.flexion/supine', side: 'left', mode: 'passive', instrument: 'goniometer' };
    await agent
      .post(`/api/visits/${id}/retests`)
      .send({ id: retest, markers: [marker] })
      .expect(200);
    const read = (round: number, value: number) =>
      agent.post(`/api/retests/${retest}/readings`).send({ id: randomUUID(), round, marker: 0, value }).expect(200);
    await read(0, 90);
    await agent.post(`/api/retests/${retest}/rounds`).send({ id: randomUUID(), number: 1, drill: 'Heel slide' }).expect(200);
    await read(1, 105);
    expect((await view(id)).memory).toEqual([]);
    await agent.post(`/api/retests/${retest}/finish`).send({}).expect(200);
    expect((await view(id)).memory).toEqual([{ drill: 'Heel slide', better: 1, same: 0, worse: 0 }]);
  });

  it('are refused with the field, what is wrong and what is allowed, and nothing of them is kept', async () => {
    const id = await visit(await patient());
    const wrong = async (over: object) => (await give(id, { ...program(), ...over }, 422)).body.errors[0];
    expect((await wrong({ drills: [{ ...slide, drill: 'handstand' }] })).message).toContain('"handstand" is no drill; allowed: ');
    expect((await wrong({ drills: [{ ...slide, side: 'midline' }] })).path).toBe('drills.0.side');
    expect((await wrong({ drills: [slide, { ...slide, side: 'right' }] })).message).toContain('is given already');
    expect((await wrong({ drills: [{ ...slide, dose: { ...DOSE, reps: null } }] })).path).toBe('drills.0.dose.reps');
    expect((await wrong({ drills: [{ ...slide, dose: { ...DOSE, timesADay: 0 } }] })).path).toBe('drills.0.dose.timesADay');
    expect((await wrong({ recheckOn: day(0) })).message).toContain(`allowed: after ${day(0)}`);
    expect((await wrong({ choices: { ...program().choices, equipment: ['trampoline'] } })).path).toBe('choices.equipment.0');
    const six = ['heel-slide', 'knee-hang', 'knee-press', 'step-up', 'knee-curl', 'heel-slide-strap'].map((drill) => ({ ...slide, drill }));
    expect((await wrong({ drills: six })).path).toBe('drills');
    expect((await view(id)).given).toEqual([]);
  });

  it('never impose what a precaution forbids', async () => {
    const episodeId = await patient();
    const id = await visit(episodeId);
    const { body: record } = await agent.get(`/api/visits/${id}`).expect(200);
    await agent
      .put(`/api/episodes/${episodeId}/intake`)
      .send({
        ...intakeOf(record.episode),
        precautions: [{ motion: 'knee.flexion', side: 'left', limit: 90, until: null, source: 'surgeon' }],
      })
      .expect(200);
    const { errors } = (await give(id, program(), 422)).body;
    expect(errors[0].path).toBe('drills.0.drill');
    expect(errors[0].message).toContain('Heel slide is forbidden: knee flexion: not past 90° (surgeon)');
    await give(id, program({ drills: [{ ...slide, side: 'right' }] }));
    expect((await view(id)).given.length).toBe(1);
  });

  it('never ask what a yes to a caution leaves out, where it is about that part, and everywhere until somebody says where', async () => {
    const id = await visit(await patient());
    const answer = (revision: number, where: object) =>
      agent
        .put(`/api/visits/${id}/cautions`)
        .send({ asked: ['repair-unknown'], yes: ['repair-unknown'], where, revision })
        .expect(200);
    const { body } = await answer(0, {});
    expect(body.visit.answers).toEqual({ yes: ['repair-unknown'], where: {} });
    expect((await give(id, program(), 422)).body.errors[0].message).toContain('answered yes: a repair whose limits are not known');
    await answer(1, { 'repair-unknown': ['knee'] });
    expect((await give(id, program(), 422)).body.errors[0].path).toBe('drills.0.drill');
    const { body: elsewhere } = await answer(2, { 'repair-unknown': ['shoulder'] });
    expect(elsewhere.cautions.where).toEqual({ 'repair-unknown': ['shoulder'] });
    await give(id, program());
    await agent
      .put(`/api/visits/${id}/cautions`)
      .send({ asked: [], yes: ['fever'], where: { fever: ['tail'] }, revision: 3 })
      .expect(422);
  });

  it('are of their visit and clinic alone, and a signed visit takes none', async () => {
    const [id, other] = [await visit(await patient()), await visit(await patient())];
    const body = program();
    await give(id, body);
    expect((await give(other, body, 409)).body.detail).toBeTruthy();
    expect((await give(id, { ...body, note: 'another' }, 409)).body.detail).toBeTruthy();
    await stranger.get(`/api/visits/${id}/programs`).expect(404);
    await stranger.post(`/api/visits/${id}/programs`).send(program()).expect(404);
    await agent
      .post(`/api/visits/${id}/screens`)
      .send({ id: randomUUID(), screen: 'patterns', item: 'leanBack', try: { meets: true, pain: 0 } })
      .expect(200);
    expect((await clinics.sign(id)).status).toBe(200);
    await give(id, program(), 409);
    expect((await view(id)).given.length).toBe(1);
  });
});
