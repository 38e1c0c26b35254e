import { setsFor, type NormEntry, type NormSet, type NormValue } from '../norms/index.js';
import { findProcedure, type Procedure, type TellWhen, type UsualLimit } from '../procedure/index.js';
import { checkOf, lookedUpOf, type Figures, type ValueCheck } from '../looked-up.js';
import type { MotionId } from '../terms.js';
import { limitFigures, limitKey, normFigures, normKey, tellFigures, tellKey } from './values.js';

const NONE: readonly ValueCheck[] = [];

const setsOf = new WeakMap<readonly ValueCheck[], Map<string, NormSet>>();

/** A set with its values as the clinic found them in the source. */
export function checkedSet(set: NormSet, checks: readonly ValueCheck[] = NONE): NormSet {
  if (!checks.some(({ kind, of }) => kind === 'norms' && of === set.id)) return set;
  let known = setsOf.get(checks);
  if (!known) setsOf.set(checks, (known = new Map()));
  let made = known.get(set.id);
  if (!made) {
    made = { ...set, entries: set.entries.map((entry) => checkedEntry(set.id, entry, checks)) };
    known.set(set.id, made);
  }
  return made;
}

function checkedEntry(of: string, entry: NormEntry, checks: readonly ValueCheck[]): NormEntry {
  const check = checkOf(checks, { kind: 'norms', of, key: normKey(entry), figures: normFigures(entry.value) });
  if (!check) return entry;
  const value = { ...entry.value, ...check.corrected } as NormValue;
  return { ...entry, value, lookedUp: lookedUpOf(check) };
}

/** The sets that say anything about a motion, with their values as the clinic found them. */
export const checkedSetsFor = (motion: MotionId, checks: readonly ValueCheck[] = NONE): readonly NormSet[] =>
  checks.length === 0 ? setsFor(motion) : setsFor(motion).map((set) => checkedSet(set, checks));

/** A procedure with its limits as the clinic found them. What is put together from others follows those. */
export function checkedProcedure(procedure: Procedure, checks: readonly ValueCheck[] = NONE): Procedure {
  if (!checks.some(({ kind }) => kind === 'procedure')) return procedure;
  const { id: of, anyOf } = procedure;
  if (anyOf) {
    const parts = anyOf.map((id) => checkedProcedure(findProcedure(id)!, checks));
    return { ...procedure, limits: parts.flatMap(({ limits }) => limits), tellWhen: parts.flatMap(({ tellWhen }) => tellWhen) };
  }
  const found = <T extends UsualLimit | TellWhen>(one: T, key: string, figures: Figures): T => {
    const check = checkOf(checks, { kind: 'procedure', of, key, figures });
    return check ? { ...one, ...check.corrected, lookedUp: lookedUpOf(check) } : one;
  };
  return {
    ...procedure,
    limits: procedure.limits.map((limit, at) => found(limit, limitKey(limit, at), limitFigures(limit))),
    tellWhen: procedure.tellWhen.map((told, at) => found(told, tellKey(told, at), tellFigures(told))),
  };
}
