import type { Block } from '@dial-gauge/core';
import type { Pages } from './pdf-breaks.js';
import { heightOf, setFace, widthOfText, write, type Face } from './pdf-faces.js';
import { bottomOf, INK, part, widthOf } from './pdf-page.js';

type TableBlock = Extract<Block, { kind: 'table' }>;
type Struct = PDFKit.PDFStructureElement;

const GAP = 8;
const PADDING = 2.5;

/** A table whose columns are as wide as what they hold asks for; its head is told again on every page. */
export function drawTable(
  doc: PDFKit.PDFDocument,
  into: Struct,
  { caption, head, rows, figures }: TableBlock,
  size: number,
  pages: Pages,
): void {
  setFace(doc, 'regular').fontSize(size);
  const widths = columnWidths(doc, [head, ...rows], widthOf(doc));
  const table = doc.struct('Table', { title: caption });
  into.add(table);
  const row = (cells: readonly string[], face: Face, tag: 'TH' | 'TD' | null) => {
    const height = rowHeight(doc, cells, widths, face);
    if (doc.y + height > bottomOf(doc)) {
      doc.addPage();
      if (tag === 'TD') row(head, 'bold', null);
    }
    const y = doc.y;
    const tr = tag && doc.struct('TR');
    if (tr) table.add(tr);
    let x = doc.page.margins.left;
    cells.forEach((cell, at) => {
      const [left, width] = [x, widths[at]!];
      const draw = () => {
        doc.fontSize(size).fillColor(face === 'bold' ? INK.quiet : INK.text);
        write(doc, face, cell, left, y + PADDING, { width, align: figures.includes(at) ? 'right' : 'left' });
      };
      if (tr) tr.add(part(doc, tag, draw));
      else asArtifact(doc, draw);
      x += width + GAP;
    });
    tr?.end();
    asArtifact(doc, () => {
      doc.moveTo(doc.page.margins.left, y + height).lineTo(doc.page.margins.left + widthOf(doc), y + height);
      doc
        .lineWidth(face === 'bold' ? 0.8 : 0.3)
        .strokeColor(INK.line)
        .stroke();
    });
    doc.x = doc.page.margins.left;
    doc.y = y + height;
  };
  row(head, 'bold', 'TH');
  for (const [at, cells] of rows.entries()) {
    pages.item(at);
    row(cells, 'regular', 'TD');
  }
  table.end();
  doc.y += 4;
}

/** What is on the page and in no order of reading: lines, heads told again, feet. */
export function asArtifact(doc: PDFKit.PDFDocument, draw: () => void, type: 'Layout' | 'Pagination' = 'Layout'): void {
  doc.markContent('Artifact', { type });
  draw();
  doc.endMarkedContent();
}

function rowHeight(doc: PDFKit.PDFDocument, cells: readonly string[], widths: readonly number[], face: Face): number {
  const heights = cells.map((cell, at) => heightOf(doc, face, cell || ' ', { width: widths[at]! }));
  return Math.max(...heights) + 2 * PADDING;
}

/** No column is narrower than its longest word; the rest is shared out by how much each holds. */
function columnWidths(doc: PDFKit.PDFDocument, rows: readonly (readonly string[])[], width: number): number[] {
  const columns = rows[0]!.map((_, at) => rows.map((row) => row[at] ?? ''));
  const free = width - GAP * (columns.length - 1);
  const least = columns.map(
    (cells) => Math.max(...cells.flatMap((cell) => cell.split(/\s+/)).map((word) => widthOfText(doc, 'bold', word))) + 1,
  );
  const whole = columns.map((cells) => Math.max(...cells.map((cell) => widthOfText(doc, 'bold', cell))) + 1);
  const sum = (all: readonly number[]) => all.reduce((total, one) => total + one, 0);
  if (sum(whole) <= free) return whole.map((one) => one + (free - sum(whole)) * (one / sum(whole)));
  if (sum(least) >= free) return least.map((one) => (one * free) / sum(least));
  const wish = columns.map((_, at) => whole[at]! - least[at]!);
  return least.map((one, at) => one + ((free - sum(least)) * wish[at]!) / sum(wish));
}
