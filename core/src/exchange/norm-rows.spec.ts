import fc from 'fast-check';
import { NORM_SETS, type NormSet } from '../norms/index.js';
import { normSetFromRows, normSetToRows } from './norm-rows.js';

const MINE: NormSet = {
  id: 'my-clinic',
  title: 'Our own clinic, 2026',
  short: 'Our clinic',
  year: 2026,
  where: 'own records',
  source: { cite: 'measured by ourselves', fromMemory: false },
  entries: [
    {
      motion: 'hip.internalRotation',
      mode: 'passive',
      position: 'prone',
      sex: 'any',
      ages: { from: 20, to: 65, label: '20–64 years' },
      value: { kind: 'distribution', mean: 34.2, sd: 7.1 },
      confidence: 'high',
    },
    {
      motion: 'hip.flexion',
      mode: 'any',
      position: 'any',
      sex: 'any',
      ages: null,
      value: { kind: 'range', low: 110, high: 130 },
      confidence: 'medium',
      note: 'a "quoted" note, with a comma',
    },
  ],
};
const mine = (): string[][] => normSetToRows(MINE);
const HEADER = mine().findIndex((row) => row[0] === 'motion');

/** The rows of the small set with one cell of its first value changed. */
const withCell = (column: string, value: string): string[][] => {
  const rows = mine();
  rows[HEADER + 1]![rows[HEADER]!.indexOf(column)] = value;
  return rows;
};
const refusedOf = (rows: string[][], taken: string[] = []): string[] => {
  const reading = normSetFromRows(rows, taken);
  return reading.ok ? [] : reading.refused.map(({ line, column, message }) => `${line} ${column}: ${message}`);
};

