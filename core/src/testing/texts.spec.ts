import { INSTRUMENTS } from '../terms.js';
import { MOTIONS, PROTOCOLS } from '../catalogue/index.js';
import { COURSES } from '../course/index.js';
import { errorOf, errorSourceWords, ICC_FORMS, iccWord, ICC_WORDS, PUBLISHED_ERRORS, semOf } from '../error/index.js';
import { jointOf } from '../finding/body.js';
import { FLOORS } from '../finding/floors.js';
import { KINDS } from '../finding/kinds.js';
import { MOBILITY_ITEMS } from '../finding/mobility.js';
import { RANKING_NAMES } from '../finding/rankings.js';
import { DEFAULT_THRESHOLDS } from '../finding/types.js';
import { secondsFor } from '../plan/minutes.js';
import { assumedTurn } from '../plan/station.js';
import { CAPSULAR_PATTERNS, FROM_THE_GROUND, jointsApart, TELLING_END_FEELS, TWO_JOINT_PAIRS } from '../finding/index.js';
import { normSetToRows } from '../exchange/norm-rows.js';
import { NORM_SETS, TASK_NEEDS } from '../norms/index.js';
import { recordedLines } from './recorded.js';
import { CAUTIONS, EXAM_SETS, NOT_A_DIAGNOSIS, STATIONS, stationWords, STOP_DURING, turnWords } from '../plan/index.js';

const named = (of: object): string =>
  Object.entries(of)
    .map(
      ([name, value]) =>
        `${name}: ${Array.isArray(value) ? value.join(' ') : typeof value === 'object' ? JSON.stringify(value) : String(value)}`,
    )
    .join(' | ');

/** What is said and asked for safety's sake, and the small tables that rules are made of, a line each. */
const LINES: readonly string[] = [
  NOT_A_DIAGNOSIS,
  STOP_DURING,
  ...CAUTIONS.map(named),
  ...Object.entries(TELLING_END_FEELS).map(([felt, of]) => `${felt} | ${named(of)}`),
  ...EXAM_SETS.map(
    ({ id, name, items }) =>
      `${id} | ${name} | ${items.map(({ protocol, digit }) => [protocol, digit].filter(Boolean).join(' ')).join(', ')}`,
  ),
  ...CAPSULAR_PATTERNS.map(({ joint, words, steps, equalWithin, also, source }) =>
    named({ joint, words, steps: steps.map((step) => step.join('=')).join(' > '), equalWithin, also: also ?? [], source: source.cite }),
  ),
  ...TWO_JOINT_PAIRS.map(named),
  ...PUBLISHED_ERRORS.map((row) => `${named(row)} | SEM ${semOf(row).toFixed(3)}`),
  ...TASK_NEEDS.map(named),
  ...STATIONS.map((station) => `${station} | ${stationWords(station)} | ${turnWords(station)}`),
  ...INSTRUMENTS.flatMap((instrument) =>
    [true, false].map((same) => {
      const { sem, source } = errorOf({ motion: 'thoracic.rotation', instrument, value: 40 }, same);
      return `${instrument} | ${sem.toFixed(3)} | ${errorSourceWords(source)} | ${named(source)}`;
    }),
  ),
  ...STATIONS.flatMap((from) => STATIONS.map((to) => `${from} > ${to} | ${turnWords(to, from)} | ${assumedTurn(from, to)} s`)),
  ...FLOORS.map(named),
  ...Object.entries(KINDS).map(
    ([id, { stage, rank, mark, joins = false, aside = false, telling = false, sum }]) =>
      `${id} | ${named({ stage, rank, mark, joins, aside, telling, sum: sum?.at ?? '' })}`,
  ),
  ...MOBILITY_ITEMS.map(named),
  ...INSTRUMENTS.flatMap((instrument) => {
    const protocol = PROTOCOLS.find((p) => p.instruments[0] === instrument);
    return protocol ? [`${instrument} | ${secondsFor(protocol, 1)} s once, ${secondsFor(protocol, 3)} s three times`] : [];
  }),
  ...COURSES.map(({ milestones, ...course }) => `${named(course)} | ${milestones.map(named).join('; ')}`),
  ...ICC_FORMS.map((form) => `ICC(${form}) | ${ICC_WORDS[form]}`),
  ...[0, 0.49, 0.5, 0.74, 0.75, 0.89, 0.9, 1].map((icc) => `ICC ${icc} | ${iccWord({ low: icc })}`),
  ...Object.entries(RANKING_NAMES).map(([id, name]) => `${id} | ${name}`),
  named(DEFAULT_THRESHOLDS),
  ...MOTIONS.map(({ id }) => `${id} | counts to ${jointOf(id)}`),
  ...FROM_THE_GROUND.map((from) => `${from} to: ${FROM_THE_GROUND.map((to) => `${to} ${jointsApart(from, to)}`).join(', ')}`),
];

/** Every norm set as the table in which it is written for others. */
const NORMS: readonly string[] = NORM_SETS.flatMap((set) => normSetToRows(set).map((row) => row.join(' | ').trimEnd()));

describe('texts and small tables', () => {
  it('are what was looked over', () => {
    expect(LINES).toEqual(recordedLines(new URL('texts.txt', import.meta.url), LINES));
  });

  it('of norms too: beside the second entry of their figures, every note, age, source and confidence', () => {
    expect(NORMS).toEqual(recordedLines(new URL('norms.txt', import.meta.url), NORMS));
  });
});
