import { asRead, DOCUMENTS, FULL_DOCUMENT } from '../testing/documents.js';
import { documentFromRows, documentToRows } from './csv-rows.js';

const rowsOf = (document = FULL_DOCUMENT): string[][] => documentToRows(document).map((row) => row.map(String));
const refusals = (rows: readonly (readonly string[])[]): string[] => {
  const read = documentFromRows(rows);
  return read.ok ? [] : read.refused.map(({ line, column, message }) => `${line} ${column}: ${message}`);
};
/** The rows with one cell of the first row of a record written over. */
function withCell(record: string, column: string, cell: string, nth = 0): string[][] {
  const rows = rowsOf();
  const line = rows.flatMap((row, at) => (row[0] === record ? [at] : []))[nth]!;
  rows[line]![rows[0]!.indexOf(column)] = cell;
  return rows;
}

describe('an assessment as a table', () => {
  it('gives back the document it was written from', () => {
    for (const document of DOCUMENTS) {
      const read = documentFromRows(rowsOf(document));
      expect(read.ok && read.document)
        .withContext(JSON.stringify(read))
        .toEqual(asRead(document));
    }
  });

  it('has a row for each trial and each try, with the line of each place', () => {
    const rows = rowsOf();
    expect(rows[0]![0]).toBe('record');
    const counts = new Map<string, number>();
    for (const [record = ''] of rows.slice(1)) counts.set(record, (counts.get(record) ?? 0) + 1);
    expect(counts.get('assessment')).toBe(1);
    expect(counts.get('trial')).toBe(5);
    expect(counts.get('try')).toBe(4);
    const read = documentFromRows(rows);
    if (!read.ok) return fail('was not read');
    const lineOfTrial = (nth: number) => rows.flatMap(([record], at) => (record === 'trial' ? [at + 1] : []))[nth];
    expect(read.lineOf(['measurements', 0, 'motion'])).toBe(lineOfTrial(0)!);
    expect(read.lineOf(['measurements', 1, 'motion'])).toBe(lineOfTrial(2)!);
  });

  it('reads over empty rows and empty columns at the end', () => {
    const rows = rowsOf().map((row) => [...row, '', ' ']);
    rows.splice(2, 0, ['', ' ', ''], []);
    const read = documentFromRows(rows);
    expect(read.ok && read.document).toEqual(asRead(FULL_DOCUMENT));
  });

  it('refuses a header that is not one, by the name of the column', () => {
    expect(refusals([])).toEqual(['1 record: is missing; allowed: a first row with the names of the columns, "record" among them']);
    expect(refusals([['record', 'hurt', 'pain', 'pain']]).map((one) => one.split(';')[0]!)).toEqual([
      '1 hurt: is not a column',
      '1 pain: is given twice',
      '1 pain: is given twice',
    ]);
    expect(refusals([['record', '', 'pain']])[0]).toMatch(/^1 column: is not a column; allowed: record, /);
    expect(refusals([['record', 'constructor']])[0]).toMatch(/^1 constructor: is not a column/);
  });

  it('refuses a row without a record, or with a cell beside the columns', () => {
    expect(refusals(withCell('trial', 'record', 'trail'))).toContain(
      jasmine.stringMatching(/^\d+ record: "trail" is no record; allowed: assessment, /) as unknown as string,
    );
    const rows = rowsOf();
    rows[1]!.push('stray');
    expect(refusals(rows)).toEqual(['2 row: has a cell without a column, "stray"; allowed: as many cells as columns']);
  });

  it('wants one row that says whose and when', () => {
    const rows = rowsOf();
    const assessment = rows.findIndex(([record]) => record === 'assessment');
    const one = '1 record: needs one row "assessment", that says whose and when; allowed: one such row';
    expect(refusals(rows.filter((_, at) => at !== assessment))).toEqual([one]);
    expect(refusals([...rows, rows[assessment]!])).toEqual([one]);
  });

  it('refuses rows of one measurement that say different things', () => {
    const line = rowsOf().flatMap(([record], at) => (record === 'trial' ? [at + 1] : []))[0]!;
    expect(refusals(withCell('trial', 'pain', '4', 1))).toEqual([
      `${line + 1} pain: says something else than line ${line} of the same number; allowed: the same, or another number`,
    ]);
  });

  it('keeps what would run as a formula as text, and gives it back', () => {
    const rows = rowsOf();
    expect(rows.flat()).toContain(`'=surgeon, "letter"`);
    expect(rows.flat()).toContain(`'-front, "deep"\nat the end`);
  });
});
