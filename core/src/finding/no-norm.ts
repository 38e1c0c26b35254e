import { findNormSet } from '../norms/index.js';
import { say } from '../words/say.js';
import { found, motionOf } from './make.js';
import { notJudged } from './silence.js';
import { note, readings, type Step } from './steps.js';
import type { Kind } from './types.js';

/** The sets that were asked. */
interface Facts {
  readonly asked: readonly string[];
}

/** So many sets are named; the rest is counted. */
const NAMED = 3;

/** No set of the clinic's order has a comparable value: it is not judged, and that is said. What does not fit is named, never used in its place. */
export const noNorm: Kind<Facts> = {
  stage: 'silence',
  rank: 0,
  mark: 'plain',
  aside: true,
  detect: (evidence) =>
    evidence.measured.flatMap((m) => {
      if (notJudged(m, evidence)?.reason !== 'no-comparable-norm') return [];
      const { id, perDigit } = motionOf(m);
      const asked = evidence.order.flatMap((set) => findNormSet(set)?.short ?? []);
      const more = asked.length - NAMED;
      const steps: Step[] = [
        readings(m),
        note(
          more > 0
            ? 'none of the sets that are asked ({sets} and {more} more) has a value for this motion, mode, position, way of measuring and age'
            : 'none of the sets that are asked ({sets}) has a value for this motion, mode, position, way of measuring and age',
          { sets: asked.slice(0, NAMED), more },
        ),
      ];
      if (perDigit && m.measurement.digit === 1)
        steps.push(note('the thumb has joints of its own: its values stand under thumbMcp and thumbIp'));
      const norms = (evidence.comparisons.get(m.key) ?? []).map(({ setName, expected }) => ({ set: setName, expected }));
      steps.push({ step: 'not-used', motion: id, norms });
      return [found(m, { severity: 'note', facts: { asked: evidence.order }, steps })];
    }),
  verdict: () => say('not judged: no norm that may be compared with it'),
};
