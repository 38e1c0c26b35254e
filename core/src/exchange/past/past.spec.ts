import { MOTIONS } from '../../catalogue/index.js';
import { motion } from '../../catalogue/index.js';
import { measure } from '../../measurement.js';
import { progressOf } from '../../progress/index.js';
import { dayOrders, guessColumns, readDay, readPast, readValue, told, type PastColumn, type PastOptions } from './index.js';

const CONTEXT = { birthDate: '1984-05-02', today: '2026-11-26' };
const options = (rows: string[][], over: Partial<PastOptions> = {}): PastOptions => ({
  ...{ columns: guessColumns(rows), dateOrder: 'day-month-year', minus: null, mode: null, instrument: null, without: [] },
  ...over,
});
const read = (rows: string[][], over: Partial<PastOptions> = {}) => readPast(rows, options(rows, over), CONTEXT);
const roles = (columns: readonly PastColumn[]) => columns.map(({ role }) => role);

describe('an old list of readings', () => {
  it('knows every motion by its own name and id, and the usual short forms', () => {
    for (const { id, name } of MOTIONS) {
      expect(told(id).motion).withContext(id).toBe(id);
      expect(told(`left ${name}`).motion)
        .withContext(name)
        .toBe(id);
    }
    expect(told('L knee flex AROM')).toEqual({ motion: 'knee.flexion', side: 'left', mode: 'active' });
    expect(told('R. Hip IR (PROM), prone')).toEqual({ motion: 'hip.internalRotation', side: 'right', mode: 'passive', position: 'prone' });
    expect(told('Rt shoulder lateral rotation passive').motion).toBe('shoulder.externalRotation');
    expect(told('neck lateral flexion').motion).toBe('cervical.lateralFlexion');
    expect(told('ankle DF').motion).toBe('ankle.dorsiflexion');
    expect(told('pronation').motion).toBe('forearm.pronation');
    expect(told('SLR left')).toEqual({ motion: 'muscleLength.straightLegRaise', side: 'left' });
    expect(told('left and right knee flexion').side).toBeUndefined();
    expect(told('flexion').motion).withContext('of many joints').toBeUndefined();
    expect(told('constructor toString __proto__')).toEqual({});
  });

  it('reads days in any order that was said, and tells where it has to be said', () => {
    expect(readDay('3.11.2025', 'day-month-year')).toEqual({ ok: true, value: '2025-11-03' });
    expect(readDay('3/11/25', 'month-day-year')).toEqual({ ok: true, value: '2025-03-11' });
    expect(readDay('2025-11-03T10:00:00Z', 'month-day-year')).toEqual({ ok: true, value: '2025-11-03' });
    for (const cell of ['30.2.2025', 'soon', '', '13/13/2025']) expect(readDay(cell, 'day-month-year').ok).withContext(cell).toBeFalse();
    const columns: PastColumn[] = [{ role: 'day' }];
    expect(dayOrders([['date'], ['3/4/2025'], ['5/6/2025']], columns)).toEqual(['day-month-year', 'month-day-year']);
    expect(dayOrders([['date'], ['3/4/2025'], ['25/6/2025']], columns)).toEqual(['day-month-year']);
    expect(dayOrders([['date'], ['2025-04-03']], columns)).toEqual(['day-month-year', 'month-day-year', 'year-month-day']);
  });

  it('reads values with their units, and never guesses what a minus means', () => {
    const knee = motion('knee.extension');
    const value = (cell: string, of = knee, minus: 'lacks' | 'past' | null = null) => {
      const said = readValue(cell, of, null, minus);
      return said.ok ? said.value : said.message;
    };
    expect([value('lacks 10°'), value('short of 5'), value('3'), value('-10', knee, 'lacks'), value('−10', knee, 'past')]).toEqual([
      -10, -5, 3, -10, 10,
    ]);
    expect(value('-10')).toContain('say first what a minus means');
    // 1 inch = 2.54 cm exactly.
    expect(value('3 in', motion('distance.kneeToWall'))).toBe(7.62);
    expect(value('7,5', motion('distance.kneeToWall'))).toBe(7.5);
    expect(value('7 cm')).toContain('not in a unit of knee extension; allowed: deg');
    expect(value('about 90')).toContain('is not a value');
    expect(value('=1+1')).toContain('is not a value');
  });

  it('guesses columns of a list with one reading a row', () => {
    const rows = [
      ['Date', 'Movement', 'Side', 'Type', 'Reading (°)', 'VAS', 'Therapist'],
      ['3.11.2025', 'Shoulder flexion', 'R', 'P', '95', '4', 'somebody'],
      ['3.11.2025', 'Shoulder ER', 'R', 'P', '20', '', 'somebody'],
      ['17.11.2025', 'Shoulder flexion', 'R', 'P', '101', '3/10', 'somebody'],
    ];
    expect(roles(guessColumns(rows))).toEqual(['day', 'motion', 'side', 'mode', 'value', 'pain', 'ignore']);
    const { sessions, readings, refused } = read(rows);
    expect([readings, refused]).toEqual([3, []]);
    expect(sessions.map(({ assessedOn, measurements }) => [assessedOn, measurements.length])).toEqual([
      ['2025-11-03', 2],
      ['2025-11-17', 1],
    ]);
    expect(sessions[1]!.measurements[0]).toEqual({
      ...{ motion: 'shoulder.flexion', side: 'right', mode: 'passive', position: 'supine', instrument: 'goniometer' },
      ...{ trials: [{ end: 101 }], broughtIn: true, pain: 3 },
    });
  });

  it('guesses columns that are each of one measurement, and takes two of one day as its trials', () => {
    const rows = [
      ['visit', 'L knee flex active', 'R knee flex active', 'Left knee to wall (in)'],
      ['2025-03-01', '80', '130', '2'],
      ['2025-03-01', '84', '', ''],
    ];
    expect(roles(guessColumns(rows))).toEqual(['day', 'reading', 'reading', 'reading']);
    const { sessions, readings } = read(rows);
    expect(readings).toBe(4);
    expect(sessions[0]!.measurements.map(({ motion: id, side, trials }) => [id, side, trials])).toEqual([
      ['knee.flexion', 'left', [{ end: 80 }, { end: 84 }]],
      ['knee.flexion', 'right', [{ end: 130 }]],
      ['distance.kneeToWall', 'left', [{ value: 5.08 }]],
    ]);
  });

  it('refuses each cell with its line, what is wrong and what is allowed, and leaves out what is left out by hand', () => {
    const rows = [
      ['date', 'motion', 'side', 'mode', 'value', 'pain'],
      ['3.11.2025', 'knee flexion', 'left', 'passive', '95', '12'],
      ['3.11.2025', 'knee flexion', 'left', 'passive', '950', ''],
      ['3.11.2031', 'knee flexion', 'left', 'passive', '95', ''],
      ['3.11.1980', 'knee flexion', 'left', 'passive', '95', ''],
      ['3.11.2025', 'knee jerk', 'left', 'passive', '95', ''],
      ['3.11.2025', 'knee flexion', '', 'passive', '95', ''],
      ['3.11.2025', 'knee flexion', 'left', '', '95', ''],
      ['3.11.2025', 'knee extension', 'left', 'passive', '-5', ''],
      ['', '', '', '', '', ''],
      ['3.11.2025', 'knee flexion', 'left', 'passive', '95', ''],
    ];
    const { refused, readings, asksMinus } = read(rows);
    expect(refused.map(({ line, column }) => [line, column])).toEqual([
      [2, 'pain'],
      [3, 'value'],
      [4, 'date'],
      [5, 'date'],
      [6, 'motion'],
      [7, 'side'],
      [8, 'mode'],
      [9, 'value'],
    ]);
    for (const { message } of refused.slice(0, 7)) expect(message).toContain('allowed: ');
    expect([readings, asksMinus]).toEqual([1, true]);
    const without = read(rows, { without: [2, 3, 4, 5, 6, 7], mode: 'active', minus: 'lacks' });
    expect([without.refused, without.readings]).toEqual([[], 3]);
    expect(
      read([
        ['x', 'y'],
        ['1', '2'],
      ]).refused.map(({ column }) => column),
    ).toEqual(['day', 'value']);
    expect(read([]).refused.length).toBe(2);
  });

  it('accepts pain from 0 to 10 and refuses everything else', () => {
    const pain = (cell: string) => {
      const { refused, sessions } = read([
        ['date', 'motion', 'side', 'mode', 'value', 'pain'],
        ['3.11.2025', 'knee flexion', 'left', 'passive', '95', cell],
      ]);
      return refused.length > 0 ? refused.map(({ column, message }) => `${column} ${message}`)[0] : sessions[0]!.measurements[0]!.pain;
    };
    expect([pain('0'), pain('10'), pain('4/10'), pain('')]).toEqual([0, 10, 4, undefined]);
    expect([pain('11'), pain('-1'), pain('some')].every((said) => String(said).startsWith('pain '))).toBeTrue();
  });

  it('takes one figure of the spine as read at one site, where the motion can be', () => {
    const { sessions } = read([
      ['date', 'Trunk flexion active', 'lumbar flexion active'],
      ['2025-03-01', '41', '38'],
    ]);
    expect(sessions[0]!.measurements.map(({ instrument }) => instrument)).toEqual(['inclinometer', 'dualInclinometer']);
  });

  it('says which columns are missing, and takes no row then', () => {
    const { refused, readings } = read([
      ['x', 'y'],
      ['1', '2'],
    ]);
    expect(refused).toEqual([
      { line: 1, column: 'day', message: 'no column holds the day; allowed: choose one' },
      { line: 1, column: 'value', message: 'no column holds values; allowed: choose one' },
    ]);
    expect(readings).toBe(0);
  });

  it('takes part in progress with the larger error, and tells nobody’s name', () => {
    const { sessions } = read([
      ['date', 'left knee flexion passive'],
      ['1.10.2025', '60'],
      ['1.11.2025', '70'],
      ['1.12.2025', '80'],
    ]);
    const now = {
      assessedOn: '2026-11-20',
      measurements: [{ ...sessions[0]!.measurements[0]!, broughtIn: undefined, trials: [{ end: 110 }], examiner: 'Wren' }],
    };
    const [own, old] = [measure(now.measurements[0]!), measure(sessions[0]!.measurements[0]!)];
    expect(old.sem).toBeGreaterThan(own.sem);
    const [series] = progressOf([...sessions, now], { person: { birthDate: '1984-05-02', sex: 'female' } });
    expect(series!.points.map(({ broughtIn, examiner, apart }) => [broughtIn ?? false, examiner, apart])).toEqual([
      ...Array.from({ length: 3 }, () => [true, null, null]),
      [false, 'Wren', null],
    ]);
    // √(old² + own²)·1.96: larger than between two readings of one examiner.
    expect(series!.sinceFirst!.mdc).toBeCloseTo(1.96 * Math.hypot(old.sem, own.sem), 1);
    expect(series!.sinceFirst!.verdict).toBe('more');
  });
});
