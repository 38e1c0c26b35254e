import type { Degrees, Unit } from '../terms.js';
import { spokenLocale } from './locale.js';
import { say } from './say.js';

/** What is said about the zero of a motion, and about values on either side of it. */
export interface ZeroWords {
  /** Degrees where nothing else is said. */
  readonly unit?: Unit;
  /** What zero is called when a reading falls short of it. */
  readonly zeroIs: 'straight' | 'neutral' | 'level';
  /** True where every degree past zero is hyperextension and must be said so (knee, elbow). */
  readonly pastZeroIsHyper: boolean;
  /** Where plus and minus need words of their own: a template with `%` for the figure, and a short one for tables. */
  readonly plus?: SignWords;
  readonly minus?: SignWords;
}

export interface SignWords {
  readonly long: string;
  readonly short: string;
}

/** At most one decimal, without a trailing zero, with the decimal sign of the reader; the minus sign is typographic. */
export function formatNumber(value: number): string {
  return withSign(String(Math.round(value * 10) / 10 || 0));
}

/** With so many decimals, trailing zeros and all. */
export function formatFixed(value: number, decimals: number): string {
  return withSign(value.toFixed(decimals));
}

/** The digits of a program as a reader writes them. */
function withSign(digits: string): string {
  return digits.replace('-', '−').replace('.', spokenLocale().decimal);
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

/** What is written after a figure: `°`, ` cm`, ` N`, ` s`. */
export function suffixOf(unit: Unit = 'deg'): string {
  return spokenLocale().units[unit];
}

/** Several answers are taken together as yes only where all were. */
function yesOrNo(value: number): string {
  return say(value >= 1 ? 'yes' : value <= 0 ? 'no' : 'not every time');
}

/** As fine as the unit is read in a sentence: whole degrees and newtons, tenths of a centimetre and of a second. */
export function rounded(value: number, unit: Unit = 'deg'): number {
  return unit === 'deg' || unit === 'N' ? Math.round(value) : Math.round(value * 10) / 10;
}

/** A size with its unit, as fine as it is read: `19°`, `7.5 cm`. For differences and expected figures, not for positions. */
export function formatSize(value: number, unit: Unit = 'deg'): string {
  return `${formatNumber(rounded(value, unit))}${suffixOf(unit)}`;
}

/** An end position where space is short or a sum is shown: `98`, `lacks 20`, `gap 4`. Never a bare sign. */
export function endFigure(value: Degrees, words?: Pick<ZeroWords, 'plus' | 'minus' | 'unit'>): string {
  if (words?.unit === 'yesNo') return yesOrNo(value);
  const size = formatNumber(Math.abs(value));
  if (value < 0) return say(words?.minus?.short ?? 'lacks %').replace('%', size);
  return value > 0 && words?.plus ? say(words.plus.short).replace('%', size) : size;
}

/**
 * An end position in words. Books disagree about the sign of extension, so a
 * signed extension is never printed bare.
 *
 * @example describeEnd(motion('hip.extension'), -20) // 'lacks 20° of straight'
 * @example describeEnd(motion('distance.fingerToFloor'), -3) // '3 cm past the floor'
 */
export function describeEnd(motion: ZeroWords, value: Degrees): string {
  if (motion.unit === 'yesNo') return yesOrNo(value);
  const size = `${formatNumber(Math.abs(value))}${suffixOf(motion.unit)}`;
  const parts = { size, zero: say(motion.zeroIs) };
  if (value < 0) return motion.minus ? say(motion.minus.long).replace('%', size) : say('lacks {size} of {zero}', parts);
  if (value > 0 && motion.plus) return say(motion.plus.long).replace('%', size);
  return motion.pastZeroIsHyper && value > 0 ? say('{size} past {zero}', parts) : size;
}
