import { motion, protocolOfId } from '../catalogue/index.js';
import type { Joint, Mode, MotionName, Position } from '../terms.js';
import { directionOf, imposesOf, jointOf, jointOfRow } from './table.js';
import type { Imposition, Moves } from './types.js';

/**
 * What something that is done asks of the whole person, beside what it does to
 * single joints: answers to cautions are held against it. Words of the trade.
 */
export const DONE_TRAITS = [
  'balance-risk',
  'both-hands',
  'breastbone-moved',
  'breastbone-pulled',
  'breastbone-pushed',
  'breath-hold',
  'calf-pressure',
  'calf-stretch',
  'calf-touched',
  'collarbone-moved',
  'cramp-effort',
  'crossed-legs',
  'deep-squat',
  'dizzy-on-rising',
  'edge-of-table',
  'end-range',
  'end-range-neck',
  'end-range-spine-extension',
  'end-range-spine-flexion',
  'end-range-spine-sidebend',
  'end-range-twist',
  'eyes-closed',
  'femoral-nerve-tension',
  'fist',
  'getting-on',
  'getting-to-floor',
  'gripping',
  'gripping-hard',
  'hands-bearing',
  'hard-pressure-on-tissue',
  'head-down',
  'head-turned',
  'heel-pressure',
  'hip-flexion-adduction-turn-in',
  'impact',
  'joint-play',
  'joint-pulled-by-band',
  'knee-twist',
  'kneecap-pushed',
  'kneeling',
  'leg-raised',
  'loaded-end-range-spine-flexion',
  'loaded-twist',
  'long-effort',
  'long-hold-at-end',
  'max-effort',
  'neck-extension',
  'neck-extension-rotation',
  'neck-moved',
  'nerve-pressure',
  'nerve-tension',
  'overhead',
  'overhead-load',
  'pelvis-squeeze',
  'pinch',
  'pinch-position',
  'pressed-by-hand',
  'pressure-on-belly',
  'prone',
  'push-at-end',
  'saddle-pressure',
  'shoulder-out-and-up',
  'sidelying',
  'slipping-position',
  'standing-on-one-leg',
  'standing-still',
  'step-or-height',
  'strap-on-limb',
  'supine',
  'supine-long',
  'tape-round-body',
  'tape-round-limb',
  'trunk-effort',
  'trunk-moved',
  'unknown-task',
  'upper-neck-flexion',
  'weight-lifted',
] as const;
export type DoneTrait = (typeof DONE_TRAITS)[number];

/** What is done to the body, in which position and mode. */
export interface DoneTo {
  readonly rows: readonly Imposition[];
  readonly position: Position;
  readonly mode: Mode;
}

const SPINE: readonly Joint[] = ['thoracic', 'lumbar', 'thoracolumbar'];
const LIMBS = ['measured', 'other'] as const;
/** Angles from which on something counts as such. @see common practice, no source */
const FROM = {
  overhead: 120,
  headTurned: 60,
  headBack: 30,
  armOut: 80,
  armTurnedOut: 60,
  hipBent: 60,
  deepHip: 100,
  deepKnee: 110,
  legUp: 45,
};

/** A joint that goes so far in a direction, on a limb or anywhere. */
const goes = (rows: readonly Imposition[], joint: Joint, to: MotionName, least: number, limb?: (typeof LIMBS)[number]): boolean =>
  rows.some(
    (row) =>
      row.what === 'moves' &&
      row.motion === `${joint}.${to}` &&
      (row.degrees === 'full' || row.degrees >= least) &&
      (limb === undefined || row.limb === limb || row.limb === 'both' || row.limb === 'trunk'),
  );

const bearsOn = (rows: readonly Imposition[], joint: Joint, limb: (typeof LIMBS)[number]): boolean =>
  rows.some((row) => row.what === 'bears' && row.joint === joint && row.load === 'body' && (row.limb === limb || row.limb === 'both'));

