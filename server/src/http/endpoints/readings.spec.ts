import { randomUUID } from 'node:crypto';
import type { NewReading } from '@dial-gauge/contract';
import type { Express } from 'express';
import type { Agent } from 'supertest';
import { startClinics, type Clinics } from '../../testing/harness.js';

const later = (ms: number, from = Date.now()) => new Date(from + ms).toISOString();

/** What is entered is kept as it was entered: once, where it was entered, by whoever entered it. */
describe('what is entered is kept', () => {
  let clinics: Clinics;
  let agent: Agent;
  let second: Agent;
  let stranger: Agent;
  const query = <T = Record<string, unknown>>(sql: string, values: unknown[] = []): Promise<T[]> => clinics.dataSource.query(sql, values);
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent, second, stranger } = clinics);
  });
  afterAll(() => clinics.stop());

  const measured = async (by: Agent = agent) => {
    const visit = await clinics.startVisit(by);
    await clinics.hold(visit.visitId, {}, by).expect(200);
    return visit;
  };

  describe('an identifier that was used before', () => {
    /** Sends the same id to two parents of one clinic, and to another clinic: the first stays, the others are refused. */
    const onlyFirst = async (
      send: (by: Agent, parent: 'a' | 'b' | 'theirs', id: string) => Promise<{ status: number; body: unknown }>,
      stored: (id: string) => Promise<unknown>,
    ) => {
      const id = randomUUID();
      expect((await send(agent, 'a', id)).status).toBe(200);
      const first = await stored(id);
      expect(first).toBeDefined();
      expect((await send(agent, 'a', id)).status)
        .withContext('the same again is as good as saved')
        .toBe(200);
      for (const [by, parent] of [
        [agent, 'b'],
        [stranger, 'theirs'],
      ] as const) {
        const refused = await send(by, parent, id);
        expect(refused.status).withContext(parent).toBe(409);
        expect(JSON.stringify(refused.body)).toContain('was not used before');
      }
      expect(await stored(id))
        .withContext('nothing was written over')
        .toEqual(first);
    };
    const row = (table: string) => async (id: string) => (await query(`SELECT * FROM ${table} WHERE id = ?`, [id]))[0];

    it('signs no other visit', async () => {
      const ids = { a: (await measured()).visitId, b: (await measured()).visitId, theirs: (await measured(stranger)).visitId };
      await onlyFirst((by, parent, id) => clinics.sign(ids[parent], by, id), row('signature'));
      expect((await agent.get(`/api/visits/${ids.b}`)).body.visit.signed).toBeFalse();
    });

    it('starts no other visit, patient, exam set or study', async () => {
      const episodes = { a: (await measured()).episodeId, b: (await measured()).episodeId, theirs: (await measured(stranger)).episodeId };
      await onlyFirst(
        (by, parent, id) => by.post(`/api/episodes/${episodes[parent]}/visits`).send({ id, assessedOn: '2026-11-20' }),
        row('visit'),
      );
      const names = { a: 'First', b: 'Second', theirs: 'Third' };
      const items = [{ protocol: 'knee.flexion/supine' }];
      await onlyFirst((by, parent, id) => by.post('/api/exam-sets').send({ id, name: names[parent], items }), row('exam_set'));
      const study = {
        protocol: 'knee.flexion/supine',
        mode: 'passive',
        instrument: 'goniometer',
        kind: 'raters',
        subjects: 4,
        raters: 2,
        seed: 1,
      };
      await onlyFirst((by, parent, id) => by.post('/api/studies').send({ id, name: names[parent], ...study }), row('study'));
    });

    it('starts no other retest, is no other round and no other reading of one', async () => {
      const markers = [{ protocol: 'hip.flexion/supine', side: 'left', mode: 'passive', instrument: 'goniometer' }];
      const ids = { a: (await measured()).visitId, b: (await measured()).visitId, theirs: (await measured(stranger)).visitId };
      await onlyFirst((by, parent, id) => by.post(`/api/visits/${ids[parent]}/retests`).send({ id, markers }), row('retest'));
      const retests = { a: randomUUID(), b: randomUUID(), theirs: randomUUID() };
      for (const parent of ['a', 'b', 'theirs'] as const)
        await (parent === 'theirs' ? stranger : agent)
          .post(`/api/visits/${ids[parent]}/retests`)
          .send({ id: retests[parent], markers })
          .expect(200);
      await onlyFirst(
        (by, parent, id) => by.post(`/api/retests/${retests[parent]}/rounds`).send({ id, number: 1, drill: 'Rock back' }),
        row('retest_round'),
      );
      await onlyFirst(
        (by, parent, id) => by.post(`/api/retests/${retests[parent]}/readings`).send({ id, round: 0, marker: 0, value: 95 }),
        row('retest_reading'),
      );
      const other = await agent
        .post(`/api/retests/${retests.a}/readings`)
        .send({ id: randomUUID(), round: 0, marker: 0, value: 95 })
        .expect(200);
      expect(other.body.retests.length).toBe(2);
    });

    it('is no other reading of another study', async () => {
      const study = {
        name: 'S',
        protocol: 'knee.flexion/supine',
        mode: 'passive',
        instrument: 'goniometer',
        kind: 'raters',
        subjects: 4,
        raters: 2,
        seed: 1,
      };
      const ids = { a: randomUUID(), b: randomUUID(), theirs: randomUUID() };
      for (const parent of ['a', 'b', 'theirs'] as const)
        await (parent === 'theirs' ? stranger : agent)
          .post('/api/studies')
          .send({ id: ids[parent], ...study })
          .expect(200);
      await onlyFirst(
        (by, parent, id) => by.post(`/api/studies/${ids[parent]}/readings`).send({ id, subject: 0, rater: 0, value: 120 }),
        row('study_reading'),
      );
    });

    it('is no other reading of another visit, and corrects no other one', async () => {
      const ids = { a: (await measured()).visitId, b: (await measured()).visitId, theirs: (await measured(stranger)).visitId };
      await onlyFirst((by, parent, id) => clinics.hold(ids[parent], { id, end: 91 }, by), row('trial'));
      const [one, two] = [randomUUID(), randomUUID()];
      await clinics.hold(ids.a, { id: one, end: 80 }).expect(200);
      await clinics.hold(ids.a, { id: two, end: 81 }).expect(200);
      const correction = randomUUID();
      await agent.post(`/api/readings/${one}/correction`).send({ id: correction, end: 82, why: 'slip' }).expect(200);
      await agent.post(`/api/readings/${two}/correction`).send({ id: correction, end: 83, why: 'slip' }).expect(409);
      await clinics.hold(ids.a, { id: correction, end: 82 }).expect(409);
      const [row2] = await query('SELECT withdrawn_at FROM trial WHERE id = ?', [two]);
      expect(row2!['withdrawn_at']).withContext('the whole correction was refused').toBeNull();
    });
  });

  it('holds a figure as it is or refuses it: nothing is bent to fit', async () => {
    const { visitId } = await clinics.startVisit();
    const refused = async (over: Partial<NewReading>, field: string) => {
      const { body } = await clinics.hold(visitId, over).expect(422);
      expect(body.errors.map((e: { path: string }) => e.path)).toContain(field);
    };
    await refused({ end: 20_000 }, 'end');
    await refused({ instrument: 'inclinometer', scale: '360', sense: 1, start: 20_000, end: 20_010 }, 'start');
    await refused({ pastLimit: { limit: 20_000, why: 'x' } }, 'pastLimit.limit');
    await refused({ instrument: 'inclinometer', scale: '360', sense: 1, start: 0, end: 10.25 }, 'end');
    const spine = {
      motion: 'lumbar.flexion',
      side: 'midline',
      mode: 'active',
      position: 'standing',
      instrument: 'dualInclinometer',
    } as const;
    await refused({ ...spine, end: 104, lower: { zero: 0, end: 20_000 } }, 'lower.end');
    expect(await query('SELECT 1 FROM trial t JOIN measurement m ON m.id = t.measurement_id WHERE m.visit_id = ?', [visitId])).toEqual([]);
    // And the database itself would not take it either.
    await clinics.hold(visitId).expect(200);
    const [known] = await query('SELECT t.* FROM trial t JOIN measurement m ON m.id = t.measurement_id WHERE m.visit_id = ?', [visitId]);
    const insert = (end: number) =>
      query(
        'INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, examiner_id, held_at, saved_at) VALUES (?, ?, ?, ?, 0, ?, ?, NOW(3), NOW(3))',
        [randomUUID(), known!['clinic_id'], known!['measurement_id'], 'goniometer', end, known!['examiner_id']],
      );
    await expectAsync(insert(361)).toBeRejectedWithError(/trial_end_can_be/);
    await expectAsync(insert(20_000)).toBeRejectedWithError(/Out of range/);
  });

  it('is held while the visit is on: not before it, not in the future', async () => {
    const { visitId } = await clinics.startVisit();
    for (const heldAt of ['1900-01-01T00:00:00.000Z', later(-600_000), later(600_000), '2999-01-01T00:00:00.000Z']) {
      const { body } = await clinics.hold(visitId, { heldAt }).expect(422);
      expect(body.errors[0]).toEqual({
        path: 'heldAt',
        message: jasmine.stringMatching(/^lies (before the visit began|in the future); allowed: .* to now/),
      });
    }
    await clinics.hold(visitId).expect(200);
  });

  it('puts right the clock of a device that is ahead or behind, and says by how much', async () => {
    const { visitId } = await clinics.startVisit();
    for (const [off, minutes] of [
      [720_000, 12],
      [-3_600_000, -60],
    ] as const) {
      const heldAt = later(off);
      const { body } = await clinics.hold(visitId, { heldAt }).set('x-dial-gauge-clock', later(off)).expect(200);
      expect(body.reading.clockOff).toBeCloseTo(minutes * 60, -1);
      expect(Math.abs(Date.parse(body.reading.heldAt) - Date.now())).toBeLessThan(5_000);
    }
    const { body } = await clinics.hold(visitId).set('x-dial-gauge-clock', later(900)).expect(200);
    expect(body.reading.clockOff).withContext('near enough').toBeNull();
  });

  it('refuses to change or delete a fact, in the database itself', async () => {
    const { visitId } = await measured();
    await agent
      .put(`/api/visits/${visitId}/remarks`)
      .send({ motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', pain: 3 })
      .expect(200);
    expect((await clinics.sign(visitId)).status).toBe(200);
    for (const [statement, told] of [
      ["UPDATE signature SET summary = 'other'", /stays as it is/],
      ['DELETE FROM signature', /denied/],
      ["UPDATE change_log SET new_value = '0'", /stays as it is/],
      ['DELETE FROM change_log', /denied/],
      ['UPDATE trial SET end_angle = 1', /stays as it was entered/],
      ['DELETE FROM trial', /denied/],
      ["UPDATE trial SET examiner_id = (SELECT id FROM user WHERE name = 'second')", /stays as it was entered/],
    ] as const)
      await expectAsync(query(statement)).withContext(statement).toBeRejectedWithError(told);
    const id = randomUUID();
    const open = await clinics.startVisit();
    await clinics.hold(open.visitId, { id }).expect(200);
    await agent.post(`/api/readings/${id}/withdrawal`).send({}).expect(200);
    await expectAsync(query('UPDATE trial SET withdrawn_at = NULL, withdrawn_by = NULL WHERE id = ?', [id])).toBeRejectedWithError(/stays/);
  });

  it('does not let a second examiner undo the caution answers or the summary of the first', async () => {
    const { visitId } = await measured();
    const answers = { asked: ['clot-leg'], note: '' };
    await agent
      .put(`/api/visits/${visitId}/cautions`)
      .send({ ...answers, yes: ['clot-leg'], revision: 0 })
      .expect(200);
    const { body } = await second
      .put(`/api/visits/${visitId}/cautions`)
      .send({ ...answers, yes: [], revision: 0 })
      .expect(409);
    expect(body.detail).toContain('changed by ours meanwhile');
    await agent.put(`/api/visits/${visitId}/summary`).send({ summary: 'Mine.', was: null }).expect(200);
    await second.put(`/api/visits/${visitId}/summary`).send({ summary: 'Theirs.', was: null }).expect(409);
    await second.put(`/api/visits/${visitId}/summary`).send({ summary: 'Theirs.', was: 'Mine.' }).expect(200);
  });

  it('opens although one stored record no longer fits, and shows that one as such', async () => {
    await measured();
    const { visitId, episodeId, patientId } = await measured();
    await agent
      .put(`/api/visits/${visitId}/plan`)
      .send({ plan: { steps: [{ protocol: 'hip.flexion/supine', side: 'left', mode: 'active', seconds: 10 }] }, revision: 0 })
      .expect(200);
    const strange = { motion: 'knee.gliding', limit: 10, until: null, source: 'surgeon' };
    await query('UPDATE episode SET precautions = ? WHERE id = ?', [JSON.stringify([strange]), episodeId]);
    await query("UPDATE visit SET plan = REPLACE(plan, 'hip.flexion/supine', 'hip.gliding/supine') WHERE id = ?", [visitId]);
    await query("UPDATE measurement SET motion = 'hip.gliding' WHERE visit_id = ?", [visitId]);
    await query("UPDATE patient SET sex = 'lost' WHERE id = ?", [patientId]);
    const { body } = await agent.get('/api/caseload').expect(200);
    expect(body.rows.length).withContext('the others are there').toBeGreaterThan(0);
    expect(body.odd).toEqual([
      { id: episodeId, what: 'Ilka Marsh', why: jasmine.stringContaining('patient.sex is not one of the allowed') },
    ]);
    await query("UPDATE patient SET sex = 'female' WHERE id = ?", [patientId]);
    const record = await agent.get(`/api/visits/${visitId}`).expect(200);
    expect(record.body.odd.map((odd: { what: string }) => odd.what)).toEqual([
      'hip.gliding, left, by hip.flexion/supine@1',
      'run sheet: hip.gliding/supine, left, active',
      'precaution: knee.gliding, to 10 (surgeon)',
    ]);
    expect([record.body.plan, record.body.measurements]).toEqual([null, []]);
    const judged = await agent.get(`/api/visits/${visitId}/judgement`).expect(200);
    expect([judged.body.judgement.measurements, judged.body.odd.length]).toEqual([[], 3]);
    await agent.get(`/api/visits/${visitId}/progress`).expect(200);
    await agent.get(`/api/visits/${visitId}/retests`).expect(200);
    await query("UPDATE patient SET birth_date = '0001-01-01' WHERE id = ?", [patientId]);
    expect((await agent.get(`/api/patients/${patientId}`).expect(200)).body.patient.birthDate).toBe('0001-01-01');
  });

  it('takes three round trips to the database for a held reading, the first of its measurement too', async () => {
    const { visitId } = await clinics.startVisit();
    // Counted is what is asked for: what is done beside the requests is done before, and not meanwhile.
    const quiet = clinics.harness.appWith();
    const standingsOf = (app: Express) => clinics.harness.servicesOf(app).queue;
    await standingsOf(quiet).close();
    const by = await clinics.signIn('ours', quiet);
    await clinics.hold(visitId, {}, by).expect(200);
    await standingsOf(clinics.app).settle();
    const [{ Value: before }] = (await query<{ Value: string }>("SHOW GLOBAL STATUS LIKE 'Questions'")) as [{ Value: string }];
    const N = 20;
    for (let n = 0; n < N; n += 1)
      await clinics.hold(visitId, { side: n % 2 ? 'left' : 'right', end: 80 + n, heldAt: later(0) }, by).expect(200);
    const [{ Value: after }] = (await query<{ Value: string }>("SHOW GLOBAL STATUS LIKE 'Questions'")) as [{ Value: string }];
    // The question about the count is one itself.
    expect((Number(after) - Number(before) - 1) / N).toBeLessThanOrEqual(3);
  });
});
