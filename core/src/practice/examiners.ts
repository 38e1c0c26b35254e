import { mean, sampleStandardDeviation } from 'simple-statistics';
import type { Random } from '../error/bootstrap.js';
import type { Degrees } from '../terms.js';
import { between, normalOf, oneOf, type Exercise, type SlipId } from './types.js';

/** How one examiner stands apart from the others. */
export const APART = ['higher', 'lower', 'unsteady'] as const;
export type Apart = (typeof APART)[number];

/** One limb, read so many times by each of three examiners who did not see each other's figures. */
export interface ExaminersTask {
  readonly readings: readonly (readonly Degrees[])[];
  /** What the limb truly does. */
  readonly truth: Degrees;
  /** Who stands apart, and how; null: what differs is chance. */
  readonly apart: { readonly who: number; readonly how: Apart } | null;
}

export interface ExaminersAnswer {
  readonly apart: { readonly who: number; readonly how: Apart } | null;
  /** The best figure for this limb. */
  readonly degrees: Degrees;
}

export const EXAMINERS_EACH = 5;
/** Off by no more than this the best figure is right. @see our choice: the standard error of the mean of ten readings of 2° is 0.6° */
const ESTIMATE = 2;

const CARDS = ['alike', ...APART] as const;

/** Readings that show what they are made to show, and nothing else: chance that looks like more is drawn again. */
function drawn(truth: Degrees, apart: ExaminersTask['apart'], random: Random): Degrees[][] {
  for (;;) {
    const all = [0, 1, 2].map((who) => {
      const isApart = apart?.who === who;
      const bias = isApart && apart.how !== 'unsteady' ? (apart.how === 'higher' ? 1 : -1) * between(random, 8, 12) : 0;
      const sd = isApart && apart.how === 'unsteady' ? 8 : 2;
      return Array.from({ length: EXAMINERS_EACH }, () => Math.round(truth + bias + normalOf(random, sd)));
    });
    const means = all.map((readings) => mean(readings));
    const spreads = all.map((readings) => sampleStandardDeviation(readings));
    const others = [0, 1, 2].filter((who) => who !== apart?.who);
    const alike = others.map((who) => means[who]!);
    const areAlike = Math.max(...alike) - Math.min(...alike) <= 2.5 && others.every((who) => spreads[who]! >= 0.8 && spreads[who]! <= 3);
    const estimate = Math.abs(mean(alike) - truth) <= ESTIMATE - 0.5;
    if (!areAlike || !estimate) continue;
    if (!apart) return all;
    const [theirs, spread] = [means[apart.who]!, spreads[apart.who]!];
    const stands =
      apart.how === 'unsteady'
        ? spread >= 6 && Math.abs(theirs - truth) <= 4
        : Math.abs(theirs - mean(alike)) >= 6.5 && spread >= 0.8 && spread <= 3;
    if (stands) return all;
  }
}

/** What the readings come to, as it is told afterwards: those alike together. */
export function bestFigure({ readings, apart }: ExaminersTask): Degrees {
  return Math.round(mean(readings.flatMap((own, who) => (who === apart?.who ? [] : own))) * 10) / 10;
}

/** Three examiners on one limb: who stands apart, how, and what the limb does. */
export const EXAMINERS: Exercise<ExaminersTask, ExaminersAnswer> = {
  id: 'examiners',
  cards: CARDS,
  make: (card, random) => {
    const truth = between(random, 30, 130);
    const apart = card === 'alike' ? null : { who: oneOf(random, [0, 1, 2]), how: card as Apart };
    return { truth, apart, readings: drawn(truth, apart, random) };
  },
  score: (task, answer) => {
    const off = answer.degrees - task.truth;
    const slips: SlipId[] = [];
    if (!task.apart && answer.apart) slips.push('chanceCalled');
    if (task.apart && !answer.apart) slips.push('apartMissed');
    if (task.apart && answer.apart) {
      if (task.apart.who !== answer.apart.who) slips.push('otherExaminer');
      else if (task.apart.how !== answer.apart.how) slips.push('otherHow');
    }
    if (Math.abs(off) > ESTIMATE) slips.push('estimate');
    return { mark: slips.length === 0 ? 'right' : 'wrong', off, slips };
  },
  read: (_, { degrees }) => degrees,
  truth: ({ truth }) => truth,
};
