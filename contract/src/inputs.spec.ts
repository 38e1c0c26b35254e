import {
  AssessmentFile,
  explain,
  GivenDrill,
  GoalChange,
  MarkerReading,
  NewAmendment,
  NewReading,
  NewRetest,
  NewRound,
  NewSignature,
  NewStudy,
  StudyReading,
} from './index.js';
import type * as z from 'zod';

const ID = '7d444840-9dc0-41d1-b245-5ffdce74fad2';
const wrong = (schema: z.ZodType, body: Record<string, unknown>): string[] => {
  const parsed = schema.safeParse(body);
  return parsed.success ? [] : explain(parsed.error).map((p) => `${p.path}: ${p.message}`);
};

describe('a goal', () => {
  const knee = { protocol: 'knee.flexion/supine', side: 'left', mode: 'passive' };
  const goal = (over: Record<string, unknown>, way: Record<string, unknown> = {}) => wrong(GoalChange, { ...knee, ...way, goal: over });

  it('comes from the other side, a norm, a task or by hand, and can be taken back', () => {
    expect(goal({ source: 'other-side', less: 5 })).toEqual([]);
    expect(goal({ source: 'norm' })).toEqual([]);
    expect(goal({ source: 'task', task: 'rising from a chair' })).toEqual([]);
    expect(goal({ source: 'hand', value: 118, note: 'agreed with the patient' })).toEqual([]);
    expect(wrong(GoalChange, { ...knee, goal: null })).toEqual([]);
  });

  it('by hand needs a figure the joint can reach', () => {
    expect(goal({ source: 'hand' })).toEqual(['goal.value: is missing; allowed: the goal in the motion’s unit']);
    expect(goal({ source: 'hand', value: 400 })).toEqual(['goal.value: 400° is more than knee flexion can hold; allowed: −30 to 170°']);
  });

  it('from a task needs a task that asks something of this motion', () => {
    const [message] = goal({ source: 'task', task: 'grasping' });
    expect(message).toMatch(/^goal\.task: asks nothing of this motion; allowed: .*rising from a chair/);
    expect(goal({ source: 'task', task: 'grasping' }, { protocol: 'hip.adduction/supine' })[0]).toMatch(
      /^goal\.task: asks nothing of this motion; allowed: /,
    );
  });

  it('names a way of measuring the library does not hold, and a side that does not fit', () => {
    expect(goal({ source: 'norm' }, { protocol: 'knee.flexion/flying' })).toEqual([
      'protocol: "knee.flexion/flying" is not in the library; allowed: a protocol id, as hip.flexion/supine',
    ]);
    expect(goal({ source: 'norm' }, { side: 'midline' })[0]).toBe('side: "midline" does not fit knee.flexion; allowed: left, right');
  });
});

describe('a retest', () => {
  const marker = (over: Record<string, unknown> = {}) => ({
    protocol: 'hip.flexion/supine',
    side: 'left',
    mode: 'passive',
    instrument: 'goniometer',
    ...over,
  });
  const retest = (...markers: unknown[]) => wrong(NewRetest, { id: ID, markers });

  it('has one to three markers, each once', () => {
    expect(retest(marker())).toEqual([]);
    expect(retest(marker(), marker({ side: 'right' }), marker({ protocol: 'hip.abduction/supine' }))).toEqual([]);
    expect(retest()).toEqual(['markers: is too short; allowed: at least 1']);
    expect(retest(marker(), marker({ side: 'right' }), marker({ mode: 'active' }), marker({ side: 'right', mode: 'active' }))).toEqual([
      'markers: is too long; allowed: at most 3',
    ]);
    expect(retest(marker(), marker())[0]).toMatch(/^markers\.1.*: is a marker already/);
  });

  it('is not read with an instrument that cannot read it', () => {
    expect(retest(marker({ instrument: 'dynamometer' }))[0]).toMatch(
      /^markers\.0\.instrument: "dynamometer" does not read hip flexion in supine; allowed: goniometer,/,
    );
  });

  it('notes a drill that can be found again, in a round after the baseline', () => {
    expect(wrong(NewRound, { id: ID, number: 1, drill: ' Rock back ' })).toEqual([]);
    expect(wrong(NewRound, { id: ID, number: 0, drill: 'Rock back' })).toEqual(['number: is too small; allowed: 1 or more']);
    expect(wrong(NewRound, { id: ID, number: 1, drill: ' x ' })).toEqual(['drill: is too short; allowed: at least 2']);
  });

  it('reads a marker it has', () => {
    expect(wrong(MarkerReading, { id: ID, round: 0, marker: 2, value: 96 })).toEqual([]);
    expect(wrong(MarkerReading, { id: ID, round: 0, marker: 3, value: 96 })).toEqual(['marker: is too large; allowed: 2 or less']);
    expect(wrong(MarkerReading, { id: ID, round: 0, marker: 0 })).toEqual(['value: is missing; allowed: number']);
  });
});

