import { protocolOfId } from '../catalogue/index.js';
import { bandAt, courseOf, type CourseBand } from '../course/index.js';
import { findProcedure } from '../procedure/index.js';
import type { NormEntry, NormSet } from '../norms/index.js';
import { dayWords } from '../words/say.js';
import type { Digit, IsoDate, Mode, MotionId, Position, Sex } from '../terms.js';
import { quantile, robustSd, groupSpread, type Counted, type GroupSpread } from './quantiles.js';

/** Fewer people than this are never told of: neither as a group nor as what is left of one. */
export const LEAST_PEOPLE = 20;

/** Ages of a group, in years: from, and up to but not including. */
export const COHORT_AGES = [
  { from: 0, to: 20, label: 'under 20 years' },
  { from: 20, to: 40, label: '20–39 years' },
  { from: 40, to: 60, label: '40–59 years' },
  { from: 60, to: 80, label: '60–79 years' },
  { from: 80, to: 130, label: '80 years and more' },
] as const;

/** Adults, where groups by age are too small. */
const ADULTS = { from: 20, to: 130, label: '20 years and more' } as const;

/** A way of measuring. */
export interface CohortWay {
  readonly motion: MotionId;
  readonly mode: Mode;
  readonly position: Position;
  readonly protocol: string;
  readonly digit?: Digit;
}

/** How many people of a sex and an age have a value, each person once, as one examiner read it. */
export interface CohortCount extends Counted {
  readonly sex: Sex;
  /** Place in COHORT_AGES. */
  readonly age: number;
  readonly examiner: string;
}

export interface CohortGroup {
  readonly sex: 'female' | 'male' | 'any';
  readonly ages: { readonly from: number; readonly to: number; readonly label: string };
  readonly spread: GroupSpread;
}

/** What one examiner reads beside the others: the middle of what lies between their readings and the middle of each one's group. */
export interface ExaminerDifference {
  readonly examiner: string;
  readonly n: number;
  readonly difference: number;
}

export interface WayCohort {
  readonly groups: readonly CohortGroup[];
  readonly examiners: readonly ExaminerDifference[];
}

/** Into which groups people are parted, the finest first. */
const PARTINGS: readonly ((count: CohortCount) => Pick<CohortGroup, 'sex' | 'ages'> | null)[] = [
  ({ sex, age }) => (sex === 'unknown' ? null : { sex, ages: COHORT_AGES[age]! }),
  ({ age }) => ({ sex: 'any', ages: COHORT_AGES[age]! }),
  ({ age }) => (COHORT_AGES[age]!.from >= ADULTS.from ? { sex: 'any', ages: ADULTS } : null),
];

/**
 * Groups of a way of measuring. People are parted one way only, the finest in
 * which any group is large enough: told at once in two ways, a group that is
 * too small could be worked out as what is left.
 */
export function cohortOf(counts: readonly CohortCount[]): WayCohort {
  for (const part of PARTINGS) {
    const parted = new Map<string, { of: Pick<CohortGroup, 'sex' | 'ages'>; counts: CohortCount[] }>();
    for (const count of counts) {
      const of = part(count);
      if (!of) continue;
      const key = `${of.sex} ${of.ages.from}`;
      const group = parted.get(key) ?? { of, counts: [] };
      group.counts.push(count);
      parted.set(key, group);
    }
    const large = [...parted.values()].filter((group) => peopleIn(group.counts) >= LEAST_PEOPLE);
    if (large.length === 0) continue;
    const groups = large
      .map(({ of, counts: counted }) => ({ ...of, spread: groupSpread(counted) }))
      .sort((a, b) => a.ages.from - b.ages.from || a.sex.localeCompare(b.sex));
    return { groups, examiners: differences(large.map((group) => group.counts)) };
  }
  return { groups: [], examiners: [] };
}

/** Examiners whose people are enough, the largest difference first. Of one examiner alone there is nothing to say. */
function differences(groups: readonly (readonly CohortCount[])[]): ExaminerDifference[] {
  const byExaminer = new Map<string, Counted[]>();
  for (const counts of groups) {
    const middle = quantile(counts, 0.5);
    for (const { examiner, value, n } of counts) {
      const off = byExaminer.get(examiner) ?? [];
      off.push({ value: value - middle, n });
      byExaminer.set(examiner, off);
    }
  }
  const told = [...byExaminer]
    .filter(([, off]) => peopleIn(off) >= LEAST_PEOPLE)
    .map(([examiner, off]) => ({ examiner, n: peopleIn(off), difference: quantile(off, 0.5) }))
    .sort((a, b) => Math.abs(b.difference) - Math.abs(a.difference));
  return told.length > 1 ? told : [];
}

const peopleIn = (counts: readonly Counted[]): number => counts.reduce((sum, { n }) => sum + n, 0);

/** Where people stood so many whole weeks after a procedure, beside the usual course. */
export interface OutcomeWeek {
  readonly week: number;
  readonly spread: GroupSpread;
  /** null: nothing is known of that week. */
  readonly usual: CourseBand | null;
}

/** Weeks with people enough. The usual course is that of the middle of the week. */
export function outcomeOf(
  procedure: string,
  way: CohortWay,
  weeks: readonly { readonly week: number; readonly counts: readonly Counted[] }[],
): OutcomeWeek[] {
  const course = findProcedure(procedure) && courseOf(procedure, way);
  return weeks
    .filter(({ counts }) => peopleIn(counts) >= LEAST_PEOPLE)
    .map(({ week, counts }) => ({ week, spread: groupSpread(counts), usual: (course && bandAt(course, week + 0.5)) ?? null }))
    .sort((a, b) => a.week - b.week);
}

export interface ToldWay {
  readonly way: CohortWay;
  readonly groups: readonly CohortGroup[];
}

/** What was told of a clinic's own people, as a norm set of its own: flagged as such in its name, its source and its confidence. */
export function cohortNormSet(on: IsoDate, ways: readonly ToldWay[]): NormSet {
  return {
    id: `own-people-${on}`,
    title: `This clinic’s own people, sides that are not involved, as of ${dayWords(on)}`,
    short: `own people ${on}`,
    year: Number(on.slice(0, 4)),
    where: 'own records',
    source: {
      cite: `own records: sides that are not involved, one reading a person, ${LEAST_PEOPLE} people or more in a group; people in care, not a sample of the healthy`,
      fromMemory: false,
    },
    entries: ways.flatMap(({ way, groups }) =>
      // Everybody the same is no spread.
      groups.filter(({ spread }) => spread.q3 > spread.q1).map((group) => entryOf(way, group)),
    ),
  };
}

function entryOf({ motion, mode, position, protocol, digit }: CohortWay, { sex, ages, spread }: CohortGroup): NormEntry {
  const known = protocolOfId(protocol);
  const mean = known?.trials.summary === 'mean';
  return {
    motion,
    mode,
    position,
    ...(known?.variant ? { variant: known.variant } : {}),
    ...(digit ? { digit } : {}),
    sex,
    ages: { ...ages },
    ...(mean ? {} : { summary: 'mean' as const }),
    value: { kind: 'distribution', mean: spread.median, sd: robustSd(spread) },
    confidence: 'low',
    note: `middle of ${spread.n} people, spread of the middle half`,
  };
}
