import { limited } from '../testing/limits.js';
import { motion, PROTOCOLS, protocolOfId } from '../catalogue/index.js';
import type { InvolvedSide } from '../terms.js';
import { EXAM_SETS, findExamSet, itemsOfSheet, planExam, runSheet, waysOf, type PlanItem, type PlanStep } from './index.js';
import { type Precaution } from '../precaution/index.js';
import { stationFor } from './station.js';
import { NO_TIMES, recordedTimes, secondsFor } from './minutes.js';

const setItems = (id: string): PlanItem[] => itemsOfSheet(findExamSet(id)!.items);
const planOf = (id: string, involved: InvolvedSide | null = null) => planExam({ items: setItems(id), involved });
const words = ({ protocol, side, mode }: PlanStep) => `${protocol} ${side} ${mode}`;
const LIMIT: Precaution = { motion: 'knee.flexion', side: 'left', limit: 90, until: '2026-12-14', source: 'surgeon' };

describe('where a position puts the patient', () => {
  it('is on the other side, lying on one; elsewhere the position itself', () => {
    expect([stationFor('sidelying', 'left'), stationFor('sidelying', 'right'), stationFor('prone', 'left')]).toEqual([
      'sidelying-on-right',
      'sidelying-on-left',
      'prone',
    ]);
  });
});