describe('a study of steadiness', () => {
  const study = (over: Record<string, unknown> = {}) =>
    wrong(NewStudy, {
      id: ID,
      name: 'Wrists, autumn',
      protocol: 'wrist.extension/sitting',
      mode: 'passive',
      instrument: 'goniometer',
      kind: 'raters',
      subjects: 12,
      raters: 3,
      seed: 7,
      ...over,
    });

  it('has three subjects and two readings of each at least', () => {
    expect(study()).toEqual([]);
    expect(study({ subjects: 2 })).toEqual(['subjects: is too small; allowed: 3 or more']);
    expect(study({ subjects: 61 })).toEqual(['subjects: is too large; allowed: 60 or less']);
    expect(study({ raters: 1 })).toEqual(['raters: is too small; allowed: 2 or more']);
    expect(study({ subjects: 3.5 })[0]).toMatch(/^subjects: /);
  });

  it('is of a way of measuring the library holds, with an instrument that reads it', () => {
    expect(study({ protocol: 'wrist.wave/sitting' })).toEqual([
      'protocol: "wrist.wave/sitting" is not in the library; allowed: a protocol id',
    ]);
    expect(study({ instrument: 'tape' })[0]).toMatch(/^instrument: "tape" does not read wrist extension in sitting; allowed: goniometer,/);
    expect(study({ name: '  ' })).toEqual(['name: is too short; allowed: at least 1']);
  });

  it('takes a reading of a subject and a rater', () => {
    expect(wrong(StudyReading, { id: ID, subject: 0, rater: 5, value: 71 })).toEqual([]);
    expect(wrong(StudyReading, { id: ID, subject: 60, rater: 6, value: 71 })).toEqual([
      'subject: is too large; allowed: 59 or less',
      'rater: is too large; allowed: 5 or less',
    ]);
  });
});

describe('signing', () => {
  it('needs words, and amending a reason', () => {
    expect(wrong(NewSignature, { id: ID, seen: { revision: 'r', at: '2026-11-20T09:30:00Z' }, summary: 'Stiff left hip.' })).toEqual([]);
    expect(wrong(NewSignature, { id: ID, seen: { revision: 'r', at: '2026-11-20T09:30:00Z' }, summary: ' ' })).toEqual([
      'summary: is too short; allowed: at least 1',
    ]);
    expect(wrong(NewAmendment, { why: 'no' })).toEqual(['why: is too short; allowed: at least 3']);
    expect(wrong(NewAmendment, { why: 'wrong side', by: 'Rook' })[0]).toContain('by: is not known here');
  });
});

describe('a drill that is given', () => {
  const dose = { sets: 2, reps: 10, seconds: 0, timesADay: 1, daysAWeek: 5 };
  const given = (over: Record<string, unknown>) =>
    wrong(GivenDrill, { drill: 'heel-slide', side: 'left', dose, ...over }).filter((line) => !line.startsWith('dose'));

  it('is known, fits the side, and has a version where it is of the clinic’s own', () => {
    expect(given({})).toEqual([]);
    expect(given({ side: 'midline' })).toEqual(['side: "midline" does not fit heel-slide; allowed: left, right, both']);
    expect(given({ drill: 'heel-slip' })[0]).toMatch(/^drill: "heel-slip" is no drill; allowed: /);
    expect(given({ drill: 'own-made-up' })).toEqual(['version: is missing; allowed: the version of own-made-up']);
    expect(given({ version: 2 })).toEqual(['version: is not had by heel-slide; allowed: none']);
  });
});

describe('a reading', () => {
  const reading = {
    ...{ id: ID, motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer' },
    ...{ end: 107, heldAt: '2026-11-20T09:30:00Z' },
  };

  it('starts at zero, or where the joint can be', () => {
    expect(wrong(NewReading, { ...reading, start: 0 })).toEqual([]);
    expect(wrong(NewReading, { ...reading, start: -10 })).toEqual([]);
    expect(wrong(NewReading, { ...reading, start: -300 })[0]).toMatch(/^start: −?-?300/);
    // Zero is no place of a length, and is not asked about.
    const wall = { ...reading, motion: 'distance.kneeToWall', position: 'standing', mode: 'active', instrument: 'tape', end: 7, start: 0 };
    expect(wrong(NewReading, wall).filter((line) => line.startsWith('start'))).toEqual([]);
  });
});

describe('a file of an assessment', () => {
  const file = (...measurements: object[]) =>
    wrong(AssessmentFile, {
      ...{ format: 'dial-gauge/assessment', version: 1, person: { birthDate: '1984-05-02', sex: 'female' }, assessedOn: '2026-11-20' },
      measurements,
    });
  const knee = { motion: 'knee.flexion', side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer' };

  it('holds an angle as an angle', () => {
    expect(file({ ...knee, trials: [{ end: 104 }] })).toEqual([]);
    for (const trial of [{ value: 104 }, { upper: { zero: 0, end: 60 }, lower: { zero: 0, end: 20 } }])
      expect(file({ ...knee, trials: [trial] })).toEqual([
        'measurements.0.trials.0: needs end (and start where it was not 0), as read from a goniometer',
      ]);
    expect(file({ ...knee, trials: [{ start: 20, end: 10 }] })[0]).toContain('trials.0.start: 20 lies after the end, 10');
  });
});
