import { randomUUID } from 'node:crypto';
import { Buffer } from 'node:buffer';
import type { AuditPage, Erased, ErasureView, FileView } from '@dial-gauge/contract';
import { subYears } from 'date-fns';
import { strFromU8, unzipSync } from 'fflate';
import request, { type Agent } from 'supertest';
import { readPdf } from '../../../../files/src/testing/pdf-text.js';
import { DEMO_USER } from '../../demo/clinic.js';
import { checkChain } from '../../records/audit/chain.js';
import type { Auditor } from '../../use-cases/auditing/auditor.js';
import { Clinic } from '../../records/clinic/entities.js';
import { seedDemo } from '../../demo/seed.js';
import { KEY, startHarness, TODAY, newReading, type Harness } from '../../testing/harness.js';
import { OF_PERSON, PASSING, STAYS, TABLES } from '../../database/person-rows.js';

describe('the whole record of a person', () => {
  let harness: Harness;
  let agent: Agent;
  let clinicId: string;
  let auditor: Auditor;
  const query = <T = Record<string, string>>(sql: string, values: unknown[] = []): Promise<T[]> =>
    harness.dataSource.query<T[]>(sql, values);
  beforeEach(async () => {
    harness = await startHarness();
    await seedDemo(harness.dataSource, new Date());
    const app = harness.appWith({ keepYears: 10 });
    auditor = harness.servicesOf(app).auditor;
    agent = request.agent(app);
    await agent.post('/api/session').send({ email: DEMO_USER.email, password: DEMO_USER.password }).expect(200);
    clinicId = (await harness.dataSource.getRepository(Clinic).findOneByOrFail({})).id;
  });
  afterEach(() => harness.stop());

  const idOf = async (familyName: string): Promise<string> =>
    (await query<{ id: string }>('SELECT id FROM patient WHERE family_name = ?', [familyName]))[0]!.id;
  const episodeOf = async (patient: string): Promise<string> =>
    (await query<{ id: string }>('SELECT id FROM episode WHERE patient_id = ?', [patient]))[0]!.id;
  /** Everything about them lies so many years back, and they are discharged. */
  const longAgo = async (patient: string, years: number): Promise<void> => {
    const day = subYears(new Date(), years).toISOString().slice(0, 10);
    const before = [day, patient];
    await query('UPDATE episode SET opened_on = ?, ended_on = opened_on, outcome = "better" WHERE patient_id = ?', before);
    await harness.asSchema('UPDATE visit v JOIN episode e ON e.id = v.episode_id SET v.assessed_on = ? WHERE e.patient_id = ?', before);
  };
  const erase = (patient: string, over: object = {}, by: Agent = agent) =>
    by.post(`/api/patients/${patient}/erasure`).send({ id: randomUUID(), why: 'the time is over', name: 'Corin Hathersage', ...over });
  /** Every table with a column of identifiers, and how many rows name one of some ids. */
  const naming = async (ids: readonly string[]): Promise<Record<string, number>> => {
    const columns = await query<{ t: string; c: string }>(
      "SELECT TABLE_NAME AS t, COLUMN_NAME AS c FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND DATA_TYPE IN ('char', 'varchar')",
    );
    const found: Record<string, number> = {};
    for (const { t, c } of columns) {
      const [row] = await query<{ n: string }>(`SELECT COUNT(*) AS n FROM \`${t}\` WHERE \`${c}\` IN (?)`, [ids]);
      if (Number(row!.n) > 0) found[t] = (found[t] ?? 0) + Number(row!.n);
    }
    return found;
  };

  it('is known table by table: whatever points at something of a person, or names one, is in the list or stays for a reason', async () => {
    const points = await query<{ child: string; parent: string }>(
      'SELECT DISTINCT TABLE_NAME AS child, REFERENCED_TABLE_NAME AS parent FROM information_schema.KEY_COLUMN_USAGE WHERE TABLE_SCHEMA = DATABASE() AND REFERENCED_TABLE_NAME IS NOT NULL',
    );
    const names = await query<{ child: string }>(
      "SELECT DISTINCT TABLE_NAME AS child FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE() AND COLUMN_NAME IN ('patient_id', 'episode_id', 'visit_id', 'measurement_id')",
    );
    const known = new Set([...TABLES, ...Object.keys(STAYS), ...PASSING]);
    const ofPerson = new Set(TABLES);
    const missing = [...points.filter(({ parent }) => ofPerson.has(parent)), ...names]
      .map(({ child }) => child)
      .filter((table) => !known.has(table));
    expect([...new Set(missing)]).toEqual([]);
    expect(points.length).toBeGreaterThan(40);
    // Those above come first.
    for (const [table, { of }] of Object.entries(OF_PERSON))
      expect(TABLES.indexOf(of)).withContext(table).toBeLessThan(TABLES.indexOf(table));
  });

  it('is handed over: every row as JSON and the same to be read, without keys, and it is in the audit', async () => {
    const patient = await idOf('Hathersage');
    const episode = await episodeOf(patient);
    await agent.post(`/api/episodes/${episode}/pages`).send({ id: randomUUID(), days: 30 });
    await agent.get(`/api/patients/${patient}`).expect(200);
    const { body } = await agent.get(`/api/patients/${patient}/whole-record?locale=en-GB`).expect(200);
    const file = body as FileView;
    expect([file.mediaType, file.fileName]).toEqual(['application/zip', `hathersage-${TODAY}-whole-record.zip`]);
    const files = unzipSync(new Uint8Array(Buffer.from(file.base64, 'base64')));
    expect(Object.keys(files)).toEqual(['record.json', 'record.pdf']);
    const text = strFromU8(files['record.json']!);
    const json = JSON.parse(text) as { tables: Record<string, unknown[]>; audit: unknown[]; names: Record<string, string>; clinic: string };
    for (const table of ['patient', 'episode', 'visit', 'measurement', 'trial', 'goal', 'program'])
      expect(json.tables[table]?.length)
        .withContext(table)
        .toBe(
          Number(
            (
              await query<{ n: string }>(`SELECT COUNT(*) AS n FROM \`${table}\` WHERE ${'id'} IN (?)`, [
                json.tables[table]!.map((row) => (row as { id: string }).id),
              ])
            )[0]!.n,
          ),
        );
    const [trials] = await query<{ n: string }>(
      'SELECT COUNT(*) AS n FROM trial t JOIN measurement m ON m.id = t.measurement_id JOIN visit v ON v.id = m.visit_id JOIN episode e ON e.id = v.episode_id WHERE e.patient_id = ?',
      [patient],
    );
    expect(json.tables['trial']!.length).toBe(Number(trials!.n));
    expect(text).not.toMatch(/_hash"/);
    expect(text).not.toContain('Odalys');
    expect(Object.values(json.names)).toContain(DEMO_USER.name);
    expect(json.audit.length).toBeGreaterThan(0);
    const pdf = await readPdf(files['record.pdf']!);
    const read = JSON.stringify(pdf);
    for (const words of ['Corin Hathersage', 'Saltmarsh Lane', 'Visit 8', 'Knee']) expect(read).toContain(words);
    const { rows } = (await agent.get('/api/audit').query({ patient }).expect(200)).body as AuditPage;
    expect(rows.some(({ did, about }) => did === 'wrote-out' && about === '/patients/:id/whole-record')).toBeTrue();
  });

  it('is not erased in care, before the time is over, of a child that is hardly grown up, or under another name', async () => {
    const patient = await idOf('Hathersage');
    const asked = async (): Promise<ErasureView> => (await agent.get(`/api/patients/${patient}/erasure`).expect(200)).body as ErasureView;
    expect((await asked()).against.join()).toContain('in care');
    expect((await erase(patient).expect(409)).body.detail).toContain('Nothing was erased. An episode is in care');
    await longAgo(patient, 9);
    expect((await asked()).against.join()).toContain('kept 10 years after the last entry');
    await erase(patient).expect(409);
    await longAgo(patient, 11);
    expect((await asked()).against).toEqual([]);
    expect((await asked()).stays.join()).toContain('backups');
    await query('UPDATE patient SET birth_date = ? WHERE id = ?', [subYears(new Date(), 27).toISOString().slice(0, 10), patient]);
    expect((await asked()).against.length).toBe(1);
    await query("UPDATE patient SET birth_date = '1958-01-01' WHERE id = ?", [patient]);
    const { body } = await erase(patient, { name: 'Corin' }).expect(422);
    expect(body.errors[0].path).toBe('name');
    await expectAsync(query('DELETE FROM trial')).toBeRejectedWithError(/denied/);
    const [{ n }] = (await query<{ n: string }>('SELECT COUNT(*) AS n FROM erasure')) as [{ n: string }];
    expect(Number(n)).toBe(0);
  });

  it('is erased to the last row, nobody else’s is touched, the audit holds, and that it was stays', async () => {
    const patient = await idOf('Hathersage');
    const episode = await episodeOf(patient);
    // A reading put right twice, a withdrawn one, a page of their own: all of it goes.
    const [visit] = await query<{ id: string }>('SELECT id FROM visit WHERE episode_id = ? ORDER BY started_at DESC LIMIT 1', [episode]);
    let trial = randomUUID();
    const way = newReading({ id: trial, motion: 'knee.flexion', mode: 'active', side: 'left', end: 101 });
    await agent.post(`/api/visits/${visit!.id}/readings`).send(way).expect(200);
    for (const end of [102, 103]) {
      const id = randomUUID();
      await agent.post(`/api/readings/${trial}/correction`).send({ id, start: 0, end, why: 'typed wrong' }).expect(200);
      trial = id;
    }
    await agent.put(`/api/episodes/${episode}/intake`).send({ complaint: 'New left knee, stiff', involvedSide: 'left', revision: 0 });
    const ids: string[] = [patient];
    for (const table of TABLES.filter(
      (name) => !['patient', 'change_log', 'episode_word', 'cohort_person', 'cohort_outcome'].includes(name),
    )) {
      const rows = await query<{ id: string }>(
        `SELECT x.id FROM \`${table}\` x ${table === 'episode' ? 'WHERE patient_id = ?' : 'LIMIT 0'}`,
        table === 'episode' ? [patient] : [],
      );
      ids.push(...rows.map(({ id }) => id));
    }
    for (const sql of [
      'SELECT id FROM visit WHERE episode_id = ?',
      'SELECT m.id FROM measurement m JOIN visit v ON v.id = m.visit_id WHERE v.episode_id = ?',
      'SELECT t.id FROM trial t JOIN measurement m ON m.id = t.measurement_id JOIN visit v ON v.id = m.visit_id WHERE v.episode_id = ?',
      'SELECT id FROM goal WHERE episode_id = ?',
    ])
      ids.push(...(await query<{ id: string }>(sql, [episode])).map(({ id }) => id));
    expect(ids.length).toBeGreaterThan(100);
    await longAgo(patient, 11);
    const counts = async (): Promise<Record<string, number>> => {
      const all: Record<string, number> = {};
      for (const table of TABLES) all[table] = Number((await query<{ n: string }>(`SELECT COUNT(*) AS n FROM \`${table}\``))[0]!.n);
      return all;
    };
    const before = await counts();
    const { goes } = (await agent.get(`/api/patients/${patient}/erasure`).expect(200)).body as ErasureView;
    const id = randomUUID();
    const done = (await erase(patient, { id }).expect(200)).body as Erased;
    expect(done.rows).toBe(goes.reduce((sum, { rows }) => sum + rows, 0));
    const after = await counts();
    for (const table of TABLES) {
      const gone = goes.find((one) => one.table === table)?.rows ?? 0;
      expect(before[table]! - after[table]!)
        .withContext(table)
        .toBe(gone);
    }
    expect(Object.keys(await naming(ids)).sort()).toEqual(['audit_entry', 'erasure']);
    await agent.get(`/api/patients/${patient}`).expect(404);
    // Sent twice it was done once; with another reason it is another one, and there is nobody any more.
    expect(((await erase(patient, { id }).expect(200)).body as Erased).rows).toBe(done.rows);
    await erase(patient).expect(404);
    await expectAsync(query('DELETE FROM erasure')).toBeRejectedWithError(/denied|is kept/);
    await expectAsync(query("UPDATE erasure SET why = 'x'")).toBeRejectedWithError(/denied/);
    await expectAsync(query('DELETE FROM trial')).toBeRejectedWithError(/denied/);
    await auditor.chain();
    expect((await checkChain(harness.dataSource.manager, KEY, clinicId)).faults).toEqual([]);
    const { rows } = (await agent.get('/api/audit').expect(200)).body as AuditPage;
    expect(rows.some(({ did, patient: whose }) => did === 'erased' && whose?.name === 'somebody whose record was erased')).toBeTrue();
  });

  it('goes with the records that went into it, and is all there where something fails in between', async () => {
    const [kept, gone] = [await idOf('Hathersage'), await idOf('Strake')];
    await agent.post(`/api/patients/${kept}/merges`).send({ id: randomUUID(), other: gone }).expect(200);
    await longAgo(kept, 11);
    expect((await agent.get(`/api/patients/${gone}/erasure`).expect(409)).body.detail).toContain('went into another one');
    await harness.database.sql(
      "USE dial_gauge; CREATE TRIGGER patient_tried BEFORE DELETE ON patient FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'cut off'",
    );
    const [before] = await query<{ n: string }>('SELECT COUNT(*) AS n FROM trial');
    await erase(kept).expect(500);
    expect(await query<{ n: string }>('SELECT COUNT(*) AS n FROM trial')).toEqual([before!]);
    expect(await query('SELECT * FROM erasure')).toEqual([]);
    await harness.database.sql('DROP TRIGGER dial_gauge.patient_tried');
    await erase(kept).expect(200);
    expect((await query('SELECT id FROM patient WHERE id IN (?)', [[kept, gone]])).length).toBe(0);
    expect((await query('SELECT id FROM erasure WHERE finished_at IS NOT NULL')).length).toBe(2);
  });
});