/** All the body's weight on one leg. */
const standsOnOne = (rows: readonly Imposition[]): boolean =>
  LIMBS.some(
    (limb, at) =>
      bearsOn(rows, 'ankle', limb) && !(['ankle', 'knee', 'hip'] as const).some((joint) => bearsOn(rows, joint, LIMBS[1 - at] ?? limb)),
  );

type Rule = readonly [trait: DoneTrait, holds: (done: DoneTo & { readonly moves: readonly Moves[] }) => boolean];

const isEnd = ({ degrees, load }: Moves): boolean => degrees === 'full' || load === 'stretch';
const spineEnd =
  (...to: readonly MotionName[]) =>
  ({ moves }: { readonly moves: readonly Moves[] }): boolean =>
    moves.some((row) => SPINE.includes(jointOf(row.motion)) && to.includes(directionOf(row.motion)) && isEnd(row));

/** What follows from the rows. What does not follow is declared. */
const RULES: readonly Rule[] = [
  ['prone', ({ position }) => position === 'prone'],
  ['supine', ({ position }) => position === 'supine'],
  ['sidelying', ({ position }) => position === 'sidelying'],
  ['kneeling', ({ position }) => position === 'quadruped' || position === 'halfKneeling'],
  [
    'hands-bearing',
    ({ rows }) => rows.some((row) => row.what === 'bears' && row.load === 'body' && ['wrist', 'elbow'].includes(row.joint)),
  ],
  ['standing-on-one-leg', ({ rows }) => standsOnOne(rows)],
  ['balance-risk', ({ rows }) => standsOnOne(rows)],
  ['end-range', ({ moves }) => moves.some(isEnd)],
  ['push-at-end', ({ moves }) => moves.some((row) => row.degrees === 'full' && (row.load === 'stretch' || row.by === 'passive'))],
  ['overhead', ({ rows }) => goes(rows, 'shoulder', 'flexion', FROM.overhead) || goes(rows, 'shoulder', 'abduction', FROM.overhead)],
  [
    'shoulder-out-and-up',
    ({ rows }) =>
      LIMBS.some(
        (limb) =>
          goes(rows, 'shoulder', 'abduction', FROM.armOut, limb) && goes(rows, 'shoulder', 'externalRotation', FROM.armTurnedOut, limb),
      ),
  ],
  ['neck-moved', ({ moves }) => moves.some((row) => jointOf(row.motion) === 'cervical' && row.by !== 'held')],
  ['end-range-neck', ({ moves }) => moves.some((row) => jointOf(row.motion) === 'cervical' && isEnd(row))],
  ['head-turned', ({ rows }) => goes(rows, 'cervical', 'rotation', FROM.headTurned)],
  ['neck-extension', ({ moves }) => moves.some((row) => row.motion === 'cervical.extension' && isEnd(row))],
  [
    'neck-extension-rotation',
    ({ rows }) => goes(rows, 'cervical', 'extension', FROM.headBack) && goes(rows, 'cervical', 'rotation', FROM.headTurned),
  ],
  ['upper-neck-flexion', ({ moves }) => moves.some((row) => row.motion === 'cervical.flexion' && isEnd(row))],
  ['end-range-spine-flexion', spineEnd('flexion')],
  [
    'loaded-end-range-spine-flexion',
    ({ moves }) =>
      moves.some(
        (row) => SPINE.includes(jointOf(row.motion)) && directionOf(row.motion) === 'flexion' && isEnd(row) && row.load === 'body',
      ),
  ],
  ['end-range-spine-extension', spineEnd('extension')],
  ['end-range-spine-sidebend', spineEnd('lateralFlexion')],
  ['end-range-twist', spineEnd('rotation')],
  [
    'loaded-twist',
    ({ moves }) =>
      moves.some((row) => SPINE.includes(jointOf(row.motion)) && directionOf(row.motion) === 'rotation' && row.load === 'body'),
  ],
  ['head-down', ({ rows, position }) => position === 'standing' && goes(rows, 'lumbar', 'flexion', 50)],
  [
    'hip-flexion-adduction-turn-in',
    ({ rows }) =>
      LIMBS.some(
        (limb) =>
          goes(rows, 'hip', 'flexion', FROM.hipBent, limb) &&
          goes(rows, 'hip', 'adduction', 1, limb) &&
          goes(rows, 'hip', 'internalRotation', 1, limb),
      ),
  ],
  [
    'deep-squat',
    ({ rows }) =>
      LIMBS.every(
        (limb) =>
          goes(rows, 'hip', 'flexion', FROM.deepHip, limb) &&
          goes(rows, 'knee', 'flexion', FROM.deepKnee, limb) &&
          bearsOn(rows, 'ankle', limb),
      ),
  ],
  ['knee-twist', ({ moves }) => moves.some((row) => row.motion === 'knee.internalRotation' || row.motion === 'knee.externalRotation')],
  ['gripping', ({ rows }) => rows.some((row) => row.load === 'resisted' && 'motion' in row && row.motion === 'fingerMcp.flexion')],
  ['trunk-effort', ({ rows }) => rows.some((row) => row.load === 'resisted' && SPINE.includes(jointOfRow(row)))],
  [
    'calf-stretch',
    ({ moves }) => moves.some((row) => row.motion === 'ankle.dorsiflexion' && (isEnd(row) || (row.load === 'body' && row.degrees !== 0))),
  ],
  ['nerve-tension', ({ moves }) => moves.some((row) => row.motion === 'knee.extension' && row.load === 'stretch')],
  ['femoral-nerve-tension', ({ moves }) => moves.some((row) => row.motion === 'knee.flexion' && row.load === 'stretch')],
  [
    'leg-raised',
    ({ rows, position }) =>
      position === 'supine' &&
      LIMBS.some((limb) => goes(rows, 'hip', 'flexion', FROM.legUp, limb) && goes(rows, 'knee', 'extension', 0, limb)),
  ],
];

