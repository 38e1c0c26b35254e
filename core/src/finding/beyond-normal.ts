import { describeEnd, formatNumber } from '../angle/words.js';
import { bandAround } from '../error/sem.js';
import type { NormComparison } from '../norms/index.js';
import { errorLine, finding, motionOf, operand, sizeWords, trialArithmetic } from './make.js';
import type { Detector, Thresholds } from './types.js';
import type { MeasuredValue } from '../measurement.js';

/** Where "beyond" begins: above the band of a sample; for a figure without spread, past it by error and by the clinic's least difference. */
function upperEdge(norm: NormComparison, { sem }: MeasuredValue, { sideDifference }: Thresholds): number {
  if (norm.kind === 'distribution') return norm.expectedBand.high;
  return norm.expectedBand.high + Math.max(bandAround(sem), sideDifference.deg);
}

/**
 * More than people have: by the norm that judges, otherwise by most of those
 * that may be compared, named. An active norm says nothing about a
 * passive excess. The nine-point score of general mobility is offered, not
 * concluded.
 */
export const beyondNormal: Detector = ({ measured, comparisons, judging, thresholds }) =>
  measured.flatMap((m) => {
    const about = motionOf(m);
    if (about.unit !== 'deg' || about.better !== 'more') return [];
    const all = (comparisons.get(m.key) ?? []).filter((norm) => norm.comparable);
    const own = judging.get(m.key);
    const beyond = (own ? [own] : all).filter((norm) => m.value > upperEdge(norm, m, thresholds));
    // Without a set that judges, most of the others have to say so.
    if (beyond.length === 0 || (!own && beyond.length * 2 <= all.length)) return [];
    const norm = beyond[0]!;
    const edge = upperEdge(norm, m, thresholds);
    return [
      finding(m, {
        kind: 'beyond-normal',
        severity: 'note',
        expected: norm.expected,
        timesError: (m.value - norm.expected) / m.mdc95,
        verdict:
          norm.kind === 'distribution'
            ? `${sizeWords(m, m.value - edge)} beyond what ${norm.setName} finds in people`
            : `${sizeWords(m, m.value - norm.expected)} more than ${norm.setName} expects`,
        because: [
          trialArithmetic(m),
          ...(own
            ? []
            : [
                `no set of the clinic’s order may be compared with this reading; ${beyond.length} of ${all.length} installed sets that may call it beyond`,
              ]),
          `${norm.setName}: ${describeEnd(about, norm.expected)}, ${norm.band}; beyond begins at ${formatNumber(edge)}°${norm.kind === 'distribution' ? ' (mean + 1.96 SD)' : ' (its figure, measuring error and the clinic’s least difference)'} — ${norm.source}`,
          `${operand(m, m.value)} − ${operand(m, edge)} = ${formatNumber(m.value - edge)}°`,
          errorLine(m),
          'plenty of range asks for control, not for stretching; a nine-point score of general mobility is offered below',
        ],
      }),
    ];
  });
