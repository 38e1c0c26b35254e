import { DEFAULT_THRESHOLDS, type Thresholds } from './types.js';
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
    expect([-2, -6, -15, -25].map((value) => severity({ expected: 0, value }))).toEqual(['note', 'mild', 'moderate', 'marked']);
  });

  it('is never past mild when measuring error alone could explain it', () => {
    expect(severity({ expected: 12, value: 4.5, mdc: 8.3 }))
      .withContext('62 % of a small motion')
      .toBe('mild');
  });

  it('follows the clinic’s steps', () => {
    const strict: Thresholds = { ...DEFAULT_THRESHOLDS, severityPercent: [5, 10, 20], severityTimes: [0.1, 0.5, 1] };
    expect(severity({ value: 90 }, strict)).toBe('marked');
    expect(severity({ expected: 0, value: -9 }, strict)).toBe('marked');
  });
});
