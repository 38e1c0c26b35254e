import { strToU8, zipSync } from 'fflate';
import { sheetRows } from './sheet.js';
import { xlsxOf } from './testing/xlsx.js';

const rowsOf = async (bytes: Uint8Array) => {
  const read = await sheetRows(bytes);
  return read.ok ? read.rows : read.message;
};

describe('a list from a file', () => {
  it('is read from a spreadsheet: text, figures, days, and formulas as what they came to', async () => {
    const rows = await rowsOf(
      xlsxOf([
        ['Date', 'Left knee flexion'],
        ['3.11.2025', 95],
        ['2025-11-17', '=1+1'],
        ['Ärger & Ω', 7.5],
        ['', ''],
      ]),
    );
    expect(rows).toEqual([
      ['Date', 'Left knee flexion'],
      ['3.11.2025', '95'],
      ['2025-11-17', '2'],
      ['Ärger & Ω', '7.5'],
    ]);
  });

  it('is read from text in any of the usual ways', async () => {
    expect(await rowsOf(strToU8('\uFEFFa;b;c\r\n1;2,5;"x;y"\r\n3;4;z\r\n'))).toEqual([
      ['a', 'b', 'c'],
      ['1', '2,5', 'x;y'],
      ['3', '4', 'z'],
    ]);
    expect(await rowsOf(strToU8('a\tb\n1\t2'))).toEqual([
      ['a', 'b'],
      ['1', '2'],
    ]);
    expect(await rowsOf(new Uint8Array([0x61, 0x2c, 0xe4, 0x0a]))).toEqual([['a', 'ä']]);
  });

  it('is refused where it is none, broken, or would unpack to far more than it says', async () => {
    expect(await rowsOf(new Uint8Array())).toContain('is empty');
    expect(await rowsOf(strToU8('\n\n'))).toContain('holds no row');
    expect(await rowsOf(new Uint8Array([1, 0, 2, 3]))).toContain('neither text nor a spreadsheet');
    expect(await rowsOf(strToU8('a,"b\n'))).toContain('allowed: a quote that is closed');
    expect(await rowsOf(zipSync({ 'readme.txt': strToU8('x') }))).toContain('an archive without a sheet');
    expect(await rowsOf(xlsxOf([['a']]).slice(0, 300))).toContain('is broken');
    expect(await rowsOf(xlsxOf([], '<worksheet><sheetData><row></worksheet>'))).toBeTruthy();
    // 60 MB of the same letter pack into some 60 kB.
    const bomb = zipSync({ 'xl/worksheets/sheet1.xml': new Uint8Array(60_000_000).fill(97) });
    expect(bomb.length).toBeLessThan(200_000);
    expect(await rowsOf(bomb)).toContain('unpacks to 60 MB; allowed: at most 20 MB');
  });

  it('is refused by how far its cells reach, before they are read', async () => {
    const corner = '<worksheet><sheetData><row r="1048576"><c r="XFD1048576" t="n"><v>1</v></c></row></sheetData></worksheet>';
    expect(await rowsOf(xlsxOf([['a']], corner))).toContain('has 1048576 rows and 16384 columns; allowed: at most 5001 and 60');
    const wide = Array.from({ length: 61 }, (_, n) => `c${n}`);
    expect(await rowsOf(xlsxOf([wide]))).toContain('has 1 rows and 61 columns');
    expect(await rowsOf(strToU8(wide.join(',')))).toContain('has 1 rows and 61 columns');
    expect(await rowsOf(strToU8('a,b\n1,2\n'.repeat(2_600)))).toContain('has 5200 rows and 2 columns');
  });
});
