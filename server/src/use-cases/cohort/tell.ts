import { randomUUID } from 'node:crypto';
import {
  cohortOf,
  findMotion,
  outcomeOf,
  protocolOfId,
  type CohortCount,
  type CohortGroup,
  type CohortWay,
  type Counted,
  type Digit,
  type OutcomeWeek,
} from '@dial-gauge/core';
import type { EntityManager } from 'typeorm';
import { protocolIdOf } from '../../records/readings/views.js';
import type { CohortRun } from '../../records/cohort/entities.js';

/** What is told of a way of measuring, by kind, as it is kept. */
export interface Told {
  readonly norm: { readonly way: CohortWay; readonly groups: CohortGroup[] };
  readonly outcome: { readonly procedure: string; readonly way: CohortWay; readonly weeks: OutcomeWeek[] };
  readonly examiner: { readonly way: CohortWay; readonly examiner: string; readonly n: number; readonly difference: number };
}

interface WayRow {
  readonly motion: string;
  readonly position: string;
  readonly variant: string;
  readonly digit: number;
  readonly mode: string;
}

const WAY = 'motion, position, variant, digit, mode';
const OF_WAY = 'motion = ? AND position = ? AND variant = ? AND digit = ? AND mode = ?';
const valuesOf = ({ motion, position, variant, digit, mode }: WayRow) => [motion, position, variant, digit, mode];

/** Tells one way of measuring after the other: of each only how many have a value is in memory. */
export async function tellRun(manager: EntityManager, run: CohortRun, goOn: () => Promise<void>): Promise<void> {
  // Begun before and cut off: told anew.
  await manager.query('DELETE FROM cohort_told WHERE run_id = ?', [run.id]);
  await tellPeople(manager, run, goOn);
  await tellOutcomes(manager, run, goOn);
}

async function tellPeople(manager: EntityManager, run: CohortRun, goOn: () => Promise<void>): Promise<void> {
  const ways: WayRow[] = await manager.query(`SELECT DISTINCT ${WAY} FROM cohort_person WHERE run_id = ?`, [run.id]);
  for (const row of ways) {
    await goOn();
    const way = wayOf(row);
    if (!way) continue;
    const counts: CohortCount[] = await manager.query(
      `SELECT sex, age, examiner_id AS examiner, ROUND(value, ?) + 0e0 AS value, CAST(COUNT(*) AS INT) AS n FROM cohort_person
        WHERE run_id = ? AND ${OF_WAY} GROUP BY sex, age, examiner_id, ROUND(value, ?)`,
      [decimalsOf(way), run.id, ...valuesOf(row), decimalsOf(way)],
    );
    const { groups, examiners } = cohortOf(counts.map((count) => ({ ...count, n: Number(count.n) })));
    if (groups.length > 0) await keep(manager, run, 'norm', { way, groups: [...groups] });
    for (const { examiner, n, difference } of examiners) await keep(manager, run, 'examiner', { way, examiner, n, difference });
  }
}

async function tellOutcomes(manager: EntityManager, run: CohortRun, goOn: () => Promise<void>): Promise<void> {
  const ways: (WayRow & { procedure_id: string })[] = await manager.query(
    `SELECT DISTINCT procedure_id, ${WAY} FROM cohort_outcome WHERE run_id = ?`,
    [run.id],
  );
  for (const row of ways) {
    await goOn();
    const way = wayOf(row);
    if (!way) continue;
    const counted: (Counted & { week: number })[] = await manager.query(
      `SELECT week, ROUND(value, ?) + 0e0 AS value, CAST(COUNT(*) AS INT) AS n FROM cohort_outcome
        WHERE run_id = ? AND procedure_id = ? AND ${OF_WAY} GROUP BY week, ROUND(value, ?)`,
      [decimalsOf(way), run.id, row.procedure_id, ...valuesOf(row), decimalsOf(way)],
    );
    const byWeek = new Map<number, Counted[]>();
    for (const { week, value, n } of counted) byWeek.set(week, [...(byWeek.get(week) ?? []), { value, n: Number(n) }]);
    const weeks = outcomeOf(
      row.procedure_id,
      way,
      [...byWeek].map(([week, counts]) => ({ week, counts })),
    );
    if (weeks.length > 0) await keep(manager, run, 'outcome', { procedure: row.procedure_id, way, weeks });
  }
}

function keep<K extends keyof Told>(manager: EntityManager, { id, clinicId }: CohortRun, kind: K, told: Told[K]): Promise<unknown> {
  return manager.query('INSERT INTO cohort_told (id, clinic_id, run_id, kind, told) VALUES (?, ?, ?, ?, ?)', [
    randomUUID(),
    clinicId,
    id,
    kind,
    JSON.stringify(told),
  ]);
}

/** Degrees are told whole, as they are read; other units to a tenth. */
const decimalsOf = ({ motion }: CohortWay): number => (findMotion(motion)?.unit === 'deg' ? 0 : 1);

/** undefined: this version does not know it. */
function wayOf(row: WayRow): CohortWay | undefined {
  const protocol = protocolIdOf(row as Parameters<typeof protocolIdOf>[0]);
  if (!protocol || !protocolOfId(protocol)) return undefined;
  const { motion, mode, position, digit } = row as unknown as CohortWay & { digit: number };
  return { motion, mode, position, protocol, ...(digit > 0 ? { digit: digit as Digit } : {}) };
}
