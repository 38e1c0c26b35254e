import fc from 'fast-check';
import type { Session } from '../assessment.js';
import { progressOf, type ProgressSeries } from '../progress/index.js';
import {
  lineWords,
  ON_THE_WAY,
  QUEUE_GROUPS,
  QUEUE_KINDS,
  queueStandingOf,
  reasonWords,
  type QueueFacts,
  type QueueKind,
} from './index.js';

const TODAY = '2026-11-27';
const facts = (over: Partial<QueueFacts> = {}): QueueFacts => ({
  today: TODAY,
  dueOn: null,
  lastVisit: { on: '2026-11-20', isSigned: true, readings: 4 },
  late: 0,
  messages: [],
  series: [],
  ...over,
});
const kinds = (over: Partial<QueueFacts>): QueueKind[] => queueStandingOf(facts(over)).reasons.map(({ kind }) => kind);
const message = (over: object = {}) => ({ on: '2026-11-25', pain: null, swelling: null, worse: null, note: '', ...over });

/** Left knee flexion by weeks after a replacement on 1 September, goal by hand. */
function knee(values: readonly (readonly [day: string, value: number])[], goal = 118): ProgressSeries[] {
  const way = { motion: 'knee.flexion', side: 'left', mode: 'active', position: 'supine', instrument: 'goniometer' } as const;
  const sessions = values.map(([assessedOn, end]): Session => ({ assessedOn, measurements: [{ ...way, trials: [{ end }] }] }));
  const person = { birthDate: '1959-01-01', sex: 'male' } as const;
  const context = { person, involvedSide: 'left', operation: { id: 'knee-replacement', on: '2026-09-01' } } as const;
  const [first] = progressOf(sessions, context);
  return progressOf(sessions, { ...context, goals: new Map([[first!.key, { source: 'hand', value: goal }]]) });
}

