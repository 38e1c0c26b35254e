/** Where a page begins: with this item of this block, both counted from 0. */
export interface PageBreak {
  /** The first is 1; it begins by itself. */
  readonly page: number;
  readonly block: number;
  readonly item: number;
}

/** Keeps what is being drawn while a page begins. */
export class Pages {
  readonly breaks: PageBreak[] = [];
  private block = 0;
  private drawn = 0;

  constructor(doc: PDFKit.PDFDocument) {
    doc.on('pageAdded', () => this.breaks.push({ page: this.breaks.length + 2, block: this.block, item: this.drawn }));
  }

  at(block: number): void {
    this.block = block;
    this.drawn = 0;
  }

  item(item: number): void {
    this.drawn = item;
  }
}
