import { limited } from '../testing/limits.js';
import { MOTIONS } from '../catalogue/index.js';
import { assess, kindOf } from '../finding/index.js';
import { DRILLS } from '../program/index.js';
import { progressOf } from '../progress/index.js';
import type { Measurement, Session } from '../assessment.js';
import { localeOf, speaking } from '../words/locale.js';
import { makeReport, plainDose, plainFigure, plainMotion, REPORT_KINDS, type Block, type Report, type ReportFacts } from './index.js';

const PERSON = { birthDate: '1959-03-12', sex: 'male' as const };
const knee = (
  motion: 'knee.flexion' | 'knee.extension',
  mode: 'active' | 'passive',
  end: number,
  side: 'left' | 'right' = 'left',
): Measurement => ({
  ...{ motion, side, mode, position: 'supine', instrument: 'goniometer', trials: [{ end }], examiner: 'Wren' },
});
const SESSIONS: Session[] = [
  {
    assessedOn: '2026-10-10',
    measurements: [knee('knee.flexion', 'active', 60), knee('knee.flexion', 'passive', 66), knee('knee.extension', 'passive', -15)],
  },
  {
    assessedOn: '2026-11-20',
    measurements: [knee('knee.flexion', 'active', 100), knee('knee.flexion', 'passive', 104), knee('knee.extension', 'passive', -14)],
  },
];
function facts(over: Partial<ReportFacts> = {}): ReportFacts {
  const last = SESSIONS[SESSIONS.length - 1]!;
  const judgement = assess({
    person: PERSON,
    assessedOn: last.assessedOn,
    involvedSide: 'left',
    measurements: last.measurements,
    previous: SESSIONS[0],
  });
  return {
    clinic: 'Saltmarsh Lane Physiotherapy',
    person: { givenName: 'Corin', familyName: 'Hathersage', birthDate: PERSON.birthDate, occupation: 'Retired ferry engineer' },
    complaint: 'Left knee replaced',
    wanted: 'Ladders',
    involvedSide: 'left',
    operation: { id: 'knee-replacement', on: '2026-10-02' },
    operationWords: '',
    limits: limited([
      { motion: 'knee.flexion', side: 'left', mode: 'passive', limit: 110, until: '2026-12-01', source: 'surgeon' },
      { motion: 'knee.extension', side: 'left', limit: 0, until: '2026-11-01', source: 'run out' },
    ]),
    assessedOn: last.assessedOn,
    visitNumber: 2,
    examiner: 'Wren',
    judgement,
    summary: 'As found.\nSecond line.',
    series: progressOf(SESSIONS, {
      person: PERSON,
      involvedSide: 'left',
      operation: { id: 'knee-replacement', on: '2026-10-02' },
      goals: new Map([['knee.flexion/supine||left|active', { source: 'hand', value: 120 }]]),
    }),
    firstOn: '2026-10-10',
    program: {
      drills: [{ drill: 'heel-slide', side: 'left', dose: DRILLS.find(({ id }) => id === 'heel-slide')!.dose, words: '' }],
      recheckOn: '2026-12-04',
      note: 'slowly',
      by: 'Wren',
      on: '2026-11-20',
    },
    signed: null,
    ...over,
  };
}
const textOf = ({ title, subtitle, blocks }: Report): string => [title, subtitle, ...blocks.map(wordsOf)].join('\n');
function wordsOf(block: Block): string {
  if (block.kind === 'list') return block.items.join('\n');
  if (block.kind === 'facts') return block.rows.map((row) => row.join(': ')).join('\n');
  if (block.kind === 'picture') return block.alt;
  if (block.kind === 'table') return [block.head, ...block.rows].map((row) => row.join(' | ')).join('\n');
  return block.kind === 'drill' ? [block.title, block.dose, ...block.cues, block.stop].join('\n') : block.text;
}

