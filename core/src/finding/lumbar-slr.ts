import { mean } from 'simple-statistics';
import { excursion } from '../angle/excursion.js';
import { formatNumber } from '../angle/words.js';
import { isDual } from '../assessment.js';
import type { MeasuredValue } from '../measurement.js';
import { errorLine, finding, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

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
export const lumbarSlr: Detector = ({ measured, person }) => {
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
  return [
    finding(flexion, {
      kind: 'lumbar-slr-invalid',
      severity: 'moderate',
      timesError: excess / TOO_MUCH,
      verdict: `does not fit the straight-leg raise of ${formatNumber(tightest.value)}°: measure again`,
      because: [
        trialArithmetic(flexion),
        `sacrum: flexion ${formatNumber(down)}° + extension ${formatNumber(up)}° = ${formatNumber(total)}°, below ${limit}°: the check applies`,
        `${formatNumber(tightest.value)} − ${formatNumber(total)} = ${formatNumber(excess)}°, more than ${TOO_MUCH}° (${bothSides ? 'the tighter of both sides' : 'one side alone was raised'})`,
        'too little bending was shown in standing for the length shown lying: pain, fear or a slipped instrument; it says nothing about sincerity',
        errorLine(flexion),
        'AMA Guides, 4th/5th ed. (from memory)',
      ],
    }),
  ];
};
