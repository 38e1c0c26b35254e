import { randomUUID } from 'node:crypto';
import { startClinics, type Clinics } from '../testing/harness.js';
import { asSchemaAccount, connect, createDataSource, migrate } from './database.js';
import { PROCEDURES } from './procedures.js';
import { FIXED_COLUMNS, MAY_DELETE, ONLY_READ } from './rights.js';

/** Whoever has got hold of the server's own account of the database, and of nothing else. */
describe('the server’s own account', () => {
  let clinics: Clinics;
  let signed: { visitId: string; episodeId: string; patientId: string };
  const sql = (statement: string, values: unknown[] = []) => clinics.dataSource.query(statement, values);
  beforeAll(async () => void (clinics = await startClinics()));
  beforeEach(async () => {
    signed = await clinics.startVisit();
    await clinics.hold(signed.visitId).expect(200);
    expect((await clinics.sign(signed.visitId)).status).toBe(200);
  });
  afterAll(() => clinics.stop());

  const tables = async (): Promise<string[]> => {
    const rows = await clinics.harness.asSchema<{ t: string }[]>(
      "SELECT TABLE_NAME AS t FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE'",
    );
    return rows.map(({ t }) => t);
  };
  const denied = (statement: string, values: unknown[] = []) =>
    expectAsync(sql(statement, values))
      .withContext(statement)
      .toBeRejectedWithError(/denied/);

  it('deletes from the tables named and from no other, with or without foreign keys', async () => {
    const all = await tables();
    expect(all).toEqual(jasmine.arrayContaining([...MAY_DELETE, ...ONLY_READ, ...Object.keys(FIXED_COLUMNS)]));
    for (const table of all.filter((one) => !MAY_DELETE.includes(one))) {
      await denied(`DELETE FROM \`${table}\` WHERE 1 = 0`);
      await denied(`DELETE a FROM \`${table}\` a JOIN clinic c ON 1 = 0`);
    }
    const runner = clinics.dataSource.createQueryRunner();
    try {
      await runner.query('SET foreign_key_checks = 0');
      for (const table of ['patient', 'visit', 'measurement', 'clinic', 'user'])
        await expectAsync(runner.query(`DELETE FROM ${table}`))
          .withContext(table)
          .toBeRejectedWithError(/denied/);
    } finally {
      await runner.query('SET foreign_key_checks = 1');
      await runner.release();
    }
  });

  it('makes up no erasure, and a made-up one opens nothing', async () => {
    const { clinicId, ids } = clinics;
    await denied(
      "INSERT INTO erasure (id, clinic_id, patient_id, why, erased_by, erased_at, row_counts) VALUES (UUID(), ?, UUID(), 'x', ?, NOW(3), '{}')",
      [clinicId, ids.ours],
    );
    await denied('UPDATE erasure SET finished_at = NULL');
    for (const table of ['signature', 'trial', 'change_log', 'goal', 'screen_try', 'program'])
      await denied(`DELETE FROM ${table} WHERE clinic_id = ?`, [clinicId]);
  });

  it('changes no column that a procedure keeps: a visit stays signed and of its day, a role what it is', async () => {
    for (const [table, columns] of Object.entries(FIXED_COLUMNS))
      for (const column of columns) await denied(`UPDATE \`${table}\` SET ${column} = ${column}`);
    const [visit] = await sql('SELECT signed FROM visit WHERE id = ?', [signed.visitId]);
    expect(Number(visit.signed)).toBe(1);
  });

  it('puts nothing into a signed visit', async () => {
    const [of] = await sql('SELECT * FROM measurement WHERE visit_id = ?', [signed.visitId]);
    await expectAsync(
      sql(
        `INSERT INTO trial (id, clinic_id, measurement_id, instrument, start_angle, end_angle, entered, past_why, examiner_id, held_at, saved_at, withdrawn_why)
         VALUES (UUID(), ?, ?, 'goniometer', 0, 20, '', '', ?, NOW(3), NOW(3), '')`,
        [of.clinic_id, of.id, clinics.ids.ours],
      ),
    ).toBeRejectedWithError(/the visit is signed/);
    await expectAsync(
      sql(
        `INSERT INTO measurement (id, clinic_id, visit_id, motion, side, mode, position, variant, digit, protocol, pain_where, substitutions)
         SELECT UUID(), clinic_id, visit_id, motion, 'right', mode, position, variant, digit, protocol, pain_where, substitutions FROM measurement WHERE id = ?`,
        [of.id],
      ),
    ).toBeRejectedWithError(/the visit is signed/);
  });

  it('loses what an older version had granted on the whole database, and goes on connecting', async () => {
    await clinics.database.sql("GRANT SELECT, INSERT, UPDATE, DELETE ON dial_gauge.* TO 'dial_gauge'@'127.0.0.1'");
    await asSchemaAccount(clinics.settings, clinics.dataSource, (schema, account) => migrate(schema, account));
    const fresh = await connect(createDataSource({ ...clinics.settings.database, connections: 1 }, []));
    try {
      await expectAsync(fresh.query('DELETE FROM trial WHERE 1 = 0')).toBeRejectedWithError(/denied/);
      await expectAsync(fresh.query('SELECT COUNT(*) FROM trial')).toBeResolved();
    } finally {
      await fresh.destroy();
    }
  });

  it('gets through a procedure only what it is there for', async () => {
    const { clinicId, ids } = clinics;
    expect(Object.keys(PROCEDURES).sort()).toEqual(['amend_visit', 'erase_person', 'set_role', 'sign_visit']);
    const erase = (patient: string, by: string) =>
      sql("CALL erase_person(UUID(), ?, ?, 'made up', ?, NOW(3), '{}')", [clinicId, patient, by]);
    await expectAsync(erase(signed.patientId, ids.ours)).toBeRejectedWithError(/an episode is in care/);
    await expectAsync(erase(randomUUID(), ids.ours)).toBeRejectedWithError(/no such person/);
    const examiner = await clinics.somebody('examiner');
    await sql("UPDATE episode SET ended_on = opened_on, outcome = 'better' WHERE id = ?", [signed.episodeId]);
    await expectAsync(erase(signed.patientId, examiner.id)).toBeRejectedWithError(/only a lead/);
    await expectAsync(sql("CALL amend_visit(?, ?, '{}')", [clinicId, signed.visitId])).toBeRejectedWithError(/not in the audit/);
    await expectAsync(sql("CALL set_role(?, ?, ?, 'lead')", [clinicId, examiner.id, examiner.id])).toBeRejectedWithError(/another lead/);
    await expectAsync(sql("CALL set_role(?, ?, ?, 'lead')", [clinicId, examiner.id, ids.ours])).toBeRejectedWithError(/not in the audit/);
    await expectAsync(sql("CALL sign_visit(?, ?, UUID(), '')", [clinicId, signed.visitId])).toBeRejectedWithError(/no such signature/);
    // Erased through it, it leaves its trace.
    await erase(signed.patientId, ids.ours);
    const entries = await sql("SELECT user_id FROM audit_entry WHERE did = 'erased' AND patient_id = ?", [signed.patientId]);
    expect(entries).toEqual([{ user_id: ids.ours }]);
  });
});
