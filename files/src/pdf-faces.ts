import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { brotliDecompressSync } from 'node:zlib';

export type Face = 'regular' | 'bold';

const require = createRequire(import.meta.url);
const file = (path: string): Buffer => readFileSync(require.resolve(path));
const packed = (script: string) => () => brotliDecompressSync(file(`@dial-gauge/files/fonts/noto-sans-${script}.ttf.br`));

/** Where each typeface comes from. The first of each face is our own; the second has more letters; the others have a script each. */
const SOURCES = {
  regular: () => file('@expo-google-fonts/atkinson-hyperlegible/400Regular/AtkinsonHyperlegible_400Regular.ttf'),
  bold: () => file('@expo-google-fonts/atkinson-hyperlegible/700Bold/AtkinsonHyperlegible_700Bold.ttf'),
  'regular-other': () => file('dejavu-fonts-ttf/ttf/DejaVuSans.ttf'),
  'bold-other': () => file('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf'),
  sc: packed('sc'),
  tc: packed('tc'),
  jp: packed('jp'),
  kr: packed('kr'),
  thai: packed('thai'),
  devanagari: packed('devanagari'),
} as const satisfies Record<string, () => Buffer>;
type Source = keyof typeof SOURCES;

const loaded = new Map<Source, Buffer>();

/** What pdfkit keeps of a font, of which its types say nothing. */
interface WithFont {
  readonly _font: { readonly ascender: number; readonly font: { hasGlyphForCodePoint(codePoint: number): boolean } };
  readonly _fontSize: number;
}

/** What pdfkit does when it measures, of which its types say nothing either. */
interface WithText {
  _text(text: string, x: number, y: number, options: PDFKit.Mixins.TextOptions, line: () => void): void;
}

const registered = new WeakMap<PDFKit.PDFDocument, Set<Source>>();

/** Sets a typeface, read and registered when it is first asked for. */
function use(doc: PDFKit.PDFDocument, source: Source): PDFKit.PDFDocument {
  const known = registered.get(doc) ?? new Set();
  registered.set(doc, known);
  if (!known.has(source)) {
    if (!loaded.has(source)) loaded.set(source, SOURCES[source]());
    doc.registerFont(source, loaded.get(source)!);
    known.add(source);
  }
  return doc.font(source);
}

function fontOf(doc: PDFKit.PDFDocument, source: Source): WithFont['_font'] {
  return (use(doc, source) as unknown as WithFont)._font;
}

const has = (doc: PDFKit.PDFDocument, source: Source, codePoint: number): boolean =>
  fontOf(doc, source).font.hasGlyphForCodePoint(codePoint);

/** A text that no typeface here can write in full. */
export class UnprintableText extends Error {
  constructor(readonly letters: readonly string[]) {
    super(`no typeface has ${letters.join(' ')}`);
  }
}

interface Run {
  readonly source: Source;
  readonly text: string;
}

/** Goes with the letter before it, and is left out where a typeface has nothing for it. */
const IGNORABLE = /\p{Default_Ignorable_Code_Point}/u;
const WITH_BEFORE = /[\p{M}\p{Z}\p{P}]/u;

/** Scripts in the order in which they are tried: one Han letter is written in several countries, each in its own way. */
function scriptsOf(text: string): readonly Source[] {
  const han: readonly Source[] = /[\u3040-\u30ff]/.test(text)
    ? ['jp', 'sc', 'tc', 'kr']
    : /[\u1100-\u11ff\uac00-\ud7af]/.test(text)
      ? ['kr', 'jp', 'tc', 'sc']
      : ['sc', 'tc', 'jp', 'kr'];
  return [...han, 'thai', 'devanagari'];
}

/**
 * A text in pieces, each in one typeface: our own where it has all letters,
 * the second where that has, else as long a piece as one of them can write.
 *
 * @throws {UnprintableText} where there is a letter that none has
 */
function runsOf(doc: PDFKit.PDFDocument, face: Face, text: string): readonly Run[] {
  const second = `${face}-other` as const;
  const letters = [...text].filter((letter) => !IGNORABLE.test(letter));
  const written = (source: Source) => {
    const { font } = fontOf(doc, source);
    return letters.every((letter) => letter.codePointAt(0)! < 32 || font.hasGlyphForCodePoint(letter.codePointAt(0)!));
  };
  if (written(face)) return [{ source: face, text }];
  if (written(second)) return [{ source: second, text }];
  const order: readonly Source[] = [face, second, ...scriptsOf(text)];
  const runs: { source: Source; text: string }[] = [];
  const missing = new Set<string>();
  for (const letter of letters) {
    const codePoint = letter.codePointAt(0)!;
    const last = runs.at(-1);
    if (last && (codePoint < 32 || (WITH_BEFORE.test(letter) && has(doc, last.source, codePoint)))) last.text += letter;
    else {
      const source = codePoint < 32 ? face : order.find((one) => has(doc, one, codePoint));
      if (!source) missing.add(letter);
      else if (last?.source === source) last.text += letter;
      else runs.push({ source, text: letter });
    }
  }
  if (missing.size > 0) throw new UnprintableText([...missing]);
  return runs;
}

type Options = PDFKit.Mixins.TextOptions;

/** Writes a text in the colour and size that are set, from a place on. */
export function write(doc: PDFKit.PDFDocument, face: Face, text: string, x: number, y: number, options: Options): void {
  const runs = runsOf(doc, face, text);
  const [only, ...others] = runs;
  if (!only) return;
  if (others.length === 0) {
    use(doc, only.source).text(only.text, x, y, options);
    return;
  }
  // On one line, whatever the typefaces: as far below its top as the highest of them asks for.
  const baseline = -Math.max(...runs.map(({ source }) => ascenderOf(doc, source)));
  runs.forEach((run, at) => {
    use(doc, run.source);
    const together: Options = { ...options, align: 'left', baseline, continued: at < runs.length - 1 };
    if (at === 0) doc.text(run.text, x, y, together);
    else doc.text(run.text, together);
  });
}

/** In points, in the size that is set. */
function ascenderOf(doc: PDFKit.PDFDocument, source: Source): number {
  return (fontOf(doc, source).ascender / 1000) * (doc as unknown as WithFont)._fontSize;
}

/** How high a text becomes in the size that is set. */
export function heightOf(doc: PDFKit.PDFDocument, face: Face, text: string, options: Options): number {
  const runs = runsOf(doc, face, text);
  const [only, ...others] = runs;
  if (!only) return 0;
  if (others.length === 0) return use(doc, only.source).heightOfString(text, options);
  const { x, y } = doc;
  runs.forEach((run, at) => {
    use(doc, run.source);
    (doc as unknown as WithText)._text(run.text, doc.x, doc.y, { ...options, height: Infinity, continued: at < runs.length - 1 }, () => {
      doc.y += doc.currentLineHeight(true) + (options.lineGap ?? 0);
    });
  });
  const height = doc.y - y;
  doc.x = x;
  doc.y = y;
  return height;
}

/** How wide a text is on one line. */
export const widthOfText = (doc: PDFKit.PDFDocument, face: Face, text: string): number =>
  runsOf(doc, face, text).reduce((sum, run) => sum + use(doc, run.source).widthOfString(run.text), 0);

/** Sets one of the two faces of our own, for words of the program. */
export const setFace = (doc: PDFKit.PDFDocument, face: Face): PDFKit.PDFDocument => use(doc, face);
