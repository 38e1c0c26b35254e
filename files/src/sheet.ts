import { spawn } from 'node:child_process';
import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';
import { unzipSync } from 'fflate';
import { tableRows } from './formats.js';

/** What a list of one person's readings never is: a file that says it unpacks to more is not unpacked. */
const MOST_UNPACKED = 20_000_000;
/** How long and with how much memory a spreadsheet may be read, in a process of its own. */
const LIMITS = { ms: 8_000, megabytes: 384, bytes: 12_000_000 };
/** A list of five thousand days with sixty columns, and its headings. */
const MOST_ROWS = 5_001;
const MOST_COLUMNS = 60;

export type SheetReading = { readonly ok: true; readonly rows: string[][] } | { readonly ok: false; readonly message: string };
const refused = (message: string): SheetReading => ({ ok: false, message });

/** Rows of a file by what it holds, never by its name alone: an .xlsx is a zip, everything else text. */
export async function sheetRows(bytes: Uint8Array): Promise<SheetReading> {
  if (bytes.length === 0) return refused('is empty; allowed: a file with a first row of headings');
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const read = isZip ? await xlsxRows(bytes) : textRows(bytes);
  if (!read.ok) return read;
  const rows = read.rows.map((row) => row.map((cell) => cell.trim()));
  while (rows.length > 0 && rows[rows.length - 1]!.every((cell) => cell === '')) rows.pop();
  const widest = rows.reduce((most, row) => Math.max(most, row.length), 0);
  if (rows.length > MOST_ROWS || widest > MOST_COLUMNS) return refused(tooLarge(rows.length, widest));
  return rows.length > 0 ? { ok: true, rows } : refused('holds no row; allowed: a first row of headings and rows of readings');
}

const tooLarge = (rows: number, columns: number): string =>
  `has ${rows} rows and ${columns} columns; allowed: at most ${MOST_ROWS} and ${MOST_COLUMNS}. Copy the list into a sheet of its own`;

function textRows(bytes: Uint8Array): SheetReading {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Older spreadsheets write the letters of Western Europe.
    text = new TextDecoder('windows-1252').decode(bytes);
  }
  if (text.includes('\u0000')) return refused('is neither text nor a spreadsheet; allowed: .csv, .tsv or .xlsx');
  const { rows, problems } = tableRows(text);
  return problems.length > 0 ? refused(`${problems[0]!.path}: ${problems[0]!.message}`) : { ok: true, rows };
}

/** Looks at what it would unpack to before anything is unpacked. */
async function xlsxRows(bytes: Uint8Array): Promise<SheetReading> {
  let unpacked = 0;
  let sheets = 0;
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        unpacked += originalSize;
        if (/^xl\/worksheets\/[^/]+\.xml$/.test(name)) sheets += 1;
        return false;
      },
    });
  } catch {
    return refused('is broken; allowed: a spreadsheet as .xlsx, or text');
  }
  if (sheets === 0) return refused('is an archive without a sheet; allowed: a spreadsheet as .xlsx, or text');
  if (unpacked > MOST_UNPACKED)
    return refused(
      `unpacks to ${Math.round(unpacked / 1_000_000)} MB; allowed: at most ${MOST_UNPACKED / 1_000_000} MB. Copy the sheet of this person into a file of its own`,
    );
  return inProcess(bytes);
}

/** How the process says that a sheet is larger than a list: rows and columns. */
const TOO_LARGE = 3;

/**
 * What the process runs: the first sheet as text, days as ISO days, formulas
 * as what they came to. How far its cells reach is looked at before they are
 * read: a single one in the last corner would become millions.
 */
const READER = `
const { default: read } = await import(process.argv[1]);
const { unzipSync } = await import(process.argv[2]);
const [mostRows, mostColumns] = process.argv.slice(3).map(Number);
const parts = [];
for await (const part of process.stdin) parts.push(part);
const bytes = Buffer.concat(parts);
const sheets = unzipSync(bytes, { filter: ({ name }) => /^xl\\/worksheets\\/[^/]+\\.xml$/.test(name) });
let [rows, columns] = [0, 0];
for (const sheet of Object.values(sheets))
  for (const [, letters, row] of Buffer.from(sheet).toString('latin1').matchAll(/<c\\b[^>]*?\\br="([A-Z]{1,3})([0-9]{1,7})"/g)) {
    rows = Math.max(rows, Number(row));
    columns = Math.max(columns, [...letters].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0));
  }
if (rows > mostRows || columns > mostColumns) {
  process.stdout.write(JSON.stringify([rows, columns]));
  process.exitCode = ${TOO_LARGE};
  process.exit();
}
const found = await read(bytes);
const data = Array.isArray(found) && found[0] && 'data' in found[0] ? found[0].data : found;
const text = (cell) => cell === null || cell === undefined ? '' : cell instanceof Date ? cell.toISOString().slice(0, 10) : String(cell);
process.stdout.write(JSON.stringify(data.map((row) => row.map(text))));
`;

function inProcess(bytes: Uint8Array): Promise<SheetReading> {
  const reader = pathToFileURL(
    createRequire(import.meta.url)
      .resolve('read-excel-file/node')
      .replace(/\.cjs$/, '.js'),
  ).href;
  const unzip = pathToFileURL(createRequire(import.meta.url).resolve('fflate')).href;
  const limits = [MOST_ROWS, MOST_COLUMNS].map(String);
  return new Promise((resolve) => {
    const child = spawn(
      process.execPath,
      [`--max-old-space-size=${LIMITS.megabytes}`, '--input-type=module', '-e', READER, reader, unzip, ...limits],
      {
        stdio: ['pipe', 'pipe', 'ignore'],
        env: {},
      },
    );
    const parts: Buffer[] = [];
    let length = 0;
    const timer = setTimeout(() => child.kill('SIGKILL'), LIMITS.ms);
    child.stdout.on('data', (part: Buffer) => {
      length += part.length;
      if (length > LIMITS.bytes) child.kill('SIGKILL');
      else parts.push(part);
    });
    child.stdin.on('error', () => undefined);
    child.on('error', () => resolve(refused('could not be read here; allowed: the same list as .csv')));
    child.on('close', (code) => {
      clearTimeout(timer);
      if (code === TOO_LARGE) return resolve(refused(tooLarge(...(JSON.parse(Buffer.concat(parts).toString()) as [number, number]))));
      if (code !== 0)
        return resolve(refused('is broken or too large to be read; allowed: a spreadsheet as .xlsx, or the same list as .csv'));
      resolve({ ok: true, rows: JSON.parse(Buffer.concat(parts).toString()) as string[][] });
    });
    child.stdin.end(bytes);
  });
}
