import { quantile as listed } from 'simple-statistics';
import { NORM_SETS, normSetFromRows, normSetToRows, protocolOfId } from '../index.js';
import {
  COHORT_AGES,
  cohortNormSet,
  cohortOf,
  groupSpread,
  outcomeOf,
  quantile,
  robustSd,
  type CohortCount,
  type CohortWay,
} from './index.js';

const KNEE: CohortWay = { motion: 'knee.flexion', mode: 'active', position: 'supine', protocol: 'knee.flexion/supine' };
/** So many people of one sex and age, one at each of the values that follow one another. */
const people = (n: number, over: Partial<CohortCount> = {}, from = 120): CohortCount[] =>
  Array.from({ length: n }, (_, at) => ({ sex: 'female', age: 2, examiner: 'wren', value: from + at, n: 1, ...over }));
const said = (counts: readonly CohortCount[]) => cohortOf(counts).groups.map(({ sex, ages, spread }) => `${sex} ${ages.label} ${spread.n}`);

describe('quantiles of what was counted', () => {
  it('are those of R, type 7: quantile(1:10) is 1, 3.25, 5.5, 7.75, 10 (help page of R, from memory)', () => {
    const ten = Array.from({ length: 10 }, (_, at) => ({ value: at + 1, n: 1 }));
    expect([0, 0.25, 0.5, 0.75, 1].map((p) => quantile(ten, p))).toEqual([1, 3.25, 5.5, 7.75, 10]);
  });

  it('are the same counted as listed, and between the two neighbours of another definition (simple-statistics 7.12)', () => {
    let seed = 7;
    const next = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
    for (let round = 0; round < 40; round += 1) {
      const values = Array.from({ length: 2 + Math.floor(next() * 200) }, () => Math.round(90 + next() * 40));
      const counted = [...new Set(values)].map((value) => ({ value, n: values.filter((v) => v === value).length }));
      const one = values.map((value) => ({ value, n: 1 }));
      const sorted = [...values].sort((a, b) => a - b);
      for (const p of [0.1, 0.25, 0.5, 0.75, 0.9]) {
        expect(quantile(counted, p)).toBe(quantile(one, p));
        const place = sorted.length * p;
        const [below, above] = [sorted[Math.max(0, Math.floor(place) - 1)]!, sorted[Math.min(sorted.length - 1, Math.ceil(place))]!];
        expect(listed(values, p) >= below && listed(values, p) <= above).toBeTrue();
        expect(quantile(counted, p) >= below && quantile(counted, p) <= above).toBeTrue();
      }
      expect(quantile(counted, 0.5)).toBe(listed(values, 0.5));
    }
  });

  it('give a standard deviation that one odd person does not move', () => {
    // The middle half of a normal distribution with sd 10 is 13.49 wide: 2 × 0.67449 (table of the normal distribution).
    const normal = { n: 100, p10: 0, q1: 113.255, median: 120, q3: 126.745, p90: 0 };
    expect(robustSd(normal)).toBe(10);
    const group = Array.from({ length: 99 }, (_, at) => ({ value: 100 + (at % 33), n: 1 }));
    const odd = [...group, { value: -300, n: 1 }];
    expect(Math.abs(robustSd(groupSpread(odd)) - robustSd(groupSpread(group)))).toBeLessThan(0.5);
    expect(() => quantile([], 0.5)).toThrowError(RangeError);
  });
});

