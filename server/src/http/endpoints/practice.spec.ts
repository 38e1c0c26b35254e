import { randomUUID } from 'node:crypto';
import type { PracticeRoundView, PracticeView } from '@dial-gauge/contract';
import { ROUND, taskOf, type AnswerOf, type ExerciseId } from '@dial-gauge/core';
import { startClinics, type Clinics } from '../../testing/harness.js';

describe('practice', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let second: Clinics['second'];
  let stranger: Clinics['stranger'];
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent, second, stranger } = clinics);
  });
  afterAll(() => clinics.stop());

  type Who = Clinics['agent'];
  const start = async (exercise: ExerciseId, over: object = {}, who: Who = agent): Promise<PracticeRoundView> =>
    (
      await who
        .post('/api/practice-rounds')
        .send({ id: randomUUID(), exercise, isShared: false, name: '', seed: 7, ...over })
        .expect(200)
    ).body;
  const answer = (round: PracticeRoundView, task: number, value: object, who: Who = agent, id: string = randomUUID()) =>
    who.post(`/api/practice-rounds/${round.id}/answers`).send({ id, task, exercise: round.exercise, answer: value });
  const look = async (round: PracticeRoundView, who: Who = agent): Promise<PracticeRoundView> =>
    (await who.get(`/api/practice-rounds/${round.id}`).expect(200)).body;
  const truth = <K extends ExerciseId>(id: K, round: PracticeRoundView, task: number) => taskOf(id, round.tasks[task]!);
  const read = (round: PracticeRoundView, task: number, off = 0): AnswerOf<'read'> => ({
    degrees: truth('read', round, task).truth + off,
    eye: 0,
  });
  const own = async (who: Who = agent): Promise<PracticeView> => (await who.get('/api/practice').expect(200)).body;
  const of = (view: PracticeView, id: ExerciseId) => view.exercises.find(({ exercise }) => exercise === id)!;
  const paths = (body: { errors?: { path: string }[] }) => (body.errors ?? []).map(({ path }) => path);

  it('scores an answer against the truth of its own draw: a wrong side is a wrong side', async () => {
    const round = await start('side');
    expect(round.tasks.length).toBe(ROUND);
    expect(round.tasks.every(({ answered }) => answered === null)).toBeTrue();
    const { side } = truth('side', round, 0);
    const wrong = side === 'left' ? 'right' : 'left';
    await answer(round, 0, { side: wrong }).expect(200);
    const { body } = await answer(round, 1, { side: truth('side', round, 1).side }).expect(200);
    const came = (body as PracticeRoundView).tasks.map(({ answered }) => answered?.scored);
    expect(came[0]).toEqual({ mark: 'wrong', off: null, slips: ['otherSide'], read: null, truth: null });
    expect(came[1]!.mark).toBe('right');
    expect(came[2]).toBeUndefined();
    expect(of(await own(), 'side').sum).toEqual({ answers: 2, right: 1, near: 0, meanOff: null, slips: [{ slip: 'otherSide', times: 1 }] });
  });

  it('takes each task once: what comes again is as good as saved, another answer to it is refused and the first stands', async () => {
    const round = await start('read');
    const id = randomUUID();
    for (let twice = 0; twice < 2; twice += 1) await answer(round, 3, read(round, 3), agent, id).expect(200);
    const { body } = await answer(round, 3, read(round, 3, 5)).expect(409);
    expect(body.detail).toContain('first answer stands');
    expect((await answer(round, 4, read(round, 4), agent, id).expect(409)).body.errors[0].path).toBe('id');
    const atOnce = await Promise.all([1, 2, 3].map((off) => answer(round, 5, read(round, 5, off))));
    expect(atOnce.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
    const now = await look(round);
    expect(now.tasks[3]!.answered!.scored.mark).toBe('right');
    expect(now.tasks.filter(({ answered }) => answered).length).toBe(2);
    const sql = (statement: string) => clinics.harness.dataSource.query(statement);
    await expectAsync(sql("UPDATE practice_answer SET answer = '{}'")).toBeRejectedWithError(/stays as it was given/);
    await expectAsync(sql('DELETE FROM practice_round')).toBeRejectedWithError(/denied|is kept/);
  });

  it('is refused with the field, what is wrong and what is allowed', async () => {
    const round = await start('read');
    expect(paths((await answer(round, 0, { degrees: 400, eye: 0 }).expect(422)).body)).toEqual(['answer.degrees']);
    expect(paths((await answer(round, 0, { degrees: 40, eye: 2, other: 1 }).expect(422)).body).sort()).toEqual([
      'answer.eye',
      'answer.other',
    ]);
    expect(paths((await answer(round, ROUND, read(round, 0)).expect(422)).body)).toEqual(['task']);
    expect(paths((await answer({ ...round, exercise: 'side' }, 0, { side: 'left' }).expect(422)).body)).toEqual(['exercise']);
    const send = (over: object) =>
      agent.post('/api/practice-rounds').send({ id: randomUUID(), exercise: 'read', isShared: false, name: '', seed: 1, ...over });
    expect(paths((await send({ isShared: true }).expect(422)).body)).toEqual(['name']);
    expect(paths((await send({ exercise: 'guess' }).expect(422)).body)).toEqual(['exercise']);
  });

  it('of one’s own is nobody else’s; of a class it is the clinic’s and no other’s', async () => {
    const mine = await start('read');
    const ours = await start('read', { isShared: true, name: 'Tuesday' });
    for (const [round, who, status] of [
      [mine, second, 404],
      [mine, stranger, 404],
      [ours, stranger, 404],
      [ours, second, 200],
    ] as const) {
      await who.get(`/api/practice-rounds/${round.id}`).expect(status);
      await answer(round, 0, read(round, 0), who).expect(status);
    }
    await stranger
      .post('/api/practice-rounds')
      .send({ id: ours.id, exercise: 'read', isShared: true, name: 'Tuesday', seed: 7 })
      .expect(409);
    await second.post('/api/practice-rounds').send({ id: mine.id, exercise: 'read', isShared: false, name: '', seed: 7 }).expect(409);
    expect((await own(second)).open.map(({ name }) => name)).toContain('Tuesday');
    expect((await own(stranger)).open).toEqual([]);
    // Sent again it is the round that was drawn, whatever is due by now.
    expect((await start('read', { id: mine.id })).tasks).toEqual(mine.tasks);
  });

  it('brings back first what went wrong', async () => {
    const round = await start('name', { seed: 3 });
    for (let task = 0; task < ROUND; task += 1) {
      const { protocol, options } = truth('name', round, task);
      const motion = task === 6 ? options.find((one) => one !== protocol.motion)! : protocol.motion;
      await answer(round, task, { motion }).expect(200);
    }
    const line = of(await own(), 'name');
    expect([line.fresh, line.sum.answers, line.sum.right]).toEqual([line.cards - ROUND, ROUND, ROUND - 1]);
    expect(line.trouble).toEqual([{ card: round.tasks[6]!.card, wrong: 1, answers: 1 }]);
    expect(Date.parse(line.nextAt!)).toBeGreaterThan(Date.now() - 60_000);
    const again = await start('name', { seed: 4 });
    expect(again.tasks.slice(0, 5).every(({ card }) => !round.tasks.some((one) => one.card === card))).toBeTrue();
  });

  it('of a class is blind until one’s own is done; then it shows how all lie apart, and makes a study that nobody is judged by', async () => {
    const round = await start('read', { isShared: true, name: 'How alike do we read?', seed: 12 });
    const study = (over: object = {}, who: Who = agent) =>
      who
        .post(`/api/practice-rounds/${round.id}/study`)
        .send({ id: randomUUID(), name: 'From a class', protocol: 'knee.flexion/supine', mode: 'passive', ...over });
    for (let task = 0; task < ROUND; task += 1) await answer(round, task, read(round, task, task % 2)).expect(200);
    expect((await look(round, second)).spread).toBeNull();
    expect((await look(round)).spread!.people.map(({ who }) => who)).toEqual(['ours']);
    expect((await study().expect(422)).body.errors[0].message).toContain('finished by 1');
    for (let task = 0; task < ROUND; task += 1) await answer(round, task, read(round, task, -1), second).expect(200);
    const { spread, finished } = await look(round);
    expect(finished).toBe(2);
    expect(spread!.people.map(({ bias }) => bias)).toEqual([0.5, -1]);
    // By hand: −1 and 0 lie √½ apart, −1 and 1 lie √2 apart.
    expect(spread!.tasks[0]!.sd).toBeCloseTo(Math.SQRT1_2, 9);
    expect(spread!.tasks[1]!.sd).toBeCloseTo(Math.SQRT2, 9);

    expect(paths((await study({ protocol: 'nothing' }).expect(422)).body)).toEqual(['protocol']);
    expect(paths((await study({ protocol: 'hip.internalRotation/prone' }).expect(422)).body)).toEqual(['protocol']);
    await study({}, stranger).expect(404);
    const id = randomUUID();
    for (let twice = 0; twice < 2; twice += 1) {
      const { body } = await study({ id }).expect(200);
      expect([body.isPractice, body.subjects, body.raters, body.table.length]).toEqual([true, ROUND, 2, ROUND]);
      expect(body.table[0].map((value: number) => value - truth('read', round, 0).truth).sort()).toEqual([-1, 0]);
    }
    const adopted = await agent.post(`/api/studies/${id}/adoption`).send({ basis: 'agreement' }).expect(422);
    expect(adopted.body.errors[0].message).toContain('allowed: a study of people');
    await agent.post(`/api/studies/${id}/readings`).send({ id: randomUUID(), subject: 0, rater: 0, value: 90 }).expect(422);
    const mine = await start('read');
    await agent
      .post(`/api/practice-rounds/${mine.id}/study`)
      .send({ id: randomUUID(), name: 'x', protocol: 'knee.flexion/supine', mode: 'passive' })
      .expect(422);
  });
});
