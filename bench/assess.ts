import * as formulajs from '@formulajs/formulajs';
import {
  BREAKDOWNS,
  findScreen,
  gradedScreens,
  DRILLS,
  EQUIPMENT,
  makeProgram,
  NO_LIMITS,
  reason,
  ageOn,
  allowedSides,
  assess,
  chooseNorm,
  DEFAULT_EXAM_SET,
  itemsOfSheet,
  motion,
  normQuery,
  NORM_SETS,
  planExam,
  PROTOCOLS,
  runSheet,
  type Assessment,
  type ItemDone,
  type ScreenDone,
  type Measurement,
  type NormEntry,
} from '@dial-gauge/core';
import { median, quantile } from 'simple-statistics';

const ROUNDS = 5;

/** Median and p95 of many runs, microseconds, of the quietest of five rounds: others use this machine as well. */
function timed(runs: number, doing: () => void): string {
  for (let i = 0; i < Math.ceil(runs / 10); i += 1) doing();
  const rounds = Array.from({ length: ROUNDS }, () => {
    const times = Array.from({ length: Math.ceil(runs / ROUNDS) }, () => {
      const start = performance.now();
      doing();
      return (performance.now() - start) * 1000;
    });
    return { median: median(times), p95: quantile(times, 0.95) };
  }).sort((a, b) => a.median - b.median);
  const [quietest, loudest] = [rounds[0]!, rounds[ROUNDS - 1]!];
  last = quietest.median;
  return `median ${last.toFixed(0)} µs, p95 ${quietest.p95.toFixed(0)} µs in the quietest of ${ROUNDS} rounds (median of the loudest ${loudest.median.toFixed(0)} µs), ${runs} runs`;
}
let last = 0;

/** A whole hip exam: six motions, both sides, active and passive, three trials each, with the visit before. */
const hips = (shift: number): Measurement[] =>
  runSheet(planExam({ items: itemsOfSheet(DEFAULT_EXAM_SET.items), involved: 'both' }).steps).flatMap((block) =>
    block.rows.flatMap((row, index) =>
      row.sides.map((side) => ({
        ...row,
        side,
        instrument: 'goniometer' as const,
        trials: [0, 1, 2].map((trial) => ({ end: 20 + index * 3 + trial + shift })),
        pain: index % 5 === 0 ? 3 : 0,
      })),
    ),
  );

const person = { birthDate: '1968-03-14', sex: 'female' } as const;
const hipExam: Assessment = {
  person,
  assessedOn: '2026-11-20',
  involvedSide: 'both',
  measurements: hips(0),
  previous: { assessedOn: '2026-10-20', measurements: hips(-6) },
};

/** One reading by every protocol that is read in degrees by a goniometer, and on, until there are 150. */
const whole: Measurement[] = PROTOCOLS.filter((p) => p.instruments.includes('goniometer'))
  .flatMap((p): Measurement[] =>
    allowedSides(motion(p.motion)).map((side) => ({
      motion: p.motion,
      protocol: p.id,
      digit: motion(p.motion).perDigit ? 3 : undefined,
      side,
      mode: p.modes[0]!,
      position: p.position,
      instrument: 'goniometer',
      trials: [{ end: Math.round(motion(p.motion).limits.max / 3) }],
    })),
  )
  .slice(0, 150);
const wholeBody: Assessment = { person, assessedOn: '2026-11-20', measurements: whole };

console.log(
  `assess(), ${hipExam.measurements.length} measurements × 3 trials with a visit before, ${assess(hipExam).findings.length} findings: ` +
    timed(2_000, () => assess(hipExam)),
);
const values = NORM_SETS.reduce((sum, set) => sum + set.entries.length, 0);
const comparisons = assess(wholeBody).measurements.reduce((sum, m) => sum + m.norms.length, 0);
console.log(
  `assess(), ${whole.length} measurements against all ${NORM_SETS.length} sets (${values} values, ${comparisons} comparisons): ` +
    timed(200, () => assess(wholeBody)),
);
const ours = last;

/*
 * The same look-ups as somebody with a spreadsheet makes them: a tab for every
 * set, AVERAGEIFS over its columns for every measurement. Only exact fits can
 * be asked that way; the nearest age, flags, z, agreement and sentences are
 * left out.
 */
