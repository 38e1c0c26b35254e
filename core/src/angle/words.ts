import type { Degrees } from '../terms.js';

/** What is said about the zero of a motion. */
export interface ZeroWords {
  /** What zero is called when a reading falls short of it. */
  readonly zeroIs: 'straight' | 'neutral';
  /** True where every degree past zero is hyperextension and must be said so (knee, elbow). */
  readonly pastZeroIsHyper: boolean;
}

/** At most one decimal, without a trailing zero; the minus sign is typographic. */
export function formatNumber(value: number): string {
  const rounded = Math.round(value * 10) / 10;
  return String(rounded === 0 ? 0 : rounded).replace('-', '−');
}

/** With its sign always shown: a change or a difference. */
export function formatSigned(value: number): string {
  const text = formatNumber(value);
  return value > 0 && text !== '0' ? `+${text}` : text;
}

/** Whole degrees: what a goniometer reads. */
export function formatWhole(value: number): string {
  return formatNumber(Math.round(value));
}

/** An end position where space is short or a sum is shown: `98`, `lacks 20`. Never a bare sign. */
export function endFigure(value: Degrees): string {
  return value < 0 ? `lacks ${formatNumber(-value)}` : formatNumber(value);
}

/**
 * An end position in words. Books disagree about the sign of extension, so a
 * signed extension is never printed bare.
 *
 * @example describeEnd(motion('hip.extension'), -20) // 'lacks 20° of straight'
 * @example describeEnd(motion('hip.flexion'), 98) // '98°'
 */
export function describeEnd(motion: ZeroWords, value: Degrees): string {
  if (value < 0) return `lacks ${formatNumber(-value)}° of ${motion.zeroIs}`;
  if (motion.pastZeroIsHyper && value > 0) return `${formatNumber(value)}° past ${motion.zeroIs}`;
  return `${formatNumber(value)}°`;
}
