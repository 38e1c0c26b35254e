import { explain, OwnDrillBody } from '@dial-gauge/contract';
import {
  drillProblems,
  findDrill,
  findMotion,
  isJoint,
  JOINTS,
  motion,
  MOTIONS,
  POSITION_WORDS,
  PROTOCOLS,
  protocolName,
  protocolOfId,
  REGIONS,
  regionName,
  SCENES,
  SCREENS,
  type Drill,
  type DrillMoves,
  type Imposition,
  type OwnDrill,
  type Pose,
} from '@dial-gauge/core';

export const LIMBS = { measured: 'the side that works', other: 'the other side', both: 'both sides', trunk: 'the trunk' } as const;
export const LOADS = {
  none: 'nothing on it',
  limb: 'weight of the limb',
  body: 'body weight',
  resisted: 'against resistance',
  stretch: 'a muscle drawn long',
} as const;
export const BYS = {
  active: 'by own muscles',
  passive: 'helped or pushed',
  held: 'held there',
  measurement: 'as the drill is done',
} as const;
export const SIDES = { each: 'one side or both', none: 'the whole body' } as const;
export const MODES = { active: 'by own muscles', passive: 'helped or by hand' } as const;

export interface Choice {
  readonly value: string;
  readonly words: string;
}
export interface ChoiceGroup {
  readonly name: string;
  readonly of: readonly Choice[];
}

const grouped = (of: (region: (typeof REGIONS)[number]) => readonly Choice[]): readonly ChoiceGroup[] =>
  REGIONS.map((region) => ({ name: regionName(region), of: of(region) })).filter((group) => group.of.length > 0);

/** Everything that a drill may serve. */
export const MOTION_CHOICES = grouped((region) =>
  MOTIONS.filter(({ joint }) => joint === region).map(({ id, name }) => ({ value: id, words: name })),
);
/** Directions of joints: what a drill moves. */
export const DIRECTION_CHOICES = grouped((region) =>
  isJoint(region) ? MOTIONS.filter(({ joint }) => joint === region).map(({ id, name }) => ({ value: id, words: name })) : [],
);
export const JOINT_CHOICES: readonly Choice[] = JOINTS.map((joint) => ({ value: joint, words: regionName(joint) }));
export const POSITION_CHOICES: readonly Choice[] = Object.entries(POSITION_WORDS).map(([value, words]) => ({ value, words }));
export const SCENE_CHOICES: readonly Choice[] = SCENES.map(({ id }) => ({
  value: id,
  words: id.replace(/([A-Z\d]+)/g, ' $1').toLowerCase(),
}));

/** Ways of measuring what is served first; any other follows. */
export function protocolGroups(serves: readonly string[]): readonly ChoiceGroup[] {
  const choice = (protocol: (typeof PROTOCOLS)[number]): Choice => ({ value: protocol.id, words: protocolName(protocol) });
  return [
    { name: 'of what it serves', of: PROTOCOLS.filter((one) => serves.includes(one.motion)).map(choice) },
    { name: 'any other', of: PROTOCOLS.filter((one) => !serves.includes(one.motion)).map(choice) },
  ].filter((group) => group.of.length > 0);
}

/** What may show that it works: a reading in a mode, or an item of a screen. */
export function markerGroups(serves: readonly string[]): readonly ChoiceGroup[] {
  const readings = PROTOCOLS.filter((one) => serves.includes(one.motion)).flatMap((one) =>
    one.modes.map((mode) => ({ value: `${one.id} ${mode}`, words: `${protocolName(one)}, ${mode}` })),
  );
  const items = SCREENS.map((screen) => ({
    name: screen.name,
    of: screen.items.map((item) => ({ value: `${screen.id}.${item.id}`, words: item.name })),
  }));
  return [...(readings.length > 0 ? [{ name: 'readings of what it serves', of: readings }] : []), ...items];
}

export function markerOf(value: string): DrillMoves {
  const [first = '', mode] = value.split(' ');
  if (mode !== undefined) return { protocol: first, mode: mode as 'active' | 'passive' };
  const [screen = '', item = ''] = first.split('.');
  return { screen, item };
}

export function markerWords(one: DrillMoves): string {
  if ('screen' in one) {
    const screen = SCREENS.find(({ id }) => id === one.screen);
    return `${screen?.items.find(({ id }) => id === one.item)?.name ?? one.item} (${screen?.name ?? one.screen})`;
  }
  const protocol = protocolOfId(one.protocol);
  return `${protocol ? protocolName(protocol) : one.protocol}, ${one.mode}`;
}

/** "hip flexion to 90°, both sides, body weight" */
export function imposedWords(row: Imposition): string {
  const whose = LIMBS[row.limb];
  const on = row.load === 'none' ? '' : `, ${LOADS[row.load]}`;
  if (row.what === 'works') return `effort of ${findMotion(row.motion)?.name.toLowerCase() ?? row.motion}, ${whose}`;
  if (row.what !== 'moves')
    return `${row.what === 'bears' ? 'weight on' : 'hands on'} the ${regionName(row.joint).toLowerCase()}, ${whose}`;
  const name = findMotion(row.motion)?.name.toLowerCase() ?? row.motion;
  return `${name} ${row.degrees === 'full' ? 'as far as it goes' : `to ${row.degrees}°`}, ${whose}${on}`;
}

export const motionWords = (id: string): string => findMotion(id)?.name ?? id;

/** Joints that a drill serves, as the list is ordered by. */
export const regionOf = ({ serves }: Pick<Drill, 'serves'>): (typeof REGIONS)[number] => motion(serves[0]!).joint;

export const poseValue = (pose: Pose): string => ('scene' in pose ? pose.scene : pose.protocol);

const LABELS: Readonly<Record<string, string>> = {
  id: 'Name',
  name: 'Name',
  serves: 'Serves',
  cheat: 'What people do instead',
  imposes: 'What it does to joints',
  moves: 'What it should move',
  stop: 'When to stop',
  start: 'Figure at the start',
  end: 'Figure at the end',
  easier: 'Easier neighbour',
  harder: 'Harder neighbour',
};
const ORDINALS = ['first', 'second', 'third'];

function labelOf([first = '', second, third]: readonly string[]): string {
  if (first === 'cues')
    return second === undefined ? 'Cues' : `${ORDINALS[Number(second)]} cue`.replace(/^./, (letter) => letter.toUpperCase());
  if (first === 'dose') return `Dose, ${second ?? 'repetitions'}`;
  if (first === 'notWith') return second === 'pain' ? 'Most pain' : 'Healing weeks';
  const at = second !== undefined && /^\d+$/.test(second) ? `, ${Number(second) + 1}` : '';
  return `${LABELS[first] ?? first}${at}${third ? ` (${third})` : ''}`;
}

/** Everything that speaks against keeping it, each with the field, what is wrong and what is allowed. */
export function wrongWith(drill: OwnDrill, others: readonly Drill[]): readonly string[] {
  const parsed = OwnDrillBody.safeParse(drill);
  const found = parsed.success ? drillProblems(parsed.data as OwnDrill, others) : explain(parsed.error);
  return [
    ...new Set(
      found.map(
        ({ path, message }) =>
          `${labelOf(path.split('.'))}: ${message.replace(/^is too short; allowed: at least 1$/, 'is empty; allowed: one or more')}`,
      ),
    ),
  ];
}

export const nameOf = (id: string | null, drills: readonly Drill[]): string => (id === null ? 'none' : (findDrill(id, drills)?.name ?? id));
