import { mean, sampleStandardDeviation } from 'simple-statistics';
import type { StudyTable } from '../error/anova.js';
import type { Degrees } from '../terms.js';

/** What one person read in each task of a round; null where nothing was to be read. */
export interface ReadBy {
  readonly who: string;
  readonly read: readonly (Degrees | null)[];
}

/** How far those who did the same round lie apart. */
export interface Spread {
  readonly tasks: readonly {
    readonly truth: Degrees | null;
    readonly mean: Degrees | null;
    /** Standard deviation between people; null with fewer than two. */
    readonly sd: Degrees | null;
    readonly readers: number;
  }[];
  readonly people: readonly {
    readonly who: string;
    /** Mean of what was read less what is, and how far that scatters; null with nothing read, or only one. */
    readonly bias: Degrees | null;
    readonly scatter: Degrees | null;
    readonly read: number;
  }[];
}

const spreadOfAll = (values: readonly number[]): number | null => (values.length > 1 ? sampleStandardDeviation([...values]) : null);
const meanOfAll = (values: readonly number[]): number | null => (values.length > 0 ? mean([...values]) : null);

/** How far people lie apart in each task, and each of them from the truth. */
export function spreadOf(truths: readonly (Degrees | null)[], people: readonly ReadBy[]): Spread {
  return {
    tasks: truths.map((truth, at) => {
      const values = people.flatMap(({ read }) => read[at] ?? []);
      return { truth, mean: meanOfAll(values), sd: spreadOfAll(values), readers: values.length };
    }),
    people: people.map(({ who, read }) => {
      const offs = read.flatMap((value, at) => {
        const truth = truths[at] ?? null;
        return value === null || truth === null ? [] : value - truth;
      });
      return { who, bias: meanOfAll(offs), scatter: spreadOfAll(offs), read: offs.length };
    }),
  };
}

/**
 * The table of a reliability study: tasks × people, as far as everybody read
 * them. A task that one of them could not read is left out, and counted.
 */
export function studyTableOf(tasks: number, people: readonly ReadBy[]): { readonly table: StudyTable; readonly leftOut: number } {
  const rows = Array.from({ length: tasks }, (_, at) => people.map(({ read }) => read[at] ?? null));
  const whole = rows.filter((row): row is number[] => row.every((value) => value !== null));
  return { table: whole, leftOut: tasks - whole.length };
}
