import { COHORT_AGES } from '@dial-gauge/core';
import type { EntityManager } from 'typeorm';
import type { CohortRun } from '../../records/cohort/entities.js';

/** So many visits are gathered in one transaction: a moment's work, and nobody waits for longer. */
const BATCH = 300;
const LAST_WEEK = 52;

/**
 * Readings that count: of people and not of simulated instruments, standing,
 * of a tool that was set to zero, and without pain where a side is called not
 * involved. The mean of the readings of one visit.
 */
const READINGS = `FROM visit v
    JOIN episode e ON e.clinic_id = v.clinic_id AND e.id = v.episode_id
    JOIN patient p ON p.clinic_id = e.clinic_id AND p.id = e.patient_id
    JOIN measurement m ON m.clinic_id = v.clinic_id AND m.visit_id = v.id
    JOIN trial t ON t.clinic_id = m.clinic_id AND t.measurement_id = m.id
  WHERE v.clinic_id = ? AND v.id > ? AND v.id <= ? AND v.id NOT IN (?)
    AND t.withdrawn_at IS NULL AND t.scale IS NULL AND t.lower_zero IS NULL`;

/** Visits that hold a reading of a simulated instrument: nothing of them counts. */
const REHEARSALS = `SELECT DISTINCT m.visit_id AS id FROM measurement m JOIN trial t ON t.clinic_id = m.clinic_id AND t.measurement_id = m.id
  WHERE m.clinic_id = ? AND m.visit_id > ? AND m.visit_id <= ? AND t.simulated = 1 AND t.withdrawn_at IS NULL`;

const YEARS = 'TIMESTAMPDIFF(YEAR, p.birth_date, v.assessed_on)';
/** Place in COHORT_AGES. */
const AGE = `CASE ${COHORT_AGES.slice(0, -1)
  .map(({ to }, at) => `WHEN ${YEARS} < ${to} THEN ${at}`)
  .join(' ')} ELSE ${COHORT_AGES.length - 1} END`;

/** The first day counts: before anybody has treated them for long. */
const EARLIER = (columns: readonly string[]): string =>
  [...columns, 'on_day'].map((column) => `${column} = IF(VALUES(on_day) < on_day, VALUES(${column}), ${column})`).join(', ');

const PEOPLE = `INSERT INTO cohort_person (clinic_id, run_id, motion, position, variant, digit, mode, patient_id, protocol, sex, age, examiner_id, on_day, value)
  SELECT m.clinic_id, ?, m.motion, m.position, m.variant, m.digit, m.mode, e.patient_id, MIN(m.protocol), MIN(p.sex), MIN(${AGE}),
    MIN(t.examiner_id), MIN(v.assessed_on), ROUND(AVG(t.end_angle), 1)
  ${READINGS} AND (m.pain IS NULL OR m.pain = 0)
    AND ((e.involved_side = 'left' AND m.side = 'right') OR (e.involved_side = 'right' AND m.side = 'left'))
  GROUP BY m.id, e.patient_id
  ON DUPLICATE KEY UPDATE ${EARLIER(['protocol', 'sex', 'age', 'examiner_id', 'value'])}`;

const WEEK = 'FLOOR(DATEDIFF(v.assessed_on, e.procedure_on) / 7)';
const OUTCOMES = `INSERT INTO cohort_outcome (clinic_id, run_id, procedure_id, motion, position, variant, digit, mode, week, patient_id, protocol, on_day, value)
  SELECT m.clinic_id, ?, e.procedure_id, m.motion, m.position, m.variant, m.digit, m.mode, MIN(${WEEK}), e.patient_id, MIN(m.protocol),
    MIN(v.assessed_on), ROUND(AVG(t.end_angle), 1)
  ${READINGS} AND e.procedure_id IS NOT NULL AND e.procedure_on IS NOT NULL AND ${WEEK} BETWEEN 0 AND ${LAST_WEEK} AND m.side = e.involved_side
  GROUP BY m.id, e.patient_id, e.procedure_id
  ON DUPLICATE KEY UPDATE ${EARLIER(['protocol', 'value'])}`;

/**
 * Gathers the next visits of a run. What is gathered and how far it has come
 * are one transaction: killed in between, another server goes on from there.
 *
 * @returns true once there are no more
 */
export async function gatherSome(manager: EntityManager, { id, clinicId, afterVisit }: CohortRun, leaseUntil: Date): Promise<boolean> {
  const [bound]: { last: string | null; n: string }[] = await manager.query(
    'SELECT MAX(id) AS last, COUNT(*) AS n FROM (SELECT id FROM visit WHERE clinic_id = ? AND id > ? ORDER BY id LIMIT ?) AS next_visits',
    [clinicId, afterVisit, BATCH],
  );
  const last = bound?.last ?? null;
  if (last === null) {
    await manager.query('UPDATE cohort_run SET gathered = 1, lease_until = ? WHERE id = ?', [leaseUntil, id]);
    return true;
  }
  const rehearsals = await manager.query<{ id: string }[]>(REHEARSALS, [clinicId, afterVisit, last]);
  const values = [id, clinicId, afterVisit, last, ['', ...rehearsals.map((visit) => visit.id)]];
  await manager.query(PEOPLE, values);
  await manager.query(OUTCOMES, values);
  const [counted]: { n: string }[] = await manager.query(`SELECT COUNT(*) AS n ${READINGS}`, values.slice(1));
  await manager.query('UPDATE cohort_run SET after_visit = ?, visits = visits + ?, readings = readings + ?, lease_until = ? WHERE id = ?', [
    last,
    Number(bound?.n ?? 0),
    Number(counted?.n ?? 0),
    leaseUntil,
    id,
  ]);
  return false;
}
