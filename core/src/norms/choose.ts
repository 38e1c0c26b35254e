import type { Mode, MotionId, Position, Sex } from '../terms.js';
import type { AgeBand, NormEntry, NormSet } from './types.js';

/** What a norm is wanted for. `age` is in completed years on the day of the assessment. */
export interface NormQuery {
  readonly motion: MotionId;
  readonly mode: Mode;
  readonly position: Position;
  readonly sex: Sex;
  readonly age: number;
}

/** What does not fit between a norm and the person or the reading. Empty: it fits. */
export type NormFlag = 'other-mode' | 'other-position' | 'other-sex' | 'nearest-age';

export interface NormChoice {
  readonly entry: NormEntry;
  readonly flags: readonly NormFlag[];
  /** False when the norm is of another mode or position: it may be shown, it never counts in an agreement. */
  readonly comparable: boolean;
}

/**
 * The entry of one set that fits best: mode first, then position, sex and age.
 * Whatever does not fit is flagged; another set is never asked instead.
 *
 * @returns undefined when the set has no value for the motion
 */
export function chooseNorm(set: NormSet, query: NormQuery): NormChoice | undefined {
  let best: { misfit: readonly number[]; choice: NormChoice } | undefined;
  for (const entry of set.entries) {
    if (entry.motion !== query.motion) continue;
    const gap = entry.ages ? yearsOutside(entry.ages, query.age) : 0;
    const flags: NormFlag[] = [];
    if (entry.mode !== 'any' && entry.mode !== query.mode) flags.push('other-mode');
    if (entry.position !== 'any' && entry.position !== query.position) flags.push('other-position');
    if (entry.sex !== 'any' && entry.sex !== query.sex) flags.push('other-sex');
    if (gap > 0) flags.push('nearest-age');
    const misfit = [...(['other-mode', 'other-position', 'other-sex'] as const).map((f) => (flags.includes(f) ? 1 : 0)), gap];
    if (!best || isLess(misfit, best.misfit)) {
      const comparable = !flags.includes('other-mode') && !flags.includes('other-position');
      best = { misfit, choice: { entry, flags, comparable } };
    }
  }
  return best?.choice;
}

/** 0 inside the band; otherwise how far the age lies from its nearer edge. */
function yearsOutside(band: AgeBand, age: number): number {
  if (age < band.from) return band.from - age;
  return age < band.to ? 0 : age - band.to + 1;
}

function isLess(a: readonly number[], b: readonly number[]): boolean {
  const at = a.findIndex((value, index) => value !== b[index]);
  return at >= 0 && (a[at] ?? 0) < (b[at] ?? 0);
}
