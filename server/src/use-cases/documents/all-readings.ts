import { tableText } from '@dial-gauge/files';
import { asShown } from '@dial-gauge/core';
import type { UnitOfWork } from '../../database/unit-of-work.js';

/** So many rows are in memory at once. */
const BATCH = 500;

/** Columns as they are named in the file, and where each comes from. No name of a person is among them. */
const COLUMNS = {
  patient: 'e.patient_id',
  episode: 'v.episode_id',
  visit: 'v.id',
  assessedOn: "DATE_FORMAT(v.assessed_on, '%Y-%m-%d')",
  visitSigned: 'v.signed',
  motion: 'm.motion',
  digit: 'NULLIF(m.digit, 0)',
  side: 'm.side',
  mode: 'm.mode',
  position: 'm.position',
  protocol: 'm.protocol',
  instrument: 't.instrument',
  start: 't.start_angle + 0e0',
  end: 't.end_angle + 0e0',
  lowerZero: 't.lower_zero + 0e0',
  lowerEnd: 't.lower_end + 0e0',
  simulated: 't.simulated',
  scale: 't.scale',
  sense: 't.sense',
  pain: 'm.pain',
  endFeel: 'm.end_feel',
  substitutions: 'm.substitutions',
  examiner: 'u.name',
  heldAt: "DATE_FORMAT(t.held_at, '%Y-%m-%dT%H:%i:%sZ')",
  withdrawnAt: "DATE_FORMAT(t.withdrawn_at, '%Y-%m-%dT%H:%i:%sZ')",
  withdrawnWhy: 't.withdrawn_why',
} as const;
const NAMES = Object.keys(COLUMNS) as (keyof typeof COLUMNS)[];

// In this order of tables: left to choose, the database sorts all that is left for every page.
const PAGE = `SELECT STRAIGHT_JOIN t.id AS id, ${NAMES.map((name) => `${COLUMNS[name]} AS ${name}`).join(', ')}
  FROM trial t FORCE INDEX (trial_of_clinic)
    JOIN measurement m ON m.clinic_id = t.clinic_id AND m.id = t.measurement_id
    JOIN visit v ON v.clinic_id = m.clinic_id AND v.id = m.visit_id
    JOIN episode e ON e.clinic_id = v.clinic_id AND e.id = v.episode_id
    JOIN user u ON u.id = t.examiner_id
  WHERE t.clinic_id = ? AND t.id > ? ORDER BY t.id LIMIT ${BATCH}`;

type Row = Readonly<Record<keyof typeof COLUMNS, string | number | null>> & { readonly id: string };

/** Every reading of the clinic, standing or withdrawn, as CSV: page by page, by the key of the last. */
export async function* allReadings({ manager, clinicId }: UnitOfWork): AsyncGenerator<string> {
  yield tableText([NAMES]);
  for (let after = ''; ;) {
    const rows = await manager.query<Row[]>(PAGE, [clinicId, after]);
    const last = rows[rows.length - 1];
    if (!last) return;
    yield tableText(rows.map((row) => NAMES.map((name) => cellOf(row[name]))));
    after = last.id;
  }
}

const cellOf = (value: string | number | null): string | number =>
  value === null ? '' : typeof value === 'string' ? asShown(value) : value;