/** Traits that follow from what is done to the body. */
function traitsOfDoing(done: DoneTo): DoneTrait[] {
  const moves = done.rows.filter((row) => row.what === 'moves');
  return RULES.filter(([, holds]) => holds({ ...done, moves })).map(([trait]) => trait);
}

/** What was declared, with all that follows from the rows. */
export const allTraits = (declared: readonly DoneTrait[], done: DoneTo): ReadonlySet<DoneTrait> =>
  new Set([...declared, ...traitsOfDoing(done)]);

const known = new Map<string, ReadonlySet<DoneTrait>>();

/** What a way of measuring asks of the whole person. */
export function traitsOf(protocol: string, mode: Mode): ReadonlySet<DoneTrait> {
  const key = `${protocol} ${mode}`;
  const found = known.get(key) ?? new Set(measuring(protocol, mode));
  known.set(key, found);
  return found;
}

function measuring(protocol: string, mode: Mode): DoneTrait[] {
  const { motion: id, position } = protocolOfId(protocol)!;
  const { joint } = motion(id);
  const rows = imposesOf(protocol);
  const isByHand = mode === 'passive' || rows.some((row) => row.load === 'resisted');
  const isPushed = mode === 'passive' && rows.some((row) => row.what === 'moves' && row.isFigure);
  return [
    ...traitsOfDoing({ rows, position, mode }),
    ...(isByHand ? (['pressed-by-hand'] as const) : []),
    ...(isPushed ? (['push-at-end'] as const) : []),
    ...(joint === 'strength' ? (['max-effort', 'breath-hold'] as const) : []),
    ...(joint === 'balance' ? (['balance-risk', 'standing-on-one-leg'] as const) : []),
    ...(id === 'balance.singleLegStanceEyesClosed' ? (['eyes-closed'] as const) : []),
    ...(joint === 'girth' ? [/^girth\.(chest|waist)/.test(id) ? ('tape-round-body' as const) : ('tape-round-limb' as const)] : []),
  ];
}
