import type { Measurement, Session } from '../assessment.js';
import { COURSES } from '../course/index.js';
import { addWeeks } from '../days.js';
import { errorSourceWords } from '../error/index.js';
import { normQuery } from '../finding/index.js';
import { judgingNorm, NORM_SETS } from '../norms/index.js';
import { PROCEDURES } from '../procedure/index.js';
import {
  apartShort,
  apartWords,
  changeAt,
  changeWord,
  courseWords,
  headline,
  projectionWords,
  inWeeks,
  goalOf,
  goalWords,
  notJoinedWords,
  progressOf,
  rateWords,
  type Goal,
  type When,
} from './index.js';

const SURGERY = '2026-08-03';
const knee = (over: Partial<Measurement>, end: number): Measurement => ({
  motion: 'knee.flexion',
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  examiner: 'Wren',
  ...over,
});
const visit = (week: number, ...measurements: Measurement[]): Session => ({ assessedOn: addWeeks(SURGERY, week), measurements });
const person = { birthDate: '1959-05-02', sex: 'male' } as const;
const context = { person, involvedSide: 'left', operation: { id: 'knee-replacement', on: SURGERY } } as const;
const course = [
  [1, 62],
  [2, 74],
  [3, 83],
  [4, 90],
  [6, 98],
  [8, 104],
  [10, 106],
  [12, 106],
] as const;
const eight = course.map(([week, end]) => visit(week, knee({}, end), knee({ side: 'right' }, 132)));
const left = (sessions: readonly Session[], more = {}) => progressOf(sessions, { ...context, ...more }).find((s) => s.side === 'left')!;

