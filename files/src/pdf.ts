import { drawPoses, type Block, type DrillBlock, type PictureBlock, type Report } from '@dial-gauge/core';
import { heightOf, setFace, write } from './pdf-faces.js';
import { bottomOf, bytesOf, INK, newPages, part, room, widthOf, type Paper } from './pdf-page.js';
import { Pages, type PageBreak } from './pdf-breaks.js';
import { asArtifact, drawTable } from './pdf-table.js';

export interface PdfOptions {
  readonly paper: Paper;
  /** BCP 47, as `en-GB`. */
  readonly language: string;
  readonly madeAt: Date;
  /** What stands on every page of what nobody signed, and the words "page 1 of 2". */
  readonly words: { readonly draft: string; readonly page: (number: number, of: number) => string };
}

type Struct = PDFKit.PDFStructureElement;

/** Sizes in points: of the page of somebody who reads many, and large print. */
interface Sizes {
  readonly title: number;
  readonly heading: number;
  readonly text: number;
  readonly table: number;
  readonly gap: number;
}
const SIZES = {
  usual: { title: 16, heading: 11.5, text: 9.5, table: 8.3, gap: 5 },
  large: { title: 26, heading: 18, text: 14.5, table: 13, gap: 8 },
} as const satisfies Record<string, Sizes>;

/**
 * A page as PDF: text that can be selected, in a structure that a screen
 * reader follows, with an outline and page numbers.
 */
export async function reportPdf(report: Report, options: PdfOptions): Promise<Uint8Array> {
  const { doc } = fitted(report, options);
  frames(doc, report, options);
  return bytesOf(doc);
}

/** How the same page falls onto paper: how many there are, and what begins each but the first. */
export function reportPages(report: Report, options: PdfOptions): { readonly pages: number; readonly breaks: readonly PageBreak[] } {
  const { doc, pages } = fitted(report, options);
  return { pages: doc.bufferedPageRange().count, breaks: pages.breaks };
}

interface Written {
  readonly doc: PDFKit.PDFDocument;
  readonly pages: Pages;
}

function fitted(report: Report, options: PdfOptions): Written {
  // A page for a reader with little time stays one page where smaller letters can make it so.
  const scales = report.kind === 'referrer' ? [1, 0.95, 0.9] : [1];
  const tried = scales.map((scale) => () => compose(report, options, scaled(report.large ? SIZES.large : SIZES.usual, scale)));
  let written = tried[0]!();
  for (const again of tried.slice(1)) if (written.doc.bufferedPageRange().count > 1) written = again();
  return written;
}

const scaled = (sizes: Sizes, scale: number): Sizes =>
  Object.fromEntries(Object.entries(sizes).map(([name, size]) => [name, (size as number) * scale])) as unknown as Sizes;

function compose(report: Report, options: PdfOptions, sizes: Sizes): Written {
  const doc = newPages(options.paper, { title: report.title, language: options.language, madeAt: options.madeAt });
  const pages = new Pages(doc);
  const root = doc.struct('Document');
  doc.addStructure(root);
  text(doc, root, 'H1', report.title, { size: sizes.title, face: 'bold', colour: INK.accent, after: 1 });
  text(doc, root, 'P', report.subtitle, { size: sizes.text, colour: INK.quiet, after: sizes.gap });
  report.blocks.forEach((block, at) => {
    pages.at(at);
    draw(doc, root, block, sizes, pages);
  });
  root.end();
  return { doc, pages };
}

interface TextLook {
  readonly size: number;
  readonly face?: 'regular' | 'bold';
  readonly colour?: string;
  readonly after: number;
}

function text(
  doc: PDFKit.PDFDocument,
  into: Struct,
  tag: string,
  words: string,
  { size, face = 'regular', colour = INK.text, after }: TextLook,
): void {
  into.add(
    part(doc, tag, () => {
      doc.fontSize(size).fillColor(colour);
      write(doc, face, words, doc.page.margins.left, doc.y, { width: widthOf(doc), lineGap: size * 0.12 });
    }),
  );
  doc.y += after;
}

