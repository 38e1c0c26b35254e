import { randomUUID } from 'node:crypto';
import type { AuditDeed } from '@dial-gauge/contract';
import type { EntityManager } from 'typeorm';
import type { AuditSubject } from '../../database/ports.js';

export interface AuditFact {
  readonly clinicId: string;
  readonly userId: string;
  readonly at: Date;
  readonly did: AuditDeed;
  readonly about: string;
  readonly subject: AuditSubject;
  readonly subjectId: string;
  readonly digest?: string;
}

/** Of what hangs below a visit. */
const ofVisit = (table: string): string =>
  `(SELECT e.patient_id FROM ${table} x JOIN visit v ON v.clinic_id = x.clinic_id AND v.id = x.visit_id JOIN episode e ON e.clinic_id = v.clinic_id AND e.id = v.episode_id WHERE x.clinic_id = ? AND x.id = ?)`;

/** Whose record it is, as a sub-select of one value. */
const PATIENT_OF: Readonly<Record<AuditSubject, string>> = {
  patient: '(SELECT p.id FROM patient p WHERE p.clinic_id = ? AND p.id = ?)',
  episode: '(SELECT e.patient_id FROM episode e WHERE e.clinic_id = ? AND e.id = ?)',
  visit:
    '(SELECT e.patient_id FROM visit v JOIN episode e ON e.clinic_id = v.clinic_id AND e.id = v.episode_id WHERE v.clinic_id = ? AND v.id = ?)',
  measurement: ofVisit('measurement'),
  signature: ofVisit('signature'),
  clip: ofVisit('clip_review'),
  still: ofVisit('still'),
  none: 'IF(? = ?, NULL, NULL)',
};

/** Writes an entry, in the unit of work it belongs to: both are there, or neither. It becomes a link of the chain afterwards. */
export async function writeAudit(manager: EntityManager, fact: AuditFact): Promise<void> {
  const { clinicId, userId, at, did, about, subject, subjectId, digest = null } = fact;
  const id = randomUUID();
  await manager.query(
    `INSERT INTO audit_entry (id, clinic_id, at, user_id, did, about, patient_id, subject_id, digest) SELECT ?, ?, ?, ?, ?, ?, ${PATIENT_OF[subject]}, ?, ?`,
    [id, clinicId, at, userId, did, about.slice(0, 60), clinicId, subjectId, subjectId, digest],
  );
  await manager.query('INSERT INTO audit_open (entry_id, clinic_id) VALUES (?, ?)', [id, clinicId]);
}

/** SHA-256 of a signature `s` as it is stored: what was signed, by whom and when. */
export const SIGNATURE_DIGEST =
  "CONVERT(SHA2(CONCAT_WS('|', s.id, s.visit_id, s.number, s.summary, s.why, s.judgement, s.signed_by, s.signed_at, IFNULL(s.context, '')), 256) USING ascii) COLLATE ascii_bin";

/** A signature becomes an entry, with what it is worth: taken out or changed, the chain says so. */
export async function writeSigned(
  manager: EntityManager,
  {
    id,
    clinicId,
    signedBy,
    signedAt,
  }: { readonly id: string; readonly clinicId: string; readonly signedBy: string; readonly signedAt: Date },
): Promise<void> {
  const [stored] = await manager.query<{ digest: string }[]>(`SELECT ${SIGNATURE_DIGEST} AS digest FROM signature s WHERE s.id = ?`, [id]);
  const about = { did: 'signed', about: '/visits/:id/signatures', subject: 'signature', subjectId: id } as const;
  await writeAudit(manager, { ...about, clinicId, userId: signedBy, at: signedAt, digest: stored!.digest });
}