const age = ageOn(person.birthDate, '2026-11-20');
function figureOf({ value }: NormEntry): number {
  if ('mean' in value) return value.mean;
  return value.kind === 'point' ? value.expected : value.kind === 'range' ? value.low : value.at;
}
const tabs = NORM_SETS.map((set) => {
  // A value for any position stands in a row of each: a criterion cannot say "this or any" in one.
  const rows = set.entries.flatMap((entry) =>
    entry.position === 'any'
      ? [...new Set(motion(entry.motion).protocols.map((p) => p.position))].map((position) => ({ ...entry, position }))
      : [entry],
  );
  const column = <T>(pick: (entry: NormEntry) => T): T[] => rows.map(pick);
  return {
    set,
    figures: column(figureOf),
    motion: column<string>((e) => e.motion),
    mode: column<string>((e) => e.mode),
    position: column<string>((e) => e.position),
    variant: column((e) => e.variant ?? 'usual'),
    sex: column<string>((e) => e.sex),
    from: column((e) => e.ages?.from ?? 0),
    to: column((e) => e.ages?.to ?? 999),
  };
});
type Query = ReturnType<typeof normQuery>;
const queries = whole.map((m) => normQuery(m, person.sex, age));
const conditions = (tab: (typeof tabs)[number], q: Query): unknown[] => [
  ...[tab.motion, q.motion, tab.mode, q.mode === 'active' ? '<>passive' : '<>active', tab.position, q.position],
  ...[tab.variant, q.variant ?? 'usual', tab.sex, '<>male'],
  ...[tab.from, `<=${age}`, tab.to, `>${age}`],
];
const lookUp = (tab: (typeof tabs)[number], q: Query): unknown => formulajs.AVERAGEIFS(tab.figures, ...conditions(tab, q));

// Where the spreadsheet finds a row, both must find the same figure.
let found = 0;
let same = 0;
for (const tab of tabs) {
  for (const query of queries) {
    if (formulajs.COUNTIFS(...conditions(tab, query)) === 0) continue;
    found += 1;
    const choice = chooseNorm(tab.set, query);
    if (choice?.flags.length === 0 && Math.abs(figureOf(choice.entry) - Number(lookUp(tab, query))) < 1e-9) same += 1;
  }
}
const spreadsheet = timed(20, () => {
  for (const tab of tabs) for (const query of queries) lookUp(tab, query);
});
console.log(
  `the look-ups alone by AVERAGEIFS of @formulajs/formulajs (MIT), ${whole.length} × ${tabs.length} tabs: ${spreadsheet}; ` +
    `${same} of its ${found} exact fits are ours too; assess() as a whole takes ${(ours / last).toFixed(3)} of that time`,
);

/** Four screens of one visit, each item once and short, a fault where there is one: every breakdown that a screen opens is open. */
const screens = ['patterns', 'loadingReadiness', 'squatCheck', 'hipSixWays'].map((id): ScreenDone => ({
  screen: id,
  screenedOn: '2026-11-20',
  items: findScreen(id)!.items.flatMap((item): ItemDone[] =>
    (item.views.length > 0 ? item.views : [undefined]).map((view) => ({
      item: item.id,
      ...(view ? { view } : {}),
      ...(item.sides === 'none' ? {} : { side: 'left' as const }),
      tries: [{ meets: false, faults: item.faults.filter((f) => !view || f.views.includes(view)).map((f) => f.id), pain: 0 }],
    })),
  ),
}));
const known = { graded: gradedScreens(screens), judgement: assess(wholeBody) };
const choosing = { limits: { ...NO_LIMITS, on: '2026-11-20' }, station: 'standing' } as const;
const opened = reason(known, choosing);
console.log(
  `next best test over ${opened.length} open breakdowns (${new Set(opened.map((r) => r.breakdown.pattern)).size} patterns of ${BREAKDOWNS.length}), ${whole.length} measurements and ${screens.length} screens: ` +
    timed(500, () => reason(known, choosing)),
);

const made = (minutesADay: number) =>
  makeProgram({
    judgement: known.judgement,
    reasoned: opened,
    person: { birthDate: '1984-05-02' },
    on: '2026-11-20',
    limits: { ...NO_LIMITS, on: '2026-11-20' },
    equipment: EQUIPMENT,
    minutesADay,
    painTolerated: 3,
    order: 'stages',
  });
for (const minutesADay of [10, 20, 40])
  console.log(
    `programme of ${DRILLS.length} drills for ${made(minutesADay).needs.length} needs in ${minutesADay} min a day: ${timed(200, () => made(minutesADay))}`,
  );
