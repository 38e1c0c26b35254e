import { bandAround } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import type { NormComparison } from '../norms/index.js';
import { say } from '../words/say.js';
import { errorStep, found, motionOf, sizeOf } from './make.js';
import { note, readings, type Step } from './steps.js';
import { wherePhrase } from './sums.js';
import type { Kind, Thresholds } from './types.js';

/** By which set, where beyond begins in it, and whether that is the edge of a sample. */
interface Facts {
  readonly set: string;
  readonly setName: string;
  readonly edge: number;
  readonly ofSample: boolean;
}

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
export const beyondNormal: Kind<Facts> = {
  stage: 'beyond',
  rank: 0,
  mark: 'notch',
  tooMuch: true,
  detect: ({ measured, comparisons, judging, thresholds }) =>
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
      const steps: Step[] = [readings(m)];
      if (!own)
        steps.push(
          note('no set of the clinic’s order may be compared with this reading; {beyond} of {all} installed sets that may call it beyond', {
            beyond: beyond.length,
            all: all.length,
          }),
        );
      steps.push(
        { step: 'upper-edge', motion: about.id, norm, edge },
        { step: 'difference', motion: about.id, from: m.value, take: edge, is: m.value - edge },
        errorStep(m),
        note('plenty of range asks for control, not for stretching; a nine-point score of general mobility is offered below'),
      );
      return [
        found(m, {
          severity: 'note',
          expected: norm.expected,
          timesError: (m.value - norm.expected) / m.mdc95,
          facts: { set: norm.set, setName: norm.setName, edge, ofSample: norm.kind === 'distribution' },
          steps,
        }),
      ];
    }),
  verdict: (f) =>
    f.facts.ofSample
      ? say('{size} beyond what {set} finds in people', { size: sizeOf(f, f.value - f.facts.edge), set: f.facts.setName })
      : say('{size} more than {set} expects', { size: sizeOf(f, f.value - (f.expected ?? 0)), set: f.facts.setName }),
  sum: { at: 5, words: (all) => wherePhrase('More than expected: {where}.', all) },
};
