import { readFileSync } from 'node:fs';
import { run } from './run.js';

const EXAMPLE = readFileSync(new URL('../../docs/formats/examples/study.csv', import.meta.url), 'utf8');
const icc = (text: string) => run(['icc', 'study.csv'], () => text);
const output = (text: string) => {
  const outcome = icc(text);
  if (outcome.exitCode !== 0) throw new Error(outcome.problems.join('\n'));
  return JSON.parse(outcome.output);
};
const problems = (text: string) => {
  const outcome = icc(text);
  return outcome.exitCode === 2 ? outcome.problems : outcome.output;
};
const BARE = '9,2,5,8\n6,1,3,2\n8,4,6,8\n7,1,2,6\n10,5,6,9\n6,2,4,7';

describe('gauge icc', () => {
  it('prints the six coefficients of Shrout & Fleiss 1979 with their intervals (from memory, recomputed)', () => {
    expect(output(EXAMPLE)).toEqual({
      n: 6,
      k: 4,
      icc: {
        '1,1': { value: 0.166, low: -0.133, high: 0.723 },
        '2,1': { value: 0.29, low: 0.019, high: 0.761 },
        '3,1': { value: 0.715, low: 0.342, high: 0.946 },
        '1,k': { value: 0.443, low: -0.884, high: 0.912 },
        '2,k': { value: 0.62, low: 0.071, high: 0.927 },
        '3,k': { value: 0.909, low: 0.676, high: 0.986 },
      },
      sem: { agreement: 2.503, consistency: 1.01 },
      mdc95: { agreement: 6.937, consistency: 2.799 },
    });
  });

  it('takes it without a header, with names, semicolons, tabs, CRLF, a byte order mark and empty lines', () => {
    const whole = output(EXAMPLE);
    const named = BARE.split('\n')
      .map((row, at) => `person ${at},${row}`)
      .join('\n');
    const forms = [
      BARE,
      named,
      `a,b,c,d\n${BARE}`,
      BARE.replaceAll(',', ';'),
      BARE.replaceAll(',', '\t'),
      `\uFEFF${BARE.replaceAll('\n', '\r\n')}\r\n\r\n`,
      `${BARE}\n\n`,
    ];
    for (const form of forms) expect(output(form)).withContext(form).toEqual(whole);
    expect(output(BARE.replaceAll(',', ';').replace('9;', '9,0;'))).toEqual(whole);
  });

  it('takes decimal commas between semicolons or tabs, however many there are, with a header and names or without', () => {
    const whole = output(EXAMPLE);
    const decimal = (sign: string) =>
      BARE.split('\n').map((row) =>
        row
          .split(',')
          .map((cell) => `${cell},0`)
          .join(sign),
      );
    for (const sign of [';', '\t']) {
      expect(output(decimal(sign).join('\n')))
        .withContext('bare')
        .toEqual(whole);
      expect(output([['a', 'b', 'c', 'd'].join(sign), ...decimal(sign)].join('\r\n')))
        .withContext('headed')
        .toEqual(whole);
      const named = decimal(sign).map((row, at) => `"Quill, ${at}"${sign}${row}`);
      expect(output([['subject', 'a', 'b', 'c', 'd'].join(sign), ...named].join('\n')))
        .withContext('named')
        .toEqual(whole);
    }
    // Two readings each: as many commas as there would be between cells.
    const two = output('9,5;2,1\n6,0;1,5\n8,5;4,0\n7,0;1,0');
    expect([two.n, two.k]).toEqual([4, 2]);
    expect(output('9.5,2.1\n6.0,1.5\n8.5,4.0\n7.0,1.0')).toEqual(two);
  });

  it('refuses a missing or odd cell by line and column, and prints nothing', () => {
    expect(problems(EXAMPLE.replace('3,8,4,6,8', '3,8,,6,x'))).toEqual([
      'line 4, column 3: is missing; allowed: a number in every cell',
      'line 4, column 5: "x" is not a number; allowed: a number in every cell',
    ]);
    expect(problems('1,2\n2,3')).toEqual(['study.csv: 2 subjects; allowed: 3 or more, one a row']);
    expect(problems('1\n2\n3')).toEqual(['study.csv: 1 readings a subject; allowed: 2 or more, one a column']);
    expect(problems('')).toEqual(['study.csv: 0 subjects; allowed: 3 or more, one a row']);
    expect(problems('1,3\n2,2\n3,1')[0]).toContain('the same mean');
  });

  it('says what it takes, and when a file cannot be read', () => {
    const none = run(['icc'], () => '');
    expect(none.exitCode === 2 && none.problems).toEqual(['icc: takes one file, or - for standard input']);
    const gone = run(['icc', 'gone.csv'], () => {
      throw new Error('no such file');
    });
    expect(gone.exitCode === 2 && gone.problems).toEqual(['gone.csv: cannot be read (no such file)']);
  });
});

describe('gauge evaluate, beyond one motion', () => {
  const exam = (more: object) =>
    run(['evaluate', '-'], () =>
      JSON.stringify({
        format: 'dial-gauge/assessment',
        version: 1,
        person: { birthDate: '1959-05-02', sex: 'male' },
        assessedOn: '2026-11-20',
        involvedSide: 'left',
        measurements: (
          [
            ['knee.flexion', 'left', 80],
            ['knee.extension', 'left', -12],
            ['knee.flexion', 'right', 135],
            ['knee.extension', 'right', 0],
          ] as const
        ).map(([motion, side, end]) => ({
          motion,
          side,
          mode: 'passive',
          position: 'supine',
          instrument: 'goniometer',
          trials: [{ end }],
        })),
        ...more,
      }),
    );

  it('knows the operation: the course, the published error of it, and straightening first', () => {
    const outcome = exam({ procedure: { id: 'knee-replacement', on: '2026-10-09' } });
    if (outcome.exitCode !== 0) throw new Error(outcome.problems.join('\n'));
    const { findings, measurements } = JSON.parse(outcome.output);
    expect(findings[0]).toEqual(jasmine.objectContaining({ motion: 'knee.extension', place: jasmine.stringContaining('straightening') }));
    expect(findings.map((f: { kind: string }) => f.kind)).toContain('behind-course');
    expect(measurements.find((m: { motion: string }) => m.motion === 'knee.flexion').sem).toBe(4.1);
  });

  it('follows the rule asked for, and refuses another one by name', () => {
    const outcome = exam({ ranking: 'ground-up', complaintAt: 'knee' });
    expect(outcome.exitCode === 0 && JSON.parse(outcome.output).ranking).toBe('ground-up');
    const wrong = exam({ ranking: 'loudest', procedure: { id: 'knee-replacement', on: '2026-12-09' } });
    expect(wrong.exitCode === 2 && wrong.problems.join()).toContain('ranking:');
    const late = exam({ procedure: { id: 'knee-replacement', on: '2026-12-09' } });
    expect(late.exitCode === 2 && late.problems).toEqual(['procedure.on: lies after this assessment; allowed: 2026-11-20 or earlier']);
  });
});
