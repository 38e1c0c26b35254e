import fc from 'fast-check';
import type { Measurement, Session } from '../assessment.js';
import { assess, draftSummary, saidOf } from '../finding/index.js';
import { queueStandingOf, reasonWords } from '../queue/index.js';
import { makeReport, type Block, type Report, type ReportFacts } from '../report/index.js';
import { limited } from '../testing/limits.js';
import { byChange, changeRank, headline, inWeeks, progressOf, worseningOf, type ProgressSeries } from './index.js';

const PERSON = { birthDate: '1972-03-09', sex: 'female' } as const;
const DAYS = ['2026-08-03', '2026-08-31', '2026-09-28', '2026-10-26', '2026-11-20'] as const;
const hip = (motion: 'hip.flexion' | 'hip.abduction', side: 'left' | 'right', end: number): Measurement => ({
  ...{ motion, side, mode: 'passive', position: 'supine', instrument: 'goniometer', trials: [{ end }], examiner: 'Wren' },
});
const visits = (...values: readonly (number | null)[]): Session[] =>
  values.map((value, at) => ({ assessedOn: DAYS[at]!, measurements: value === null ? [] : [hip('hip.flexion', 'left', value)] }));
const seriesOf = (sessions: readonly Session[]): ProgressSeries[] => progressOf(sessions, { person: PERSON });
const worse = (...values: readonly (number | null)[]) => worseningOf(seriesOf(visits(...values))[0]!);

describe('a worsening', () => {
  it('is told since the last visit, whatever was gained since the first', () => {
    expect(worse(70, 108, 90)).toEqual(jasmine.objectContaining({ since: 'last', on: DAYS[1] }) as never);
    expect(worse(70, 108, 90)!.size).toBe(18);
    expect(worse(70, 108, 90)!.before).toBe(108);
  });

  it('is told since the best reading where each step alone is within measuring error', () => {
    expect(worse(80, 112, 107, 102, 97)).toEqual(jasmine.objectContaining({ since: 'best', on: DAYS[1] }) as never);
    expect(worse(112, 80, 112, 107, 100)).toEqual(jasmine.objectContaining({ since: 'best', on: DAYS[2] }) as never);
  });

  it('is not told of one reading, of a change within measuring error, nor of what was not measured at the last visit', () => {
    expect(worse(100)).toBeNull();
    expect(worse(100, 97)).toBeNull();
    expect(worse(100, 120)).toBeNull();
    expect(
      worseningOf(seriesOf([...visits(100, 60), { assessedOn: DAYS[2], measurements: [hip('hip.abduction', 'left', 30)] }])[0]!),
    ).toBeNull();
  });

  it('is more where less is better, and nothing where neither direction is good', () => {
    const cm = (motion: Measurement['motion'], value: number): Measurement => ({
      ...{ motion, side: 'left', mode: 'passive', position: 'supine', instrument: 'tape', trials: [{ value }] },
    });
    const wall = (...values: readonly number[]) =>
      worseningOf(
        seriesOf(
          values.map((value, at) => ({
            assessedOn: DAYS[at]!,
            measurements: [{ ...cm('distance.heelToButtock', value), position: 'prone' }],
          })),
        )[0]!,
      );
    expect(wall(20, 4, 22)?.since).toBe('last');
    expect(wall(20, 22, 4)).toBeNull();
    const girth = seriesOf([40, 48].map((value, at) => ({ assessedOn: DAYS[at]!, measurements: [cm('girth.thigh', value)] })));
    expect(worseningOf(girth[0]!)).toBeNull();
  });

  it('comes first, then what got better, what did not change, what was read once, and what was not measured', () => {
    const sessions: Session[] = [
      {
        assessedOn: DAYS[0],
        measurements: [hip('hip.abduction', 'left', 40), hip('hip.flexion', 'right', 80), hip('hip.flexion', 'left', 110)],
      },
      {
        assessedOn: DAYS[1],
        measurements: [hip('hip.abduction', 'right', 40), hip('hip.flexion', 'right', 115), hip('hip.flexion', 'left', 80)],
      },
    ];
    const same: Session[] = sessions.map(({ assessedOn, measurements }) => ({
      assessedOn,
      measurements: [...measurements, { ...hip('hip.flexion', 'left', 90), mode: 'active' }],
    }));
    const ordered = byChange([...seriesOf(same)].reverse());
    expect(ordered.map((one) => changeRank(one))).toEqual([0, 2, 3, 4, 5]);
    expect(ordered[0]!.side).toBe('left');
    expect(ordered.map(({ motion, side, mode }) => `${motion} ${side} ${mode}`)).toEqual([
      'hip.flexion left passive',
      'hip.flexion right passive',
      'hip.flexion left active',
      'hip.abduction right passive',
      'hip.abduction left passive',
    ]);
  });

  it('is said first in the headline, with what became of it since the first visit', () => {
    const when = inWeeks('2026-08-03');
    expect(headline(seriesOf(visits(70, 108, 90))[0]!, when)).toBe('is 18° worse than in week 4; +20° since week 0, better');
    expect(headline(seriesOf(visits(108, 90))[0]!, when)).toBe('is 18° worse than in week 0');
    expect(headline(seriesOf(visits(70, 108))[0]!, when)).toBe('is 38° better than in week 0');
  });
});

