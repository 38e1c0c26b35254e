import { strToU8, zipSync } from 'fflate';

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
const column = (at: number): string => String.fromCharCode(65 + at);

/** A workbook of one sheet, as small as one can be: figures as figures, `=…` as a formula with what it came to, everything else as text. */
export function xlsxOf(rows: readonly (readonly (string | number)[])[], sheet?: string): Uint8Array {
  const cell = (value: string | number, at: string): string => {
    if (typeof value === 'number') return `<c r="${at}"><v>${value}</v></c>`;
    if (value.startsWith('=')) return `<c r="${at}"><f>${escaped(value.slice(1))}</f><v>2</v></c>`;
    return `<c r="${at}" t="inlineStr"><is><t>${escaped(value)}</t></is></c>`;
  };
  const body = rows
    .map((row, r) => `<row r="${r + 1}">${row.map((value, c) => cell(value, `${column(c)}${r + 1}`)).join('')}</row>`)
    .join('');
  const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
  const relations = 'http://schemas.openxmlformats.org/package/2006/relationships';
  const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const files = {
    '[Content_Types].xml': `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/></Types>`,
    '_rels/.rels': `<Relationships xmlns="${relations}"><Relationship Id="rId1" Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Readings" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships xmlns="${relations}"><Relationship Id="rId1" Type="${office}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    'xl/worksheets/sheet1.xml': sheet ?? `<worksheet xmlns="${main}"><sheetData>${body}</sheetData></worksheet>`,
  };
  return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
}
