import type { MotionId } from '../terms.js';
import { endFigure, formatNumber, formatSigned, suffixOf } from '../words/figures.js';
import { say, sayCount } from '../words/say.js';
import { motion } from '../catalogue/index.js';
import { mdcOfDifference } from '../error/sem.js';
import type { ErrorContext } from '../error/own.js';
import { errorOf } from '../error/table.js';
import { shortfall } from '../norms/index.js';
import type { Marker } from './marker.js';

export type RetestVerdict = 'better' | 'same' | 'worse';

/** One marker before and after. */
export interface MarkerChange {
  readonly before: number;
  readonly after: number;
  readonly change: number;
  /** Smallest difference larger than the error of both readings. */
  readonly mdc: number;
  readonly verdict: RetestVerdict;
}

/**
 * A marker before and after a drill. The same examiner with the same
 * instrument minutes apart: less than the error of both readings is "same".
 *
 * @example judgeMarker(hipFlexion, 96, 101) // same: +5°, a change counts from 8.3°
 */
export function judgeMarker(marker: Marker, before: number, after: number, context: ErrorContext = {}): MarkerChange {
  const about = motion(marker.motion);
  const semOf = (value: number) => errorOf({ ...marker, value }, true, context).sem;
  const mdc = mdcOfDifference(semOf(before), semOf(after));
  const gain = -shortfall(before, after, about.better);
  const change = after - before;
  const verdict: RetestVerdict = gain === 0 || Math.abs(gain) < mdc ? 'same' : gain > 0 ? 'better' : 'worse';
  return { before, after, change, mdc, verdict };
}

/** "96 → 101, +5°: same (a change counts from 8.4°)" */
export function markerWords({ before, after, change, mdc, verdict }: MarkerChange, id: MotionId): string {
  const about = motion(id);
  const suffix = suffixOf(about.unit);
  return say('{before} → {after}, {change}: {verdict} (a change counts from {least})', {
    before: endFigure(before, about),
    after: endFigure(after, about),
    change: `${formatSigned(change)}${suffix}`,
    verdict: say(verdict),
    least: `${formatNumber(Math.ceil(mdc * 10) / 10)}${suffix}`,
  });
}

/** All markers together: one that got worse outweighs those that got better. */
export function roundVerdict(changes: readonly Pick<MarkerChange, 'verdict'>[]): RetestVerdict | null {
  if (changes.length === 0) return null;
  if (changes.some((c) => c.verdict === 'worse')) return 'worse';
  return changes.some((c) => c.verdict === 'better') ? 'better' : 'same';
}

/** Baseline or what came after a drill: the readings of the markers, null where one is not taken yet. */
export interface RetestRound {
  /** What was done before it; empty for the baseline. */
  readonly drill: string;
  readonly values: readonly (number | null)[];
}

/** A round judged against the one before it, and against the baseline. */
export interface JudgedRound extends RetestRound {
  readonly sinceBefore: readonly (MarkerChange | null)[];
  readonly sinceBaseline: readonly (MarkerChange | null)[];
  /** What the drill did; null for the baseline, and while readings are open. */
  readonly verdict: RetestVerdict | null;
  readonly overall: RetestVerdict | null;
}

/** Judges every round. A drill answers for what changed since the round before it. */
export function judgeRetest(markers: readonly Marker[], rounds: readonly RetestRound[], context: ErrorContext = {}): JudgedRound[] {
  return rounds.map((round, at) => {
    const against = (other: RetestRound | undefined) =>
      markers.map((marker, index) => {
        const [before, after] = [other?.values[index] ?? null, round.values[index] ?? null];
        return before === null || after === null ? null : judgeMarker(marker, before, after, context);
      });
    const [sinceBefore, sinceBaseline] = [
      at === 0 ? markers.map(() => null) : against(rounds[at - 1]),
      at === 0 ? markers.map(() => null) : against(rounds[0]),
    ];
    const verdictOf = (changes: readonly (MarkerChange | null)[]) => (changes.every((c) => c !== null) ? roundVerdict(changes) : null);
    return {
      ...round,
      sinceBefore,
      sinceBaseline,
      verdict: at === 0 ? null : verdictOf(sinceBefore),
      overall: at === 0 ? null : verdictOf(sinceBaseline),
    };
  });
}

/** How one may stop. */
export type Finish =
  | { readonly kind: 'open'; readonly why: string }
  | { readonly kind: 'good' }
  | {
      readonly kind: 'worse';
      readonly why: string;
      /** The drill to go back to: the last one that helped, today or at earlier visits. */ readonly goBackTo: string | null;
    };

/**
 * Whether this is a good place to stop. One does not finish on worse: go back
 * to the drill that helped.
 *
 * @param memory what helped this patient at earlier visits
 */
export function finishOf(rounds: readonly JudgedRound[], memory: readonly DrillMemory[] = []): Finish {
  const last = rounds[rounds.length - 1];
  if (!last || last.values.length === 0 || last.values.some((value) => value === null))
    return { kind: 'open', why: say('some markers of the last round are not read yet') };
  if (rounds.length === 1) return { kind: 'open', why: say('nothing was tried yet: note a drill and retest') };
  if (last.verdict !== 'worse' && last.overall !== 'worse') return { kind: 'good' };
  const helped = [...rounds].reverse().find((round) => round.verdict === 'better');
  const before = memory
    .filter((m) => m.better > m.worse && m.drill !== last.drill)
    .sort((a, b) => b.better - b.worse - (a.better - a.worse))[0];
  return {
    kind: 'worse',
    why: last.verdict === 'worse' ? say('“{drill}” made it worse', { drill: last.drill }) : say('worse than at the baseline'),
    goBackTo: helped?.drill ?? before?.drill ?? null,
  };
}

/** What a drill did to this patient so far. */
export interface DrillMemory {
  readonly drill: string;
  readonly better: number;
  readonly same: number;
  readonly worse: number;
}

/** Drills by what they did, those that helped most first. Spelling apart from case and spaces counts. */
export function rememberDrills(sessions: readonly (readonly JudgedRound[])[]): DrillMemory[] {
  const drills = new Map<string, { drill: string; better: number; same: number; worse: number }>();
  for (const round of sessions.flat()) {
    if (!round.drill || !round.verdict) continue;
    const key = round.drill.trim().toLowerCase().replace(/\s+/g, ' ');
    const entry = drills.get(key) ?? { drill: round.drill.trim(), better: 0, same: 0, worse: 0 };
    entry[round.verdict]++;
    drills.set(key, entry);
  }
  return [...drills.values()].sort((a, b) => b.better - b.worse - (a.better - a.worse) || a.drill.localeCompare(b.drill));
}

/** "helped 2 of 3 times" */
export function memoryWords({ better, same, worse }: DrillMemory): string {
  const count = better + same + worse;
  const helped = sayCount(count, 'helped {better} of {count} time', 'helped {better} of {count} times', { better });
  if (worse === 0) return helped;
  return `${helped}, ${sayCount(worse, 'made it worse once', 'made it worse {count} times')}`;
}
