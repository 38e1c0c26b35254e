import { motion, protocolOfId } from '../catalogue/index.js';
import type { Joint, Mode, Position } from '../terms.js';
import { imposesOf, jointOfRow } from './table.js';
import type { DoneTrait } from './traits.js';
import type { Imposition } from './types.js';

/** What a way of measuring asks of the whole person. */
export type Trait =
  'effort' | 'balance' | 'eyes-closed' | 'overhead' | 'head-down' | 'face-down' | 'end-range' | 'by-hand' | 'girth' | 'nerve';

/** What is touched when this is done: joints that are measured, moved, loaded, held on to or leant on; and how. */
export interface Touch {
  readonly joints: ReadonlySet<Joint>;
  readonly traits: ReadonlySet<Trait>;
}

/** A limb that merely lies or hangs is not touched; the neck that is turned and the back that is arched are. */
function isTouched(row: Imposition): boolean {
  return row.what === 'touches' || row.limb === 'trunk' || row.by !== 'held' || row.load !== 'none';
}

/** Arms so far up. @see common practice, no source */
const OVERHEAD = 120;

interface Doing {
  readonly rows: readonly Imposition[];
  readonly position: Position;
  readonly mode: Mode;
}

/** Traits that follow from what is done to the body. */
function traitsOfDoing({ rows, position, mode }: Doing): Trait[] {
  const moves = rows.filter((row) => row.what === 'moves');
  const goes = (joint: string, least: number): boolean =>
    moves.some((row) => row.motion === joint && (row.degrees === 'full' || row.degrees >= least));
  const standsAlone = rows.some((row) => row.what === 'bears' && row.joint === 'ankle' && row.limb !== 'both' && row.load === 'body');
  const bothStand = ['measured', 'other'].every((limb) =>
    rows.some((row) => row.what === 'bears' && row.joint === 'ankle' && row.limb === limb),
  );
  return [
    ...(rows.some((row) => row.load === 'resisted') ? (['effort'] as const) : []),
    ...(standsAlone && !bothStand ? (['balance'] as const) : []),
    ...(goes('shoulder.flexion', OVERHEAD) || goes('shoulder.abduction', OVERHEAD) ? (['overhead'] as const) : []),
    ...(position === 'standing' && goes('lumbar.flexion', 50) ? (['head-down'] as const) : []),
    ...(position === 'prone' ? (['face-down'] as const) : []),
    ...(moves.some((row) => row.degrees === 'full' || row.load === 'stretch') ? (['end-range'] as const) : []),
    ...(mode === 'passive' || rows.some((row) => row.load === 'resisted') ? (['by-hand'] as const) : []),
    ...(moves.some((row) => row.motion === 'knee.extension' && row.load === 'stretch') ? (['nerve'] as const) : []),
  ];
}

function traitsOf(protocol: string, mode: Mode): Trait[] {
  const { motion: id, position } = protocolOfId(protocol)!;
  const { joint } = motion(id);
  return [
    ...traitsOfDoing({ rows: imposesOf(protocol), position, mode }),
    ...(joint === 'check' ? (['effort'] as const) : []),
    ...(id === 'balance.singleLegStanceEyesClosed' ? (['eyes-closed'] as const) : []),
    ...(joint === 'girth' ? (['girth'] as const) : []),
  ];
}

/** What is touched by all of these together. */
export function touchOf(done: readonly { readonly protocol: string; readonly mode: Mode }[]): Touch {
  return {
    joints: new Set(done.flatMap(({ protocol }) => imposesOf(protocol).filter(isTouched).map(jointOfRow))),
    traits: new Set(done.flatMap(({ protocol, mode }) => traitsOf(protocol, mode))),
  };
}

/** What an item of a screen is, as far as cautions go. */
export interface Screened {
  readonly imposes: readonly Imposition[];
  readonly traits: ReadonlySet<DoneTrait>;
  readonly position: Position;
  readonly mode: Mode;
  /** Ways of measuring it stands near: what they ask of the person, it asks too. */
  readonly near: readonly { readonly protocol: string; readonly mode: Mode }[];
}

/** Questions that follow from what an item asks of the whole person. */
const ASKED_BY: readonly (readonly [DoneTrait, Trait])[] = [
  ['balance-risk', 'balance'],
  ['eyes-closed', 'eyes-closed'],
  ['overhead', 'overhead'],
  ['head-down', 'head-down'],
  ['prone', 'face-down'],
  ['end-range', 'end-range'],
  ['pressed-by-hand', 'by-hand'],
  ['nerve-tension', 'nerve'],
];

/** What is touched by items of screens: a pattern is an effort, and asks what the measurement it stands near asks. */
export function touchOfItems(items: readonly Screened[]): Touch {
  return {
    joints: new Set(items.flatMap(({ imposes }) => imposes.filter(isTouched).map(jointOfRow))),
    traits: new Set(
      items.flatMap(({ imposes, traits, position, mode, near }) => [
        'effort' as const,
        ...ASKED_BY.flatMap(([of, trait]) => (traits.has(of) ? [trait] : [])),
        ...traitsOfDoing({ rows: imposes, position, mode }),
        ...near.flatMap((way) => traitsOf(way.protocol, way.mode).filter((trait) => trait === 'eyes-closed' || trait === 'girth')),
      ]),
    ),
  };
}

/** Both together. */
export const bothTouched = (a: Touch, b: Touch): Touch => ({
  joints: new Set([...a.joints, ...b.joints]),
  traits: new Set([...a.traits, ...b.traits]),
});
