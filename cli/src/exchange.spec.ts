import { readFileSync } from 'node:fs';
import { run } from './run.js';

const folder = new URL('../../docs/formats/examples/', import.meta.url);
const read = (file: string) => readFileSync(new URL(file, folder), 'utf8');
const output = (args: readonly string[], text?: string) => {
  const outcome = run(args, text === undefined ? read : () => text);
  return outcome.exitCode === 0 ? outcome.output : fail(outcome.problems.join('\n'));
};
const problems = (args: readonly string[], text?: string) => {
  const outcome = run(args, text === undefined ? read : () => text);
  return outcome.exitCode === 2 ? outcome.problems : [];
};

describe('gauge export and import', () => {
  it('lead there and back, and what comes back is judged the same', () => {
    const evaluated = output(['evaluate', 'hip-and-back.json']);
    for (const format of ['csv', 'fhir', 'json']) {
      const out = output(['export', 'hip-and-back.json', '--to', format]);
      const back = output(['import', 'x', '--from', format], out!);
      expect(output(['evaluate', 'back.json'], back!))
        .withContext(format)
        .toBe(evaluated);
    }
  });

  it('write the recheck and the days of the drills as a calendar, the same each time', () => {
    const text = output(['export', 'programme.json', '--to', 'ics'])!;
    const { recheckOn, drills } = JSON.parse(output(['program', 'programme.json'])!) as { recheckOn: string; drills: unknown[] };
    expect(text).toContain(`DTSTART;VALUE=DATE:${recheckOn.replaceAll('-', '')}`);
    expect(text.match(/BEGIN:VEVENT/g)!.length).toBe(1 + drills.length);
    expect(output(['export', 'programme.json', '--to', 'ics'])).toBe(text);
  });

  it('write arcs as lines of SFTR', () => {
    expect(output(['export', 'hip-and-back.json', '--to', 'sftr'])).toMatch(/^# left hip\.internalRotation passive prone 19: /);
  });

  it('say what is missing or wrong, one line each', () => {
    expect(problems(['export', 'hip-and-back.json'])).toEqual(['--to: is missing; allowed: fhir, csv, sftr, json, ics']);
    expect(problems(['export', 'hip-and-back.json', '--to', 'pdf'])).toEqual([
      '--to: "pdf" is not known; allowed: fhir, csv, sftr, json, ics',
    ]);
    expect(problems(['export', '--to', 'csv'])).toEqual(['export: takes one file, or - for standard input']);
    expect(problems(['import', 'x', '--from', 'csv'], 'a,b\n1,2')[0]).toMatch(/^line 1, column a: is not a column/);
    expect(problems(['import', 'x', '--form', 'csv'], '')[0]).toMatch(/^arguments: /);
    expect(problems(['import', 'nowhere.csv', '--from', 'csv'])[0]).toMatch(/^nowhere\.csv: cannot be read/);
  });
});
