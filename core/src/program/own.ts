import { isJoint, motion } from '../catalogue/index.js';
import { directionOf, imposesOf, inPosition, isSpine, jointOf, type Imposition, type JointMotion } from '../imposes/index.js';
import type { Mode, MotionId, Source } from '../terms.js';
import { LADDERS, type Ladder } from './ladder.js';
import { DRILLS } from './list.js';
import type { Drill, DrillStage } from './drills/types.js';

/** A drill as a clinic wrote it. Never altered: a change is another version, so that what was given keeps its meaning. */
export interface OwnDrill extends Omit<Drill, 'doseSource' | 'source'> {
  /** Begins with `own-`: no drill that ships ever does. */
  readonly id: string;
  /** The first is 1. */
  readonly version: number;
}

export const OWN_DRILL_ID = /^own-[a-z0-9]+(-[a-z0-9]+)*$/;
export const isOwnDrill = (id: string): boolean => id.startsWith('own-');

const THIS_CLINIC: Source = { cite: 'this clinic', fromMemory: false };

/** A clinic's drill as any other: with what its position imposes, and what it serves taken as far as it goes where nothing was said of it. */
export function asDrill({ version: _version, ...drill }: OwnDrill): Drill {
  return {
    ...drill,
    imposes: inPosition(drill.position, [...drill.imposes, ...unsaid(drill)].flatMap(withParts)),
    doseSource: THIS_CLINIC,
    source: THIS_CLINIC,
  };
}

/** What a drill that serves a motion imposes at most, where its writer did not say how far it goes. */
export function unsaid({ serves, imposes, mode, stage }: Pick<OwnDrill, 'serves' | 'imposes' | 'mode' | 'stage'>): Imposition[] {
  // What is said of the other limb says nothing of the one that works.
  const said = new Set(imposes.flatMap((row) => (row.what === 'moves' && row.limb !== 'other' ? [row.motion] : [])));
  const rows = serves.flatMap((id) => asFarAsItGoes(id, mode, stage));
  const added = new Map<JointMotion, Imposition>();
  for (const row of rows) if (row.what === 'moves' && !partsOf(row.motion).some((part) => said.has(part))) added.set(row.motion, row);
  return [...added.values()];
}

/** The whole trunk is moved where its parts are. */
function partsOf(of: JointMotion): readonly JointMotion[] {
  if (jointOf(of) !== 'thoracolumbar') return [of];
  return (['thoracolumbar', 'thoracic', 'lumbar'] as const).map((joint): JointMotion => `${joint}.${directionOf(of)}`);
}

/** What is done to the whole trunk is done to the chest and the low back: limits name those. */
function withParts(row: Imposition): readonly Imposition[] {
  if (row.what !== 'moves' || jointOf(row.motion) !== 'thoracolumbar') return [row];
  return partsOf(row.motion).map((part) => ({ ...row, motion: part }));
}

const LOAD = { free: 'none', mobilise: 'none', lengthen: 'stretch', activate: 'limb', load: 'body' } as const satisfies Record<
  DrillStage,
  string
>;

function asFarAsItGoes(id: MotionId, mode: Mode, stage: DrillStage): readonly Imposition[] {
  const { joint, protocols } = motion(id);
  // A length, a distance, a force, a stance: what the measurement itself moves.
  if (!isJoint(joint))
    return imposesOf(protocols[0]!.id).flatMap((row) =>
      row.what === 'moves' && row.by === 'measurement' ? [{ ...row, isFigure: false }] : [],
    );
  const limb = isSpine(joint) ? 'trunk' : 'measured';
  return [{ what: 'moves', limb, motion: id as JointMotion, degrees: 'full', load: LOAD[stage], by: mode, isFigure: false }];
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
