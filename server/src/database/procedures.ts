import type { DataSource } from 'typeorm';
import { rowsOf, TABLES } from './person-rows.js';

const ID = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin';

/** Rows of these point at one another: those that nobody points at go first. */
const CORRECTED = new Set(['trial', 'screen_try']);

/** A statement with its values written in: names of parameters, which are no text from outside. */
const filled = (sql: string, values: readonly unknown[]): string => {
  let at = 0;
  return sql.replace(/\?/g, () => (values[at++] === CLINIC ? 'p_clinic' : 'p_patient'));
};
const CLINIC = 'clinic';

function deleting(table: string): string {
  const { sql, values } = rowsOf(table, CLINIC, ['patient']);
  const of = filled(sql, values);
  if (!CORRECTED.has(table)) return `DELETE FROM \`${table}\` WHERE ${of};`;
  return `REPEAT
      DELETE FROM \`${table}\` WHERE ${of} AND id NOT IN (SELECT corrects FROM (SELECT corrects FROM \`${table}\` WHERE corrects IS NOT NULL AND ${of}) AS c);
    UNTIL ROW_COUNT() = 0 END REPEAT;`;
}

const refused = (when: string, words: string): string => `IF ${when} THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '${words}'; END IF;`;

/**
 * What the server's own account may do only in one way. Each procedure runs
 * with the rights of the account that looks after the schema, checks what has
 * to be so, and leaves its trace in the audit.
 */
export const PROCEDURES: Readonly<Record<string, string>> = {
  /** Erases one person, within the caller's transaction. */
  erase_person: `(p_id ${ID}, p_clinic ${ID}, p_patient ${ID}, p_why VARCHAR(300), p_by ${ID}, p_at DATETIME(3), p_counts TEXT)
    BEGIN
      DECLARE v_entry ${ID} DEFAULT UUID();
      ${refused('NOT EXISTS (SELECT 1 FROM patient WHERE clinic_id = p_clinic AND id = p_patient)', 'erase_person: there is no such person')}
      ${refused('EXISTS (SELECT 1 FROM episode WHERE clinic_id = p_clinic AND patient_id = p_patient AND ended_on IS NULL)', 'erase_person: an episode is in care')}
      ${refused("NOT EXISTS (SELECT 1 FROM user WHERE clinic_id = p_clinic AND id = p_by AND role = 'lead' AND ended_at IS NULL)", 'erase_person: only a lead erases')}
      INSERT INTO erasure (id, clinic_id, patient_id, why, erased_by, erased_at, row_counts, finished_at) VALUES (p_id, p_clinic, p_patient, p_why, p_by, p_at, p_counts, NULL);
      INSERT INTO audit_entry (id, clinic_id, at, user_id, did, about, patient_id, subject_id, digest) VALUES (v_entry, p_clinic, p_at, p_by, 'erased', '/patients/:id/erasure', p_patient, p_patient, NULL);
      INSERT INTO audit_open (entry_id, clinic_id) VALUES (v_entry, p_clinic);
      DELETE FROM queue_mark WHERE episode_id IN (SELECT e.id FROM episode e WHERE e.clinic_id = p_clinic AND e.patient_id = p_patient)
        OR visit_id IN (SELECT v.id FROM visit v JOIN episode e ON e.id = v.episode_id WHERE e.clinic_id = p_clinic AND e.patient_id = p_patient);
      ${[...TABLES].reverse().map(deleting).join('\n      ')}
      UPDATE erasure SET finished_at = p_at WHERE id = p_id AND clinic_id = p_clinic;
    END`,

  /** Closes a visit below a signature that was just written. */
  sign_visit: `(p_clinic ${ID}, p_visit ${ID}, p_signature ${ID}, p_summary TEXT)
    BEGIN
      ${refused('NOT EXISTS (SELECT 1 FROM signature WHERE clinic_id = p_clinic AND visit_id = p_visit AND id = p_signature)', 'sign_visit: there is no such signature')}
      UPDATE visit SET signed = 1, amending = NULL, summary = p_summary WHERE clinic_id = p_clinic AND id = p_visit;
    END`,

  /** Opens a signed visit to be changed; who and why stands in the audit already. */
  amend_visit: `(p_clinic ${ID}, p_visit ${ID}, p_amending TEXT)
    BEGIN
      ${refused(
        `NOT EXISTS (SELECT 1 FROM audit_entry a WHERE a.clinic_id = p_clinic AND a.subject_id = p_visit AND a.did = 'changed' AND a.about = 'amending'
          AND a.at >= (SELECT MAX(s.signed_at) - INTERVAL 1 MINUTE FROM signature s WHERE s.clinic_id = p_clinic AND s.visit_id = p_visit))`,
        'amend_visit: who amends it is not in the audit',
      )}
      UPDATE visit SET signed = 0, amending = p_amending WHERE clinic_id = p_clinic AND id = p_visit;
    END`,

  /** Another role for somebody, by a lead of the same clinic; nobody changes their own. */
  set_role: `(p_clinic ${ID}, p_user ${ID}, p_by ${ID}, p_role VARCHAR(12))
    BEGIN
      ${refused("p_user = p_by OR NOT EXISTS (SELECT 1 FROM user WHERE clinic_id = p_clinic AND id = p_by AND role = 'lead' AND ended_at IS NULL)", 'set_role: only another lead changes a role')}
      ${refused("NOT EXISTS (SELECT 1 FROM audit_entry a WHERE a.clinic_id = p_clinic AND a.subject_id = p_user AND a.did = 'changed' AND a.about = 'role' AND a.user_id = p_by)", 'set_role: who changes it is not in the audit')}
      UPDATE user SET role = p_role WHERE clinic_id = p_clinic AND id = p_user;
    END`,
};

/** Makes the procedures, as the account that is connected: after a restore, and with each version. */
export async function makeProcedures(dataSource: DataSource): Promise<void> {
  for (const [name, body] of Object.entries(PROCEDURES)) await dataSource.query(`CREATE OR REPLACE PROCEDURE ${name} ${body}`);
}
