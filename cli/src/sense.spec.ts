import { readFileSync } from 'node:fs';
import { run } from './run.js';

const EXAMPLE = readFileSync(new URL('../../docs/formats/examples/hip-and-back.json', import.meta.url), 'utf8');
const evaluate = (file: unknown) => run(['evaluate', 'x.json'], () => JSON.stringify(file));
const output = (outcome: ReturnType<typeof run>) => JSON.parse(outcome.exitCode === 0 ? outcome.output : '{}');
const problems = (outcome: ReturnType<typeof run>) => (outcome.exitCode === 2 ? outcome.problems : []);

describe('gauge evaluate', () => {
  it('never guesses which way a device counted: both readings are named, and the sense is taken', () => {
    const { normSet, ...file } = JSON.parse(EXAMPLE) as Record<string, unknown>;
    expect(normSet).toBeDefined();
    const knee = { motion: 'knee.extension', side: 'left', mode: 'passive', position: 'supine', instrument: 'inclinometer' };
    const back = { motion: 'lumbar.flexion', side: 'midline', mode: 'active', position: 'standing', instrument: 'dualInclinometer' };
    const of = (measurement: object, trial: object) => evaluate({ ...file, measurements: [{ ...measurement, trials: [trial] }] });
    expect(problems(of(knee, { zero: 0, end: 335 }))).toEqual([
      'measurements.0.trials.0.sense: is missing: the device can have counted up (lacks 25° of straight) or down (25° past straight); allowed: 1 for up, -1 for down',
    ]);
    expect(output(of(knee, { zero: 0, end: 335, sense: 1 })).measurements[0].value).toBe(-25);
    expect(output(of(knee, { zero: 0, end: 335, sense: -1 })).measurements[0].value).toBe(25);
    expect(output(of(knee, { zero: 0, end: 270 })).measurements[0].value)
      .withContext('90 past straight is more than a knee holds')
      .toBe(-90);
    const sites = { upper: { zero: 0, end: 30 }, lower: { zero: 0, end: 15 } };
    expect(problems(of(back, sites))[0]).toContain('measurements.0.trials.0.sense: is missing');
    expect(output(of(back, { ...sites, sense: -1 })).measurements[0].value).toBe(-15);
  });
});
