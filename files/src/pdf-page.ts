import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

export const PAPERS = ['a4', 'letter'] as const;
export type Paper = (typeof PAPERS)[number];

/** Colours of the page: ink on white, so that every printer can. */
export const INK = { text: '#1c2b33', quiet: '#55636b', accent: '#0f5560', warning: '#7a1f55', line: '#857b67', body: '#dcd3c2' } as const;

export type Face = 'regular' | 'bold';

const require = createRequire(import.meta.url);
const font = (path: string): Buffer => readFileSync(require.resolve(path));
let fonts: Readonly<Record<string, Buffer>> | undefined;
/** Read once. The first of each face is our own; the second has the letters that it lacks. */
const allFonts = () =>
  (fonts ??= {
    regular: font('@expo-google-fonts/atkinson-hyperlegible/400Regular/AtkinsonHyperlegible_400Regular.ttf'),
    bold: font('@expo-google-fonts/atkinson-hyperlegible/700Bold/AtkinsonHyperlegible_700Bold.ttf'),
    'regular-other': font('dejavu-fonts-ttf/ttf/DejaVuSans.ttf'),
    'bold-other': font('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf'),
  });

/** What pdfkit keeps of a font, of which its types say nothing. */
interface WithFont {
  readonly _font: { readonly font: { hasGlyphForCodePoint(codePoint: number): boolean } };
}

/** A document that writes every letter: where a text has one that our typeface lacks, the whole text is set in another. */
export function newPages(paper: Paper, { title, language, madeAt }: { title: string; language: string; madeAt: Date }): PDFKit.PDFDocument {
  const doc = new PDFDocument({
    size: paper === 'a4' ? 'A4' : 'LETTER',
    margins: { top: 46, bottom: 54, left: 50, right: 50 },
    bufferPages: true,
    tagged: true,
    lang: language,
    displayTitle: true,
    pdfVersion: '1.7',
    info: { Title: title, Creator: 'Dial Gauge', Producer: 'Dial Gauge', CreationDate: madeAt, ModDate: madeAt },
  });
  for (const [name, data] of Object.entries(allFonts())) doc.registerFont(name, data);
  return doc;
}

/** Chooses the face in which all letters of a text can be written. */
export function setFace(doc: PDFKit.PDFDocument, face: Face, text: string): PDFKit.PDFDocument {
  doc.font(face);
  const { font: own } = (doc as unknown as WithFont)._font;
  for (const letter of text) {
    const codePoint = letter.codePointAt(0)!;
    if (codePoint >= 32 && !own.hasGlyphForCodePoint(codePoint)) return doc.font(`${face}-other`);
  }
  return doc;
}

export const widthOf = (doc: PDFKit.PDFDocument): number => doc.page.width - doc.page.margins.left - doc.page.margins.right;
/** Where the last line of a page ends. */
export const bottomOf = (doc: PDFKit.PDFDocument): number => doc.page.height - doc.page.margins.bottom;

/** Begins a page where so much does not fit on this one. */
export function room(doc: PDFKit.PDFDocument, height: number): void {
  if (doc.y + height > bottomOf(doc) && doc.y > doc.page.margins.top) doc.addPage();
}

/** The bytes of a document that has been written. */
export function bytesOf(doc: PDFKit.PDFDocument): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    doc.on('data', (part: Buffer) => parts.push(part));
    doc.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
    doc.on('error', reject);
    doc.end();
  });
}

/** A piece of the structure with what it draws. */
export const part = (
  doc: PDFKit.PDFDocument,
  tag: string,
  write: () => void,
  options: { readonly alt?: string } = {},
): PDFKit.PDFStructureElement => doc.struct(tag, options, [write]);
