import { valuesOf } from '../checked/index.js';
import type { ValueCheck } from '../looked-up.js';
import { checksFromRows, checksToRows } from './check-rows.js';

const [HIP, OTHER] = valuesOf('norms', 'boone-azen-1979')!;
const check = (over: Partial<ValueCheck> = {}): ValueCheck => ({
  kind: 'norms',
  of: 'boone-azen-1979',
  key: HIP!.key,
  held: HIP!.figures,
  corrected: null,
  source: '=cmd; "quoted"',
  edition: '',
  page: 'table 2',
  by: 'Wren',
  on: '2026-12-02',
  ...over,
});

describe('values looked up as rows', () => {
  const rows = () => checksToRows([check(), check({ key: OTHER!.key, held: OTHER!.figures, corrected: { mean: 60.5, sd: 7 } })]);
  const changed = (line: number, column: string, cell: string): string[][] => {
    const all = rows();
    all[line]![all[0]!.indexOf(column)] = cell;
    return all;
  };
  const refusedBy = (all: string[][]): string[] => {
    const read = checksFromRows(all);
    return read.ok ? [] : read.refused.map(({ line, column, message }) => `${line} ${column} ${message}`);
  };

  it('come back as they went out, and are no formula in a spreadsheet', () => {
    expect(checksFromRows(rows())).toEqual({
      ok: true,
      checks: [check(), check({ key: OTHER!.key, held: OTHER!.figures, corrected: { mean: 60.5, sd: 7 } })],
    });
    expect(
      rows()
        .flat()
        .some((cell) => cell.startsWith('=')),
    ).toBeFalse();
    expect(rows()[2]![rows()[0]!.indexOf('printed')]).toBe('mean 60.5°, SD 7°');
  });

  it('are refused with line, column and what is allowed', () => {
    expect(refusedBy(changed(1, 'held', 'mean=1; sd=2'))[0]).toMatch(/^2 held is not what this program holds; allowed: "mean=\d/);
    expect(refusedBy(changed(2, 'corrected', 'about 60'))[0]).toBe(
      '3 corrected "about 60" is not understood; allowed: as "mean=121; sd=6.4", or nothing',
    );
    expect(refusedBy(changed(2, 'corrected', 'mean=60.5'))[0]).toContain('3 corrected sd is missing');
    expect(refusedBy(changed(1, 'key', 'nothing'))[0]).toContain('2 key is no value of this program');
    expect(refusedBy(changed(2, 'key', HIP!.key))).toEqual(['3 key stands in line 2 too; allowed: each value once']);
    expect(refusedBy(changed(1, 'page', ''))[0]).toContain('2 page is empty');
    expect(refusedBy(changed(1, 'source', 'x'.repeat(301)))[0]).toBe('2 source is 301 characters long; allowed: up to 300');
    expect(refusedBy(changed(1, 'on', '2026-13-40'))[0]).toContain('2 on "2026-13-40" is no day');
    expect(refusedBy([rows()[0]!.filter((name) => name !== 'page')])[0]).toContain('1 page is missing; allowed: a header with kind, of');
    expect(refusedBy([rows()[0]!, []])[0]).toBe('2 key there is no row; allowed: one or more');
  });
});