function draw(doc: PDFKit.PDFDocument, into: Struct, block: Block, sizes: Sizes, pages: Pages): void {
  switch (block.kind) {
    case 'heading':
      room(doc, sizes.heading * 4);
      doc.y += sizes.gap * 0.8;
      doc.outline.addItem(block.text);
      text(doc, into, 'H2', block.text, { size: sizes.heading, face: 'bold', colour: INK.accent, after: 2 });
      return;
    case 'paragraph': {
      room(doc, sizes.text * (block.tone === 'strong' ? 3 : 1));
      const colour = block.tone === 'quiet' ? INK.quiet : block.tone === 'warning' ? INK.warning : INK.text;
      text(doc, into, 'P', block.text, {
        size: sizes.text,
        colour,
        face: block.tone === 'warning' || block.tone === 'strong' ? 'bold' : 'regular',
        after: 3,
      });
      return;
    }
    case 'list':
      list(doc, into, block.items, sizes, pages);
      return;
    case 'facts':
      facts(doc, into, block.rows, sizes, pages);
      return;
    case 'table':
      drawTable(doc, into, block, sizes.table, pages);
      return;
    case 'drill':
      drill(doc, into, block, sizes);
      return;
    case 'picture':
      photograph(doc, into, block, sizes);
  }
}

function list(
  doc: PDFKit.PDFDocument,
  into: Struct,
  items: readonly string[],
  { text: size }: Sizes,
  pages: Pages | null,
  left = doc.page.margins.left,
): void {
  const all = doc.struct('L');
  into.add(all);
  const width = doc.page.width - doc.page.margins.right - left - size;
  for (const [at, item] of items.entries()) {
    pages?.item(at);
    doc.fontSize(size);
    room(doc, heightOf(doc, 'regular', item, { width }));
    const y = doc.y;
    const one = doc.struct('LI');
    all.add(one);
    one.add(
      part(doc, 'Lbl', () => {
        setFace(doc, 'regular').fontSize(size).fillColor(INK.accent);
        doc.text('–', left, y, { width: size });
      }),
    );
    one.add(
      part(doc, 'LBody', () => {
        doc.fontSize(size).fillColor(INK.text);
        write(doc, 'regular', item, left + size, y, { width, lineGap: size * 0.1 });
      }),
    );
    one.end();
    doc.y += 1.5;
  }
  all.end();
  doc.x = doc.page.margins.left;
  doc.y += 2;
}

/** Names and values side by side: a table of two columns, the first of which heads its row. */
function facts(
  doc: PDFKit.PDFDocument,
  into: Struct,
  rows: readonly (readonly [string, string])[],
  { text: size }: Sizes,
  pages: Pages,
): void {
  const table = doc.struct('Table');
  into.add(table);
  const left = doc.page.margins.left;
  const first = 78;
  for (const [at, [name, value]] of rows.entries()) {
    pages.item(at);
    doc.fontSize(size);
    const height = Math.max(
      heightOf(doc, 'regular', value, { width: widthOf(doc) - first, lineGap: 1 }),
      heightOf(doc, 'regular', name, { width: first - 6 }),
    );
    room(doc, height);
    const y = doc.y;
    const row = doc.struct('TR');
    table.add(row);
    row.add(
      part(doc, 'TH', () => {
        doc.fontSize(size).fillColor(INK.quiet);
        write(doc, 'regular', name, left, y, { width: first - 6 });
      }),
    );
    row.add(
      part(doc, 'TD', () => {
        doc.fontSize(size).fillColor(INK.text);
        write(doc, 'regular', value, left + first, y, { width: widthOf(doc) - first, lineGap: 1 });
      }),
    );
    row.end();
    doc.x = left;
    doc.y = Math.max(doc.y, y + height) + 1.5;
  }
  table.end();
  doc.y += 3;
}

const PICTURE = { width: 118, height: 79 };

