import { measurementKey } from '../assessment.js';
import { motion } from '../catalogue/index.js';
import { mdcOfDifference } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import { shortfall } from '../norms/index.js';
import { formatSize } from '../words/figures.js';
import { listed, lower, say } from '../words/say.js';
import { digitWord, errorStep, found, motionOf, sizeOf } from './make.js';
import { weigh } from './severity.js';
import { readings, type Step } from './steps.js';
import { once } from './sums.js';
import type { Kind, Thresholds } from './types.js';

/** The better side, and by how much. */
interface Facts {
  readonly other: 'left' | 'right';
  readonly gap: number;
  readonly less: boolean;
}

/** The clinic's least difference for this reading: fixed, or for a force a share of the better side. */
function threshold(better: MeasuredValue, { sideDifference }: Thresholds): number {
  const { unit } = motionOf(better);
  if (unit === 'yesNo') return Infinity;
  if (unit === 'N') return sideDifference.N * better.value;
  // Times of a stance differ by much between two tries: a share of the better side as well.
  return unit === 's' ? Math.max(sideDifference.s, STANCE_SHARE * better.value) : sideDifference[unit];
}

/** @see proposal from memory, confidence low */
const STANCE_SHARE = 0.3;

/**
 * The lesser side, when the sides differ by more than the error of a
 * difference and more than the clinic's threshold. Symmetric is not normal:
 * this says nothing about two sides that are both short. Where neither more
 * nor less is good (a girth), the smaller side is named.
 */
export const shortOfOtherSide: Kind<Facts> = {
  stage: 'loss',
  rank: 0,
  mark: 'sides',
  wants: 'loss',
  joins: true,
  opens: true,
  telling: true,
  detect: ({ measured, byKey, involvedSide, stopped, thresholds, arcs }) =>
    measured.flatMap((m) => {
      const { side, motion: id, mode, position } = m.measurement;
      if (side === 'midline' || stopped.has(m.key)) return [];
      const otherSide = side === 'left' ? 'right' : 'left';
      const other = byKey.get(measurementKey({ ...m.measurement, side: otherSide }));
      if (!other) return [];
      const { better, unit } = motionOf(m);
      const way = better === 'neither' ? 'more' : better;
      const gap = shortfall(other.value, m.value, way);
      if (gap <= 0) return [];
      const mdc = mdcOfDifference(m.sem, other.sem);
      const least = threshold(other, thresholds);
      if (gap <= Math.max(mdc, least)) return [];
      const [left, right] = side === 'left' ? [m, other] : [other, m];
      const [from, take] = involvedSide === 'right' ? [right, left] : [left, right];
      const what = SUBTRACTION[involvedSide === 'left' || involvedSide === 'right' ? involvedSide : 'neither'];
      const weight = weigh({ value: m.value, expected: other.value, better: way, unit, mdc }, thresholds);
      const arc = arcs.find((a) => a.motions.includes(id) && a.mode === mode && a.position === position);
      const steps: Step[] = [
        readings(m, 'this side'),
        readings(other, otherSide === 'left' ? 'left side' : 'right side'),
        { step: 'difference', motion: id, what, from: from.value, take: take.value, is: from.value - take.value, signed: true },
        { step: 'error-of-sides', unit, sems: [m.sem, other.sem], mdc, least },
        errorStep(m),
      ];
      if (arc) steps.push({ step: 'arc', arc });
      return [
        found(m, {
          severity: weight.severity,
          expected: other.value,
          percentLoss: weight.percentLoss,
          timesError: weight.timesError,
          facts: { other: otherSide, gap, less: way === 'less' },
          steps,
        }),
      ];
    }),
  verdict: (f) => say(VERDICTS[f.facts.less ? 'less' : 'more'][f.facts.other], { size: sizeOf(f, f.facts.gap) }),
  sum: {
    at: 1,
    words: (all) => {
      const of = (side: 'left' | 'right') =>
        once(all)
          .filter((f) => f.side === side)
          .map((f) =>
            say('{motion} (by {size})', {
              motion: [f.digit ? digitWord(f.digit) : '', lower(say(motion(f.motion).name))].filter(Boolean).join(', '),
              size: formatSize(Math.abs(f.difference ?? 0), f.unit),
            }),
          );
      const [greaterRight, greaterLeft] = [of('left'), of('right')];
      const said = [
        { phrase: 'The right side is greater in {motions}.', motions: greaterRight },
        { phrase: 'The left side is greater in {motions}.', motions: greaterLeft },
      ].filter(({ motions }) => motions.length > 0);
      // The side of the heaviest comes first.
      if (all[0]?.side === 'right') said.reverse();
      return said.map(({ phrase, motions }) => say(phrase, { motions: listed(motions) })).join(' ');
    },
  },
};

const SUBTRACTION = { left: 'left (involved) − right', right: 'right (involved) − left', neither: 'left − right' } as const;

const VERDICTS = {
  more: { left: '{size} less than the left side', right: '{size} less than the right side' },
  less: { left: '{size} more than the left side', right: '{size} more than the right side' },
} as const;
