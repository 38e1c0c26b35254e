import { readFileSync } from 'node:fs';
import { run } from './run.js';

const EXAMPLE = readFileSync(new URL('../../docs/formats/examples/hip-and-back.json', import.meta.url), 'utf8');
const example = () => JSON.parse(EXAMPLE) as Record<string, unknown> & { measurements: Record<string, unknown>[] };
const evaluate = (file: unknown) => run(['evaluate', 'x.json'], () => (typeof file === 'string' ? file : JSON.stringify(file)));
const output = (outcome: ReturnType<typeof run>) => {
  if (outcome.exitCode !== 0) throw new Error(outcome.problems.join('\n'));
  return JSON.parse(outcome.output);
};
const problems = (outcome: ReturnType<typeof run>) => (outcome.exitCode === 2 ? outcome.problems : []);

describe('gauge evaluate', () => {
  it('judges the documented example as a handbook reader would', () => {
    const { measurements, findings } = output(evaluate(EXAMPLE));
    expect(measurements[0]).toEqual(jasmine.objectContaining({ value: 19, unit: 'deg', trials: 2, consistent: true, sem: 3, mdc95: 8.3 }));
    expect(measurements[0].norms[0]).toEqual(
      jasmine.objectContaining({ set: 'aaos-1965', expected: 45, deficit: 26, percent: 42.2, z: null, percentile: null }),
    );
    expect(measurements[1]).toEqual(jasmine.objectContaining({ value: 55, trials: 1, consistent: null }));
    expect(findings.map((f: { kind: string }) => f.kind)).toEqual(['short-of-normal', 'no-norm']);
    expect(findings[0]).toEqual(
      jasmine.objectContaining({
        severity: 'marked',
        side: 'left',
        value: 19,
        expected: 44.4,
        difference: -25.4,
        agreement: { short: 3, of: 4 },
      }),
    );
  });

  it('reads standard input under the name -', () => {
    const asked: string[] = [];
    run(['evaluate', '-'], (file) => (asked.push(file), EXAMPLE));
    expect(asked).toEqual(['-']);
  });

  it('takes an SFTR arc in place of two measurements', () => {
    const file = {
      ...example(),
      measurements: [{ sftr: 'S:0-15-100', joint: 'hip', side: 'left', mode: 'passive', instrument: 'goniometer' }],
    };
    const { measurements } = output(evaluate(file));
    expect(measurements.map((m: { motion: string; value: number; position: string }) => [m.motion, m.value, m.position])).toEqual([
      ['hip.extension', -15, 'prone'],
      ['hip.flexion', 100, 'supine'],
    ]);
  });

  it('compares with an earlier assessment', () => {
    const earlier = [{ ...example().measurements[0], trials: [{ end: 30 }] }];
    const { findings } = output(evaluate({ ...example(), previous: { assessedOn: '2026-10-01', measurements: earlier } }));
    expect(findings.find((f: { kind: string }) => f.kind === 'changed')).toEqual(
      jasmine.objectContaining({ expected: 30, difference: -11, severity: 'mild' }),
    );
  });

  const REFUSED: [string, (file: ReturnType<typeof example>) => unknown, string][] = [
    ['an unknown key', (f) => ({ ...f, colour: 1 }), 'colour: is not known here'],
    [
      'an unknown key deep inside',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], trials: [{ end: 1, stop: 2 }] }] }),
      'measurements.0.trials.0.stop: is not known here',
    ],
    [
      'an impossible angle',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], trials: [{ end: 190 }] }] }),
      'measurements.0.trials.0.end: 190° is more than hip internal rotation can hold; allowed: −60 to 100°',
    ],
    [
      'half a reading',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], trials: [{ start: 5 }] }] }),
      'measurements.0.trials.0.end: is missing; allowed: number',
    ],
    [
      'words for an angle',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], trials: [{ end: 'much' }] }] }),
      'measurements.0.trials.0.end: is not of the right kind; allowed: number',
    ],
    [
      'an unknown motion',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], motion: 'hip.swing' }] }),
      'measurements.0.motion: "hip.swing" is not in the catalogue; allowed: hip.flexion',
    ],
    [
      'a side that does not fit',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], side: 'midline' }] }),
      'measurements.0.side: "midline" does not fit hip.internalRotation; allowed: left, right',
    ],
    [
      'one site of two',
      (f) => ({ ...f, measurements: [{ ...f.measurements[1], trials: [{ end: 55 }] }] }),
      'measurements.0.trials.0: needs upper and lower',
    ],
    ['a repeated measurement', (f) => ({ ...f, measurements: [f.measurements[0], f.measurements[0]] }), 'is given twice'],
    [
      'an impossible arc',
      (f) => ({ ...f, measurements: [{ sftr: 'S:15-5-120', joint: 'hip', side: 'left', mode: 'passive', instrument: 'goniometer' }] }),
      'measurements.0.sftr: the middle number 5',
    ],
    ['a day that does not exist', (f) => ({ ...f, assessedOn: '2026-02-30' }), 'assessedOn: is not a day; allowed: YYYY-MM-DD'],
    ['a day before the birth', (f) => ({ ...f, assessedOn: '1980-01-01' }), 'assessedOn: lies before the birth date'],
    ['an unknown norm set', (f) => ({ ...f, normSet: 'mine' }), 'normSet: is not one of the allowed: aaos-1965'],
    [
      'pain past 10',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], pain: 11 }] }),
      'measurements.0.pain: is too large; allowed: 10 or less',
    ],
    ['text that is not JSON', () => '{', 'x.json: is not JSON'],
  ];
  for (const [what, change, words] of REFUSED) {
    it(`refuses ${what}, naming it`, () => {
      const found = problems(evaluate(change(example())));
      expect(found.length).toBe(1);
      expect(found[0]).toContain(words);
    });
  }

  it('tells every problem at once', () => {
    const file = { ...example(), extra: 1, person: { birthDate: 'x', sex: 'y' } };
    expect(problems(evaluate(file)).length).toBe(3);
  });

  it('says when a file cannot be read, and when none is named', () => {
    const failing = run(['evaluate', 'gone.json'], () => {
      throw new Error('no such file');
    });
    expect(problems(failing)[0]).toBe('gone.json: cannot be read (no such file)');
    expect(problems(run(['evaluate'], () => ''))[0]).toContain('takes one file');
    expect(problems(run(['juggle'], () => ''))[0]).toContain('allowed: evaluate, sftr');
  });
});

describe('gauge sftr', () => {
  const sftr = (...args: string[]) => run(['sftr', ...args], () => '');

  it('prints the documented answer', () => {
    expect(output(sftr('S:0-15-120', '--joint', 'knee'))).toEqual({
      joint: 'knee',
      plane: 'S',
      position: null,
      motions: { 'knee.extension': -15, 'knee.flexion': 120 },
      arc: 105,
      canonical: 'S:0-15-120',
    });
    expect(output(sftr('S:0-30', '--joint', 'knee')).motions).toBeUndefined();
  });

  it('refuses a bad arc, a missing joint and an unknown flag', () => {
    expect(problems(sftr('S:15-5-120', '--joint', 'knee'))[0]).toContain('sftr: the middle number 5');
    expect(problems(sftr('S:15-0-120'))[0]).toContain('--joint: is missing');
    expect(problems(sftr('S:15-0-120', '--joint', 'jaw'))[0]).toContain('"jaw" is not a joint');
    expect(problems(sftr('S:15-0-120', '--limb', 'knee'))[0]).toContain('arguments:');
  });
});
