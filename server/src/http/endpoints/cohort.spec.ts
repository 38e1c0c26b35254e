import { randomUUID } from 'node:crypto';
import type { CohortView, NormsView } from '@dial-gauge/contract';
import { addDays, formatISO } from 'date-fns';
import pino from 'pino';
import type { Agent } from 'supertest';
import { newPatient, newReading, startClinics, TODAY, addUser, type Clinics } from '../../testing/harness.js';
import { Cohorts } from '../../use-cases/cohort/cohorts.js';

const KNEE = { motion: 'knee.flexion', mode: 'active', position: 'supine' } as const;

describe('the clinic’s own people', () => {
  let clinics: Clinics;
  let cohorts: Cohorts;
  beforeEach(async () => {
    clinics = await startClinics();
    cohorts = new Cohorts(clinics.dataSource, pino({ level: 'silent' }));
  });
  afterEach(async () => {
    await cohorts.close();
    await clinics.stop();
  });

  /** Somebody of 50 whose left knee was operated on some days ago, with one reading of each side. */
  const somebody = async (
    {
      right,
      left,
      by = clinics.agent,
      days = 45,
      visit = TODAY,
    }: { right: number; left?: number; by?: Agent; days?: number; visit?: string },
    over: object = {},
    reading: object = {},
  ): Promise<{ visitId: string; patientId: string; episodeId: string }> => {
    const patient = { ...newPatient(), birthDate: '1976-01-01', sex: 'female', ...over };
    const episodeId = patient.episode.id;
    await by.post('/api/patients').send(patient).expect(200);
    const intake = {
      complaint: 'new left knee',
      involvedSide: 'left',
      procedureId: 'knee-replacement',
      procedureOn: formatISO(addDays(new Date(), -days), { representation: 'date' }),
      revision: 0,
    };
    await by.put(`/api/episodes/${episodeId}/intake`).send(intake).expect(200);
    const visitId = randomUUID();
    await by.post(`/api/episodes/${episodeId}/visits`).send({ id: visitId, assessedOn: visit }).expect(200);
    const hold = (side: string, end: number) =>
      by
        .post(`/api/visits/${visitId}/readings`)
        .send(newReading({ ...KNEE, side, end, ...reading } as Parameters<typeof newReading>[0]))
        .expect(200);
    await hold('right', right);
    if (left !== undefined) await hold('left', left);
    return { visitId, patientId: patient.id, episodeId };
  };
  const view = async (by: Agent = clinics.agent): Promise<CohortView> => (await by.get('/api/cohort').expect(200)).body as CohortView;
  const groups = ({ norms }: CohortView) =>
    norms.flatMap(({ way, groups: told }) =>
      told.map(({ sex, ages, spread }) => `${way.motion} ${sex} ${ages.label}: ${spread.n}, ${spread.median}`),
    );

  it('are counted beside the requests: sides that are not involved, each person once, and nothing that is no reading of a person', async () => {
    expect(await view()).toEqual({ counted: null, counting: null, norms: [], outcomes: [], examiners: [] });
    for (let n = 0; n < 20; n += 1) await somebody({ right: 130 + n, left: 100 });
    // None of these is one of them: not standing, simulated, painful, of a tool that was not at zero.
    const { visitId } = await somebody({ right: 10 });
    const [trial] = await clinics.dataSource.query(
      'SELECT t.id FROM trial t JOIN measurement m ON m.id = t.measurement_id WHERE m.visit_id = ?',
      [visitId],
    );
    await clinics.agent.post(`/api/readings/${trial.id}/withdrawal`).send({}).expect(200);
    await somebody({ right: 11 }, {}, { simulated: true });
    const hurts = await somebody({ right: 12 });
    await clinics.dataSource.query('UPDATE measurement SET pain = 3 WHERE visit_id = ?', [hurts.visitId]);
    const { body } = await clinics.agent.post('/api/cohort/counts').send({ id: randomUUID() }).expect(200);
    expect(body.counting).not.toBeNull();
    // Asked twice it is counted once.
    await clinics.agent.post('/api/cohort/counts').send({ id: randomUUID() }).expect(200);
    await cohorts.look();
    const told = await view();
    expect(groups(told)).toEqual(['knee.flexion female 40–59 years: 20, 139.5']);
    expect(told.counting).toBeNull();
    expect(
      told.outcomes.map(({ procedure, weeks }) => [procedure, weeks.map(({ week, spread, usual }) => [week, spread.n, usual?.low])]),
    ).toEqual([['knee-replacement', [[6, 20, 105.41666666666667]]]]);
    // What was gathered by person is gone.
    for (const table of ['cohort_person', 'cohort_outcome'])
      expect(await clinics.dataSource.query(`SELECT COUNT(*) AS n FROM ${table}`)).toEqual([{ n: '0' }]);
    const [{ runs }] = await clinics.dataSource.query('SELECT COUNT(*) AS runs FROM cohort_run WHERE clinic_id = ?', [clinics.clinicId]);
    expect(Number(runs)).toBe(1);
    // Of another clinic nothing was told.
    expect(groups(await view(clinics.stranger))).toEqual([]);
  });

  it('are nineteen: nothing is told; and somebody who came twice is one', async () => {
    for (let n = 0; n < 19; n += 1) await somebody({ right: 130 });
    const { episodeId } = await somebody({ right: 120 }, { sex: 'male' });
    for (const end of [60, 61, 62]) {
      const id = randomUUID();
      await clinics.agent.post(`/api/episodes/${episodeId}/visits`).send({ id, assessedOn: TODAY }).expect(200);
      await clinics.agent
        .post(`/api/visits/${id}/readings`)
        .send(newReading({ ...KNEE, side: 'right', end }))
        .expect(200);
    }
    await cohorts.look();
    // Twenty people, but of two sexes: together, and once each.
    expect(groups(await view())).toEqual(['knee.flexion any 40–59 years: 20, 130']);
  });

  it('show the lead by how much examiners lie apart, and an examiner only themselves; the file names nobody', async () => {
    await addUser(clinics.dataSource, clinics.clinicId, randomUUID(), 'third@clinic.example', 'third-password', 'examiner');
    const third = await clinics.signIn('third');
    for (let n = 0; n < 21; n += 1) {
      await somebody({ right: 130 });
      await somebody({ right: 124, by: third });
    }
    await cohorts.look();
    const said = ({ examiners }: CohortView) => examiners.map(({ name, n, difference }) => `${name} ${n} ${difference}`).sort();
    expect(said(await view())).toEqual(['ours 21 3', 'third 21 -3']);
    expect(said(await view(third))).toEqual(['third 21 -3']);
    const { text } = await clinics.agent.get('/api/cohort.csv').expect(200);
    expect(text.split('\r\n')[1]).toContain('not involved,,knee.flexion,knee.flexion/supine,,active,"female, 40–59 years",,42,124,124,127');
    expect(text).not.toMatch(/ours|third|[0-9a-f]{8}-/);
  });

  it('are a norm set of its own, flagged and asked last, once for a count', async () => {
    await clinics.agent.post('/api/cohort/norm-sets').send({}).expect(409);
    for (let n = 0; n < 20; n += 1) await somebody({ right: 130 + n });
    await cohorts.look();
    const before = (await clinics.agent.get('/api/norms').expect(200)).body as NormsView;
    for (let n = 0; n < 2; n += 1) await clinics.agent.post('/api/cohort/norm-sets').send({}).expect(200);
    const after = (await clinics.agent.get('/api/norms').expect(200)).body as NormsView;
    expect(after.normSets.slice(0, -1)).toEqual(before.normSets);
    expect(after.sets.at(-1)).toEqual(jasmine.objectContaining({ own: true, values: 1, title: jasmine.stringContaining('own people') }));
  });

  it('are told the same when a server is killed in between: another one waits, and goes on', async () => {
    for (let n = 0; n < 20; n += 1) await somebody({ right: 130 + n });
    await clinics.agent.post('/api/cohort/counts').send({ id: randomUUID() }).expect(200);
    // Leased by a server that is no more.
    await clinics.dataSource.query("UPDATE cohort_run SET leased_by = 'gone', lease_until = NOW() + INTERVAL 2 MINUTE");
    await cohorts.look();
    expect((await view()).counted).toBeNull();
    await clinics.dataSource.query('UPDATE cohort_run SET lease_until = NOW() - INTERVAL 1 SECOND');
    await cohorts.look();
    const told = await view();
    expect([groups(told), told.counted?.visits]).toEqual([['knee.flexion female 40–59 years: 20, 139.5'], 20]);
    // Two that look at once do not count it twice.
    await clinics.agent.post('/api/cohort/counts').send({ id: randomUUID() }).expect(200);
    const other = new Cohorts(clinics.dataSource, pino({ level: 'silent' }));
    await Promise.all([cohorts.look(), other.look()]);
    await other.close();
    expect((await view()).counted?.readings).toBe(20);
  });
});
