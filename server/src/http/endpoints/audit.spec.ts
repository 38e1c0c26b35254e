import { randomUUID } from 'node:crypto';
import type { AuditEntry, AuditPage } from '@dial-gauge/contract';
import type { Agent } from 'supertest';
import { addUser, KEY, startClinics, type Clinics } from '../../testing/harness.js';
import { ROUTES } from '../../testing/routes.js';
import { subjectOf, type Auditor } from '../../use-cases/auditing/auditor.js';
import { chainOpen, checkChain } from '../../records/audit/chain.js';

describe('the audit', () => {
  let clinics: Clinics;
  let auditor: Auditor;
  const query = (sql: string, values: unknown[] = []) => clinics.dataSource.query(sql, values);
  beforeEach(async () => {
    clinics = await startClinics();
    auditor = clinics.harness.servicesOf(clinics.app).auditor;
  });
  afterEach(() => clinics.stop());

  const page = async (over: object = {}, by: Agent = clinics.agent): Promise<AuditPage> =>
    (await by.get('/api/audit').query(over).expect(200)).body;
  const said = ({ did, about, by, patient }: AuditEntry): string => `${by} ${did} ${about} ${patient?.name ?? '-'}`;
  const check = () => checkChain(clinics.dataSource.manager, KEY, clinics.clinicId);

  it('says who looked at, entered into and changed whose record, once in a while, and never to another clinic', async () => {
    const { visitId, patientId, episodeId } = await clinics.startVisit();
    for (let n = 0; n < 3; n += 1) await clinics.second.get(`/api/visits/${visitId}`).expect(200);
    await clinics.hold(visitId).expect(200);
    await clinics.hold(visitId).expect(200);
    await clinics.agent.put(`/api/episodes/${episodeId}/intake`).send({ complaint: 'stiff right hip', revision: 0 }).expect(200);
    await clinics.stranger.get(`/api/visits/${visitId}`).expect(404);
    const { rows } = await page({ patient: patientId });
    const told = rows.map(said).reverse();
    // What was changed at one moment stands in no order.
    expect([...told.slice(0, 3), ...told.slice(3, 5).sort(), ...told.slice(5)]).toEqual([
      'ours entered /episodes/:id/visits Ilka Marsh',
      'second looked /visits/:id Ilka Marsh',
      'ours entered /visits/:id/readings Ilka Marsh',
      'ours changed complaint Ilka Marsh',
      'ours changed involvedSide Ilka Marsh',
      'ours entered /episodes/:id/intake Ilka Marsh',
    ]);
    const strange = await page({}, clinics.stranger);
    expect(strange.rows.map(said)).toEqual(['other signed-in /session -']);
    expect((await page({ patient: patientId }, clinics.stranger)).rows).toEqual([]);
    const own = await page({ user: clinics.ids.second });
    expect(own.rows.every(({ by }) => by === 'second')).toBeTrue();
  });

  it('is read by the lead alone, a page at a time, each entry once', async () => {
    await addUser(clinics.dataSource, clinics.clinicId, randomUUID(), 'plain@clinic.example', 'plain-password', 'examiner');
    await (await clinics.signIn('plain')).get('/api/audit').expect(403);
    const visits = [];
    for (let n = 0; n < 30; n += 1) visits.push((await clinics.startVisit()).visitId);
    await Promise.all(visits.map((visitId) => clinics.second.get(`/api/visits/${visitId}`).expect(200)));
    const seen: string[] = [];
    for (let after: string | null | undefined; after !== null;) {
      const { rows, next } = await page(after ? { after } : {});
      seen.push(...rows.map(({ id }) => id));
      after = next;
    }
    const [{ n }] = await query('SELECT COUNT(*) AS n FROM audit_entry WHERE clinic_id = ?', [clinics.clinicId]);
    expect(seen.length).toBe(Number(n));
    expect(new Set(seen).size).toBe(seen.length);
  });

  it('knows whose record every route opens', () => {
    const opened = ROUTES.filter(({ route, act }) => route.path.includes('/:') && ['look', 'send'].includes(act)).map(
      ({ name, route }) => ({
        name,
        subject: subjectOf(route),
      }),
    );
    expect(opened.length).toBeGreaterThan(15);
    // What belongs to the clinic, and to nobody in care.
    expect(opened.filter(({ subject }) => subject === 'none').map(({ name }) => name)).toEqual(['drills.drillFile', 'norms.exportNormSet']);
  });

  it('is a chain that shows what was changed, taken out, put in, or made anew without the key', async () => {
    const { visitId, episodeId } = await clinics.startVisit();
    await clinics.agent.get(`/api/visits/${visitId}`).expect(200);
    await clinics.agent.put(`/api/visits/${visitId}/summary`).send({ summary: 'Short.', was: null }).expect(200);
    await clinics.hold(visitId).expect(200);
    expect((await clinics.sign(visitId)).status).toBe(200);
    await auditor.chain();
    const good = await check();
    expect(good.faults).toEqual([]);
    expect(good.links).toBeGreaterThan(3);
    await expectAsync(query("UPDATE audit_entry SET did = 'looked'")).toBeRejected();
    await expectAsync(query('DELETE FROM audit_link')).toBeRejected();

    // Somebody with every right on the database.
    const every = clinics.harness.asSchema;
    const triggers = ['audit_entry', 'audit_link', 'change_log', 'signature'].flatMap((table) => [`${table}_stays`, `${table}_kept`]);
    await clinics.database.sql(triggers.map((name) => `DROP TRIGGER IF EXISTS dial_gauge.${name}`).join(';'));
    const [entry] = await every<Record<string, string>[]>(
      "SELECT e.*, l.seq FROM audit_entry e JOIN audit_link l ON l.entry_id = e.id WHERE e.did = 'looked' LIMIT 1",
    );
    await every('UPDATE audit_entry SET user_id = ? WHERE id = ?', [clinics.ids.second, entry!.id]);
    expect((await check()).faults[0]).toContain(`link ${entry!.seq}`);
    await every('UPDATE audit_entry SET user_id = ? WHERE id = ?', [entry!.user_id, entry!.id]);
    expect((await check()).faults).toEqual([]);

    const [{ id, old_value } = { id: '', old_value: '' }] = await every<{ id: string; old_value: string }[]>(
      "SELECT * FROM change_log WHERE field = 'summary' AND subject_id = ? ORDER BY changed_at LIMIT 1",
      [visitId],
    );
    await every('UPDATE change_log SET new_value = \'"Fine."\' WHERE id = ?', [id]);
    expect((await check()).faults.join()).toContain('not in the change log as it was');
    await every('UPDATE change_log SET new_value = \'"Short."\', old_value = ? WHERE id = ?', [old_value, id]);

    await every('INSERT INTO audit_entry (id, clinic_id, at, user_id, did, about, subject_id) VALUES (UUID(), ?, NOW(3), ?, ?, ?, ?)', [
      clinics.clinicId, clinics.ids.second, 'looked', '/visits/:id', '',
    ]); // prettier-ignore
    expect((await check()).faults).toEqual(['1 entries stand beside the chain']);
    await every("DELETE FROM audit_entry WHERE user_id = ? AND about = '/visits/:id'", [clinics.ids.second]);

    await every('DELETE FROM audit_link WHERE clinic_id = ? AND seq = 2', [clinics.clinicId]);
    expect((await check()).faults.join()).toContain('links 2 to 2 are missing');

    // A signature that was changed, or taken out behind an erasure that was made up.
    const [signature] = await every<{ id: string; summary: string }[]>('SELECT id, summary FROM signature WHERE visit_id = ?', [visitId]);
    await every("UPDATE signature SET summary = 'Nothing found.' WHERE id = ?", [signature!.id]);
    expect((await check()).faults.join()).toContain(`the signature ${signature!.id}`);
    await every('UPDATE signature SET summary = ? WHERE id = ?', [signature!.summary, signature!.id]);
    expect((await check()).faults.join()).not.toContain('the signature');
    await every(
      `INSERT INTO erasure (id, clinic_id, patient_id, why, erased_by, erased_at, row_counts, finished_at)
       SELECT UUID(), clinic_id, patient_id, 'made up', ?, NOW(3), '{}', NOW(3) FROM episode WHERE id = ?`,
      [clinics.ids.ours, episodeId],
    );
    await every('DELETE FROM signature WHERE id = ?', [signature!.id]);
    const { faults } = await check();
    expect(faults.join()).toContain(`the signature ${signature!.id}`);
    expect(faults.join()).toMatch(/the erasure \S+ has no entry/);

    // Made anew from the beginning, without the key.
    await every('DELETE FROM audit_link WHERE clinic_id = ?', [clinics.clinicId]);
    await every('INSERT INTO audit_open (entry_id, clinic_id) SELECT id, clinic_id FROM audit_entry WHERE clinic_id = ?', [
      clinics.clinicId,
    ]);
    await chainOpen(clinics.dataSource, Buffer.alloc(32, 9));
    expect((await check()).faults.length).toBeGreaterThan(0);
  });

  it('is chained once by servers that do it at the same moment, with nothing lost', async () => {
    for (let n = 0; n < 20; n += 1) await clinics.startVisit();
    await Promise.all([1, 2, 3, 4].map(() => chainOpen(clinics.dataSource, KEY)));
    await chainOpen(clinics.dataSource, KEY);
    const checked = await check();
    expect([checked.faults, checked.open]).toEqual([[], 0]);
    const [{ n }] = await query('SELECT COUNT(*) AS n FROM audit_entry WHERE clinic_id = ?', [clinics.clinicId]);
    expect(checked.links).toBe(Number(n));
  });

  it('goes with what it is about: a change that is refused leaves no entry', async () => {
    const { episodeId, patientId } = await clinics.startVisit();
    const before = (await page({ patient: patientId })).rows.length;
    await clinics.agent.put(`/api/episodes/${episodeId}/intake`).send({ complaint: 'other', revision: 7 }).expect(409);
    expect((await page({ patient: patientId })).rows.length).toBe(before);
  });
});
