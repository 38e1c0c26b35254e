import { protocolOf } from '../catalogue/index.js';
import { finding, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

/** A neighbour moved along: the reading holds more than this joint gave. */
export const substituted: Detector = ({ measured }) =>
  measured.flatMap((m) => {
    const noted = m.measurement.substitutions ?? [];
    if (noted.length === 0) return [];
    const known = protocolOf(m.measurement).substitutions;
    const words = noted.map((id) => known.find((s) => s.id === id)?.label ?? id.replaceAll('-', ' ')).join(', ');
    return [
      finding(m, {
        kind: 'substituted',
        severity: 'mild',
        verdict: `helped along (${words}): measure again`,
        because: [
          trialArithmetic(m),
          `noted while measuring: ${words}`,
          'the honest end is where the substitution starts; the reading may be too large',
        ],
      }),
    ];
  });