describe('where somebody stands in the queue', () => {
  it('is on the way where nothing is wanted, and says the day they are due as the next', () => {
    const standing = queueStandingOf(facts({ dueOn: '2026-12-01' }));
    expect([standing.reasons, standing.urgency, standing.next]).toEqual([[], ON_THE_WAY, '2026-12-01']);
  });

  it('is due from the day on, and not before', () => {
    expect(kinds({ dueOn: '2026-11-28' })).toEqual([]);
    expect(kinds({ dueOn: TODAY })).toEqual(['due']);
  });

  it('is unfinished from the day after a visit that nobody signed', () => {
    expect(kinds({ lastVisit: { on: TODAY, isSigned: false, readings: 3 } })).toEqual([]);
    expect(queueStandingOf(facts({ lastVisit: { on: TODAY, isSigned: false, readings: 3 } })).next).toBe('2026-11-28');
    expect(kinds({ lastVisit: { on: '2026-11-26', isSigned: false, readings: 3 } })).toEqual(['unfinished']);
  });

  it('puts what somebody wrote first where it is worse, and last where it is only a note', () => {
    const all = kinds({ dueOn: '2026-11-01', late: 2, messages: [message({ worse: true, note: 'swollen since Monday' })] });
    expect(all).toEqual(['worse', 'review', 'due', 'wrote']);
    expect(kinds({ messages: [message({ pain: 5 })] })).toEqual([]);
    const [first] = queueStandingOf(facts({ messages: [message({ pain: 7 }), message({ on: '2026-11-23', swelling: true })] })).reasons;
    expect(reasonWords(first!)).toBe('wrote on 23 Nov 2026: it is more swollen, pain 7 of 10');
  });

  it('says what has not really changed, since when and how far from the goal', () => {
    const series = knee([
      ['2026-09-10', 60],
      ['2026-10-05', 100],
      ['2026-10-19', 101],
      ['2026-11-02', 100],
      ['2026-11-16', 102],
    ]);
    const standing = queueStandingOf(facts({ series }));
    const stuck = standing.reasons.find(({ kind }) => kind === 'stuck')!;
    expect(reasonWords(stuck)).toBe('no real change for 6 weeks, 16° short of the goal: Left knee flexion, active');
    expect(lineWords(standing.line!)).toBe('Left knee flexion, active 102°');
    expect(standing.line!.goal).toBe(118);
  });

  it('says nothing of a sound side that stands still, nor of one that nobody aims at', () => {
    const still = knee([
      ['2026-10-05', 131],
      ['2026-10-19', 132],
      ['2026-11-02', 131],
      ['2026-11-16', 131],
    ]).map((one) => ({ ...one, goal: null, projection: null, course: null }));
    const sound = still.map((one) => ({ ...one, side: 'right' as const }));
    const plateau = knee([
      ['2026-10-05', 100],
      ['2026-10-19', 101],
      ['2026-11-02', 100],
      ['2026-11-16', 101],
    ])[0]!.plateau;
    expect(kinds({ series: sound.map((one) => ({ ...one, plateau })), involvedSide: 'left' })).toEqual([]);
    expect(kinds({ series: still.map((one) => ({ ...one, plateau })), involvedSide: 'left' })).toEqual(['stuck']);
  });

  it('says that a goal is met where all that were aimed at are', () => {
    const series = knee([
      ['2026-10-05', 100],
      ['2026-11-16', 121],
    ]);
    const [met] = queueStandingOf(facts({ series })).reasons.filter(({ kind }) => kind === 'goal-met');
    expect(reasonWords(met!)).toBe('goal met: Left knee flexion, active, 121° of 118°');
    const other = knee([['2026-11-16', 90]]).map((one) => ({ ...one, side: 'right' as const }));
    expect(kinds({ series: [...series, ...other] })).not.toContain('goal-met');
  });

  it('says of what was written what is bad about it, and since when', () => {
    const says = (...messages: object[]) => {
      const [first] = queueStandingOf(facts({ messages: messages.map(message) })).reasons;
      return first?.kind === 'worse' ? [first.since, first.pain, ...first.says] : first?.kind;
    };
    expect(says({ pain: 6 })).toEqual(['2026-11-25', 6, 'pain']);
    expect(says({ pain: 5 })).toBeUndefined();
    expect(says({ worse: true, pain: 3 })).toEqual(['2026-11-25', null, 'worse']);
    expect(says({ swelling: true, on: '2026-11-22' }, { worse: true })).toEqual(['2026-11-22', null, 'worse', 'swelling']);
    expect(says({ worse: false, swelling: false, pain: 0, note: ' slept well ' })).toBe('wrote');
    const notes = [message({ note: 'second', on: '2026-11-26' }), message({ note: 'first', on: '2026-11-21' })];
    expect(queueStandingOf(facts({ messages: notes })).reasons).toEqual([{ kind: 'wrote', since: '2026-11-21', note: 'second' }]);
  });

  it('names of several that are behind the one that has been so longest, and draws it', () => {
    const behind = (side: 'left' | 'right', standings: readonly ('behind' | 'on')[]): ProgressSeries => {
      const [one] = knee([
        ['2026-10-05', 60],
        ['2026-10-19', 61],
        ['2026-11-16', 62],
      ]);
      return { ...one!, side, plateau: null, goal: null, projection: null, course: { ...one!.course!, standing: 'behind', standings } };
    };
    const series = [behind('right', ['on', 'on', 'behind']), behind('left', ['on', 'behind', 'behind'])];
    const standing = queueStandingOf(facts({ series }));
    expect(standing.reasons).toEqual([{ kind: 'behind', since: '2026-10-19', name: 'Left knee flexion, active' }]);
    expect(reasonWords(standing.reasons[0]!)).toBe('behind the usual course since 19 Oct 2026: Left knee flexion, active');
    expect(standing.line!.name).toBe('Left knee flexion, active');
    expect(standing.since).toBe('2026-10-19');
    expect(standing.urgency).toBe(QUEUE_KINDS.behind.urgency);
  });

  it('draws the one that is aimed at and was read most often, with its last eight readings', () => {
    const days = Array.from({ length: 10 }, (_, at) => `2026-10-${String(at + 10)}`);
    const long = knee(days.map((day, at) => [day, 60 + at] as const)).map((one) => ({ ...one, goal: null, projection: null }));
    const aimed = knee([['2026-11-16', 90]]).map((one) => ({ ...one, side: 'right' as const }));
    const quiet = (series: readonly ProgressSeries[]) =>
      queueStandingOf(facts({ series: series.map((one) => ({ ...one, isCurrent: false })) })).line;
    expect(quiet([...long, ...aimed])!.name).toBe('Right knee flexion, active');
    expect(quiet(long)!.points.map(({ value }) => value)).toEqual([62, 63, 64, 65, 66, 67, 68, 69]);
    expect(quiet([...aimed.map((one) => ({ ...one, goal: null })), ...long])!.goal).toBeNull();
    expect(quiet([...aimed.map((one) => ({ ...one, goal: null })), ...long])!.name).toBe('Left knee flexion, active');
    expect(quiet([])).toBeNull();
  });

  it('says every reason in words', () => {
    const words = [
      { kind: 'worse', since: '2026-11-23', says: ['worse', 'pain'], pain: 8 },
      { kind: 'unfinished', since: '2026-11-23', readings: 3 },
      { kind: 'review', since: '2026-11-23', entries: 1 },
      { kind: 'review', since: '2026-11-23', entries: 2 },
      { kind: 'stuck', since: '2026-10-05', name: 'Left knee flexion, active', weeks: 6, missing: null, motion: 'knee.flexion' },
      { kind: 'wrote', since: '2026-11-23', note: 'stairs are hard' },
      { kind: 'due', since: '2026-11-23' },
    ] as const;
    expect(words.map((reason) => reasonWords(reason))).toEqual([
      'wrote on 23 Nov 2026: it is worse, pain 8 of 10',
      'visit of 23 Nov 2026 is not signed',
      '1 entry came after the signature and waits',
      '2 entries came after the signature and wait',
      'no real change for 6 weeks: Left knee flexion, active',
      'wrote: “stairs are hard”',
      'recheck due 23 Nov 2026',
    ]);
  });

  it('tells nothing from what was not measured at the last visit', () => {
    const old = knee([
      ['2026-10-05', 100],
      ['2026-11-16', 121],
    ]).map((one) => ({ ...one, isCurrent: false }));
    expect(kinds({ series: old })).toEqual([]);
  });

  it('has every kind in a group, in an order without a tie, between the first and those on their way', () => {
    const all = Object.values(QUEUE_KINDS);
    expect(new Set(all.map(({ urgency }) => urgency)).size).toBe(all.length);
    expect(all.every(({ urgency, group }) => urgency >= 0 && urgency < ON_THE_WAY && QUEUE_GROUPS.includes(group))).toBeTrue();
  });

  it('is never more urgent with less to say, and always told anew within a week', () => {
    const day = fc.integer({ min: -40, max: 40 }).map((n) => new Date(Date.parse(TODAY) + n * 86_400_000).toISOString().slice(0, 10));
    const anyFacts = fc.record({
      today: fc.constant(TODAY),
      dueOn: fc.option(day),
      lastVisit: fc.option(fc.record({ on: day, isSigned: fc.boolean(), readings: fc.nat(9) })),
      late: fc.nat(3),
      messages: fc.array(
        fc.record({
          on: day,
          pain: fc.option(fc.nat(10)),
          swelling: fc.option(fc.boolean()),
          worse: fc.option(fc.boolean()),
          note: fc.constantFrom('', 'stairs hurt', 'ÜÖ 1'),
        }),
        { maxLength: 4 },
      ),
      series: fc.constant([]),
    });
    fc.assert(
      fc.property(anyFacts, (some) => {
        const standing = queueStandingOf(some);
        const urgencies = standing.reasons.map(({ kind }) => QUEUE_KINDS[kind].urgency);
        expect(urgencies).toEqual([...urgencies].sort((a, b) => a - b));
        expect(standing.urgency).toBe(urgencies[0] ?? ON_THE_WAY);
        expect(standing.next > TODAY).toBeTrue();
        expect(standing.next <= '2026-12-04').toBeTrue();
        // Whoever has less to say is not more urgent.
        expect(queueStandingOf({ ...some, messages: [], late: 0 }).urgency).toBeGreaterThanOrEqual(standing.urgency);
        for (const reason of standing.reasons) expect(reasonWords(reason)).not.toContain('{');
      }),
    );
  });
});
