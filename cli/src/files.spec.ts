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
    expect(output(of(knee, { zero: 0, end: 280 })).measurements[0].value)
      .withContext('80 past straight is more than a knee holds')
      .toBe(-80);
    const sites = { upper: { zero: 0, end: 30 }, lower: { zero: 0, end: 15 } };
    expect(problems(of(back, sites))[0]).toContain('measurements.0.trials.0.sense: is missing');
    expect(output(of(back, { ...sites, sense: -1 })).measurements[0].value).toBe(-15);
  });

  const base = () => {
    const { normSet, ...file } = JSON.parse(EXAMPLE) as Record<string, unknown>;
    expect(normSet).toBeDefined();
    return file;
  };
  const arc = (over: object) => ({ joint: 'hip', side: 'left', mode: 'passive', instrument: 'goniometer', ...over });
  const of = (...measurements: object[]) => evaluate({ ...base(), measurements });

  it('files a rotation at the position that is written with it, or refuses it', () => {
    const positions = (outcome: ReturnType<typeof run>) => output(outcome).measurements.map((m: { position: string }) => m.position);
    expect(positions(of(arc({ sftr: 'R(S90):45-0-40' })))).toEqual(['sitting', 'sitting']);
    expect(problems(of(arc({ sftr: 'R(S90):45-0-40', position: 'prone' })))).toEqual([
      'measurements.0.position: "prone" is not where (S90) is measured; allowed: sitting, or no position',
    ]);
    expect(problems(of(arc({ sftr: 'R(S45):45-0-40', position: 'prone' })))[0]).toContain('no protocol of the hip is known for (S45)');
  });

  it('keeps a joint that is fixed, of the spine too', () => {
    const ends = (outcome: ReturnType<typeof run>) =>
      output(outcome).measurements.map((m: { motion: string; side: string; value: number }) => [m.motion, m.side, m.value]);
    expect(ends(of(arc({ sftr: 'S:0-30', joint: 'elbow' })))).toEqual([
      ['elbow.flexion', 'left', 30],
      ['elbow.extension', 'left', -30],
    ]);
    expect(
      ends(of(arc({ sftr: 'R:0-10', joint: 'cervical', side: 'right', mode: 'active', instrument: 'inclinometer', position: 'supine' }))),
    ).toEqual([
      ['cervical.rotation', 'left', -10],
      ['cervical.rotation', 'right', 10],
    ]);
  });

  it('names what cannot be: a start after the end, a visit before the birth, a substitution nobody knows, the second of two', () => {
    const hip = {
      motion: 'hip.flexion',
      side: 'left',
      mode: 'passive',
      position: 'supine',
      instrument: 'goniometer',
      trials: [{ end: 90 }],
    };
    expect(problems(of({ ...hip, trials: [{ start: 40, end: 10 }] }))[0]).toContain(
      'measurements.0.trials.0.start: 40 lies after the end, 10',
    );
    expect(problems(of({ ...hip, substitutions: ['levitates'] }))[0]).toMatch(
      /^measurements\.0\.substitutions: "levitates" is none of .*; allowed: /,
    );
    expect(problems(of(hip, { ...hip, side: 'right' }, hip))).toEqual([
      'measurements.2: hip.flexion left passive supine is given twice, first as 0; put its trials into one measurement',
    ]);
    const early = { ...base(), previous: { assessedOn: '1970-01-01', measurements: [hip] }, measurements: [hip] };
    expect(problems(evaluate(early))[0]).toContain('previous.assessedOn: lies before the birth date');
  });

  it('never takes identifiers for an examiner, whatever their column is called', () => {
    const table = ['9,2,5,8', '6,1,3,2', '8,4,6,8', '7,1,2,6'];
    const icc = (header: string, ids: readonly string[]) =>
      output(run(['icc', 'x.csv'], () => [header, ...table.map((row, i) => `${ids[i]!},${row}`)].join('\n')));
    const plain = output(run(['icc', 'x.csv'], () => ['a,b,c,d', ...table].join('\n')));
    for (const header of ['Subject ID', 'Pat-Nr', 'Patient number', 'ID', 'participant_code', 'Nr'])
      expect(icc(`${header},a,b,c,d`, ['1034', '2077', '1999', '1500']))
        .withContext(header)
        .toEqual(plain);
    expect(icc('Teilnehmer,a,b,c,d', ['101', '102', '103', '104']))
      .withContext('counts the rows')
      .toEqual(plain);
    expect(icc('Rater No 1,a,b,c,d', ['9', '6', '8', '7']).k).toBe(5);
  });
});
