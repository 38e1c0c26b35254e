import type { MotionId } from '../terms.js';
import { findNormSet, type NormSet } from './index.js';

/*
 * Every table typed a second time, apart from the data files and in the
 * tables' own layout: motions down, columns across. A slip of a finger in one
 * of the two shows here. Both entries are from memory of the printed tables.
 */
const ORDER: readonly MotionId[] = [
  'hip.flexion',
  'hip.extension',
  'hip.abduction',
  'hip.adduction',
  'hip.internalRotation',
  'hip.externalRotation',
];

/** Mean and SD cells of a set for one age band, in the order above; absent motions are left out. */
function column(set: NormSet, band: string | undefined): string[] {
  return ORDER.flatMap((motion) =>
    set.entries
      .filter((e) => e.motion === motion && e.ages?.label === band)
      .map(({ value }) =>
        value.kind === 'distribution'
          ? `${value.mean} (${value.sd})`
          : value.kind === 'point'
            ? `${value.expected}`
            : `${value.low}-${value.high}`,
      ),
  );
}
const need = (id: string): NormSet => findNormSet(id)!;

describe('second entry of every norm table', () => {
  it('AAOS 1965', () => {
    expect(column(need('aaos-1965'), undefined)).toEqual('120 30 45 30 45 45'.split(' '));
  });

  it('AMA Guides, 3rd edition hip figures', () => {
    expect(column(need('ama-guides-4'), undefined)).toEqual('100 30 40 20 40 50'.split(' '));
  });

  it('Boone & Azen 1979, both age groups', () => {
    const set = need('boone-azen-1979');
    expect(column(set, '18 months–19 years').join(' | ')).toBe(
      '123.4 (5.6) | 7.4 (7.3) | 51.7 (8.8) | 28.3 (4.1) | 50.3 (6.1) | 50.5 (6.1)',
    );
    expect(column(set, '20–54 years').join(' | ')).toBe('121.3 (6.4) | 12.1 (5.4) | 40.5 (6) | 25.6 (3.6) | 44.4 (4.3) | 44.2 (4.8)');
  });

  it('Roaas & Andersson 1982', () => {
    expect(column(need('roaas-andersson-1982'), '30–40 years').join(' | ')).toBe(
      '120.4 (8.3) | 9.5 (5.3) | 38.8 (7) | 30.5 (7.3) | 32.6 (8.2) | 33.6 (6.8)',
    );
  });

  it('Roach & Miles 1991, three bands, without adduction', () => {
    const set = need('roach-miles-1991');
    expect(column(set, '25–39 years').join(' | ')).toBe('122 (12) | 22 (8) | 44 (11) | 33 (7) | 34 (8)');
    expect(column(set, '40–59 years').join(' | ')).toBe('120 (14) | 18 (7) | 42 (11) | 31 (8) | 32 (8)');
    expect(column(set, '60–74 years').join(' | ')).toBe('118 (13) | 17 (8) | 39 (12) | 30 (7) | 29 (9)');
  });

  it('common practice', () => {
    expect(column(need('common-practice'), undefined)).toEqual('110-135 10-30 40-45 30 30-45 45'.split(' '));
  });
});
