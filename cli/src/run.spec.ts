import { readFileSync } from 'node:fs';
import {
  INSTRUMENTS,
  JOINT_PLANES,
  MODES,
  MOTIONS,
  POSITIONS,
  PROTOCOLS,
  allowedSides,
  entryUnitsFor,
  motion,
  type Protocol,
} from '@dial-gauge/core';
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
    const { measurements, notJudged, findings } = output(evaluate(EXAMPLE));
    expect(measurements[0]).toEqual(jasmine.objectContaining({ value: 19, unit: 'deg', trials: 2, consistent: true, sem: 3, mdc95: 8.3 }));
    expect(measurements[0].norms[0]).toEqual(
      jasmine.objectContaining({ set: 'aaos-1965', expected: 45, deficit: 26, percent: 42.2, z: null, percentile: null }),
    );
    expect(measurements[1]).toEqual(jasmine.objectContaining({ value: 55, trials: 1, consistent: null }));
    // The example asks one set, which has active figures sitting: nothing passive and prone may be compared with it.
    expect(measurements.map((m: { judgedBy: string | null }) => m.judgedBy)).toEqual([null, null]);
    expect(findings.map((f: { kind: string }) => f.kind)).toEqual(['no-norm', 'no-norm']);
    expect(notJudged.map((of: { motion: string; why: string }) => [of.motion, of.why])).toEqual([
      ['hip.internalRotation', 'no norm that may be compared'],
      ['lumbar.flexion', 'no norm that may be compared'],
    ]);
  });

  it('asks norm sets in the order of a file, or in its own where none is given', () => {
    const { normSet, ...rest } = JSON.parse(EXAMPLE) as { normSet: string };
    expect(normSet).toBe('boone-azen-1979');
    const judged = (file: object) => output(evaluate(JSON.stringify(file)));
    const { measurements, findings, notJudged } = judged(rest);
    expect([measurements.map((m: { judgedBy: string }) => m.judgedBy), notJudged]).toEqual([['aaos-1965', 'ama-guides-4'], []]);
    expect(findings[0]).toEqual(
      jasmine.objectContaining({
        severity: 'marked',
        side: 'left',
        value: 19,
        expected: 45,
        difference: -26,
        agreement: { short: 3, of: 3 },
      }),
    );
    expect(judged({ ...rest, normSets: ['ama-guides-4', 'aaos-1965'] }).measurements[0].judgedBy).toBe('ama-guides-4');
    expect(evaluate(JSON.stringify({ ...rest, normSet, normSets: ['aaos-1965'] })).exitCode).toBe(2);
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
    expect(findings.find((f: { kind: string }) => f.kind === 'worse')).toEqual(
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
    [
      'a finger that is not named',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], motion: 'fingerPip.flexion', position: 'sitting' }] }),
      'measurements.0.digit: is missing; allowed: 1, 2, 3, 4, 5',
    ],
    [
      'a turn about a plumb axis read by gravity',
      (f) => ({
        ...f,
        measurements: [
          { ...f.measurements[0], motion: 'cervical.rotation', mode: 'active', position: 'sitting', instrument: 'inclinometer' },
        ],
      }),
      'gravity cannot tell',
    ],
    [
      'degrees of a tape',
      (f) => ({
        ...f,
        measurements: [
          { ...f.measurements[0], motion: 'distance.kneeToWall', position: 'standing', instrument: 'tape', trials: [{ end: 7 }] },
        ],
      }),
      'measurements.0.trials.0: needs value in cm',
    ],
    [
      'a force in centimetres',
      (f) => ({
        ...f,
        measurements: [
          {
            motion: 'strength.kneeExtension',
            side: 'left',
            mode: 'active',
            position: 'sitting',
            instrument: 'dynamometer',
            trials: [{ value: 20, unit: 'cm' }],
          },
        ],
      }),
      'measurements.0.trials.0.unit: "cm" does not measure this; allowed: N, lb, kg',
    ],
    [
      'a protocol of another position',
      (f) => ({ ...f, measurements: [{ ...f.measurements[0], protocol: 'hip.internalRotation/sitting' }] }),
      'measurements.0.protocol: "hip.internalRotation/sitting" is not a way of measuring',
    ],
    [
      'an arc at a position that has no protocol',
      (f) => ({
        ...f,
        measurements: [{ sftr: 'R(S0):60-0-70', joint: 'shoulder', side: 'left', mode: 'passive', instrument: 'goniometer' }],
      }),
      'measurements.0.sftr: no protocol of the shoulder is known for (S0); allowed: F90',
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

  /** One reading of a protocol as a file holds it, by each of its instruments. */
  const readings = (p: Protocol) => {
    const { unit, perDigit, limits } = motion(p.motion);
    const value = Math.min(12, limits.max - 1);
    const trial = (instrument: string) =>
      instrument === 'dualInclinometer'
        ? { upper: { zero: 0, end: 30 }, lower: { zero: 0, end: 10 }, sense: 1 }
        : unit === 'deg'
          ? { end: value }
          : { value: Math.max(value, limits.min + 1) };
    return p.instruments.map((instrument) => ({
      motion: p.motion,
      ...(perDigit ? { digit: 3 } : {}),
      side: allowedSides(motion(p.motion))[0],
      mode: p.modes[0],
      position: p.position,
      protocol: p.id,
      instrument,
      trials: [trial(instrument)],
    }));
  };

  it('judges every protocol with every instrument that reads it: the whole vocabulary', () => {
    for (const p of PROTOCOLS) {
      for (const reading of readings(p)) {
        const { measurements } = output(evaluate({ ...example(), measurements: [reading] }));
        expect(measurements[0])
          .withContext(`${p.id} ${reading.instrument}`)
          .toEqual(jasmine.objectContaining({ motion: p.motion, protocol: p.id, unit: motion(p.motion).unit }));
        expect(measurements[0].sem > 0)
          .withContext(p.id)
          .toBe(motion(p.motion).unit !== 'yesNo');
      }
    }
    // Nothing of the fixed ids is left out: joints with all motions of their planes, modes, positions, instruments.
    const ids = new Set(MOTIONS.map((m) => m.id as string));
    for (const [joint, planes] of Object.entries(JOINT_PLANES)) {
      for (const pair of Object.values(planes)) for (const name of [pair.first, pair.last]) expect(ids).toContain(`${joint}.${name}`);
    }
    for (const mode of MODES) expect(PROTOCOLS.some((p) => p.modes.includes(mode))).toBeTrue();
    for (const position of POSITIONS) expect(PROTOCOLS.some((p) => p.position === position)).toBeTrue();
    for (const instrument of INSTRUMENTS) expect(PROTOCOLS.some((p) => p.instruments.includes(instrument))).toBeTrue();
  });

  it('takes the usual protocol of a position where none is named', () => {
    const [reading] = readings(PROTOCOLS.find((p) => p.id === 'shoulder.externalRotation/supine')!);
    const { protocol, ...unnamed } = reading!;
    expect(output(evaluate({ ...example(), measurements: [unnamed] })).measurements[0].protocol).toBe(protocol);
  });

  it('takes tape in cm or inches, force in N, lb or kg', () => {
    const of = (id: string, trial: object) => {
      const p = PROTOCOLS.find((q) => q.id === id)!;
      return output(evaluate({ ...example(), measurements: [{ ...readings(p)[0]!, trials: [trial] }] })).measurements[0];
    };
    expect(of('distance.kneeToWall/standing', { value: 7.5 })).toEqual(jasmine.objectContaining({ value: 7.5, unit: 'cm' }));
    expect(of('distance.kneeToWall/standing', { value: 3, unit: 'in' }).value).toBe(7.6);
    expect(of('strength.kneeExtension/sitting', { value: 210 })).toEqual(jasmine.objectContaining({ value: 210, unit: 'N' }));
    expect(of('strength.kneeExtension/sitting', { value: 20, unit: 'kg' }).value).toBe(196.1);
    expect(entryUnitsFor('N')).toEqual(['N', 'lb', 'kg']);
  });

  it('needs no mode where it says nothing', () => {
    const { mode, ...girth } = readings(PROTOCOLS.find((p) => p.id === 'girth.calf/supine')!)[0]!;
    void mode;
    expect(output(evaluate({ ...example(), measurements: [girth] })).measurements.length).toBe(1);
  });

  it('reads an arc of a finger, of the neck and of the foot', () => {
    const arc = (over: object) =>
      output(
        evaluate({ ...example(), measurements: [{ side: 'left', mode: 'active', instrument: 'goniometer', ...over }] }),
      ).measurements.map((m: { motion: string; side: string; position: string; value: number; digit?: number }) => [
        m.motion,
        m.side,
        m.position,
        m.value,
        m.digit,
      ]);
    expect(arc({ sftr: 'S:0-20-95', joint: 'fingerPip', digit: 4 })).toEqual([
      ['fingerPip.extension', 'left', 'sitting', -20, 4],
      ['fingerPip.flexion', 'left', 'sitting', 95, 4],
    ]);
    expect(arc({ sftr: 'R:60-0-55', joint: 'cervical' })).toEqual([
      ['cervical.rotation', 'left', 'sitting', 60, undefined],
      ['cervical.rotation', 'right', 'sitting', 55, undefined],
    ]);
    expect(arc({ sftr: 'S:45-0-40', joint: 'cervical' }).map((m: unknown[]) => m[1])).toEqual(['midline', 'midline']);
    expect(arc({ sftr: 'F:15-0-35', joint: 'subtalar' }).map((m: unknown[]) => m[2])).toEqual(['sitting', 'sitting']);
    expect(arc({ sftr: 'R(F90):85-0-60', joint: 'shoulder' }).map((m: unknown[]) => m[2])).toEqual(['supine', 'supine']);
  });

  it('says what the range is enough for, and what was not compared', () => {
    const knee = {
      motion: 'knee.flexion',
      side: 'left',
      mode: 'passive',
      position: 'supine',
      instrument: 'goniometer',
      trials: [{ end: 100 }],
    };
    const before = { assessedOn: '2026-10-01', measurements: [{ ...knee, position: 'prone' }] };
    const [judged] = output(evaluate({ ...example(), measurements: [knee], previous: before })).measurements;
    const verdicts = Object.fromEntries(judged.needs.map((n: { task: string; verdict: string }) => [n.task, n.verdict]));
    expect([verdicts['stairs up'], verdicts['deep squat, heels down']]).toEqual(['enough', 'not-enough']);
    expect(judged.notCompared[0]).toContain('Knee flexion, prone');
  });

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
    expect(problems(run(['juggle'], () => ''))[0]).toContain(
      'allowed: evaluate, screen, reason, program, plan, export, import, angle, tilt, icc, sftr',
    );
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