/** Picture left, words right; kept on one page. */
function drill(doc: PDFKit.PDFDocument, into: Struct, block: DrillBlock, sizes: Sizes): void {
  const { title, dose, cues, stop } = block;
  const left = doc.page.margins.left;
  const beside = left + PICTURE.width + 14;
  const width = doc.page.width - doc.page.margins.right - beside;
  const lines = [title, dose, ...cues, stop];
  doc.fontSize(sizes.text);
  const height = lines.reduce((sum, line) => sum + heightOf(doc, 'regular', line, { width: width - sizes.text }) + 4, 0);
  room(doc, Math.max(height, PICTURE.height) + 8);
  const top = doc.y + 2;
  const section = doc.struct('Sect');
  into.add(section);
  section.add(part(doc, 'Figure', () => picture(doc, block, left, top), { alt: title }));
  const line = (tag: string, words: string, look: { face?: 'regular' | 'bold'; colour?: string }) =>
    section.add(
      part(doc, tag, () => {
        doc.fontSize(sizes.text).fillColor(look.colour ?? INK.text);
        write(doc, look.face ?? 'regular', words, beside, doc.y, { width, lineGap: 1 });
      }),
    );
  doc.y = top;
  line('H3', title, { face: 'bold' });
  line('P', dose, { colour: INK.accent });
  doc.y += 2;
  list(doc, section, cues, sizes, null, beside);
  line('P', stop, { colour: INK.warning });
  section.end();
  doc.x = left;
  doc.y = Math.max(doc.y, top + PICTURE.height) + sizes.gap;
}

/** Largest on paper, in points: two of them and their words fit on a page. */
const PHOTOGRAPH = { width: 300, height: 220 };

function photograph(doc: PDFKit.PDFDocument, into: Struct, { alt, jpeg, width, height }: PictureBlock, sizes: Sizes): void {
  const scale = Math.min(PHOTOGRAPH.width / width, PHOTOGRAPH.height / height, 1);
  const [wide, high] = [width * scale, height * scale];
  room(doc, high + 4);
  const [x, y] = [doc.page.margins.left, doc.y + 2];
  into.add(part(doc, 'Figure', () => void doc.image(Buffer.from(jpeg, 'base64'), x, y, { width: wide, height: high }), { alt }));
  doc.x = x;
  doc.y = y + high + sizes.gap;
}

function picture(doc: PDFKit.PDFDocument, { start, end }: DrillBlock, x: number, y: number): void {
  const { bodies, end: last } = drawPoses(start, end);
  const { frame } = last;
  const scale = Math.min(PICTURE.width / frame.width, PICTURE.height / frame.height);
  doc.save();
  doc.translate(x, y).scale(scale).translate(-frame.x, -frame.y);
  doc.lineCap('round');
  for (const { drawing, isStart } of bodies) {
    const colour = (moves: boolean) => (moves ? INK.accent : INK.line);
    doc.opacity(isStart ? 0.3 : 1);
    for (const { from, to, width, moves } of drawing.limbs)
      doc.moveTo(from[0], from[1]).lineTo(to[0], to[1]).lineWidth(width).strokeColor(colour(moves)).stroke();
    if (drawing.head) doc.circle(drawing.head.at[0], drawing.head.at[1], drawing.head.radius).fillColor(colour(drawing.head.moves)).fill();
  }
  doc.opacity(1);
  for (const [from, to] of last.furniture) doc.moveTo(from[0], from[1]).lineTo(to[0], to[1]).lineWidth(2.5).strokeColor(INK.quiet).stroke();
  doc.restore();
}

/** Foot and head of every page, when it is known how many there are. */
function frames(doc: PDFKit.PDFDocument, { foot, draft }: Report, { words }: PdfOptions): void {
  const { count } = doc.bufferedPageRange();
  for (let number = 1; number <= count; number += 1) {
    doc.switchToPage(number - 1);
    const { left, right } = doc.page.margins;
    const width = doc.page.width - left - right;
    const y = bottomOf(doc) + 16;
    // No room is asked for here: what stands in a margin begins no page.
    doc.page.margins.bottom = 0;
    asArtifact(
      doc,
      () => {
        doc.fontSize(7.5).fillColor(INK.quiet);
        write(doc, 'regular', foot, left, y, { width: width - 70, lineBreak: false, ellipsis: true });
        setFace(doc, 'regular').text(words.page(number, count), left, y, { width, align: 'right', lineBreak: false });
        if (!draft) return;
        doc.fontSize(9).fillColor(INK.warning);
        write(doc, 'bold', words.draft, left, 24, { width, align: 'right', lineBreak: false });
      },
      'Pagination',
    );
  }
}
