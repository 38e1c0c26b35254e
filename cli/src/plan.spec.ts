import { readFileSync } from 'node:fs';
import { PROTOCOLS } from '@dial-gauge/core';
import { run } from './run.js';

const document = (name: string) => readFileSync(new URL(`../../docs/formats/examples/${name}`, import.meta.url), 'utf8');
const output = (outcome: ReturnType<typeof run>) => {
  if (outcome.exitCode !== 0) throw new Error(outcome.problems.join('\n'));
  return JSON.parse(outcome.output);
};
const problems = (outcome: ReturnType<typeof run>) => (outcome.exitCode === 2 ? outcome.problems : []);
const evaluate = (file: unknown) => run(['evaluate', 'x.json'], () => JSON.stringify(file));

describe('gauge plan', () => {
  const KNEE = document('knee-plan.json');
  const plan = (file: unknown) => run(['plan', 'x.json'], () => (typeof file === 'string' ? file : JSON.stringify(file)));
  interface Step {
    readonly turn?: string;
    readonly onto?: string;
    readonly motion?: string;
    readonly side?: string;
    readonly mode?: string;
    readonly position?: string;
    readonly minutes?: number;
    readonly stopAt?: number;
  }
  const steps = (file: unknown) => output(plan(file)).steps as Step[];
  const hip = (side: string, mode: string, more: object = {}) => ({ motion: 'hip.internalRotation', side, mode, ...more });

  it('orders the documented example: forbidden out, stopped at the limit, provoking last', () => {
    const { minutes, turns, steps: all, leftOut } = output(plan(KNEE));
    expect([minutes, turns]).toEqual([4, 2]);
    expect(all.filter((step: Step) => step.turn).map((step: Step) => step.turn)).toEqual(['prone', 'supine']);
    expect(all[all.length - 1]).toEqual(
      jasmine.objectContaining({ motion: 'knee.flexion', side: 'left', mode: 'passive', position: 'supine', stopAt: 90, unit: 'deg' }),
    );
    expect(leftOut).toEqual([
      jasmine.objectContaining({
        motion: 'strength.kneeExtension',
        side: 'left',
        reason: 'precaution',
        why: jasmine.stringContaining('surgeon, letter'),
      }),
    ]);
  });

  it('measures the uninvolved side first and active before passive', () => {
    const measurements = [hip('left', 'passive'), hip('left', 'active'), hip('right', 'passive'), hip('right', 'active')];
    expect(steps({ measurements, involvedSide: 'left' }).map((s) => `${s.side} ${s.mode}`)).toEqual([
      'right active',
      'left active',
      'right passive',
      'left passive',
    ]);
  });

  it('chooses a position that saves a turn where none is named, and keeps one that is', () => {
    const extension = { motion: 'hip.extension', side: 'left', mode: 'passive', position: 'prone' };
    expect(steps({ measurements: [extension, hip('left', 'passive')] }).map((s) => s.position)).toEqual(['prone', 'prone']);
    const sitting = output(plan({ measurements: [extension, hip('left', 'passive', { position: 'sitting' })] }));
    expect(sitting.turns).toBe(1);
    expect(sitting.steps.map((s: Step) => s.turn ?? s.position)).toEqual(['sitting', 'prone', 'prone']);
  });

  it('fits the minutes and says why', () => {
    const motions = ['hip.flexion', 'hip.abduction', 'hip.adduction'];
    const measurements = motions.flatMap((motion) =>
      ['left', 'right'].map((side) => ({ motion, side, mode: 'passive', position: 'supine' })),
    );
    const { minutes, steps: kept, leftOut } = output(plan({ measurements, involvedSide: 'left', minutesAvailable: 1 }));
    expect(minutes).toBe(1);
    expect(kept.every((s: Step) => s.side === 'left')).toBeTrue();
    expect(kept.length + leftOut.length).toBe(6);
    expect(leftOut[0].why).toContain('does not fit into 1 min');
  });

  it('lets a precaution run out, and turns a patient over for the other side', () => {
    const precautions = [{ motion: 'hip.internalRotation', until: '2026-11-20', source: 'surgeon' }];
    const measurements = [hip('left', 'passive')];
    expect(output(plan({ measurements, precautions, assessedOn: '2026-11-19' })).leftOut.length).toBe(1);
    expect(output(plan({ measurements, precautions, assessedOn: '2026-11-20' })).leftOut.length).toBe(0);
    const lying = PROTOCOLS.find((p) => p.position === 'sidelying' && p.modes.includes('passive'))!;
    const sides = ['left', 'right'].map((side) => ({ motion: lying.motion, side, mode: 'passive', position: 'sidelying' }));
    expect(steps({ measurements: sides }).filter((s) => s.turn)).toEqual([
      { turn: 'sidelying', onto: jasmine.stringMatching(/left|right/) as unknown as string },
    ]);
  });

  it('names everything that is wrong, one line each', () => {
    const file = {
      measurements: [
        { motion: 'knee.flexion', mode: 'active' },
        { motion: 'hip.bend', side: 'left' },
        hip('left', 'active', { position: 'quadruped', x: 1 }),
      ],
      precautions: [{ motion: 'knee.flexion', limit: 900, source: '' }],
      minutesAvailable: 0,
    };
    const said = problems(plan(file));
    for (const start of [
      'measurements.0.side: is missing',
      'measurements.1.motion: "hip.bend"',
      'measurements.2.x: is not known',
      'measurements.2.position: ',
      'precautions.0.limit: 900',
      'precautions.0.source: ',
      'minutesAvailable: ',
    ])
      expect(said.some((line) => line.startsWith(start)))
        .withContext(start)
        .toBeTrue();
    expect(problems(plan({ measurements: [hip('left', 'active'), hip('left', 'active')] }))).toEqual([
      'measurements.1: is given twice; allowed: each measurement once',
    ]);
    expect(problems(plan('{'))[0]).toContain('is not JSON');
  });
});

describe('an inclinometer that was not set to zero', () => {
  const file = (trial: object, instrument = 'inclinometer') => ({
    ...(JSON.parse(document('hip-and-back.json')) as object),
    measurements: [{ motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine', instrument, trials: [trial] }],
  });

  it('is read along the path that was moved, whichever way it counts', () => {
    expect(output(evaluate(file({ zero: 350, end: 95 }))).measurements[0].value).toBe(105);
    expect(output(evaluate(file({ zero: 10, end: 265 }))).measurements[0].value).toBe(105);
  });

  it('is refused for what it cannot be', () => {
    expect(problems(evaluate(file({ zero: 0, end: 180 })))[0]).toContain('trials.0.end: ');
    expect(problems(evaluate(file({ zero: 350, end: 95 }, 'goniometer')))[0]).toContain('belongs to an inclinometer');
  });
});