describe('a clinic’s own people', () => {
  it('are told of from twenty on, and not of nineteen', () => {
    expect(said(people(19))).toEqual([]);
    expect(said(people(20))).toEqual(['female 40–59 years 20']);
  });

  it('are parted one way only: what is too small is never what is left of something larger', () => {
    expect(said([...people(25), ...people(3, { sex: 'male' })])).toEqual(['female 40–59 years 25']);
    // No sex is enough by itself: both together, and nobody by sex.
    expect(said([...people(12), ...people(11, { sex: 'male' }), ...people(8, { age: 3 })])).toEqual(['any 40–59 years 23']);
    // No age is: adults together, and nobody who is still growing.
    expect(said([...people(12), ...people(9, { age: 3 }), ...people(15, { age: 0 })])).toEqual(['any 20 years and more 21']);
    expect(said(people(40, { sex: 'unknown' }))).toEqual(['any 40–59 years 40']);
  });

  it('never tell of a group under twenty, whoever comes', () => {
    let seed = 11;
    const next = (below: number) => Math.floor(((seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647) * below);
    for (let round = 0; round < 300; round += 1) {
      const counts = COHORT_AGES.flatMap((_, age) =>
        (['female', 'male', 'unknown'] as const).flatMap((sex) => people(next(30), { age, sex, examiner: next(2) ? 'wren' : 'rook' })),
      );
      const { groups, examiners } = cohortOf(counts);
      for (const { spread } of groups) expect(spread.n).toBeGreaterThanOrEqual(20);
      for (const { n } of examiners) expect(n).toBeGreaterThanOrEqual(20);
      // Everybody is in one group at the most.
      expect(groups.reduce((sum, { spread }) => sum + spread.n, 0)).toBeLessThanOrEqual(counts.length);
      const keys = new Set(groups.map(({ sex, ages }) => `${sex} ${ages.from}`));
      expect(keys.size).toBe(groups.length);
      expect(new Set(groups.map(({ sex }) => sex === 'any')).size).toBeLessThanOrEqual(1);
    }
  });

  it('show by how much examiners lie apart, within groups, and nothing of one alone', () => {
    const wren = people(40, { value: 130 });
    const rook = people(25, { examiner: 'rook', value: 124 });
    const { examiners } = cohortOf([...wren, ...rook, ...people(5, { examiner: 'perrin', value: 90 })]);
    expect(examiners).toEqual([
      { examiner: 'rook', n: 25, difference: -6 },
      { examiner: 'wren', n: 40, difference: 0 },
    ]);
    expect(cohortOf(wren).examiners).toEqual([]);
  });

  it('are a norm set like any other, flagged, that comes back from its table', () => {
    const set = cohortNormSet('2026-11-27', [{ way: KNEE, groups: cohortOf(people(41)).groups }]);
    expect(set.entries).toEqual([
      jasmine.objectContaining({
        motion: 'knee.flexion',
        sex: 'female',
        ages: { ...COHORT_AGES[2] },
        value: { kind: 'distribution', mean: 140, sd: 14.83 },
        confidence: 'low',
        note: 'middle of 41 people, spread of the middle half',
      }),
    ]);
    expect(set.source.cite).toContain('not a sample of the healthy');
    expect(protocolOfId(KNEE.protocol)).toBeDefined();
    const back = normSetFromRows(
      normSetToRows(set),
      NORM_SETS.map(({ id }) => id),
    );
    expect(back.ok && back.set).toEqual(set);
    // All alike is no spread: nothing would be too far from it.
    expect(cohortNormSet('2026-11-27', [{ way: KNEE, groups: cohortOf(people(30, { value: 140 })).groups }]).entries).toEqual([]);
  });

  it('after a procedure stand beside the usual course of the middle of the week', () => {
    const counts = (n: number) => Array.from({ length: n }, (_, at) => ({ value: 90 + at, n: 1 }));
    const weeks = outcomeOf('knee-replacement', KNEE, [
      { week: 12, counts: counts(21) },
      { week: 6, counts: counts(19) },
      { week: 5, counts: counts(20) },
    ]);
    // 90 at week 2 to 105 at week 6, from 105 to 110 there (milestones of the course, from memory): 103.125 half a week before.
    expect(weeks.map(({ week, spread, usual }) => [week, spread.n, spread.median, usual?.low])).toEqual([
      [5, 20, 99.5, 103.125],
      [12, 21, 100, undefined],
    ]);
    expect(outcomeOf('nothing-known', KNEE, [{ week: 5, counts: counts(20) }])[0]?.usual).toBeNull();
  });
});
