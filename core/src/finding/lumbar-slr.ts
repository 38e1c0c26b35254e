import { mean } from 'simple-statistics';
import { excursion } from '../angle/excursion.js';
import { isDual } from '../assessment.js';
import type { MeasuredValue } from '../measurement.js';
import { formatNumber } from '../words/figures.js';
import { say } from '../words/say.js';
import { errorStep, found } from './make.js';
import { note, readings } from './steps.js';
import { TO_MEASURE_AGAIN } from './sums.js';
import type { Evidence, Found, Kind } from './types.js';

/** The tighter straight-leg raise, and what the sacrum moved in all. */
interface Facts {
  readonly raise: number;
  readonly sacrum: number;
}

/** Beyond this the effort in standing does not fit the length shown lying. Degrees. */
const TOO_MUCH = 15;
/** The check is for hips that move less than this in all. */
const APPLIES_BELOW = { female: 65, male: 55, unknown: 55 } as const;

/** What the lower site moved: the share of pelvis and hips. */
function sacral({ measurement }: MeasuredValue): number {
  return mean(measurement.trials.flatMap((trial) => (isDual(trial) ? [Math.abs(excursion(trial.lower, trial.sense))] : [])));
}

/**
 * The straight-leg-raise check of lumbar flexion: the tighter raise must not
 * exceed the motion of the sacrum by more than 15°, else too little bending
 * was shown in standing. It says nothing about sincerity.
 *
 * @see AMA Guides, 4th/5th ed. (from memory)
 * @example sacral flexion 25 + extension 10 = 35; raise 60: 25 > 15, invalid
 */
export const lumbarSlr: Kind<Facts> = {
  stage: 'again',
  rank: 0,
  mark: 'again',
  detect: check,
  verdict: (f) => say('does not fit the straight-leg raise of {raise}°: measure again', { raise: formatNumber(f.facts.raise) }),
  sum: TO_MEASURE_AGAIN,
};

function check({ measured, person }: Evidence): Found<Facts>[] {
  const back = (id: 'lumbar.flexion' | 'lumbar.extension') =>
    measured.find(({ measurement: m }) => m.motion === id && m.position === 'standing' && m.trials.some(isDual));
  const [flexion, extension] = [back('lumbar.flexion'), back('lumbar.extension')];
  const raises = measured.filter(({ measurement: m }) => m.motion === 'muscleLength.straightLegRaise' && m.position === 'supine');
  if (!flexion || !extension || raises.length === 0) return [];
  const tightest = raises.reduce((a, b) => (b.value < a.value ? b : a));
  const [down, up] = [sacral(flexion), sacral(extension)];
  const total = down + up;
  const excess = tightest.value - total;
  const limit = APPLIES_BELOW[person.sex];
  if (total >= limit || excess <= TOO_MUCH) return [];
  const bothSides = new Set(raises.map((r) => r.measurement.side)).size === 2;
  const deg = (value: number) => ({ value, unit: 'deg' }) as const;
  return [
    found(flexion, {
      severity: 'moderate',
      timesError: excess / TOO_MUCH,
      facts: { raise: tightest.value, sacrum: total },
      steps: [
        readings(flexion),
        note('sacrum: flexion {down} + extension {up} = {total}, below {limit}: the check applies', {
          down: deg(down),
          up: deg(up),
          total: deg(total),
          limit: deg(limit),
        }),
        note('{raise} − {total} = {excess}, more than {most} ({which})', {
          raise: tightest.value,
          total,
          excess: deg(excess),
          most: deg(TOO_MUCH),
          which: bothSides ? 'the tighter of both sides' : 'one side alone was raised',
        }),
        note(
          'too little bending was shown in standing for the length shown lying: pain, fear or a slipped instrument; it says nothing about sincerity',
        ),
        errorStep(flexion),
        { step: 'source', source: { cite: 'AMA Guides, 4th/5th ed.', fromMemory: true } },
      ],
    }),
  ];
}