describe('progress over eight visits after a knee replacement', () => {
  it('uses the error published for knees after replacement, and finds the gain real', () => {
    const series = left(eight);
    expect(errorSourceWords(series.errorSource)).toContain('Stratford');
    expect(series.sinceFirst).toEqual(jasmine.objectContaining({ change: 44, verdict: 'more' }));
    expect(series.sinceFirst!.mdc).toBeCloseTo(1.96 * Math.SQRT2 * 4.1, 9);
    const { errorSource, ...sinceFirst } = series.sinceFirst!;
    expect(errorSourceWords(errorSource)).toContain('Stratford');
    expect(changeAt(series, 0)).toEqual(sinceFirst);
    expect(changeAt(series, 6)).toEqual(jasmine.objectContaining({ before: series.points[6]!.value, now: series.points[7]!.value }));
    expect([changeAt(series, 7), changeAt(series, -1)]).toEqual([null, null]);
  });

  it('is behind the usual course at first and on it later', () => {
    expect(left(eight).course!.standings).toEqual(['behind', 'behind', 'behind', 'on', 'on', 'on', 'on', 'on']);
    expect(left(eight).course!.points.map((p) => [p.week, p.low, p.high])).toEqual([
      [0.3, 70, 90],
      [2, 90, jasmine.any(Number)],
      [6, 105, 110],
      [12, 110, 120],
    ] as never);
  });

  it('names the source of the course with how sure it is, and keeps what hurt with the readings', () => {
    const { course, points } = left(eight);
    expect(course!.source).toMatch(/^Source: .+ \(from memory, confidence .+\)\. /);
    const painful = left([visit(1, knee({ pain: 6 }, 90)), visit(3, knee({ pain: 0 }, 95)), visit(5, knee({}, 100))]);
    expect(painful.points.map(({ pain }) => pain)).toEqual([6, 0, null]);
    expect(points.length).toBe(8);
  });

  it('has stopped moving short of a goal set by hand, and the goal is not in sight or far', () => {
    const key = left(eight).key;
    const series = left(eight, { goals: new Map([[key, { source: 'hand', value: 118, note: 'surgeon' }]]) });
    expect(goalWords(series.goal!, 'knee.flexion')).toBe('118° set by hand (surgeon)');
    expect(series.plateau).toEqual(jasmine.objectContaining({ visits: 4, weeks: 6 }));
    expect(rateWords(series.recent!, 'knee.flexion')).toMatch(/a week, between −/);
  });

  it('has stopped moving at no goal that is reached or within error, and short of one that is not', () => {
    const key = left(eight).key;
    const goal = (value: number) => left(eight, { goals: new Map([[key, { source: 'hand' as const, value }]]) });
    expect([100, 108, 118].map((value) => [goal(value).projection!.kind, goal(value).plateau === null])).toEqual([
      ['reached', true],
      ['within-error', true],
      ['not-told', false],
    ]);
    expect(left(eight).plateau).not.toBeNull();
  });

  it('takes the other side as goal, less what was agreed; not by itself after a replacement', () => {
    expect(left(eight).goal).toBeNull();
    expect(left(eight, { operation: { id: 'meniscus-repair', on: SURGERY } }).goal!.value).toBe(132);
    const key = left(eight).key;
    const agreed = left(eight, { goals: new Map([[key, { source: 'other-side', less: 14 }]]) });
    expect(goalWords(agreed.goal!, 'knee.flexion')).toBe('118° from the other side less 14°');
    // Only a side that is sound is a goal.
    const asked = (involvedSide: 'left' | 'right' | 'both' | undefined) =>
      left(eight, { involvedSide, goals: new Map([[key, { source: 'other-side' as const }]]) });
    expect(['left', undefined].map((side) => asked(side as 'left').goal?.value)).toEqual([132, 132]);
    expect((['right', 'both'] as const).map((side) => asked(side).noGoal)).toEqual(
      ['right', 'both'].map(() => 'the other side is a patient itself: it is no goal'),
    );
  });

  it('takes a norm that fits the reading as goal, by its name', () => {
    const key = left(eight).key;
    const { goal } = left(eight, { normOrder: NORM_SETS, goals: new Map([[key, { source: 'norm' }]]) });
    const judging = judgingNorm(NORM_SETS, normQuery(left(eight), person.sex, 67), 106, 3);
    expect(goal).toEqual(jasmine.objectContaining({ source: 'norm', value: judging!.expected, of: judging!.setName }));
  });

  it('keeps another examiner’s reading with its larger error, out of the trend', () => {
    const sessions = [...eight.slice(0, 4), visit(5, knee({ examiner: 'Rook' }, 101)), ...eight.slice(5)];
    const series = left(sessions);
    const odd = series.points[4]!;
    expect(apartWords(odd)).toBe('another examiner (Rook)');
    expect(odd.sem).toBe(5);
    expect(series.trend!.visits).toBe(7);
    const tilted = left([...eight.slice(0, 7), visit(12, knee({ instrument: 'inclinometer' }, 106))]).points[7]!;
    expect([apartWords(tilted), apartShort(tilted)]).toEqual(['another instrument (inclinometer)', 'another instrument']);
    expect([apartShort(left(eight).points[7]!), apartShort({ ...tilted, apart: 'other-examiner' })]).toEqual(['', 'another examiner']);
  });

  it('never joins another protocol, and says so', () => {
    const series = progressOf([...eight, visit(13, knee({ position: 'prone' }, 95))], context);
    const supine = series.find((s) => s.side === 'left' && s.position === 'supine')!;
    expect(supine.points.length).toBe(8);
    expect(supine.notJoined).toEqual([{ protocol: 'knee.flexion/prone', on: [visit(13).assessedOn] }]);
    expect(notJoinedWords(supine.notJoined[0]!)).toContain('a different thing, not joined');
  });

  it('uses the clinic’s own error for a change that was within the default one', () => {
    const sessions = [visit(10, knee({ side: 'right' }, 128)), visit(12, knee({ side: 'right' }, 132))];
    const change = (own: Parameters<typeof progressOf>[1]['own']) => progressOf(sessions, { person, own })[0]!.sinceLast!;
    expect(change([]).verdict).toBe('within-error');
    const own = {
      motion: 'knee.flexion',
      instrument: 'goniometer',
      protocol: 'knee.flexion/supine',
      examiners: 'same',
      sem: 1.2,
      subjects: 12,
      raters: 2,
      adoptedOn: '2026-11-01',
    } as const;
    expect(change([own]).verdict).toBe('more');
    expect(errorSourceWords(change([own]).errorSource)).toContain('own study, 12 people × 2 repeats');
    expect(change([{ ...own, protocol: 'knee.flexion/prone' }]).verdict).toBe('within-error');
  });
});

