import { protocolOf } from '../catalogue/index.js';
import { say } from '../words/say.js';
import { found } from './make.js';
import { note, readings } from './steps.js';
import { TO_MEASURE_AGAIN } from './sums.js';
import type { Kind } from './types.js';

/** What moved along, as the way of measuring calls it. */
interface Facts {
  readonly substitutions: readonly string[];
}

/** A neighbour moved along: the reading holds more than this joint gave. */
export const substituted: Kind<Facts> = {
  stage: 'again',
  rank: 0,
  mark: 'again',
  ofAnswers: true,
  detect: ({ measured }) =>
    measured.flatMap((m) => {
      const noted = m.measurement.substitutions ?? [];
      if (noted.length === 0) return [];
      return [
        found(m, {
          severity: 'mild',
          facts: { substitutions: noted },
          steps: [
            readings(m),
            note('noted while measuring: {what}', { what: noted.map((id) => labelOf(m.measurement, id)) }),
            note('the honest end is where the substitution starts; the reading may be too large'),
          ],
        }),
      ];
    }),
  verdict: (f) => say('helped along ({what}): measure again', { what: f.facts.substitutions.map((id) => say(labelOf(f, id))).join(', ') }),
  sum: TO_MEASURE_AGAIN,
};

function labelOf(way: Parameters<typeof protocolOf>[0], id: string): string {
  return protocolOf(way).substitutions.find((s) => s.id === id)?.label ?? id.replaceAll('-', ' ');
}