describe('plan of an exam', () => {
  it('turns the patient of a hip exam once and measures each of six motions in both modes and on both sides', () => {
    const plan = planOf('hip', 'left');
    expect(plan.turns).toBe(1);
    expect(plan.steps.length).toBe(24);
    expect(runSheet(plan.steps).map((block) => block.station)).toEqual(['supine', 'prone']);
  });

  it('goes active before passive, and the side that is not involved first', () => {
    for (const involved of ['left', 'right', 'both', null] as const) {
      const rows = runSheet(planOf('hip', involved).steps).flatMap((block) => block.rows);
      for (let i = 0; i < rows.length; i += 2) {
        expect(rows[i]!.motion).toBe(rows[i + 1]!.motion);
        expect([rows[i]!.mode, rows[i + 1]!.mode]).toEqual(['active', 'passive']);
        expect(rows[i]!.sides[0]).toBe(involved === 'right' ? 'left' : 'right');
      }
    }
  });

  it('never comes back to a position in any ready set', () => {
    for (const set of EXAM_SETS) {
      const stations = runSheet(planOf(set.id).steps).map((block) => block.station);
      expect(new Set(stations).size).withContext(set.id).toBe(stations.length);
    }
    expect(runSheet(planOf('quick').steps).map((block) => block.station)).toEqual(['standing', 'sitting', 'supine', 'prone']);
  });

  it('measures a length, a force or a time once, and the midline without a side', () => {
    const floor = planOf('low-back').steps.filter((step) => step.protocol.startsWith('distance.fingerToFloor'));
    expect(floor.map((step) => [step.mode, step.side])).toEqual([['active', 'midline']]);
    expect(planOf('wrist-hand').steps.some((step) => step.digit === 2)).toBeTrue();
  });

  it('knows every protocol of every ready set, and refuses one that is not there', () => {
    for (const { id, items } of EXAM_SETS) {
      for (const { protocol, digit } of items) {
        const found = protocolOfId(protocol);
        expect(found).withContext(`${id} ${protocol}`).toBeDefined();
        expect(motion(found!.motion).perDigit)
          .withContext(protocol)
          .toBe(digit !== undefined);
      }
    }
    expect(() => itemsOfSheet([{ protocol: 'hip.swing/air' }])).toThrowError(/hip.swing/);
  });

  it('leaves the forbidden out, stops at a limit, and says by whom', () => {
    const forbidden: Precaution = {
      motion: 'knee.extension',
      mode: 'passive',
      limit: null,
      until: null,
      source: 'surgeon, letter of 2 November',
    };
    const plan = planExam({ items: setItems('knee-replacement'), involved: 'left', limits: limited([LIMIT, forbidden], '2026-11-23') });
    expect(plan.leftOut.map((out) => [out.motion, out.side, out.mode, out.reason])).toEqual([
      ['knee.extension', 'left', 'passive', 'precaution'],
      ['knee.extension', 'right', 'passive', 'precaution'],
    ]);
    expect(plan.leftOut[0]!.why).toBe('knee extension, passive: not to be measured (surgeon, letter of 2 November)');
    const flexion = plan.steps.filter((step) => step.protocol === 'knee.flexion/supine');
    expect(flexion.map((step) => [step.side, step.stopAt])).toEqual([
      ['right', undefined],
      ['left', 90],
      ['right', undefined],
      ['left', 90],
    ]);
  });

  it('says of a step what was asked of it, and no more: locked, kept, provoking, stopped, or to be gone about gently', () => {
    const flexion: PlanItem = { motion: 'knee.flexion', side: 'left', mode: 'passive', protocols: ['knee.flexion/supine'] };
    const step = (item: Partial<PlanItem>, precautions: Parameters<typeof limited>[0] = []) => {
      const { seconds, ...rest } = planExam({
        items: [{ ...flexion, ...item }],
        involved: 'left',
        limits: limited(precautions, '2026-11-23'),
      }).steps[0]!;
      expect(seconds).toBeGreaterThan(0);
      return rest;
    };
    const plain = { protocol: 'knee.flexion/supine', side: 'left', mode: 'passive' } as const;
    expect(step({})).toEqual(plain);
    expect(step({ locked: true })).toEqual({ ...plain, locked: true });
    expect(step({ keep: true })).toEqual({ ...plain, keep: true });
    expect(step({ provoking: true })).toEqual({ ...plain, provoking: true });
    const gentle = { motion: 'knee.flexion', kind: 'end-range', limit: null, until: null, source: 'the surgeon' } as const;
    expect(step({}, [gentle])).toEqual({ ...plain, gentle: true });
    expect(step({}, [LIMIT])).toEqual({ ...plain, stopAt: 90 });
  });

  it('keeps what is locked in its order, and leaves what is not free to be put better', () => {
    const at = (protocol: string, locked: boolean): PlanItem => ({
      motion: protocolOfId(protocol)!.motion,
      side: 'left',
      mode: 'passive',
      protocols: [protocol],
      locked,
    });
    const order = (locked: boolean) =>
      planExam({ items: [at('hip.extension/prone', locked), at('hip.flexion/supine', locked)], involved: 'left' }).steps.map(
        (s) => s.protocol,
      );
    expect(order(true)).toEqual(['hip.extension/prone', 'hip.flexion/supine']);
    expect(order(false)).toEqual(['hip.flexion/supine', 'hip.extension/prone']);
  });

  it('forgets a precaution that has run out', () => {
    const plan = planExam({ items: setItems('knee'), involved: 'left', limits: limited([LIMIT], '2026-12-14') });
    expect(plan.steps.every((step) => step.stopAt === undefined)).toBeTrue();
  });

  it('puts what provokes at the end of its position, after the turns were saved', () => {
    const items = setItems('hip').map((item) =>
      item.motion === 'hip.flexion' && item.side === 'left' ? { ...item, provoking: true } : item,
    );
    const plan = planExam({ items, involved: 'left' });
    expect(plan.turns).toBe(1);
    expect(runSheet(plan.steps).map((block) => block.station)).toEqual(['prone', 'supine']);
    expect(plan.steps.slice(-2).map(words)).toEqual(['hip.flexion/supine left active', 'hip.flexion/supine left passive']);
  });

  it('fits the minutes, keeps the involved side, and says what was left out and why', () => {
    const items = setItems('hip');
    const all = planExam({ items, involved: 'left' });
    const plan = planExam({ items, involved: 'left', minutesAvailable: 5 });
    expect(all.seconds).toBeGreaterThan(300);
    expect(plan.seconds).toBeLessThanOrEqual(300);
    expect(plan.steps.length + plan.leftOut.length).toBe(24);
    expect(plan.steps.filter((step) => step.side === 'left').length).toBeGreaterThan(
      plan.steps.filter((step) => step.side === 'right').length,
    );
    expect(plan.leftOut.every((out) => out.reason === 'time' && out.why.startsWith('does not fit into 5 min: takes 0.4 min'))).toBeTrue();
    const dropped = plan.leftOut.find((out) => out.side === 'right')!;
    expect(dropped.why).toContain('on the uninvolved side');
  });

  it('keeps what was found last time before what was not', () => {
    const before = {
      measuredBefore: () => true,
      foundBefore: ({ motion: id, side }: { motion: string; side: string }) => id === 'hip.internalRotation' && side === 'right',
    };
    const plan = planExam({ items: setItems('hip'), involved: 'left', minutesAvailable: 3, before });
    expect(plan.steps.some((step) => step.protocol.startsWith('hip.internalRotation') && step.side === 'right')).toBeTrue();
    expect(plan.leftOut.every(({ why }) => why.includes('found neither short nor painful last time'))).toBeTrue();
    const never = planExam({
      items: setItems('hip'),
      involved: 'left',
      minutesAvailable: 3,
      before: { measuredBefore: () => false, foundBefore: () => false },
    });
    expect(never.leftOut.every(({ why }) => why.includes('not measured last time'))).toBeTrue();
    const found = planExam({
      items: setItems('hip'),
      involved: 'left',
      minutesAvailable: 3,
      before: { measuredBefore: () => true, foundBefore: () => true },
    });
    expect(found.leftOut.some(({ why }) => why.includes('last time'))).toBeFalse();
    const fingers = itemsOfSheet([2, 3, 4, 5].map((digit) => ({ protocol: 'fingerPip.flexion/sitting', digit: digit as 2 })));
    const few = planExam({ items: fingers, involved: 'left', minutesAvailable: 1 }).leftOut;
    expect(few.length).toBeGreaterThan(0);
    expect(few.every(({ digit }) => digit !== undefined && digit >= 2)).toBeTrue();
  });

  it('chooses a position where none was named, so that nobody is turned for it', () => {
    const items: PlanItem[] = [
      { motion: 'hip.extension', side: 'left', mode: 'passive', protocols: ['hip.extension/prone'] },
      { motion: 'hip.internalRotation', side: 'left', mode: 'passive', protocols: waysOf('hip.internalRotation', 'passive') },
    ];
    const plan = planExam({ items, involved: 'left' });
    expect(plan.turns).toBe(0);
    expect(plan.steps.map((step) => step.protocol)).toEqual(['hip.extension/prone', 'hip.internalRotation/prone']);
  });

  it('turns a patient over for the other side where both are measured lying on the side', () => {
    const protocol = PROTOCOLS.find((p) => p.position === 'sidelying')!;
    const plan = planExam({ items: itemsOfSheet([{ protocol: protocol.id }]), involved: 'left' });
    expect(plan.turns).toBe(1);
    expect(runSheet(plan.steps).map((block) => block.station)).toEqual(['sidelying-on-left', 'sidelying-on-right']);
  });
});