describe('progress in words', () => {
  const when = inWeeks(SURGERY);

  it('says how much better, since when nothing moved, where it stands in the course, and about the goal', () => {
    const key = left(eight).key;
    const series = left(eight, { goals: new Map([[key, { source: 'hand', value: 120 }]]) });
    expect(headline(series, when)).toBe('is 44° better than in week 1, with no real change since week 6');
    expect(courseWords(series, when)).toBe('On the usual course since week 4, behind it before.');
    expect(projectionWords(series, when)).toMatch(
      /^It is not yet told from standing still, so no day is told for the goal: \+1\.2° a week, between −/,
    );
    const early = left(eight.slice(0, 5), { goals: new Map([[key, { source: 'hand', value: 120 }]]) });
    expect(projectionWords(early, when)).toMatch(
      /^At this rate the goal is met about week \d+ \(week \d+ at the earliest, (week \d+ at the latest|perhaps never)\): \+/,
    );
  });

  it('has a word for every change', () => {
    const words = (verdict: Parameters<typeof changeWord>[0]['verdict'], better: Parameters<typeof changeWord>[0]['better']) =>
      changeWord({ verdict, better });
    expect([
      words('within-error', 'more'),
      words('more', 'more'),
      words('less', 'more'),
      words('less', 'less'),
      words('more', 'neither'),
    ]).toEqual(['within error', 'better', 'worse', 'better', 'more']);
  });

  it('calls a change within error, and less better where less is good', () => {
    const plain: When = { unit: 'days', words: (on) => on };
    const two = left([visit(1, knee({}, 90)), visit(3, knee({}, 94))]);
    const better = left([visit(1, knee({}, 90)), visit(3, knee({}, 120))]);
    expect(headline(better, plain)).toBe('is 30° better than on 2026-08-10');
    expect(headline(better, when)).toBe('is 30° better than in week 1');
    expect(headline(two, plain)).toBe('has not really changed since 2026-08-10: +4°, within measuring error');
    expect(headline(left([visit(1, knee({}, 90))]), plain)).toContain('one reading so far');
    expect([
      changeWord({ verdict: 'less', better: 'less' }),
      changeWord({ verdict: 'less', better: 'more' }),
      changeWord({ verdict: 'less', better: 'neither' }),
    ]).toEqual(['better', 'worse', 'less']);
  });

  it('names the day of the goal with its earliest and latest', () => {
    const rising = [1, 2, 3, 4].map((week) => visit(week, knee({}, 50 + 12 * week)));
    const key = left(rising).key;
    const words = projectionWords(left(rising, { goals: new Map([[key, { source: 'hand', value: 125 }]]) }), when);
    expect(words).toMatch(/met about week 6 \(week 5 at the earliest, week \d+ at the latest\)/);
    expect(projectionWords(left(rising, { goals: new Map([[key, { source: 'hand', value: 90 }]]) }), when)).toBe('The goal is reached.');
    expect(projectionWords(left(eight), when)).toBe('');
  });
});

describe('usual courses', () => {
  it('are of procedures that an episode can name', () => {
    const known = PROCEDURES.map(({ id }) => id);
    for (const { procedure } of COURSES) expect(known).toContain(procedure);
  });
});

describe('goals', () => {
  const ground = { motion: 'knee.flexion', otherSide: 132, otherSideInvolved: false } as const;
  it('come from a task or a norm, and say why they cannot be had', () => {
    const chair = goalOf({ source: 'task', task: 'rising from a chair' }, ground);
    expect(chair).toEqual({ source: 'task', value: 93, of: 'rising from a chair' });
    expect(goalWords(chair as Goal, 'knee.flexion')).toBe('93° for rising from a chair');
    expect(goalOf({ source: 'norm' }, { ...ground, norm: { expected: 141.2, name: 'Some set' } })).toEqual(
      jasmine.objectContaining({ value: 141.2 }),
    );
    expect(goalOf({ source: 'norm' }, ground)).toEqual({ why: jasmine.stringContaining('no norm set') as never });
    expect(goalOf({ source: 'other-side' }, { ...ground, otherSideInvolved: true })).toEqual({
      why: jasmine.stringContaining('no goal') as never,
    });
    expect(goalOf({ source: 'task', task: 'grasping' }, ground)).toEqual({
      why: jasmine.stringContaining('nothing of this motion') as never,
    });
  });
});