describe('norm sets as rows', () => {
  for (const set of NORM_SETS) {
    it(`${set.id} comes back as it went`, () => {
      const reading = normSetFromRows(normSetToRows(set));
      expect(reading.ok ? [] : reading.refused.slice(0, 3)).toEqual([]);
      if (reading.ok) expect(JSON.parse(JSON.stringify(reading.set))).toEqual(JSON.parse(JSON.stringify(set)));
    });
  }

  it('keep every number that a table can hold', () => {
    const decimal = fc.double({ min: 0.001, max: 59, noNaN: true }).map((n) => Number(n.toFixed(3)));
    fc.assert(
      fc.property(decimal, decimal, (mean, sd) => {
        const set: NormSet = { ...MINE, entries: [{ ...MINE.entries[0]!, value: { kind: 'distribution', mean, sd } }] };
        const reading = normSetFromRows(normSetToRows(set));
        expect(reading.ok && reading.set.entries[0]!.value).toEqual({ kind: 'distribution', mean, sd });
      }),
    );
  });

  it('are taken with the columns in any order, and with empty rows between', () => {
    const rows = mine();
    const turned = rows.map((row, i) => (i >= HEADER ? [...row].reverse() : row));
    expect(normSetFromRows([...turned.slice(0, HEADER + 2), [''], ...turned.slice(HEADER + 2)]).ok).toBeFalse();
    // The header is found by its first cell, so the motion stays in front.
    const moved = rows.map((row, i) => (i >= HEADER ? [row[0]!, ...row.slice(1).reverse()] : row));
    expect(normSetFromRows([...moved.slice(0, HEADER + 2), [''], ...moved.slice(HEADER + 2)]).ok).toBeTrue();
  });

  const REFUSED: readonly [column: string, value: string, words: string][] = [
    ['motion', 'hip.swing', '"hip.swing" is not in the catalogue'],
    ['mode', 'helped', '"helped" is not one of the allowed: active, passive, any'],
    ['position', 'quadruped', 'not measured in "quadruped"; allowed: prone, sitting, supine, any'],
    ['variant', 'sideways', 'not a way of measuring hip internal rotation; allowed: hip-90, any'],
    ['side', 'midline', 'does not fit; allowed: left, right'],
    ['digit', '2', 'does not belong to this motion'],
    ['sex', 'f', 'not one of the allowed: female, male, any'],
    ['age_from', 'twenty', '"twenty" is not an age; allowed: 0 to 130 years'],
    ['age_to', '20', 'does not lie after 20'],
    ['kind', 'average', 'not one of the allowed: point, cutoff, range, distribution, skewed, mean'],
    ['mean', '1e2', '"1e2" is not a number'],
    ['mean', '300', '300 is more than hip internal rotation can hold; allowed: -60 to 100'],
    ['sd', '0', '0 is not a spread; allowed: more than 0'],
    ['sd', '', 'is not a number'],
    ['expected', '45', 'does not belong to a distribution; leave it empty'],
    ['confidence', 'sure', 'not one of the allowed: high, medium-high'],
    ['note', '=1+1', 'a spreadsheet would run as a formula'],
    ['age_label', '=1+1', 'a spreadsheet would run as a formula'],
  ];
  for (const [column, value, words] of REFUSED) {
    it(`refuse "${value}" for ${column}, naming the line and what is allowed`, () => {
      const [first, ...more] = refusedOf(withCell(column, value));
      expect(first).toContain(`${HEADER + 2} ${column}: `);
      expect(first).toContain(words);
      expect(more.every((line) => line.startsWith(`${HEADER + 2} `))).toBeTrue();
    });
  }

  it('show, and do not run, what was stored before formulas were refused', () => {
    const entry = { ...MINE.entries[0]!, note: '@x', ages: { from: 20, to: 65, label: '=1+1' } };
    const rows = normSetToRows({ ...MINE, title: '+cmd', source: { cite: '-2', fromMemory: false }, entries: [entry] });
    for (const cell of rows.flat().filter((c) => Number.isNaN(Number(c)))) expect(cell).not.toMatch(/^[=+\-@]/);
    expect(rows.flat()).toContain("'=1+1");
  });

  it('name every wrong line at once and take nothing', () => {
    const rows = mine();
    rows.push(rows[HEADER + 1]!.map((cell, i) => (rows[HEADER]![i] === 'sd' ? '-3' : cell)));
    rows.push([...rows[HEADER + 2]!]);
    rows.push([...rows[HEADER + 2]!, 'one too many']);
    expect(refusedOf(rows).map((line) => Number(line.split(' ')[0]))).toEqual([HEADER + 4, HEADER + 5, HEADER + 6]);
    expect(refusedOf(rows)[1]).toContain(`asks the same as line ${HEADER + 3}`);
  });

  it('refuse what is not a norm set, an id in use, and what is said wrongly about the set', () => {
    expect(refusedOf([['name', 'value']])[0]).toContain('the first row is "dial-gauge norm set,1"');
    expect(refusedOf(mine(), ['my-clinic'])[0]).toContain('2 id: "my-clinic" is installed already');
    const said = (name: string, value: string) => refusedOf(mine().map((row) => (row[0] === name ? [name, value] : row)))[0];
    expect(said('id', 'My Clinic')).toContain('small letters, digits and hyphens');
    expect(said('title', '')).toContain('is missing');
    expect(said('year', 'soon')).toContain('is not a year');
    expect(said('from memory', 'maybe')).toContain('allowed: yes, no');
    expect(said('source', '@SUM(A1)')).toContain('formula');
    expect(refusedOf([...mine().slice(0, 2), mine()[1]!, ...mine().slice(2)])[0]).toBe('3 id: is given twice');
    const wide = mine().map((row, i) => (i === HEADER + 1 ? [...row, 'more'] : row));
    expect(refusedOf(wide)).toEqual([
      `${HEADER + 2} columns: the row has ${wide[HEADER]!.length + 1} cells; allowed: ${wide[HEADER]!.length}`,
    ]);
    expect(refusedOf(mine().slice(0, HEADER + 1))[0]).toContain('no values follow');
    expect(refusedOf(mine().filter((_, i) => i !== HEADER))[0]).toContain('no row of column names');
    expect(refusedOf(mine().map((row, i) => (i === HEADER ? row.map((c) => (c === 'sd' ? 'spread' : c)) : row)))).toEqual([
      jasmine.stringContaining('spread: is not a column') as never,
      jasmine.stringContaining('sd: is missing') as never,
    ]);
  });
});
