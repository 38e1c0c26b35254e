import { AT_HAND, AT_HAND_MOST, type AtHandView } from '@dial-gauge/contract';
import { writeAudit } from '../../records/audit/write.js';
import { patientRecord } from '../../read-models/patient-record/patient-record.js';
import { dayBefore } from '../../shared/days.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { screensView } from '../../read-models/screens/screens.js';
import { visitRecord } from '../../read-models/visit-record/record.js';

/** Somebody who was due so long ago comes no more today than tomorrow. */
const DUE_DAYS = 14;

interface Latest {
  readonly patientId: string;
  readonly visitId: string;
}

/** Visits begun today, and one's own of yesterday that is not signed; one's own first. */
const VISITS_OF = `SELECT e.patient_id AS patientId, v.id AS visitId FROM episode e
    JOIN visit v ON v.clinic_id = e.clinic_id AND v.id = e.last_visit_id
  WHERE e.clinic_id = ? AND e.latest_at >= ? AND (v.assessed_on >= ? OR (v.examiner_id = ? AND v.signed = 0))
  ORDER BY v.examiner_id = ? DESC, e.latest_at DESC, e.id DESC LIMIT ?`;

/** Whom the caller measured last and who are due, those due last first. */
const DUE_OF = `SELECT DISTINCT e.patient_id AS patientId FROM episode e
  WHERE e.clinic_id = ? AND e.due_on BETWEEN ? AND ? AND e.ended_on IS NULL AND e.whose_id = ?
  ORDER BY e.due_on DESC, e.patient_id LIMIT ?`;

/** What the caller needs today. That it left for their device is in the audit, once a day for each record. */
export async function atHand(work: UnitOfWork, day: string): Promise<AtHandView> {
  const { manager, clinicId, caller } = work;
  const { userId } = caller;
  const visits: Latest[] = await manager.query(VISITS_OF, [clinicId, dayBefore(day, 1), day, userId, userId, AT_HAND_MOST]);
  const due: Pick<Latest, 'patientId'>[] = await manager.query(DUE_OF, [clinicId, dayBefore(day, DUE_DAYS), day, userId, AT_HAND_MOST]);
  const people = [...new Set([...visits, ...due].map(({ patientId }) => patientId))];
  const taken: AtHandView = { visits: [], screens: [], patients: [] };
  for (const { visitId } of visits) {
    taken.visits.push(await visitRecord(work, visitId));
    taken.screens.push(await screensView(work, visitId));
  }
  for (const id of people) taken.patients.push(await patientRecord(work, id));
  await noteTaken(work, people);
  return taken;
}

async function noteTaken({ manager, clinicId, caller: { userId }, now }: UnitOfWork, people: readonly string[]): Promise<void> {
  if (people.length === 0) return;
  const since = new Date(now);
  since.setUTCHours(0, 0, 0, 0);
  const noted: { id: string }[] = await manager.query(
    "SELECT patient_id AS id FROM audit_entry WHERE clinic_id = ? AND user_id = ? AND at >= ? AND did = 'took-along'",
    [clinicId, userId, since],
  );
  const known = new Set(noted.map(({ id }) => id));
  for (const id of people.filter((person) => !known.has(person)))
    await writeAudit(manager, {
      clinicId,
      userId,
      at: now,
      did: 'took-along',
      about: AT_HAND.today.path,
      subject: 'patient',
      subjectId: id,
    });
}
