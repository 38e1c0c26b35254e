import { randomUUID } from 'node:crypto';
import type { NewValueCheck, ValueCheckView } from '@dial-gauge/contract';
import { correctionProblems, sameFigures, valuesOf, type CheckRow, type Figures, type PrintedValue } from '@dial-gauge/core';
import { In } from 'typeorm';
import { same } from '../../database/change-log.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { standingRows, viewOfCheck } from '../../read-models/clinic-criteria/value-checks.js';
import { Clinic } from '../../records/clinic/entities.js';
import { ValueCheckRow } from '../../records/norms/value-check.js';
import { dayOf } from '../../shared/days.js';
import { HttpProblem, refused } from '../../shared/problems.js';

const NOTHING = 'Nothing was written. Correct what is named and send it again.';
const about = ({ kind, of, key }: { readonly kind: string; readonly of: string; readonly key: string }): string => `${kind} ${of} ${key}`;

/** Writes down what was looked up: all of it, or nothing. @returns the ids of what stands now */
export async function addValueChecks(work: UnitOfWork, checks: readonly NewValueCheck[]): Promise<string[]> {
  await oneAtATime(work);
  const again = new Map((await knownOf(work, checks)).map((row) => [row.id, row]));
  const keys = checks.map(about);
  const standing = new Map((await standingRows(work)).map((row) => [about(row), row]));
  const rows = checks.flatMap((check, at): ValueCheckRow[] => {
    const path = `checks.${at}`;
    if (keys.indexOf(about(check)) !== at) throw refused(`${path}.key`, 'is sent twice; allowed: each value once', NOTHING);
    const value = valueOf(check, path);
    const before = again.get(check.id);
    if (before) {
      if (!isSame(before, check)) throw usedBefore();
      return [];
    }
    const stands = standing.get(about(check));
    // One that was taken back is not shown any more.
    if ((stands && !stands.withdrawn ? stands.id : null) !== check.follows) throw changedMeanwhile(value);
    return [{ ...rowOf(work, check, value, path), follows: stands?.id ?? null }];
  });
  await write(work, rows, standing);
  return checks.filter(({ withdrawn }) => !withdrawn).map(({ id }) => id);
}

/** Brings in what another clinic looked up. What is the same already is left alone. @returns how many values were written */
export async function importValueChecks(work: UnitOfWork, checks: readonly CheckRow[]): Promise<number> {
  await oneAtATime(work);
  const standing = new Map((await standingRows(work)).map((row) => [about(row), row]));
  const rows = checks.flatMap(({ by, on, ...check }): ValueCheckRow[] => {
    const stands = standing.get(about(check));
    if (stands && !stands.withdrawn && saysTheSame(stands, check) && stands.checkedOn === on) return [];
    return [
      {
        ...base(work),
        ...check,
        held: { ...check.held },
        corrected: check.corrected && { ...check.corrected },
        id: randomUUID(),
        withdrawn: false,
        saidBy: by.slice(0, 120),
        checkedOn: on,
        follows: stands?.id ?? null,
      },
    ];
  });
  await write(work, rows, standing);
  return rows.length;
}

/** What stands of these, as it is answered. */
export async function answerOf(work: UnitOfWork, ids: readonly string[]): Promise<ValueCheckView[]> {
  if (ids.length === 0) return [];
  const rows = await work.manager.find(ValueCheckRow, { where: { clinicId: work.clinicId, id: In([...ids]) } });
  const names = await work.namesOf(rows.map(({ checkedBy }) => checkedBy));
  return rows.map((row) => viewOfCheck(row, names.get(row.checkedBy) ?? ''));
}

/** Two who look up the same value are put one behind the other. */
async function oneAtATime({ manager, clinicId }: UnitOfWork): Promise<void> {
  await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
}

async function knownOf({ manager, clinicId }: UnitOfWork, checks: readonly NewValueCheck[]): Promise<ValueCheckRow[]> {
  const rows = await manager.find(ValueCheckRow, { where: { id: In(checks.map(({ id }) => id)) } });
  if (rows.some((row) => row.clinicId !== clinicId)) throw usedBefore();
  return rows;
}

async function write(work: UnitOfWork, rows: readonly ValueCheckRow[], standing: ReadonlyMap<string, ValueCheckRow>): Promise<void> {
  if (rows.length === 0) return;
  await work.manager.insert(ValueCheckRow, [...rows] as never);
  const said = (row: ValueCheckRow | undefined) =>
    row && {
      of: row.of,
      key: row.key,
      held: row.held,
      corrected: row.corrected,
      source: row.source,
      edition: row.edition,
      page: row.page,
      withdrawn: row.withdrawn,
    };
  for (const row of rows)
    await work.log.write('clinic', work.clinicId, [['valueCheck', said(standing.get(about(row))) ?? null, said(row)]]);
}

function valueOf({ kind, of, key }: NewValueCheck, path: string): PrintedValue {
  const values = valuesOf(kind, of);
  if (!values) throw refused(`${path}.of`, `"${of}" is none of this program; choose of the list`, NOTHING);
  const value = values.find((one) => one.key === key);
  if (!value) throw refused(`${path}.key`, `"${key}" is no value of it; choose of the list`, NOTHING);
  return value;
}

function rowOf(work: UnitOfWork, check: NewValueCheck, value: PrintedValue, path: string): ValueCheckRow {
  const { corrected, withdrawn = false } = check;
  const [wrong] = corrected ? correctionProblems(value, corrected) : [];
  if (wrong) throw refused(`${path}.corrected.${wrong.figure}`, wrong.message, NOTHING);
  const { id, kind, of, key, source, edition, page, follows } = check;
  return {
    ...base(work),
    id,
    kind,
    of,
    key,
    held: { ...value.figures },
    // The same figures are no correction.
    corrected: corrected && !sameFigures(corrected, value.figures) ? { ...corrected } : null,
    source,
    edition,
    page,
    withdrawn,
    saidBy: null,
    checkedOn: dayOf(work.now),
    follows,
  };
}

const base = ({ clinicId, caller, now }: UnitOfWork) => ({ clinicId, checkedBy: caller.userId, checkedAt: now });

interface Said {
  readonly source: string;
  readonly edition: string;
  readonly page: string;
  readonly corrected: Figures | null;
}
const saysTheSame = (row: ValueCheckRow, said: Said): boolean =>
  row.source === said.source && row.edition === said.edition && row.page === said.page && same(row.corrected, said.corrected);

const isSame = (row: ValueCheckRow, check: NewValueCheck): boolean =>
  about(row) === about(check) &&
  row.withdrawn === (check.withdrawn ?? false) &&
  saysTheSame(row, { ...check, corrected: check.corrected && !sameFigures(check.corrected, row.held) ? check.corrected : null });

const usedBefore = (): HttpProblem =>
  new HttpProblem(
    409,
    'Used before',
    'An id of these was used for something else before. Nothing was written: reload the page and do it again.',
  );

const changedMeanwhile = ({ motion }: PrintedValue): HttpProblem =>
  new HttpProblem(
    409,
    'Looked up meanwhile',
    `A value of ${motion} was looked up by somebody else since this page was opened. Nothing was written: reload the page, look what they found, and do it again where it is still needed.`,
  );
