import { protocolOf } from '../catalogue/index.js';
import type { MeasuredValue } from '../measurement.js';
import type { MotionId, Side } from '../terms.js';
import { lower, say, upper } from '../words/say.js';
import { found, motionOf, sidedName } from './make.js';
import { note, readingsOfValue } from './steps.js';
import type { Kind } from './types.js';

/** The way back, which hurts passively. */
interface Facts {
  readonly back: { readonly motion: MotionId; readonly side: Side };
}

/** The way back: the opposite motion, or the same one to the other side. */
function wayBack({ measurement: m }: MeasuredValue): { readonly motion: MotionId; readonly side: Side } | undefined {
  const about = motionOf({ measurement: m } as MeasuredValue);
  if (about.sides === 'towards') return { motion: m.motion, side: m.side === 'left' ? 'right' : 'left' };
  return about.opposite ? { motion: about.opposite, side: m.side } : undefined;
}

/** Readings of a motion, whatever way they were taken: pain does not ask for the position. */
export function readingsOf(
  measured: readonly MeasuredValue[],
  of: { readonly motion: MotionId; readonly side: Side },
  mode: 'active' | 'passive',
  digit: MeasuredValue['measurement']['digit'],
): MeasuredValue[] {
  return measured.filter(({ measurement: m }) => m.motion === of.motion && m.side === of.side && m.mode === mode && m.digit === digit);
}

const hurts = (readings: readonly MeasuredValue[]): MeasuredValue | undefined =>
  readings
    .filter((r) => (r.measurement.pain ?? 0) > 0)
    .sort((a, b) => (b.measurement.pain ?? 0) - (a.measurement.pain ?? 0) || a.key.localeCompare(b.key))[0];
/** Asked, and nothing: an answer that was never asked for says nothing. */
const isPainless = (readings: readonly MeasuredValue[]): boolean => readings.length > 0 && readings.every((r) => r.measurement.pain === 0);

/**
 * Active pain one way and passive pain the other way: what is stretched
 * passively is what works actively. All four must have been asked.
 *
 * @see Cyriax, Textbook of Orthopaedic Medicine: as taught (from memory)
 */
export const oppositeDirectionPain: Kind<Facts> = {
  stage: 'pain',
  rank: 1,
  mark: 'pain',
  detect: ({ measured }) =>
    measured.flatMap((active) => {
      const { mode, motion, side, digit, pain } = active.measurement;
      if (mode !== 'active' || !pain || protocolOf(active.measurement).variant !== null) return [];
      const back = wayBack(active);
      if (!back) return [];
      const passiveBack = hurts(readingsOf(measured, back, 'passive', digit));
      const rest = [readingsOf(measured, { motion, side }, 'passive', digit), readingsOf(measured, back, 'active', digit)];
      if (!passiveBack || !rest.every(isPainless)) return [];
      return [
        found(active, {
          severity: 'mild',
          facts: { back },
          steps: [
            { step: 'pain', motion, side, digit, mode: 'active', pain, of: readingsOfValue(active) },
            { step: 'pain', ...back, digit, mode: 'passive', pain: passiveBack.measurement.pain ?? 0, of: readingsOfValue(passiveBack) },
            note('passive there and active back: asked, no pain'),
            note('what works one way is stretched the other way; as taught, from memory: a pointer, not a diagnosis'),
          ],
        }),
      ];
    }),
  subject: ({ motion, side, digit, facts: { back } }) =>
    say('{there} and {back}', { there: sidedName(motion, side, digit), back: lower(sidedName(back.motion, back.side, digit)) }),
  verdict: () => say('hurts moved actively one way and passively the other: points to contractile tissue'),
  sum: { at: 6, words: (all) => all.map((f) => `${upper(f.subject)}: ${f.verdict}.`).join(' ') },
};
