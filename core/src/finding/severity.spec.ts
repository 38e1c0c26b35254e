import { DEFAULT_THRESHOLDS, type Thresholds } from './types.js';
import { SEVERITIES } from '../terms.js';
import { percentLoss, weigh, type Loss } from './severity.js';

describe('what a loss weighs', () => {
  const loss = (over: Partial<Loss>): Loss => ({ value: 90, expected: 120, better: 'more', mdc: 8.3, ...over });
  const severity = (over: Partial<Loss>, thresholds: Thresholds = DEFAULT_THRESHOLDS) => weigh(loss(over), thresholds).severity;

  it('goes by percent of the expected figure where that says something', () => {
    expect(percentLoss(loss({}))).toBe(25);
    expect([119, 108, 90, 60].map((value) => severity({ value }))).toEqual(['note', 'mild', 'moderate', 'marked']);
  });

  it('goes by multiples of the error near zero, and where less is better', () => {
    expect(percentLoss(loss({ expected: 0, value: -20 }))).toBeNull();
    expect(percentLoss(loss({ expected: 8, value: 2 })))
      .withContext('8 is less than the error')
      .toBeNull();
    expect(percentLoss(loss({ better: 'less', expected: 20, value: 40 }))).toBeNull();
    expect(weigh(loss({ better: 'less', expected: 0, value: 24, mdc: 10 }), DEFAULT_THRESHOLDS)).toEqual({
      percentLoss: null,
      timesError: 2.4,
      severity: 'moderate',
    });
    expect([-8, -9, -17, -25].map((value) => severity({ expected: 0, value }))).toEqual(['note', 'mild', 'moderate', 'marked']);
  });

  it('is the lesser of share and error: a large share of a small motion weighs little', () => {
    expect(severity({ expected: 12, value: 4.5, mdc: 8.3 }))
      .withContext('62 % of a small motion, within error')
      .toBe('note');
    expect(severity({ expected: 12, value: 3, mdc: 8.3 }))
      .withContext('75 % of a small motion, just past error')
      .toBe('mild');
    expect(severity({ expected: 180, value: 105, mdc: 8.3 }))
      .withContext('75 degrees')
      .toBe('moderate');
  });

  it('never falls as the loss grows', () => {
    for (const better of ['more', 'less'] as const)
      for (const unit of ['deg', 'cm', 'N', 's'] as const)
        for (const expected of [0, 5, 12, 45, 120, 180])
          for (const mdc of [1.4, 8.3, 16.6]) {
            const steps = Array.from({ length: 120 }, (_, i) =>
              severity({ better, unit, expected, mdc, value: expected + (better === 'more' ? -i : i) }),
            );
            const ranks = steps.map((step) => SEVERITIES.indexOf(step));
            expect(ranks.every((rank, i) => i === 0 || rank >= ranks[i - 1]!))
              .withContext(`${better} ${unit} ${expected} ${mdc}`)
              .toBeTrue();
          }
  });

  it('weighs lengths and girths by error: 5 cm of a thigh is not a note', () => {
    expect(severity({ better: 'neither', unit: 'cm', value: 45, expected: 50, mdc: 1.96 * Math.SQRT2 * 0.5 })).toBe('marked');
    expect(percentLoss(loss({ unit: 'cm', value: 45, expected: 50, mdc: 1.4 }))).toBeNull();
  });

  it('is raised by what the function asks for, and never lowered', () => {
    const dorsiflexion = (value: number) => severity({ value, expected: 12, motion: 'ankle.dorsiflexion' });
    expect([4, -1].map(dorsiflexion)).toEqual(['note', 'moderate']);
    expect(severity({ value: 20, expected: 120, motion: 'knee.extension' })).toBe('marked');
  });

  it('follows the clinic’s steps', () => {
    const strict: Thresholds = { ...DEFAULT_THRESHOLDS, severityPercent: [5, 10, 20], severityTimes: [0.1, 0.5, 1] };
    expect(severity({ value: 90 }, strict)).toBe('marked');
    expect(severity({ expected: 0, value: -9 }, strict)).toBe('marked');
  });
});
