/** What stands at the end of a path of a document. */
export type Leaf = string | number | boolean | null | readonly string[];
export type Leaves = Readonly<Record<string, Leaf>>;

/** A circle that was looked at and is whole: its sector is null, which a cell or a component cannot say. */
const WHOLE = 'wholeCircle';

/**
 * A part of a document laid flat, by its paths. A null that says "not judged"
 * is kept; one that says "not given" is not.
 *
 * @example leavesOf({ upper: { end: 50 }, limit: null }) // { 'upper.end': 50 }
 */
export function leavesOf(said: object): Record<string, Leaf> {
  const found: Record<string, Leaf> = {};
  const walk = (value: unknown, path: string) => {
    if (path === 'sector' && value === null) found[WHOLE] = true;
    else if (value === undefined || (value === null && path !== 'meets')) return;
    else if (value !== null && typeof value === 'object' && !Array.isArray(value))
      for (const [name, inner] of Object.entries(value)) walk(inner, path === '' ? name : `${path}.${name}`);
    else found[path] = value as Leaf;
  };
  walk(said, '');
  return found;
}

/** What was laid flat. */
export function fromLeaves({ [WHOLE]: whole, ...leaves }: Leaves): Record<string, unknown> {
  const made: Record<string, unknown> = whole === true ? { sector: null } : {};
  for (const [path, leaf] of Object.entries(leaves)) {
    const [first, second] = path.split('.') as [string, string?];
    if (second === undefined) made[first] = leaf;
    else made[first] = { ...(made[first] as object | undefined), [second]: leaf };
  }
  return made;
}

/** What of a trial or of a try is its own; everything else is its measurement's or item's. */
export const OWN_TO_EACH: Readonly<Record<'trial' | 'try', readonly string[]>> = {
  trial: ['start', 'zero', 'end', 'upper.zero', 'upper.end', 'lower.zero', 'lower.end', 'sense', 'value', 'unit'],
  try: [
    ...['value', 'unit', 'meets', 'faults', 'pain', 'painWhere', 'lines.shin', 'lines.trunk', 'sector.from', 'sector.to'],
    ...[WHOLE, 'felt', 'answer', 'note'],
  ],
};

/** The part of leaves whose names are wanted. */
export const picked = (leaves: Leaves, wanted: (name: string) => boolean): Leaves =>
  Object.fromEntries(Object.entries(leaves).filter(([name]) => wanted(name)));
