import { measure } from '../measurement.js';
import { measuredMobility, MOBILITY_ITEMS, mobilityScore } from './index.js';

describe('nine-point mobility score', () => {
  it('has nine points, eight of them in pairs (Beighton et al. 1973, from memory)', () => {
    expect(MOBILITY_ITEMS.length).toBe(9);
    expect(MOBILITY_ITEMS.filter((item) => item.side === 'left').length).toBe(4);
  });

  it('takes what was measured, and asks the rest', () => {
    const elbow = (side: 'left' | 'right', end: number) =>
      measure({ motion: 'elbow.extension', side, mode: 'active', position: 'supine', instrument: 'goniometer', trials: [{ end }] });
    expect(measuredMobility([elbow('left', 14), elbow('right', 10)])).toEqual({ 'elbow-left': true, 'elbow-right': false });
  });

  it('is counted from 5, from 4 after fifty, from 6 in children, and says when it cannot be told', () => {
    const all = Object.fromEntries(MOBILITY_ITEMS.map(({ id }) => [id, false]));
    const four = { ...all, palms: true, 'knee-left': true, 'knee-right': true, 'thumb-left': true };
    expect(mobilityScore(four, 30).words).toBe('general mobility 4 of 9: below 5: not mobile in general at this age');
    expect(mobilityScore(four, 51).words).toContain('4 or more: mobile in general');
    expect([8, 30, 60].map((age) => mobilityScore({}, age).from)).toEqual([6, 5, 4]);
    expect(mobilityScore({ palms: true }, 30)).toEqual(
      jasmine.objectContaining({ score: 1, open: 8, words: jasmine.stringContaining('cannot be told yet') as never }),
    );
  });

  it('changes its line on the twelfth birthday and after the age of fifty', () => {
    expect([11, 12, 50, 51].map((age) => mobilityScore({}, age).from)).toEqual([6, 5, 5, 4]);
  });
});