describe('pages that go out', () => {
  it('have plain words for every motion of which more or less is better', () => {
    for (const { id, better, unit } of MOTIONS) {
      if (better === 'neither' || unit === 'yesNo') expect(plainMotion(id, 'left')).withContext(id).toBeUndefined();
      else
        expect(plainMotion(id, 'left'))
          .withContext(id)
          .toMatch(/^[a-z][^{}]+$/);
    }
  });

  it('tell the referrer who, why, how, what was found and changed, limits that hold, and the plan', () => {
    const text = textOf(makeReport('referrer', facts()));
    for (const words of [
      'Corin Hathersage, born 12 Mar 1959, Retired ferry engineer',
      'Wants back: Ladders',
      'Operation: Knee replacement, 2 Oct 2026, week 7',
      'Measured: 20 Nov 2026, visit 2, by Wren',
      '3 measurements by goniometer',
      'As found.\nSecond line.',
      'Left knee flexion, active | 60° (week 1) | – | 100° | +40°, better',
      'Left knee extension, passive | lacks 15° of straight (week 1) | – | lacks 14° of straight | +1°, within error',
      'left knee flexion, passive: not past 110°, until 1 Dec 2026 (surgeon)',
      'Given on 20 Nov 2026 by Wren.',
      'Heel slide, left, ',
      'Looked at again on 4 Dec 2026. slowly',
      'Draft. Nobody has signed this visit: it may change.',
    ])
      expect(text).toContain(words);
    expect(text).not.toContain('run out');
  });

  it('count what a page has no room for, and leave nothing out where all is asked for', () => {
    const many = facts();
    const findings = Array.from({ length: 5 }, () => many.judgement.findings).flat();
    const judgement = { ...many.judgement, findings };
    const shown = findings.filter(({ kind }) => !kindOf(kind)?.aside).length;
    expect(textOf(makeReport('referrer', { ...many, judgement }))).toContain(`and ${shown - 7} more, on the page with all evidence`);
    const all = makeReport('evidence', { ...many, judgement });
    expect(all.blocks.filter((block) => block.kind === 'paragraph' && block.tone === 'strong').length).toBe(findings.length);
    expect(textOf(all)).toContain('Measuring error: ');
  });

  it('tell the person what really moved, what is aimed at, what to do and when to stop', () => {
    const text = textOf(makeReport('patient', facts()));
    expect(text).toContain('For Corin');
    // One line of a motion, the one done alone; what is within error is no change.
    expect(text).toContain(
      'What is better\nBending your left knee: 60 degrees at first, 100 degrees now.\n1 more number is about the same.',
    );
    expect(text).toContain('Bending your left knee. The aim is 120 degrees.');
    expect(text).toContain('Heel slide, left\nDo it ');
    expect(text).toContain('We will look at it again on 4 Dec 2026.');
    expect(textOf(makeReport('patient', facts({ program: null })))).toContain('You have no drills from us yet.');
    expect(textOf(makeReport('patient', facts({ series: [] })))).toContain('We took the first numbers.');
  });

  it('name what a later limit speaks against, and no longer tell how it is done', () => {
    const late = limited([{ motion: 'knee.flexion', side: 'left', limit: 20, until: null, source: 'surgeon' }]);
    const before = textOf(makeReport('patient', facts()));
    const after = textOf(makeReport('patient', facts({ limits: late })));
    const drill = DRILLS.find(({ id }) => id === 'heel-slide')!;
    expect([before.includes(drill.cues[0]), after.includes(drill.cues[0])]).toEqual([true, false]);
    expect(after).toContain('There is a new limit for you.');
    expect(after).toContain(drill.name);
    expect(textOf(makeReport('referrer', facts({ limits: late })))).toContain('left out: a limit that holds now speaks against it');
  });

  it('tell a loss as one, and never as better', () => {
    const back: Session[] = [SESSIONS[1]!, { ...SESSIONS[0]!, assessedOn: '2026-11-27' }];
    const text = textOf(makeReport('patient', facts({ series: progressOf(back, { person: PERSON }) })));
    expect(text).toContain('What is better\nNothing yet that we can be sure of.');
    expect(text).toContain('What is less than before\nBending your left knee: 100 degrees on 20 Nov 2026, 60 degrees now.');
    expect(text.indexOf('What is less than before')).toBeLessThan(text.indexOf('What is better'));
  });

  it('are drafts until somebody signed, and say so', () => {
    const signed = { by: 'Wren Calloway', on: '2026-11-21', number: 1 };
    for (const kind of REPORT_KINDS) {
      expect(makeReport(kind, facts()).draft).toBeTrue();
      const page = makeReport(kind, facts({ signed }));
      expect(page.draft).toBeFalse();
      expect(textOf(page).toLowerCase()).not.toContain('draft');
    }
    expect(textOf(makeReport('referrer', facts({ signed })))).toContain('Signed by Wren Calloway on 21 Nov 2026.');
    expect(textOf(makeReport('referrer', facts({ signed: { ...signed, number: 2 } })))).toContain('on 21 Nov 2026, amended.');
  });

  it('say nothing was measured where nothing was, and figures as the reader writes them', () => {
    const empty = facts({
      judgement: assess({ person: PERSON, assessedOn: '2026-11-20', measurements: [] }),
      series: [],
      program: null,
      summary: '',
    });
    for (const kind of REPORT_KINDS) expect(textOf(makeReport(kind, empty))).not.toContain('undefined');
    expect(speaking(localeOf('en-US'), () => makeReport('referrer', facts()).title)).toBe('Corin Hathersage: report of Nov 20, 2026');
    expect(speaking(localeOf('de'), () => plainFigure('distance.kneeToWall', 4.5))).toBe('4,5 cm');
    expect(plainFigure('knee.extension', -4.6)).toBe('5 degrees short of straight');
    expect([plainFigure('knee.extension', 0), plainFigure('hip.flexion', 0)]).toEqual(['all the way straight', 'all the way straight']);
    expect(plainFigure('distance.fingerToFloor', -3)).toBe('3 cm past it');
  });

  it('give doses in short sentences', () => {
    const dose = { sets: 1, reps: 12, seconds: null, timesADay: 1, daysAWeek: 7 };
    expect(plainDose(dose)).toBe('Do it 12 times. Once a day. Each day.');
    expect(plainDose({ ...dose, sets: 2, seconds: 5, timesADay: 2, daysAWeek: 3 })).toBe(
      'Do it 12 times and hold each for 5 seconds, then rest. Do 2 rounds. 2 times a day. 3 days a week.',
    );
    expect(plainDose({ ...dose, reps: null, seconds: 300 })).toBe('Keep on for 5 minutes. Once a day. Each day.');
    expect(plainDose({ ...dose, reps: null, seconds: 45 })).toContain('Keep on for 45 seconds.');
  });
});
