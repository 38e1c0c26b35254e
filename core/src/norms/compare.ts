import { errorFunction } from 'simple-statistics';
import { bandAround, Z95 } from '../error/sem.js';
import type { Confidence, Degrees } from '../terms.js';
import { chooseNorm, type NormFlag, type NormQuery } from './choose.js';
import type { NormSet, NormValue } from './types.js';

/** Mean ± 1.96 SD of a sample, or a handbook's range; a single figure stands at both ends. Degrees. */
export interface ExpectedBand {
  readonly low: Degrees;
  readonly high: Degrees;
}

/** One value held against one set. */
export interface NormComparison {
  readonly set: string;
  readonly setName: string;
  readonly expected: Degrees;
  /** expected − value; positive when the value falls short. */
  readonly deficit: Degrees;
  /** value as a percentage of the expected figure; null when that is 0. */
  readonly percent: number | null;
  readonly z: number | null;
  readonly percentile: number | null;
  /** Age band of the entry, in words. */
  readonly band: string;
  /** Where individuals are expected. */
  readonly expectedBand: ExpectedBand;
  readonly short: boolean;
  readonly flags: readonly NormFlag[];
  readonly comparable: boolean;
  readonly confidence: Confidence;
  readonly source: string;
}

/**
 * Holds one value against one set. A sample calls it short below
 * mean − 1.96 SD. A handbook figure (or the lower end of its range) has no
 * spread, so the value is short when the deficit is larger than the 95 % error
 * band of a single reading.
 *
 * @param sem standard error of measurement of the value, degrees
 * @returns undefined when the set has no value for the motion
 */
export function compareWithNorm(set: NormSet, query: NormQuery, value: Degrees, sem: Degrees): NormComparison | undefined {
  const choice = chooseNorm(set, query);
  if (!choice) return undefined;
  const norm = choice.entry.value;
  const expected = expectedOf(norm);
  const z = norm.kind === 'distribution' ? (value - norm.mean) / norm.sd : null;
  return {
    set: set.id,
    setName: set.short,
    expected,
    deficit: expected - value,
    percent: expected === 0 ? null : (value / expected) * 100,
    z,
    percentile: z === null ? null : 50 + 50 * errorFunction(z / Math.SQRT2),
    band: choice.entry.ages?.label ?? 'adults, no age band',
    expectedBand: bandOf(norm),
    short: norm.kind === 'distribution' ? value < norm.mean - Z95 * norm.sd : expected - value > bandAround(sem),
    flags: choice.flags,
    comparable: choice.comparable,
    confidence: choice.entry.confidence,
    source: set.source.cite + (set.source.fromMemory ? ' (from memory)' : ''),
  };
}

/** The figure a value is held against: a point, the mean of a sample, the lower end of a range. */
function expectedOf(norm: NormValue): Degrees {
  if (norm.kind === 'point') return norm.expected;
  return norm.kind === 'range' ? norm.low : norm.mean;
}

function bandOf(norm: NormValue): ExpectedBand {
  if (norm.kind === 'point') return { low: norm.expected, high: norm.expected };
  if (norm.kind === 'range') return { low: norm.low, high: norm.high };
  return { low: norm.mean - Z95 * norm.sd, high: norm.mean + Z95 * norm.sd };
}

/**
 * The band of a set for a motion, before anything has been read.
 *
 * @returns undefined when the set has no value for the motion
 */
export function expectedBand(set: NormSet, query: NormQuery): ExpectedBand | undefined {
  const choice = chooseNorm(set, query);
  return choice && bandOf(choice.entry.value);
}

/** How many of the sets that may be compared call a value short. */
export interface Agreement {
  readonly short: number;
  readonly of: number;
}

/** Counts only norms of the same mode and position; the others may be shown but have no vote. */
export function agreement(comparisons: readonly NormComparison[]): Agreement {
  const voting = comparisons.filter((comparison) => comparison.comparable);
  return { short: voting.filter((comparison) => comparison.short).length, of: voting.length };
}
