import { randomUUID } from 'node:crypto';
import type { CaseloadRow } from '@dial-gauge/contract';
import { pino } from 'pino';
import type { Agent } from 'supertest';
import { NOBODY } from '../../shared/caller.js';
import { openDatabase } from '../../records/open-database.js';
import { newPatient, newReading, startClinics, TODAY, type Clinics } from '../../testing/harness.js';
import { refreshQueueStatus } from './refresh-queue-status.js';
import { QueueRefresher } from './queue-refresher.js';

describe('the caseload as a queue', () => {
  let clinics: Clinics;
  let queue: QueueRefresher;
  const query = (sql: string, values: unknown[] = []) => clinics.dataSource.query(sql, values);
  beforeAll(async () => {
    clinics = await startClinics();
    queue = clinics.harness.servicesOf(clinics.app).queue;
  });
  afterAll(() => clinics.stop());

  const daysAgo = (days: number): string => new Date(Date.parse(TODAY) - days * 86_400_000).toISOString().slice(0, 10);
  /** Somebody, found by a word of their own; perhaps seen so many days ago. */
  const somebody = async (seen: number | null, by: Agent = clinics.agent) => {
    const word = `w${randomUUID().replaceAll('-', '').slice(0, 12)}`;
    const patient = newPatient({ familyName: word });
    await by.post('/api/patients').send(patient).expect(200);
    const episodeId = patient.episode.id;
    const visitId = randomUUID();
    if (seen !== null)
      await by
        .post(`/api/episodes/${episodeId}/visits`)
        .send({ id: visitId, assessedOn: daysAgo(seen) })
        .expect(200);
    return { word, episodeId, visitId };
  };
  const rows = async (find: string, over: object = {}, by: Agent = clinics.agent): Promise<CaseloadRow[]> => {
    await queue.settle();
    return (
      await by
        .get('/api/caseload')
        .query({ find, ...over })
        .expect(200)
    ).body.rows;
  };
  const kinds = async (find: string): Promise<string[]> => (await rows(find))[0]!.standing!.reasons.map(({ kind }) => kind);
  const setDue = async (episodeId: string, dueOn: string | null) => {
    const [{ revision }] = await query('SELECT revision FROM episode WHERE id = ?', [episodeId]);
    await clinics.agent
      .put(`/api/episodes/${episodeId}/intake`)
      .send({ complaint: 'stiff left hip', involvedSide: 'left', dueOn, revision })
      .expect(200);
  };

  it('moves as visits are done: new, due, unfinished, signed, discharged', async () => {
    const { word, episodeId, visitId } = await somebody(null);
    expect((await rows(word))[0]!.standing!.reasons).toEqual([]);
    await setDue(episodeId, daysAgo(0));
    expect(await kinds(word)).toEqual(['due']);
    await clinics.agent
      .post(`/api/episodes/${episodeId}/visits`)
      .send({ id: visitId, assessedOn: daysAgo(1) })
      .expect(200);
    await clinics.hold(visitId).expect(200);
    expect(await kinds(word)).toEqual(['unfinished', 'due']);
    expect((await clinics.sign(visitId)).status).toBe(200);
    expect(await kinds(word)).toEqual(['due']);
    await clinics.agent.post(`/api/episodes/${episodeId}/discharge`).send({ on: TODAY, outcome: 'goal-met' }).expect(200);
    expect(await rows(word)).toEqual([]);
    const [ended] = await rows(word, { state: 'ended' });
    expect(ended!.ended).toEqual({ on: TODAY, outcome: 'goal-met' });
    await clinics.agent.post(`/api/episodes/${episodeId}/reopening`).send({ why: 'came back' }).expect(200);
    expect(await kinds(word)).toEqual(['due']);
  });

  it('is in the order of urgency and then of time, page after page, each once', async () => {
    const tag = `tag${randomUUID().slice(0, 6)}`;
    const people = await Promise.all(
      Array.from({ length: 30 }, async (_, n) => {
        const patient = newPatient({ familyName: `Order${n}`, episode: { id: randomUUID(), complaint: tag, involvedSide: null } });
        await clinics.agent.post('/api/patients').send(patient).expect(200);
        const dueOn = n % 3 === 0 ? daysAgo(n) : null;
        await clinics.agent
          .put(`/api/episodes/${patient.episode.id}/intake`)
          .send({ complaint: tag, involvedSide: null, dueOn, revision: 0 })
          .expect(200);
        return dueOn;
      }),
    );
    await queue.settle();
    const all: CaseloadRow[] = [];
    for (let after: string | undefined; ;) {
      const { body } = await clinics.agent.get('/api/caseload').query({ find: tag, after }).expect(200);
      all.push(...body.rows);
      if (body.next === null) break;
      after = body.next;
    }
    expect(new Set(all.map((row) => row.episode.id)).size).toBe(30);
    const due = people.filter((day) => day !== null).sort();
    expect(all.slice(0, due.length).map((row) => row.episode.dueOn)).toEqual(due);
    expect(all.slice(due.length).every((row) => row.standing!.reasons.length === 0)).toBeTrue();
  });

  it('is narrowed to one’s own, to an examiner’s, and counted; nobody of another clinic is in it', async () => {
    const mine = await somebody(3);
    const theirs = await somebody(3, clinics.second);
    expect((await rows(mine.word, { whose: 'mine' })).length).toBe(1);
    expect(await rows(theirs.word, { whose: 'mine' })).toEqual([]);
    expect((await rows(theirs.word, { whose: clinics.ids.second })).length).toBe(1);
    expect(await rows(mine.word, {}, clinics.stranger)).toEqual([]);
    expect(await rows(mine.word, { whose: clinics.ids.ours }, clinics.stranger)).toEqual([]);
    const counts = async (whose: string, by: Agent = clinics.agent) => (await by.get('/api/queue').query({ whose }).expect(200)).body;
    const [all, own, strange] = [await counts('all'), await counts('mine'), await counts('all', clinics.stranger)];
    expect(all.today).toBeGreaterThan(own.today);
    expect(own.today).toBeGreaterThan(0);
    expect([strange.today, strange.due, strange.met, strange.way]).toEqual([0, 0, 0, 0]);
    expect(strange.examiners.map(({ name }: { name: string }) => name)).toEqual(['other']);
    const [{ n }] = await query('SELECT COUNT(*) AS n FROM episode WHERE clinic_id = ? AND ended_on IS NULL', [clinics.clinicId]);
    expect(all.today + all.due + all.met + all.way + all.untold).toBe(Number(n));
    // What was not told yet is not called on its way.
    await query("UPDATE episode SET rank_key = '9', queue_standing = NULL WHERE id = ?", [mine.episodeId]);
    expect((await counts('all')).untold).toBe(all.untold + 1);
    expect((await counts('all')).way).toBe(all.way);
    await clinics.agent.get('/api/queue').query({ whose: 'nobody' }).expect(422);
  });

  it('calls for what somebody wrote on their own page, until it was looked at', async () => {
    const { word, episodeId, visitId } = await somebody(2);
    await clinics.hold(visitId).expect(200);
    await clinics.sign(visitId);
    const page = (await clinics.agent.post(`/api/episodes/${episodeId}/patient-pages`).send({ id: randomUUID(), days: 14 }).expect(200))
      .body;
    const opened = await clinics.agent.post('/api/own-page/opening').send({ token: page.token, code: page.code }).expect(200);
    const day = { id: randomUUID(), on: TODAY, done: [], easy: null, pain: 7, swelling: true, worse: null, note: 'could not sleep' };
    await clinics.agent.post('/api/own-page/days').send({ key: opened.body.key, day }).expect(200);
    expect(await kinds(word)).toEqual(['worse', 'wrote']);
    await clinics.stranger.post(`/api/episodes/${episodeId}/messages-seen`).send({}).expect(404);
    await clinics.agent.post(`/api/episodes/${episodeId}/messages-seen`).send({}).expect(200);
    expect(await kinds(word)).toEqual([]);
  });

  it('tells anew what was entered while it was being told, and what a killed server had only noted', async () => {
    const { word, episodeId } = await somebody(null);
    await rows(word);
    const staleOf = async () => Number((await query('SELECT stale FROM episode WHERE id = ?', [episodeId]))[0].stale);
    expect(await staleOf()).toBe(0);
    // Entered meanwhile: it counts up between reading and writing.
    await query('UPDATE episode SET stale = 1 WHERE id = ?', [episodeId]);
    const database = openDatabase(clinics.dataSource);
    await database.connection({ ...NOBODY, clinicId: clinics.clinicId }, async (work) => {
      const write = work.manager.query.bind(work.manager);
      spyOn(work.manager, 'query').and.callFake(async (sql: string, values?: unknown[]) => {
        if (sql.startsWith('UPDATE episode SET rank_key')) await write('UPDATE episode SET stale = stale + 1 WHERE id = ?', [episodeId]);
        return write(sql, values as never);
      });
      await refreshQueueStatus(work, episodeId);
    });
    expect(await staleOf()).toBe(2);
    // Noted by a server that is gone: the next look finds it.
    await queue.settle();
    expect(await staleOf()).toBe(0);
  });

  it('misses nothing that was answered: the mark is written with the entry, and a server that comes after finds it', async () => {
    const { word, episodeId, visitId } = await somebody(2);
    await clinics.hold(visitId).expect(200);
    await clinics.sign(visitId);
    await rows(word);
    const page = (await clinics.agent.post(`/api/episodes/${episodeId}/patient-pages`).send({ id: randomUUID(), days: 14 }).expect(200))
      .body;
    const { key } = (await clinics.agent.post('/api/own-page/opening').send({ token: page.token, code: page.code }).expect(200)).body;
    const day = { id: randomUUID(), on: TODAY, done: [], easy: null, pain: 9, swelling: null, worse: null, note: '' };
    // Whoever keeps the queue holds the episode meanwhile: nobody waits for that, and nothing is lost by it.
    const holder = clinics.dataSource.createQueryRunner();
    await holder.startTransaction();
    await holder.query('SELECT id FROM episode WHERE id = ? FOR UPDATE', [episodeId]);
    await clinics.agent.post('/api/own-page/days').send({ key, day }).expect(200);
    await holder.rollbackTransaction();
    await holder.release();
    const marks = await query('SELECT episode_id FROM queue_mark');
    expect(marks).toContain({ episode_id: episodeId });
    // The server that answered is gone; this one knows nothing but the database.
    await new QueueRefresher(openDatabase(clinics.dataSource), undefined, pino({ level: 'silent' })).settle();
    expect((await rows(word))[0]!.standing!.reasons.map(({ kind }) => kind)).toContain('worse');
    expect(await query('SELECT 1 FROM queue_mark')).toEqual([]);
  });

  it('marks a reading by the statement that holds it, and nothing that was refused', async () => {
    const { visitId } = await somebody(1);
    await queue.settle();
    const reading = newReading();
    await clinics.hold(visitId, reading).expect(200);
    expect((await query('SELECT visit_id FROM queue_mark')).length).toBe(1);
    await clinics.hold(visitId, reading).expect(200);
    await clinics.hold(visitId, { ...reading, end: 20 }).expect(409);
    await clinics.hold(visitId, {}, clinics.stranger).expect(404);
    expect((await query('SELECT visit_id FROM queue_mark')).length).toBe(1);
    const database = openDatabase(clinics.dataSource);
    const caller = { ...NOBODY, clinicId: clinics.clinicId };
    await expectAsync(database.connection(caller, async (work) => work.markStale('visit', visitId))).toBeRejectedWithError(
      /outside of a transaction/,
    );
    await expectAsync(
      database.transaction(caller, async (work) => {
        work.markStale('visit', visitId);
        await Promise.reject(new Error('refused'));
      }),
    ).toBeRejectedWithError('refused');
    expect((await query('SELECT visit_id FROM queue_mark')).length).toBe(1);
  });

  it('keeps going where one record cannot be told', async () => {
    const [bad, good] = [await somebody(3), await somebody(3)];
    await clinics.hold(bad.visitId, newReading()).expect(200);
    await query("UPDATE episode SET precautions = 'not json' WHERE id = ?", [bad.episodeId]);
    expect(await kinds(good.word)).toEqual(['unfinished']);
    // Nor in the way of who is told by the day alone.
    await query("UPDATE episode SET stale_on = CURRENT_DATE, rank_key = '9', queue_standing = NULL WHERE id = ?", [good.episodeId]);
    expect(await kinds(good.word)).toEqual(['unfinished']);
    await query('UPDATE episode SET precautions = NULL WHERE id = ?', [bad.episodeId]);
    expect(await kinds(bad.word)).toEqual(['unfinished']);
  });
});
