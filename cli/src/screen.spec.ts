import { readFileSync } from 'node:fs';
import { run } from './run.js';

const document = (name: string) => JSON.parse(readFileSync(new URL(`../../docs/formats/examples/${name}`, import.meta.url), 'utf8'));
const output = (outcome: ReturnType<typeof run>) => {
  if (outcome.exitCode !== 0) throw new Error(outcome.problems.join('\n'));
  return JSON.parse(outcome.output);
};
const problems = (outcome: ReturnType<typeof run>) => (outcome.exitCode === 2 ? outcome.problems : []);
const ask = (command: string, file: unknown) => run([command, 'x.json'], () => JSON.stringify(file));

describe('gauge screen', () => {
  const EXAMPLE = document('squat-check.json');
  const screen = (items: object[], more: object = {}) => ask('screen', { ...EXAMPLE, items, ...more });

  it('grades the documented example: quality and pain apart, and what it opens', () => {
    const { items, flags, opens, sides, notJudged } = output(ask('screen', EXAMPLE));
    expect(items.map((i: { quality: string; view: string }) => [i.view, i.quality])).toEqual([
      ['side', 'short'],
      ['side', 'meets'],
      ['front', 'short'],
      ['behind', 'meets'],
    ]);
    expect(items[0]).toEqual({
      screen: 'squatCheck',
      item: 'squat',
      view: 'side',
      side: 'left',
      quality: 'short',
      pain: 0,
      painWhere: '',
      value: null,
      unit: null,
      sem: null,
      threshold: null,
      faults: ['heelLifts'],
      missing: [],
      because: ['seen from the side: heel lifts'],
    });
    expect([flags, sides, notJudged, opens]).toEqual([[], [], [], ['squat.heelLifts', 'squat.kneeRollsIn']]);
  });

  it('gives numbers, thresholds with their source, and side differences against their error', () => {
    const wall = (side: string, value: number, pain = 0) => ({ item: 'kneeToWall', side, tries: [{ value, pain }] });
    const { items, sides, flags, opens } = output(screen([wall('left', 4), wall('right', 11, 3)], { screen: 'loadingReadiness' }));
    expect(items[0].threshold).toEqual({ value: 8.5, unit: 'cm', at: 'least', source: 'common practice, no source' });
    expect([items[0].quality, items[1].quality]).toEqual(['short', 'meets']);
    expect(sides).toEqual([jasmine.objectContaining({ item: 'kneeToWall', left: 4, right: 11, difference: -7, unit: 'cm', real: true })]);
    expect(flags).toEqual([jasmine.objectContaining({ item: 'kneeToWall', side: 'right', why: 'hurts', pain: 3 })]);
    expect(opens).toEqual(['dorsiflexionStuck']);
  });

  it('names what was not judged', () => {
    const { notJudged, items } = output(
      screen(
        [
          { item: 'leanBack', skipped: 'dizzy today' },
          { item: 'toeTouch', tries: [{ pain: 0 }] },
        ],
        { screen: 'patterns' },
      ),
    );
    expect(notJudged.map((n: { item: string; why: string }) => [n.item, n.why])).toEqual([
      ['toeTouch', 'not judged: nothing was told of how it went'],
      ['leanBack', 'not judged: left out, dizzy today'],
    ]);
    expect(items.map((i: { pain: number | null }) => i.pain)).toEqual([0, null]);
  });

  it('refuses what does not fit, each with its path', () => {
    expect(problems(screen([{ item: 'jump', tries: [{}] }]))).toEqual([
      'items.0.item: "jump" is no item of squatCheck; allowed: squat, rockBack',
    ]);
    expect(problems(screen([{ item: 'squat', view: 'front', tries: [{ faults: ['heelLifts'] }] }]))[0]).toMatch(
      /^items\.0\.tries\.0\.faults\.0: "heelLifts" is seen from side, not from front; allowed: /,
    );
    expect(problems(screen([{ item: 'squat', tries: [{ pain: 11 }] }]))).toEqual([
      'items.0.tries.0.pain: is too large; allowed: 10 or less',
    ]);
    expect(problems(screen([{ item: 'squat', tries: [{ colour: 1 }] }]))[0]).toMatch(/^items\.0\.tries\.0\.colour: /);
    expect(
      problems(
        screen([
          { item: 'squat', view: 'side', tries: [{}] },
          { item: 'squat', view: 'side', tries: [{}] },
        ]),
      ),
    ).toEqual(['items.1: squat is given twice, first as 0; allowed: once a side, view and change, with all its tries']);
    expect(problems(ask('screen', { ...EXAMPLE, screen: 'yoga' }))[0]).toMatch(/^screen: "yoga" is no screen; allowed: patterns, /);
    expect(problems(ask('screen', { ...EXAMPLE, screenedOn: '1980-01-01' }))).toEqual([
      'screenedOn: lies before the birth date; allowed: 1991-07-14 or later',
    ]);
  });

  it('refuses a forbidden item, and takes it where it was left out', () => {
    const precautions = [{ motion: 'knee.flexion', side: 'left', limit: 30, source: 'the surgeon' }];
    const squat = { item: 'squat', view: 'side', tries: [{ faults: [] }] };
    expect(problems(screen([squat], { precautions }))[0]).toMatch(
      /^items\.0: squat is forbidden: .*the surgeon.*; allowed: no tries, and "skipped" with the reason$/,
    );
    expect(output(screen([{ item: 'squat', view: 'side', skipped: 'forbidden' }], { precautions })).items[0].quality).toBe('not judged');
  });
});

