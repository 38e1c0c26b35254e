import { allTraits, inPosition, type DoneTrait } from '../imposes/index.js';
import type { Source } from '../terms.js';
import { LADDERS, type Ladder } from './ladder.js';
import { DRILLS } from './list.js';
import { reachesOf } from './drills/define.js';
import { unsaid, withParts } from './drills/unsaid.js';
import type { Drill } from './drills/types.js';

/** A drill as a clinic wrote it. Never altered: a change is another version, so that what was given keeps its meaning. */
export interface OwnDrill extends Omit<Drill, 'doseSource' | 'source' | 'traits' | 'is' | 'onlyWhere'> {
  /** What it asks of the whole person; left out: nobody said, and every caution holds. */
  readonly asks?: readonly DoneTrait[];
  /** Begins with `own-`: no drill that ships ever does. */
  readonly id: string;
  /** The first is 1. */
  readonly version: number;
}

export const OWN_DRILL_ID = /^own-[a-z0-9]+(-[a-z0-9]+)*$/;
export const isOwnDrill = (id: string): boolean => id.startsWith('own-');

const THIS_CLINIC: Source = { cite: 'this clinic', fromMemory: false };

/** A clinic's drill as any other: with what its position imposes, and what it serves taken as far as it goes where nothing was said of it. */
export function asDrill({ version: _version, asks = ['unknown-task'], ...drill }: OwnDrill): Drill {
  const imposes = inPosition(drill.position, [...drill.imposes, ...unsaid(drill)].flatMap(withParts));
  return {
    ...drill,
    imposes,
    traits: allTraits(asks, { rows: imposes, position: drill.position, mode: drill.mode }),
    is: reachesOf(drill.serves),
    doseSource: THIS_CLINIC,
    source: THIS_CLINIC,
  };
}

/** The drills there are for a clinic: those that ship, and its own. */
export const drillsWith = (own: readonly OwnDrill[]): readonly Drill[] => (own.length === 0 ? DRILLS : [...DRILLS, ...own.map(asDrill)]);

/** A version as it is kept. One that was taken out of use is given no more; what was given before stays readable. */
export interface OwnDrillVersion {
  readonly drill: OwnDrill;
  readonly inUse: boolean;
}

/** The clinic's drills beside what was given: of what was given the version of then, of any other the newest that is in use. */
export function ownBeside(
  versions: readonly OwnDrillVersion[],
  given: readonly { readonly drill: string; readonly version?: number }[] = [],
): OwnDrill[] {
  const newest = new Map<string, OwnDrillVersion>();
  for (const one of versions) if ((newest.get(one.drill.id)?.drill.version ?? 0) < one.drill.version) newest.set(one.drill.id, one);
  return [...newest].flatMap(([id, { drill, inUse }]) => {
    const version = given.find((one) => one.drill === id)?.version;
    const then = version === undefined ? undefined : versions.find((one) => one.drill.id === id && one.drill.version === version);
    return then?.drill ?? (inUse ? drill : []);
  });
}

/** The ladders there are for a clinic: a drill of its own stands between its neighbours, with what is easier and harder than those. */
export function laddersWith(own: readonly OwnDrill[], drills: readonly Drill[] = drillsWith(own)): readonly Ladder[] {
  const walked = (from: Drill | undefined, of: 'easier' | 'harder', seen: readonly string[]): string[] => {
    const next = drills.find(({ id }) => id === from?.[of]);
    return next && !seen.includes(next.id) ? [next.id, ...walked(next, of, [...seen, next.id])] : [];
  };
  const added = own.flatMap(({ id, name }): Ladder[] => {
    const self = drills.find((drill) => drill.id === id);
    const easier = walked(self, 'easier', [id]);
    const harder = walked(self, 'harder', [id, ...easier]);
    return easier.length + harder.length > 0 ? [{ id, name, steps: [...easier.reverse(), id, ...harder] }] : [];
  });
  return added.length === 0 ? LADDERS : [...LADDERS, ...added];
}

const LONGEST_ID = 44;

/** "Wall slide with a towel" is `own-wall-slide-with-a-towel`; of letters that no id takes, what can be kept. */
export function ownDrillId(name: string): string {
  const slug = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+/, '')
    .slice(0, LONGEST_ID - 4)
    .replace(/-+$/, '');
  return `own-${slug || 'drill'}`;
}
