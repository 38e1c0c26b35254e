import { errorFunction } from 'simple-statistics';
import { motion } from '../catalogue/index.js';
import type { Better } from '../catalogue/types.js';
import { bandAround, Z95 } from '../error/sem.js';
import { summarise } from '../measurement.js';
import type { Confidence, LookedUp } from '../terms.js';
import { chooseNorm, type NormFlag, type NormQuery } from './choose.js';
import type { NormSet, NormValue } from './types.js';

/** Mean ± 1.96 SD of a sample, or a handbook's range; a single figure stands at both ends. In the motion's unit. */
export interface ExpectedBand {
  readonly low: number;
  readonly high: number;
}

/** One value held against one set. */
export interface NormComparison {
  readonly set: string;
  readonly setName: string;
  readonly kind: NormValue['kind'];
  /** What was held against it: the value, or where the source counts the readings otherwise, what they come to that way. */
  readonly value: number;
  readonly expected: number;
  /** How far the value falls short of the expected figure; for a distance that should be small, how far it lies above it. */
  readonly deficit: number;
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
  /** Whether its figure is of an age band that the person is in. */
  readonly ofTheirAge: boolean;
  readonly confidence: Confidence;
  readonly note: string | null;
  readonly source: string;
  /** Where the clinic looked the figure up; left out: it did not. */
  readonly lookedUp?: LookedUp;
}

/**
 * Holds one value against one set. A sample calls it short beyond
 * mean ± 1.96 SD on the worse side. A handbook figure (or the nearer end of its
 * range) has no spread, so the value is short when the deficit is larger than
 * the 95 % error band of a single reading. A mean without a spread is held
 * the same way, from the worse end of its confidence interval. A line that is
 * drawn calls short whatever lies beyond it.
 *
 * @param sem standard error of measurement of the value, in its unit
 * @returns undefined when the set has no value for the motion
 */
export function compareWithNorm(set: NormSet, query: NormQuery, counted: number, sem: number): NormComparison | undefined {
  const choice = chooseNorm(set, query);
  if (!choice) return undefined;
  const { value: norm, ages, confidence, note, summary, lookedUp } = choice.entry;
  const { better } = motion(query.motion);
  const value = summary && query.ends ? summarise(query.ends, summary, better) : counted;
  const expected = expectedOf(norm, better);
  const z = norm.kind === 'distribution' ? (value - norm.mean) / norm.sd : null;
  return {
    set: set.id,
    setName: set.short,
    kind: norm.kind,
    value,
    expected,
    deficit: shortfall(expected, value, better),
    percent: expected === 0 ? null : (value / expected) * 100,
    z,
    percentile: z === null ? null : 50 + 50 * errorFunction(z / Math.SQRT2),
    band: ages?.label ?? 'adults, no age band',
    expectedBand: bandOf(norm),
    short: isShort(norm, value, sem, better),
    flags: choice.flags,
    comparable: choice.comparable,
    ofTheirAge: choice.ofTheirAge,
    confidence,
    note: note ?? null,
    source: set.source.cite + (set.source.fromMemory && !lookedUp ? ' (from memory)' : ''),
    ...(lookedUp ? { lookedUp } : {}),
  };
}

/** How far a value falls short of a figure, in the direction in which short is. */
export function shortfall(expected: number, value: number, better: Better): number {
  if (better === 'neither') return 0;
  return better === 'more' ? expected - value : value - expected;
}

function isShort(norm: NormValue, value: number, sem: number, better: Better): boolean {
  if (better === 'neither' || norm.kind === 'skewed') return false;
  const worse = better === 'more' ? -1 : 1;
  if (norm.kind === 'distribution') return shortfall(norm.mean + worse * Z95 * norm.sd, value, better) > 0;
  if (norm.kind === 'cutoff') return shortfall(norm.at, value, better) > 0;
  const edge = norm.kind === 'mean' ? (better === 'more' ? norm.ciLow : norm.ciHigh) : expectedOf(norm, better);
  return shortfall(edge, value, better) > bandAround(sem);
}

/** The figure a value is held against: a point, the mean of a sample, the nearer end of a range. */
function expectedOf(norm: NormValue, better: Better): number {
  switch (norm.kind) {
    case 'point':
      return norm.expected;
    case 'cutoff':
      return norm.at;
    case 'range':
      return better === 'less' ? norm.high : norm.low;
    default:
      return norm.mean;
  }
}

/** Where individuals are expected. */
export function bandOf(norm: NormValue): ExpectedBand {
  switch (norm.kind) {
    case 'point':
      return { low: norm.expected, high: norm.expected };
    case 'cutoff':
      return { low: norm.at, high: norm.at };
    case 'range':
      return { low: norm.low, high: norm.high };
    case 'mean':
    case 'skewed':
      return { low: norm.mean, high: norm.mean };
    case 'distribution':
      return { low: norm.mean - Z95 * norm.sd, high: norm.mean + Z95 * norm.sd };
  }
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
