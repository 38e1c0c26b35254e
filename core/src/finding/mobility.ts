import type { MeasuredValue } from '../measurement.js';
import type { MotionId, Side } from '../terms.js';

/** One of the nine points: a joint that goes further than most. */
export interface MobilityItem {
  readonly id: string;
  readonly words: string;
  /** The reading that answers it, where one was taken. */
  readonly motion?: MotionId;
  readonly side?: Side;
  readonly digit?: 5;
  readonly beyond?: number;
}

const both = (id: string, words: string, rest: Omit<MobilityItem, 'id' | 'words' | 'side'> = {}): MobilityItem[] =>
  (['left', 'right'] as const).map((side) => ({ id: `${id}-${side}`, words: `${words}, ${side}`, side, ...rest }));

/**
 * The nine-point score of general joint mobility.
 *
 * @see Beighton P, Solomon L, Soskolne CL. Ann Rheum Dis 1973;32:413-418 (from memory; "more than 10" is printed as
 *   "10 or more" by some)
 */
export const MOBILITY_ITEMS: readonly MobilityItem[] = [
  ...both('little-finger', 'Little finger bends back past 90°', { motion: 'fingerMcp.extension', digit: 5, beyond: 90 }),
  ...both('thumb', 'Thumb reaches the forearm'),
  ...both('elbow', 'Elbow straightens more than 10° past straight', { motion: 'elbow.extension', beyond: 10 }),
  ...both('knee', 'Knee straightens more than 10° past straight', { motion: 'knee.extension', beyond: 10 }),
  { id: 'palms', words: 'Palms flat on the floor, knees straight' },
];

export type MobilityAnswers = Readonly<Record<string, boolean>>;

/** Items that the readings answer. */
export function measuredMobility(measured: readonly MeasuredValue[]): MobilityAnswers {
  const answers = MOBILITY_ITEMS.flatMap(({ id, motion, side, digit, beyond }) => {
    if (!motion || beyond === undefined) return [];
    const own = measured.filter(
      ({ measurement: m }) => m.motion === motion && m.side === side && (digit === undefined || m.digit === digit),
    );
    return own.length ? [[id, own.some(({ value }) => value > beyond)] as const] : [];
  });
  return Object.fromEntries(answers);
}

export interface MobilityScore {
  readonly score: number;
  /** Items nobody has answered yet. */
  readonly open: number;
  /** From this score on a person of this age counts as mobile in general. */
  readonly from: number;
  readonly words: string;
}

/**
 * The score, with what is still open.
 *
 * @param age in years
 * @see Malfait F et al. Am J Med Genet C 2017;175:8-26 (from memory): 6 or more before puberty (taken as under 12), 5 to the age of 50,
 *   4 after it
 * @example mobilityScore({ palms: true }, 30).words // 'general mobility 1 of 9, 8 not asked yet …'
 */
export function mobilityScore(answers: MobilityAnswers, age: number): MobilityScore {
  const score = MOBILITY_ITEMS.filter(({ id }) => answers[id] === true).length;
  const open = MOBILITY_ITEMS.filter(({ id }) => answers[id] === undefined).length;
  const from = age < 12 ? 6 : age <= 50 ? 5 : 4;
  const verdict =
    score >= from
      ? `${from} or more: mobile in general at this age`
      : score + open >= from
        ? `cannot be told yet (from ${from} on at this age)`
        : `below ${from}: not mobile in general at this age`;
  const words = `general mobility ${score} of 9${open ? `, ${open} not asked yet` : ''}: ${verdict}`;
  return { score, open, from, words };
}