describe('a run sheet', () => {
  it('has a line for every motion, finger and mode, with its sides one after the other', () => {
    const step = (protocol: string, side: 'left' | 'right', mode: 'active' | 'passive', digit?: 2 | 3) => ({
      protocol,
      side,
      mode,
      seconds: 10,
      ...(digit ? { digit } : {}),
    });
    const [block, ...more] = runSheet([
      step('fingerMcp.flexion/sitting', 'left', 'active', 2),
      step('fingerMcp.flexion/sitting', 'right', 'active', 2),
      step('fingerMcp.flexion/sitting', 'right', 'active', 3),
      step('wrist.flexion/sitting', 'right', 'passive'),
    ]);
    expect(more).toEqual([]);
    expect(block!.rows.map(({ motion: id, digit, mode, sides }) => [id, digit, mode, sides])).toEqual([
      ['fingerMcp.flexion', 2, 'active', ['left', 'right']],
      ['fingerMcp.flexion', 3, 'active', ['right']],
      ['wrist.flexion', undefined, 'passive', ['right']],
    ]);
    expect('digit' in block!.rows[2]!).toBeFalse();
    expect(() => runSheet([step('hip.flexion/floating', 'left', 'active')])).toThrowError(
      RangeError,
      /no protocol "hip\.flexion\/floating"/,
    );
  });
});

describe('how long it takes', () => {
  const flexion = protocolOfId('hip.flexion/supine')!;
  const held = (at: number, over: object = {}) => ({
    visit: 'a',
    protocol: flexion.id,
    position: 'supine' as const,
    side: 'left' as const,
    mode: 'active',
    at: at * 1000,
    ...over,
  });

  it('is the clinic’s own median where five were timed, and what is assumed otherwise', () => {
    // Ten readings, sides in turn: nine gaps, one of them a telephone call.
    const gaps = [20, 22, 18, 21, 230, 19, 20, 24, 20];
    let at = 0;
    const readings = [held(0), ...gaps.map((gap, i) => held((at += gap), { side: i % 2 ? 'left' : 'right' }))];
    const times = recordedTimes(readings);
    expect(times.first).toEqual({ 'hip.flexion/supine': 20 });
    expect(secondsFor(flexion, 1, times)).toBe(20);
    expect(secondsFor(flexion, 3, times)).toBe(36);
    expect(recordedTimes(readings.slice(0, 5))).toEqual(NO_TIMES);
    expect(secondsFor(flexion, 1)).toBe(22);
  });

  it('is the same in whatever order the readings come', () => {
    const readings = [0, 1, 2].flatMap((visit) =>
      Array.from({ length: 7 }, (_, n) => ({ ...held(n * (18 + n) + visit), visit: `visit ${visit}` })),
    );
    const times = recordedTimes(readings);
    expect(Object.keys(times.repeat).length).toBeGreaterThan(0);
    expect(recordedTimes([...readings].reverse())).toEqual(times);
    const mixed = [...readings].sort((a, b) => a.at - b.at);
    expect(recordedTimes(mixed)).toEqual(times);
  });

  it('learns repeats and turns apart', () => {
    const readings = Array.from({ length: 6 }, (_, v) => [
      held(0, { visit: `v${v}` }),
      held(6, { visit: `v${v}` }),
      held(60, { visit: `v${v}`, protocol: 'hip.extension/prone', position: 'prone' }),
    ]).flat();
    const times = recordedTimes(readings);
    expect(times.repeat).toEqual({ 'hip.flexion/supine': 6 });
    // 54 s from the last supine reading, less the 22 s assumed for the first prone one.
    expect(times.turn).toEqual({ 'supine>prone': 32 });
  });
});
