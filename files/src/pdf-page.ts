import PDFDocument from 'pdfkit';

export const PAPERS = ['a4', 'letter'] as const;
export type Paper = (typeof PAPERS)[number];

/** Colours of the page: ink on white, so that every printer can. */
export const INK = { text: '#1c2b33', quiet: '#55636b', accent: '#0f5560', warning: '#7a1f55', line: '#857b67', body: '#dcd3c2' } as const;

/** A document; its typefaces are registered as texts ask for them. */
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
