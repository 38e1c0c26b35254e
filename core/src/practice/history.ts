import { mean } from 'simple-statistics';
import type { Degrees } from '../terms.js';
import type { Outcome, SlipId } from './types.js';

/** What a number of answers come to. */
export interface PracticeSum {
  readonly answers: number;
  readonly right: number;
  readonly near: number;
  /** Mean of how far off, whichever way; null where nothing was read. */
  readonly meanOff: Degrees | null;
  /** The most frequent first. */
  readonly slips: readonly { readonly slip: SlipId; readonly times: number }[];
}

/** Counted over answers, however they lie in time. */
export function sumOf(answers: readonly Outcome[]): PracticeSum {
  const offs = answers.flatMap(({ off }) => (off === null ? [] : Math.abs(off)));
  const slips = new Map<SlipId, number>();
  for (const { slips: own } of answers) for (const slip of own) slips.set(slip, (slips.get(slip) ?? 0) + 1);
  return {
    answers: answers.length,
    right: answers.filter(({ mark }) => mark === 'right').length,
    near: answers.filter(({ mark }) => mark === 'near').length,
    meanOff: offs.length > 0 ? mean(offs) : null,
    slips: [...slips].map(([slip, times]) => ({ slip, times })).sort((a, b) => b.times - a.times || a.slip.localeCompare(b.slip)),
  };
}
