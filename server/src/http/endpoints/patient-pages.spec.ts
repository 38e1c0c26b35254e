import { randomUUID } from 'node:crypto';
import type { DayLog, MadePage, OwnPage, PatientPagesView } from '@dial-gauge/contract';
import request from 'supertest';
import { episodes, intakeOf, type Episodes } from '../../testing/episodes.js';
import { startClinics, type Clinics } from '../../testing/harness.js';

const day = (from: number) => new Date(Date.now() + from * 86_400_000).toISOString().slice(0, 10);
const DOSE = { sets: 1, reps: 12, seconds: null, timesADay: 3, daysAWeek: 7 };

describe('a page of the person’s own', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let patient: Episodes['patient'];
  let visit: Episodes['visit'];
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent } = clinics);
    ({ patient, visit } = episodes(agent));
  });
  afterAll(() => clinics.stop());

  const anybody = () => request(clinics.app);
  const make = async (episodeId: string, days = 30): Promise<MadePage> =>
    (await agent.post(`/api/episodes/${episodeId}/patient-pages`).send({ id: randomUUID(), days }).expect(200)).body;
  const open = async ({ token, code }: Pick<MadePage, 'token' | 'code'>, status = 200) =>
    (await anybody().post('/api/own-page/opening').send({ token, code }).expect(status)).body;
  const keyOf = async (page: MadePage): Promise<string> => (await open(page)).key;
  const own = async (key: string, status = 200): Promise<OwnPage> =>
    (await anybody().post('/api/own-page').send({ key }).expect(status)).body;
  const logOf = (over: Partial<DayLog> = {}): DayLog => ({
    ...{ id: randomUUID(), on: day(0), done: ['heel-slide-strap'], easy: true, pain: 1, swelling: false, worse: false, note: '' },
    ...over,
  });
  const log = (key: string, over: Partial<DayLog> = {}, status = 200) =>
    anybody()
      .post('/api/own-page/days')
      .send({ key, day: logOf(over) })
      .expect(status);
  const seen = async (episodeId: string): Promise<PatientPagesView> =>
    (await agent.get(`/api/episodes/${episodeId}/patient-pages`).expect(200)).body;
  const give = (visitId: string, drills: object[]) =>
    agent
      .post(`/api/visits/${visitId}/programs`)
      .send({
        id: randomUUID(),
        choices: { equipment: ['strap', 'towel'], minutesADay: 20, painTolerated: 3, order: 'stages' },
        drills,
        recheckOn: day(28),
        note: '',
      })
      .expect(200);
  const drill = (id: string, side = 'left') => ({ drill: id, side, dose: DOSE, words: '' });
  /** Somebody with a programme that was given five days ago, and a page. */
  async function withProgram(
    drills = [drill('heel-slide-strap')],
  ): Promise<{ episodeId: string; visitId: string; page: MadePage; key: string }> {
    const episodeId = await patient();
    const visitId = await visit(episodeId);
    await give(visitId, drills);
    const page = await make(episodeId);
    return { episodeId, visitId, page, key: await keyOf(page) };
  }

  it('opens by link and code, shows what to do, and keeps a day exactly once', async () => {
    const { episodeId, key } = await withProgram();
    const page = await own(key);
    expect([page.name, page.recheckOn, page.drills.length]).toEqual(['Ilka', day(28), 1]);
    expect(page.drills[0]!.block.title).toBe('Heel slide with a strap, left');
    const once = logOf({ note: 'slept <b>well</b>' });
    for (let twice = 0; twice < 2; twice += 1) await anybody().post('/api/own-page/days').send({ key, day: once }).expect(200);
    await anybody()
      .post('/api/own-page/days')
      .send({ key, day: { ...once, pain: 9 } })
      .expect(409);
    const { logged } = await seen(episodeId);
    expect(logged.map(({ on, note, pain }) => [on, note, pain])).toEqual([[day(0), 'slept <b>well</b>', 1]]);
    // Put right: another log of the same day counts, and the first stays on record.
    await log(key, { pain: 2 });
    expect((await seen(episodeId)).logged.map(({ pain }) => pain)).toEqual([2]);
    const sql = (statement: string) => clinics.harness.dataSource.query(statement);
    await expectAsync(sql('UPDATE patient_day SET pain = 0')).toBeRejectedWithError(/stays as it is/);
    await expectAsync(sql('DELETE FROM patient_day')).toBeRejectedWithError(/denied|is kept/);
  });

  it('goes down the ladder when a joint swells, up when it was easy twice, and never past a limit', async () => {
    const { episodeId, key } = await withProgram([drill('heel-slide-strap')]);
    await log(key, { on: day(0), swelling: true });
    expect((await own(key)).drills.map(({ given, step, block }) => [given, block.title, step])).toEqual([
      ['heel-slide-strap', 'Heel slide, left', 'more swelling the next morning: a step down'],
    ]);
    expect((await seen(episodeId)).steps).toEqual([
      jasmine.objectContaining({ given: 'heel-slide-strap', drill: 'heel-slide', move: 'down', on: day(0), rests: false }),
    ]);
    const up = await withProgram([drill('heel-slide')]);
    await log(up.key, { on: day(0), done: ['heel-slide'] });
    await log(up.key, { on: day(1), done: ['heel-slide'] });
    expect((await seen(up.episodeId)).steps[0]).toEqual(jasmine.objectContaining({ drill: 'heel-slide-strap', move: 'up' }));
    // A limit that was set since: what is past it rests, and the page says so.
    const { body: record } = await agent.get(`/api/visits/${up.visitId}`).expect(200);
    const intake = intakeOf(record.episode as Record<string, unknown>);
    await agent
      .put(`/api/episodes/${up.episodeId}/intake`)
      .send({ ...intake, precautions: [{ motion: 'knee.flexion', side: 'left', limit: 60, until: null, source: 'surgeon' }] })
      .expect(200);
    expect((await own(up.key)).drills[0]!.rests).toBeTrue();
  });

  it('is told what is wrong with what was entered, and nothing is kept', async () => {
    const { episodeId, key } = await withProgram();
    const wrong = async (over: object) => (await log(key, over, 422)).body.errors[0];
    expect((await wrong({ pain: 11 })).path).toBe('day.pain');
    expect(await wrong({ on: day(3) })).toEqual({
      path: 'day.on',
      message: `${day(3)} lies outside of what this page is for; allowed: ${day(-1)} to ${day(1)}`,
    });
    expect((await wrong({ on: '2026-02-30' })).path).toBe('day.on');
    expect((await wrong({ note: 'x'.repeat(501) })).path).toBe('day.note');
    expect((await wrong({ done: Array.from({ length: 13 }, () => 'x') })).path).toBe('day.done');
    expect((await seen(episodeId)).logged).toEqual([]);
  });

  it('stays shut without the code, after it was closed, after its day; and tries are limited', async () => {
    const { page, key, episodeId } = await withProgram();
    const wrong = page.code === '000000' ? '000001' : '000000';
    const refusal = await open({ token: page.token, code: wrong }, 401);
    expect(refusal.detail).toBe((await open({ token: 'nowhere', code: page.code }, 401)).detail);
    await agent.post(`/api/patient-pages/${page.id}/revocation`).send({}).expect(200);
    await agent.post(`/api/patient-pages/${page.id}/revocation`).send({}).expect(200);
    await own(key, 401);
    await log(key, {}, 401);
    await open(page, 401);
    expect((await seen(episodeId)).pages[0]!.revokedAt).not.toBeNull();
    const late = await withProgram();
    await clinics.database.sql('DROP TRIGGER dial_gauge.patient_page_stays');
    await clinics.harness.dataSource.query('UPDATE patient_page SET expires_at = ? WHERE id = ?', [
      new Date(Date.now() - 1000),
      late.page.id,
    ]);
    await own(late.key, 401);
    await open(late.page, 401);
    const tried = await withProgram();
    for (let tries = 0; tries < 10; tries += 1) await open({ token: tried.page.token, code: 'x' }, 401);
    expect((await open(tried.page, 429)).title).toBe('Too many tries');
  });

  it('reaches no other record, of this clinic or another', async () => {
    const [mine, others] = [await withProgram(), await withProgram()];
    await log(mine.key, { note: 'mine' });
    expect((await own(others.key)).logged).toEqual([]);
    for (const path of [`/api/visits/${mine.visitId}`, '/api/caseload', `/api/episodes/${mine.episodeId}/patient-pages`])
      await anybody().get(path).set('Authorization', `Bearer ${mine.key}`).set('Cookie', `dial-gauge=${mine.key}`).expect(401);
    // An id that another page used is told as taken, and changes nothing.
    const used = logOf();
    await anybody().post('/api/own-page/days').send({ key: mine.key, day: used }).expect(200);
    await anybody().post('/api/own-page/days').send({ key: others.key, day: used }).expect(409);
    await clinics.stranger.get(`/api/episodes/${mine.episodeId}/patient-pages`).expect(404);
    await clinics.stranger.post(`/api/episodes/${mine.episodeId}/patient-pages`).send({ id: randomUUID(), days: 7 }).expect(404);
    await clinics.stranger.post(`/api/patient-pages/${mine.page.id}/revocation`).send({}).expect(404);
    await agent.post(`/api/episodes/${others.episodeId}/patient-pages`).send({ id: mine.page.id, days: 7 }).expect(409);
    await anybody()
      .post('/api/own-page')
      .send({ key: 'x'.repeat(43) })
      .expect(401);
    // What is kept opens nothing: neither link, code nor key stands in the tables.
    const kept = JSON.stringify(
      await clinics.harness.dataSource.query('SELECT p.*, k.* FROM patient_page p JOIN patient_page_key k ON k.page_id = p.id'),
    );
    for (const secret of [mine.page.token, `"${mine.page.code}"`, mine.key]) expect(kept).not.toContain(secret);
  });

  it('has nothing to do where nothing was given, and says so', async () => {
    const page = await make(await patient());
    const { drills, better, recheckOn } = await own(await keyOf(page));
    expect([drills, better, recheckOn]).toEqual([[], [], null]);
  });
});
