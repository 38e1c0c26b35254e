import { formatFixed, formatNumber, formatSigned, SLIP_WORDS, type Outcome, type PracticeMark, type PracticeSum } from '@dial-gauge/core';

/** Shape before colour: a full ring, half of one, a gap. */
export const markShape: Readonly<Record<PracticeMark, string>> = { right: '●', near: '◐', wrong: '○' };

export const offWords = (off: number | null): string => {
  if (off === null) return '';
  return Math.abs(off) < 0.05 ? 'to the degree' : `${formatSigned(Math.round(off * 2) / 2)}°`;
};

export const slipWords = ({ slips }: Pick<Outcome, 'slips'>): string => slips.map((slip) => SLIP_WORDS[slip]).join('; ');

/** "7 of 10 right, off by 1.4° on average" */
export function scoreWords({ answers, right, near, meanOff }: Pick<PracticeSum, 'answers' | 'right' | 'near' | 'meanOff'>): string {
  if (answers === 0) return 'nothing answered yet';
  const close = near > 0 ? `, ${formatNumber(near)} near` : '';
  const off = meanOff === null ? '' : `, ${formatFixed(meanOff, 1)}° off on average`;
  return `${formatNumber(right)} of ${formatNumber(answers)} right${close}${off}`;
}