describe('gauge reason', () => {
  const EXAMPLE = document('what-limits-it.json');
  const reason = (more: object) => output(ask('reason', { ...EXAMPLE, ...more }));
  const ankle = (motion: string, end: number) => ({
    motion: `muscleLength.${motion}`,
    side: 'left',
    mode: 'passive',
    position: 'supine',
    instrument: 'goniometer',
    trials: [{ end }],
  });
  interface Printed {
    readonly pattern: string;
    readonly side: string;
    readonly candidates: readonly { readonly id: string; readonly state: string; readonly for: readonly string[] }[];
    readonly next: {
      readonly motion?: string;
      readonly item?: string;
      readonly tells: readonly string[];
      readonly minutes: number;
      readonly position: string;
    } | null;
  }
  const heel = ({ breakdowns }: { breakdowns: Printed[] }) => breakdowns.find(({ pattern }) => pattern === 'squat.heelLifts')!;

  it('leads from a lifting heel over knee to wall to the calf', () => {
    const first = heel(reason({}));
    const states = ({ candidates }: Printed) => Object.fromEntries(candidates.map(({ id, state }) => [id, state]));
    expect(first.side).toBe('left');
    expect(states(first)).toEqual({
      ankleDorsiflexion: 'pointsTo',
      calf: 'open',
      soleus: 'open',
      ankleJoint: 'open',
      hipFlexionRange: 'open',
    });
    // The patient stands for the knee to wall: no turn is needed for the loaded pair.
    expect([first.next!.motion, first.next!.position]).toEqual(['ankle.dorsiflexion', 'standing']);
    expect(first.next!.tells).toEqual(['calf', 'soleus', 'ankleJoint']);
    const then = heel(reason({ measurements: [...EXAMPLE.measurements, ankle('calfKneeStraight', 2), ankle('calfKneeBent', 15)] }));
    expect(states(then)).toEqual(jasmine.objectContaining({ calf: 'pointsTo', soleus: 'speaksAgainst', ankleJoint: 'speaksAgainst' }));
    expect(then.candidates[1]!.for).toEqual([
      'left: more with the knee bent: the calf muscle that crosses the knee holds (2 to 15°, +13 with an error of 8.3)',
    ]);
    expect(then.next!.motion).toBe('hip.flexion');
  });

  it('never names what is forbidden, or what was measured', () => {
    const precautions = [
      { motion: 'ankle.dorsiflexion', side: 'left', source: 'the surgeon' },
      { motion: 'hip.flexion', side: 'left', source: 'the surgeon' },
    ];
    expect(heel(reason({ precautions })).next).toBeNull();
    expect(heel(reason({ precautions: precautions.slice(0, 1) })).next!.motion).toBe('hip.flexion');
  });

  it('holds back what hurts', () => {
    const screens = [
      { screen: 'squatCheck', items: [{ item: 'squat', view: 'side', side: 'left', tries: [{ faults: ['heelLifts'], pain: 4 }] }] },
    ];
    const { breakdowns, heldBack } = reason({ screens, measurements: [] });
    expect(breakdowns).toEqual([]);
    expect(heldBack).toEqual([
      { item: 'squatCheck.squat', side: 'left', why: 'hurts', pain: 4, advice: 'Hurts: have it looked at before it is worked on' },
    ]);
  });

  it('takes a file of screens alone, and refuses one of nothing', () => {
    expect(heel(reason({ measurements: [] })).candidates[0]!.state).toBe('pointsTo');
    expect(problems(ask('reason', { ...EXAMPLE, measurements: [], screens: [] }))).toEqual([
      'measurements: is empty; allowed: at least one measurement, or a screen under "screens"',
    ]);
    expect(problems(ask('reason', { ...EXAMPLE, screens: [{ screen: 'squatCheck', items: [{ item: 'x', tries: [{}] }] }] }))).toEqual([
      'screens.0.items.0.item: "x" is no item of squatCheck; allowed: squat, rockBack',
    ]);
  });

  it('opens breakdowns of measured losses too, and grades screens beside the evaluation', () => {
    const { breakdowns } = reason({
      screens: [],
      measurements: [
        { motion: 'forearm.pronation', side: 'left', mode: 'active', position: 'sitting', instrument: 'goniometer', trials: [{ end: 40 }] },
      ],
    });
    expect(breakdowns.map(({ pattern, candidates }: Printed) => [pattern, candidates[0]!.state])).toEqual([['gripTurn', 'pointsTo']]);
    const { screens, measurements } = output(ask('evaluate', EXAMPLE));
    expect(screens.items.length).toBe(2);
    expect(measurements.length).toBe(1);
    expect('screens' in output(ask('evaluate', { ...EXAMPLE, screens: [] }))).toBeFalse();
  });
});
