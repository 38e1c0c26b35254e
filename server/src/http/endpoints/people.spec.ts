import { randomUUID } from 'node:crypto';
import type { CaseloadRow, PatientRecord } from '@dial-gauge/contract';
import type { Agent } from 'supertest';
import { newPatient, startClinics, TODAY, type Clinics } from '../../testing/harness.js';

describe('people over HTTP', () => {
  let clinics: Clinics;
  const query = (sql: string, values: unknown[] = []) => clinics.dataSource.query(sql, values);
  beforeAll(async () => {
    clinics = await startClinics();
  });
  afterAll(() => clinics.stop());

  const add = async (over: Parameters<typeof newPatient>[0] = {}): Promise<PatientRecord> => {
    const { body } = await clinics.agent.post('/api/patients').send(newPatient(over)).expect(200);
    return body;
  };
  const person = ({ patient }: PatientRecord, over: object = {}) => {
    const { givenName, familyName, birthDate, sex, gender, fileNumber, occupation, revision } = patient;
    return { givenName, familyName, birthDate, sex, gender, fileNumber, occupation, revision, ...over };
  };
  const change = (record: PatientRecord, over: object, by: Agent = clinics.agent) =>
    by.put(`/api/patients/${record.patient.id}`).send(person(record, over));
  const found = async (find: string): Promise<string[]> => {
    const { body } = await clinics.agent.get('/api/caseload').query({ find }).expect(200);
    return body.rows.map((row: CaseloadRow) => row.patient.id);
  };

  describe('who somebody is', () => {
    it('is put right with what stood before on record, and found by what is right', async () => {
      const record = await add({ givenName: 'Zoë', familyName: 'Okonjo-Vale', fileNumber: 'SM-0412' });
      const { id } = record.patient;
      expect(await found('SM-0412 zoe')).toEqual([id]);
      const { body } = await change(record, { familyName: 'Ναυσικά', gender: 'non-binary', fileNumber: 'SM-0413' }).expect(200);
      expect(body.patient).toEqual(jasmine.objectContaining({ familyName: 'Ναυσικά', gender: 'non-binary', sex: 'female', revision: 1 }));
      expect(await found('SM-0412')).toEqual([]);
      expect(await found('ναυσικα')).toEqual([id]);
      const changes = (await clinics.agent.get(`/api/patients/${id}/changes`).expect(200)).body;
      expect(
        changes.map((c: { field: string; before: string; after: string; by: string }) => [c.field, c.before, c.after, c.by]).sort(),
      ).toEqual([
        ['familyName', 'Okonjo-Vale', 'Ναυσικά', 'ours'],
        ['fileNumber', 'SM-0412', 'SM-0413', 'ours'],
        ['gender', '', 'non-binary', 'ours'],
      ]);
      await clinics.stranger.get(`/api/patients/${id}/changes`).expect(404);
      await change(record, { familyName: 'X', revision: 1 }, clinics.stranger).expect(404);
    });

    it('is found by birth date, written year first or day first, and by names of any length and script', async () => {
      const long = 'Wolfeschlegelsteinhausenbergerdorff-'.repeat(2).slice(0, 70);
      const one = await add({ givenName: '山田', familyName: long, birthDate: '1958-09-03' });
      await add({ birthDate: '1958-03-09' });
      for (const words of ['1958-09-03', '3.9.1958', '03.09.1958', '山田 1958-9-3', 'wolfeschlegel 3.9.1958'])
        expect(await found(words))
          .withContext(words)
          .toEqual([one.patient.id]);
    });

    it('is not overwritten: of two who change it at once one is told, and the same again is no change', async () => {
      const record = await add();
      const answers = await Promise.all([change(record, { occupation: 'Diver' }), change(record, { occupation: 'Baker' }, clinics.second)]);
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
      const winner = answers.find(({ status }) => status === 200)!.body as PatientRecord;
      // Sent again, as after a lost answer: nothing is changed, and nobody is told off.
      await change(record, { occupation: winner.patient.occupation }).expect(200);
      const [{ n }] = await query("SELECT COUNT(*) AS n FROM change_log WHERE subject = 'patient' AND subject_id = ?", [record.patient.id]);
      expect(Number(n)).toBe(1);
    });

    it('is judged by in an open visit, is told to whoever signs, and leaves what was signed as it was', async () => {
      const { visitId, patientId } = await clinics.startVisit();
      await clinics.hold(visitId).expect(200);
      const { body: shown } = await clinics.agent.get(`/api/visits/${visitId}/judgement`).expect(200);
      const { body: record } = await clinics.agent.get(`/api/patients/${patientId}`).expect(200);
      await change(record, { birthDate: '1935-04-01', sex: 'male' }).expect(200);
      const refused = await clinics.agent
        .post(`/api/visits/${visitId}/signatures`)
        .send({ id: randomUUID(), summary: 'As found.', seen: shown.seen })
        .expect(409);
      expect(JSON.stringify(refused.body.errors)).toContain('who they are: birthDate was 1970-04-01, now 1935-04-01');
      const signed = await clinics.sign(visitId);
      await change((await clinics.agent.get(`/api/patients/${patientId}`)).body, { givenName: 'Other' }).expect(200);
      const { body: after } = await clinics.agent.get(`/api/visits/${visitId}/judgement`).expect(200);
      expect(after.patient.givenName).toBe(signed.body.patient.givenName);
    });

    it('cannot be born after a visit, nor in the future', async () => {
      const { patientId } = await clinics.startVisit();
      const { body: record } = await clinics.agent.get(`/api/patients/${patientId}`).expect(200);
      for (const birthDate of ['2199-01-01', '2026-13-01'])
        expect((await change(record, { birthDate }).expect(422)).body.errors[0].path).toBe('birthDate');
    });
  });

  describe('episodes of care', () => {
    it('are several, end with an outcome, take no visit then, and are taken up again with the reason', async () => {
      const record = await add();
      const { id } = record.patient;
      const [first] = record.episodes;
      const second = { id: randomUUID(), complaint: 'sore shoulder', involvedSide: 'left' };
      const open = () => clinics.agent.post(`/api/patients/${id}/episodes`).send(second);
      await open().expect(200);
      expect((await open().expect(200)).body.episodes.length).toBe(2);
      const end = (over: object = {}, by: Agent = clinics.agent) =>
        by.post(`/api/episodes/${first!.id}/discharge`).send({ on: TODAY, outcome: 'goal-met', note: 'walks the pier', ...over });
      await end({}, clinics.stranger).expect(404);
      expect((await end({ on: '1999-01-01' }).expect(422)).body.errors[0].path).toBe('on');
      await end().expect(200);
      expect((await end().expect(200)).body.episodes.find((e: { id: string }) => e.id === first!.id).ended).toEqual({
        ...{ on: TODAY, outcome: 'goal-met', note: 'walks the pier', by: 'ours' },
      });
      await end({ outcome: 'better' }).expect(409);
      const visit = { id: randomUUID(), assessedOn: TODAY };
      await clinics.agent.post(`/api/episodes/${first!.id}/visits`).send(visit).expect(409);
      const again = await clinics.agent.post(`/api/episodes/${first!.id}/reopening`).send({ why: 'fell on the pier' }).expect(200);
      expect(again.body.episodes.find((e: { id: string }) => e.id === first!.id).ended).toBeNull();
      await clinics.agent.post(`/api/episodes/${first!.id}/visits`).send(visit).expect(200);
      const rows = await query(
        "SELECT new_value FROM change_log WHERE subject = 'episode' AND subject_id = ? AND field = 'ended' ORDER BY changed_at",
        [first!.id],
      );
      expect(rows.map((row: { new_value: string }) => JSON.parse(row.new_value))).toEqual([
        { endedOn: TODAY, outcome: 'goal-met', endedNote: 'walks the pier' },
        { why: 'fell on the pier' },
      ]);
    });
  });

  describe('doubles', () => {
    const twice = async () => {
      const [familyName, birthDate] = [`Doubled${randomUUID().slice(0, 6)}`, '1961-01-02'];
      return [await add({ familyName, birthDate }), await add({ familyName, birthDate, givenName: 'Ilsa' })] as const;
    };
    const merge = (kept: PatientRecord, other: PatientRecord, id: string = randomUUID(), by: Agent = clinics.agent) =>
      by.post(`/api/patients/${kept.patient.id}/merges`).send({ id, other: other.patient.id });

    it('are told, made one with all their episodes, and taken apart again', async () => {
      const [kept, other] = await twice();
      expect((await clinics.agent.get(`/api/patients/${kept.patient.id}`)).body.doubles.map((d: { id: string }) => d.id)).toEqual([
        other.patient.id,
      ]);
      const id = randomUUID();
      await merge(kept, other, id).expect(200);
      const { body } = await merge(kept, other, id).expect(200);
      expect(body.episodes.length).toBe(2);
      expect(body.doubles).toEqual([]);
      expect(body.merges).toEqual([jasmine.objectContaining({ id, name: `Ilsa ${other.patient.familyName}`, episodes: 1, by: 'ours' })]);
      // By the name of the record that was kept, both of them.
      expect(await found(`ilka ${kept.patient.familyName}`)).toEqual([kept.patient.id, kept.patient.id]);
      const gone = (await clinics.agent.get(`/api/patients/${other.patient.id}`).expect(200)).body;
      expect([gone.mergedInto, gone.episodes]).toEqual([kept.patient.id, []]);
      await change(gone, { givenName: 'X' }).expect(409);
      await clinics.agent.post(`/api/patients/${gone.patient.id}/episodes`).send({ id: randomUUID(), complaint: 'x' }).expect(409);
      // Begun since: it stays where it was begun.
      const since = { id: randomUUID(), complaint: 'begun since' };
      await clinics.agent.post(`/api/patients/${kept.patient.id}/episodes`).send(since).expect(200);
      await clinics.stranger.post(`/api/merges/${id}/undoing`).send({}).expect(404);
      const apart = await clinics.agent.post(`/api/merges/${id}/undoing`).send({}).expect(200);
      expect(apart.body.episodes.map((e: { complaint: string }) => e.complaint).sort()).toEqual(['begun since', 'stiff left hip']);
      await clinics.agent.post(`/api/merges/${id}/undoing`).send({}).expect(200);
      const back = (await clinics.agent.get(`/api/patients/${other.patient.id}`).expect(200)).body;
      expect([back.mergedInto, back.episodes.length]).toEqual([null, 1]);
      expect(await found(`ilsa ${other.patient.familyName}`)).toEqual([other.patient.id]);
    });

    it('are never merged in a ring, with themselves, with another clinic’s, or twice at the same moment', async () => {
      const [one, two] = await twice();
      expect((await merge(one, one).expect(422)).body.errors[0].path).toBe('other');
      const theirs = (await clinics.stranger.post('/api/patients').send(newPatient()).expect(200)).body as PatientRecord;
      await merge(one, theirs).expect(404);
      await merge(theirs, one).expect(404);
      const answers = await Promise.all([merge(one, two), merge(two, one, randomUUID(), clinics.second), merge(one, two)]);
      expect(answers.filter(({ status }) => status === 200).length).toBe(1);
      expect(answers.every(({ status }) => status === 200 || status === 409)).toBeTrue();
      const rows = await query('SELECT merged_into FROM patient WHERE id IN (?)', [[one.patient.id, two.patient.id]]);
      expect(rows.filter((row: { merged_into: string | null }) => row.merged_into !== null).length).toBe(1);
    });

    it('of doubles are taken apart from the last one on', async () => {
      const [one, two] = await twice();
      const three = await add({ familyName: one.patient.familyName, birthDate: one.patient.birthDate, givenName: 'Third' });
      const [first, second] = [randomUUID(), randomUUID()];
      await merge(two, three, first).expect(200);
      await merge(one, two, second).expect(200);
      await clinics.agent.post(`/api/merges/${first}/undoing`).send({}).expect(409);
      await clinics.agent.post(`/api/merges/${second}/undoing`).send({}).expect(200);
      const { body } = await clinics.agent.post(`/api/merges/${first}/undoing`).send({}).expect(200);
      expect(body.episodes.length).toBe(1);
    });
  });
});