/** The first lines of a page that say something of change or findings; what it is about and headings are none. */
function firstLines({ blocks }: Report): string[] {
  const lines = blocks.flatMap((block: Block) => {
    if (block.kind === 'heading' || block.kind === 'facts') return [];
    if (block.kind === 'list') return block.items;
    if (block.kind === 'table') return block.rows.map((row) => row.join(' '));
    return 'text' in block ? block.text.split('\n') : [];
  });
  return lines.slice(0, 3);
}

const OTHERS = [
  ['hip.flexion', 'right'],
  ['hip.abduction', 'left'],
  ['hip.abduction', 'right'],
] as const;

describe('a real worsening is in the first three lines', () => {
  /** One motion falls at the last visit by more than its error, while others rise; all of them hurt. */
  const course = fc.record({
    first: fc.integer({ min: 40, max: 80 }),
    best: fc.integer({ min: 100, max: 120 }),
    lost: fc.integer({ min: 20, max: 40 }),
    gains: fc.array(fc.integer({ min: 0, max: 15 }), { minLength: 3, maxLength: 3 }),
    pain: fc.integer({ min: 0, max: 8 }),
  });

  it('of every output: findings, summary, queue, referrer, patient, evidence, change', () => {
    fc.assert(
      fc.property(course, ({ first, best, lost, gains, pain }) => {
        const ends = [first, best, best - lost];
        const sessions = ends.map((end, at): Session => ({
          assessedOn: DAYS[at]!,
          measurements: [
            ...OTHERS.map(([motion, side], nth): Measurement => ({ ...hip(motion, side, 15 + at * gains[nth]!), pain })),
            hip('hip.flexion', 'left', end),
          ],
        }));
        const [, previous, last] = sessions;
        const series = seriesOf(sessions);
        const judgement = assess({ person: PERSON, assessedOn: last!.assessedOn, measurements: last!.measurements, previous: previous! });
        const summary = draftSummary(judgement);
        const said = judgement.findings.slice(0, 3).map((finding) => `${saidOf(finding).subject} ${saidOf(finding).verdict}`);
        const facts: ReportFacts = {
          ...{
            clinic: 'Saltmarsh Lane Physiotherapy',
            complaint: 'Stiff',
            wanted: '',
            operationWords: '',
            examiner: 'Wren',
            visitNumber: 3,
          },
          person: { givenName: 'Osric', familyName: 'Ferrier', birthDate: PERSON.birthDate, occupation: '' },
          limits: limited([], last!.assessedOn),
          assessedOn: last!.assessedOn,
          ...{ judgement, summary, series, firstOn: DAYS[0], program: null, signed: null },
        };
        const queue = queueStandingOf({
          ...{ today: last!.assessedOn, dueOn: null, late: 0, messages: [], series },
          lastVisit: { on: last!.assessedOn, isSigned: true, readings: 4 },
        });
        const outputs: Readonly<Record<string, readonly string[]>> = {
          findings: said,
          summary: summary.split('\n').slice(0, 3),
          queue: queue.reasons.slice(0, 3).map((reason) => reasonWords(reason)),
          change: byChange(series)
            .slice(0, 3)
            .map((one) => `${one.side} ${one.motion} ${headline(one, inWeeks(DAYS[0]))}`),
          referrer: firstLines(makeReport('referrer', facts)),
          evidence: firstLines(makeReport('evidence', facts)),
          // The change table of the referrer begins with it too, and the page for the patient says it in careful words.
          patient: firstLines(makeReport('patient', facts)),
        };
        for (const [output, lines] of Object.entries(outputs)) {
          const says =
            output === 'patient'
              ? new RegExp(`left .*: ${best} degrees on .*, ${best - lost} degrees`)
              : new RegExp(`left hip.*${lost}°`, 'is');
          expect(lines.some((line) => says.test(line) || (output === 'queue' && line.includes(`${lost}° worse than on`))))
            .withContext(`${output}: ${lines.join(' | ')}`)
            .toBeTrue();
        }
        expect(queue.reasons[0]?.kind).toBe('lost');
        const table = makeReport('referrer', facts).blocks.flatMap((block) =>
          block.kind === 'table' && block.head.includes('Since last') ? [block.rows[0]!] : [],
        );
        expect(table[0]![0]).toBe('Left hip flexion, passive');
        expect(table[0]![5]).toContain('worse');
      }),
    );
  });
});
