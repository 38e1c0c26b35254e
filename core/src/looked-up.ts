import type { LookedUp } from './terms.js';

/** What holds values that can be looked up: a norm set, the published errors, the usual limits after a procedure. */
export const VALUE_KINDS = ['norms', 'errors', 'procedure'] as const;
export type ValueKind = (typeof VALUE_KINDS)[number];

/** Id under which the one table of published errors is kept. */
export const ERRORS_OF = 'published';

/** Figures of one value by their name: `{ mean: 122, sd: 6.1 }`. */
export type Figures = Readonly<Record<string, number>>;

/** What somebody of the clinic found when a value was looked up. */
export interface ValueCheck extends LookedUp {
  readonly kind: ValueKind;
  readonly of: string;
  readonly key: string;
  /** What the program held on that day. */
  readonly held: Figures;
  /** What the source prints; null: the same. */
  readonly corrected: Figures | null;
}

type ByKey = ReadonlyMap<string, ValueCheck>;
const keyOf = (kind: ValueKind, of: string, key: string): string => `${kind} ${of} ${key}`;
const indexes = new WeakMap<readonly ValueCheck[], ByKey>();

/** Checks by what they are about. Kept as long as the list is. */
function indexOf(checks: readonly ValueCheck[]): ByKey {
  let index = indexes.get(checks);
  if (!index) indexes.set(checks, (index = new Map(checks.map((check) => [keyOf(check.kind, check.of, check.key), check]))));
  return index;
}

export const sameFigures = (a: Figures, b: Figures): boolean => {
  const names = Object.keys(a);
  return names.length === Object.keys(b).length && names.every((name) => a[name] === b[name]);
};

/**
 * What a value is and where it was looked up: null where nobody did, or where
 * the program holds another figure since, so that it has to be looked up anew.
 */
export function checkOf(
  checks: readonly ValueCheck[],
  value: { readonly kind: ValueKind; readonly of: string; readonly key: string; readonly figures: Figures },
): ValueCheck | null {
  const check = indexOf(checks).get(keyOf(value.kind, value.of, value.key));
  return check && sameFigures(check.held, value.figures) ? check : null;
}

export const lookedUpOf = ({ source, edition, page, by, on, corrected, held }: ValueCheck): LookedUp => ({
  source,
  edition,
  page,
  by,
  on,
  ...(corrected ? { programHad: held } : {}),
});
