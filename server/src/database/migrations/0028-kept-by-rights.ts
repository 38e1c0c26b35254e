import { Steps } from './steps.js';

/** Refuses a row below a visit that is signed, whichever way it comes. One that is sent again meets its own key. */
const openVisitOnly = (table: string, visitId: string): string =>
  `CREATE OR REPLACE TRIGGER ${table}_open BEFORE INSERT ON ${table} FOR EACH ROW
   IF EXISTS (SELECT 1 FROM visit v WHERE v.id = ${visitId} AND v.signed = 1) AND NOT EXISTS (SELECT 1 FROM ${table} t WHERE t.id = NEW.id)
   THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = '${table}: the visit is signed'; END IF`;

const OF_VISIT: Readonly<Record<string, string>> = {
  measurement: 'NEW.visit_id',
  trial: '(SELECT m.visit_id FROM measurement m WHERE m.id = NEW.measurement_id)',
  screen_try: 'NEW.visit_id',
};

const DIGEST =
  "CONVERT(SHA2(CONCAT_WS('|', s.id, s.visit_id, s.number, s.summary, s.why, s.judgement, s.signed_by, s.signed_at, IFNULL(s.context, '')), 256) USING ascii) COLLATE ascii_bin";

/** Signatures become entries of the audit's chain; a signed visit takes no readings from anybody. */
export class KeptByRights1700000000028 extends Steps {
  override readonly there = [
    ...Object.entries(OF_VISIT).map(([table, visitId]) => openVisitOnly(table, visitId)),
    `INSERT INTO audit_entry (id, clinic_id, at, user_id, did, about, patient_id, subject_id, digest)
      SELECT UUID(), s.clinic_id, s.signed_at, s.signed_by, 'signed', '/visits/:id/signatures', e.patient_id, s.id, ${DIGEST}
      FROM signature s JOIN visit v ON v.clinic_id = s.clinic_id AND v.id = s.visit_id JOIN episode e ON e.clinic_id = v.clinic_id AND e.id = v.episode_id
      WHERE NOT EXISTS (SELECT 1 FROM audit_entry a WHERE a.clinic_id = s.clinic_id AND a.did = 'signed' AND a.subject_id = s.id)`,
    `INSERT INTO audit_open (entry_id, clinic_id) SELECT a.id, a.clinic_id FROM audit_entry a WHERE a.did = 'signed'
      AND NOT EXISTS (SELECT 1 FROM audit_open o WHERE o.entry_id = a.id) AND NOT EXISTS (SELECT 1 FROM audit_link l WHERE l.entry_id = a.id)`,
  ];
  override readonly back = Object.keys(OF_VISIT).map((table) => `DROP TRIGGER IF EXISTS ${table}_open`);
}
