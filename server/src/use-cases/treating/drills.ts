import { randomUUID } from 'node:crypto';
import { explain, OwnDrillBody, type NewDrillVersion } from '@dial-gauge/contract';
import { drillProblems, drillsWith, type DrillReading, type OwnDrill } from '@dial-gauge/core';
import { Clinic } from '../../records/clinic/entities.js';
import { same } from '../../database/change-log.js';
import { changedMeanwhile, HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { DrillVersionRow } from '../../records/drills/entities.js';
import { newestVersions } from '../../read-models/drills/drills.js';

/** More drills of its own than this no clinic oversees. */
const MOST_OWN = 300;
/** Held, so that of two who change drills at once one sees what the other did. */
const holdClinic = ({ manager, clinicId }: UnitOfWork) =>
  manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
/** Keeps a version. Sent twice it is kept once; one that was made from an older version than there is now is refused. */
export async function keepDrill(work: UnitOfWork, { drill: body, inUse }: NewDrillVersion): Promise<void> {
  await holdClinic(work);
  const drill = body as OwnDrill;
  const newest = await newestVersions(work);
  const last = newest.find(({ drillId }) => drillId === drill.id);
  if (last && last.version === drill.version && last.inUse === inUse && same(last.drill, drill)) return;
  if (drill.version !== (last?.version ?? 0) + 1)
    throw changedMeanwhile(`"${last?.drill.name ?? drill.name}"`, (last && (await work.nameOf(last.madeBy))) || 'nobody');
  mustBeSound(drill, newest, (path) => `drill.${path}`);
  mustFit(newest, [drill]);
  await insert(work, drill, inUse);
}
/** Keeps what is new or other than before, all of a file or nothing. */
export async function keepDrills(work: UnitOfWork, reading: DrillReading): Promise<{ kept: number; alike: number }> {
  if (!reading.ok) throw refusedFile(reading.refused);
  await holdClinic(work);
  const newest = await newestVersions(work);
  const refused: { line: number; column: string; message: string }[] = [];
  const drills: OwnDrill[] = [];
  let alike = 0;
  for (const { line, drill } of reading.drills) {
    const last = newest.find(({ drillId }) => drillId === drill.id);
    const parsed = OwnDrillBody.safeParse({ ...drill, version: (last?.version ?? 0) + 1 });
    if (!parsed.success) {
      for (const { path, message } of explain(parsed.error)) refused.push({ line, column: columnOf(path.split('.')), message });
      continue;
    }
    const own = parsed.data as OwnDrill;
    if (last?.inUse && same(last.drill, { ...own, version: last.version })) alike += 1;
    else drills.push(own);
  }
  const lineOf = new Map(reading.drills.map(({ line, drill }) => [drill.id, line] as const));
  const others = drillsWith([...newest.filter(({ inUse, drillId }) => inUse && !lineOf.has(drillId)).map(({ drill }) => drill), ...drills]);
  for (const drill of drills)
    for (const { path, message } of drillProblems(drill, others))
      refused.push({ line: lineOf.get(drill.id)!, column: columnOf(path.split('.')), message });
  if (refused.length > 0) throw refusedFile(refused.sort((a, b) => a.line - b.line));
  mustFit(newest, drills);
  for (const drill of drills) await insert(work, drill, true);
  return { kept: drills.length, alike };
}
const COLUMNS: Readonly<Record<string, (rest: readonly string[]) => string>> = {
  cues: ([at]) => `cue${Number(at ?? 0) + 1}`,
  dose: ([field]) => field ?? 'reps',
  notWith: ([field]) => field ?? 'lax',
};
/** The column in which a part of a drill stands. */
function columnOf([first = '', ...rest]: readonly string[]): string {
  return COLUMNS[first]?.(rest) ?? first;
}
function mustBeSound(drill: OwnDrill, newest: readonly DrillVersionRow[], at: (path: string) => string): void {
  const others = drillsWith(newest.filter(({ inUse, drillId }) => inUse && drillId !== drill.id).map((row) => row.drill));
  const problems = drillProblems(drill, others);
  if (problems.length === 0) return;
  throw new HttpProblem(422, 'Some fields were refused', 'Nothing was saved.', {
    errors: problems.map(({ path, message }) => ({ path: at(path), message })),
  });
}
function mustFit(newest: readonly DrillVersionRow[], drills: readonly OwnDrill[]): void {
  const ids = new Set([...newest.map(({ drillId }) => drillId), ...drills.map(({ id }) => id)]);
  if (ids.size > MOST_OWN)
    throw new HttpProblem(
      422,
      'Too many drills',
      `Nothing was saved: that would be ${ids.size} drills of the clinic; allowed: ${MOST_OWN}.`,
    );
}
async function insert({ manager, clinicId, caller, now }: UnitOfWork, drill: OwnDrill, inUse: boolean): Promise<void> {
  const { id: drillId, version } = drill;
  await manager.insert(DrillVersionRow, { id: randomUUID(), clinicId, drillId, version, inUse, drill, madeBy: caller.userId, madeAt: now });
}
/** As many refused cells are named; a file with more wrong is usually wrong in one way. */
const MOST_NAMED = 100;
function refusedFile(refused: readonly { line: number; column: string; message: string }[]): HttpProblem {
  const lines = new Set(refused.map(({ line }) => line)).size;
  return new HttpProblem(
    422,
    'The drills were refused',
    `Nothing was brought in: ${lines === 1 ? 'one line is' : `${lines} lines are`} wrong. Correct the file and bring it in again.`,
    { errors: refused.slice(0, MOST_NAMED).map(({ line, column, message }) => ({ path: `line ${line}, ${column}`, message })) },
  );
}
