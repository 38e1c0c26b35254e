import type { Position, Side } from '../terms.js';

/**
 * How the patient lies, sits or stands while something is measured. It is the
 * position, but lying on one side and on the other are two: the limb that is
 * measured is the upper one, and changing it turns the patient over.
 */
export type Station = Exclude<Position, 'sidelying'> | 'sidelying-on-left' | 'sidelying-on-right';

/** From upright to face down. @see common practice, no source */
export const STATIONS: readonly Station[] = [
  'standing',
  'sitting',
  'halfKneeling',
  'quadruped',
  'supine',
  'sidelying-on-left',
  'sidelying-on-right',
  'prone',
];

/** Where a position puts the patient when this side is measured. */
export function stationFor(position: Position, side: Side): Station {
  if (position !== 'sidelying') return position;
  return side === 'left' ? 'sidelying-on-right' : 'sidelying-on-left';
}

/** The position of a station. */
export function positionAt(station: Station): Position {
  return station === 'sidelying-on-left' || station === 'sidelying-on-right' ? 'sidelying' : station;
}

const WORDS: Readonly<Record<Station, string>> = {
  standing: 'standing',
  sitting: 'sitting',
  halfKneeling: 'half-kneeling',
  quadruped: 'on hands and knees',
  supine: 'supine',
  'sidelying-on-left': 'on the left side',
  'sidelying-on-right': 'on the right side',
  prone: 'prone',
};

/** "supine", "on the left side": a station in words. */
export function stationWords(station: Station): string {
  return WORDS[station];
}

const TURN_WORDS: Readonly<Record<Station, string>> = {
  standing: 'Stand the patient up',
  sitting: 'Sit the patient up',
  halfKneeling: 'Patient into half-kneeling',
  quadruped: 'Patient onto hands and knees',
  supine: 'Turn patient supine',
  'sidelying-on-left': 'Turn patient onto the left side',
  'sidelying-on-right': 'Turn patient onto the right side',
  prone: 'Turn patient prone',
};

/** "Turn patient prone": what is done to get there. From upright onto the table it is lying down, not turning. */
export function turnWords(to: Station, from: Station | null = null): string {
  const upright = from === 'standing' || from === 'sitting' || from === 'halfKneeling';
  if (to === 'sitting' && from === 'standing') return 'Sit the patient down';
  if (upright && (to === 'supine' || to === 'prone')) return `Lay the patient ${to}`;
  return TURN_WORDS[to];
}

const UP: readonly Station[] = ['standing', 'sitting', 'halfKneeling', 'quadruped'];
const BETWEEN: readonly (readonly [Station, Station, number])[] = [
  ['standing', 'sitting', 15],
  ['standing', 'halfKneeling', 15],
  ['standing', 'quadruped', 25],
  ['sitting', 'halfKneeling', 25],
  ['sitting', 'quadruped', 30],
  ['halfKneeling', 'quadruped', 15],
  ['supine', 'sidelying-on-left', 20],
  ['supine', 'sidelying-on-right', 20],
  ['supine', 'prone', 30],
  ['sidelying-on-left', 'sidelying-on-right', 30],
  ['sidelying-on-left', 'prone', 20],
  ['sidelying-on-right', 'prone', 20],
];
const ONTO_TABLE: Readonly<Partial<Record<Station, number>>> = { standing: 40, sitting: 30, halfKneeling: 40, quadruped: 25 };

/** Seconds from one station to another, as a clinic recorded them or as assumed. */
export type TurnSeconds = (from: Station, to: Station) => number;

/**
 * Seconds a change of position takes where the clinic has not timed its own.
 *
 * @see common practice, no source: assumed, of the size of half a minute
 */
export const assumedTurn: TurnSeconds = (from, to) => {
  if (from === to) return 0;
  const listed = BETWEEN.find(([a, b]) => (a === from && b === to) || (a === to && b === from));
  return listed?.[2] ?? ONTO_TABLE[UP.includes(from) ? from : to] ?? 40;
};
