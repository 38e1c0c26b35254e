import { parseArgs } from 'node:util';
import {
  againstEdges,
  allowedSides,
  angleAt,
  betweenSegments,
  findMotion,
  PointsError,
  readTilt,
  TiltError,
  viewError,
  type GravitySample,
  type Motion,
  type Point,
} from '@dial-gauge/core';
import { tableRows } from '@dial-gauge/files';
import { print, refuse, textOf, type Outcome, type ReadText } from './input.js';

/** Hundredths: more than any picture or device knows. */
const hundredths = (value: number): number => Math.round(value * 100) / 100;

const NUMBER = /^[-+]?(\d+(\.\d+)?|\.\d+)(e[-+]?\d+)?$/i;

/** The angle at the middle of three points, of two against the edges of the picture, of four between two segments. */
export function angle(args: readonly string[]): Outcome {
  const [text, ...extra] = args;
  if (text === undefined || extra.length > 0) return refuse('angle: takes one quoted list of points, as "120,80 150,200 260,210"');
  const points: Point[] = [];
  for (const [at, word] of text.trim().split(/\s+/).entries()) {
    const point = pointOf(word);
    if (!point) return refuse(`point ${at + 1}: "${word}" is no point; allowed: x,y as 120,80`);
    points.push(point);
  }
  if (points.length < 2 || points.length > 4) return refuse(`angle: ${points.length} points; allowed: 2, 3 or 4`);
  try {
    return print(angleOf(points));
  } catch (error) {
    if (error instanceof PointsError) return refuse(`angle: ${error.message}`);
    throw error;
  }
}

/** Reads a point such as "120,80". @returns null for any other text */
function pointOf(word: string): Point | null {
  const [x = '', y = '', ...more] = word.split(',');
  return NUMBER.test(x) && NUMBER.test(y) && more.length === 0 ? [Number(x), Number(y)] : null;
}

/** Two points against the edges of the picture; three at the middle one; four between two lines. */
function angleOf([a, b, c, d]: readonly Point[]): object {
  if (!c) {
    const { vertical, horizontal } = againstEdges(a!, b!);
    return { vertical: hundredths(vertical), horizontal: hundredths(horizontal), error: errorOf(Math.min(vertical, horizontal)) };
  }
  const { degrees, turn } = d ? betweenSegments([a!, b!], [c, d]) : angleAt(a!, b!, c);
  return { degrees: hundredths(degrees), side: turn, error: errorOf(degrees) };
}

const errorOf = (degrees: number) => ({ atView5: hundredths(viewError(degrees, 5)), atView10: hundredths(viewError(degrees, 10)) });

const COLUMNS = ['t', 'gx', 'gy', 'gz'] as const;

/** One movement out of a stream of gravity. */
export function tilt(args: readonly string[], read: ReadText): Outcome {
  let asked;
  try {
    asked = parseArgs({ args: [...args], options: { motion: { type: 'string' }, side: { type: 'string' } }, allowPositionals: true });
  } catch (error) {
    if (error instanceof TypeError) return refuse(`arguments: ${error.message}`);
    throw error;
  }
  const { values, positionals } = asked;
  const [file, ...extra] = positionals;
  if (file === undefined || extra.length > 0) return refuse('tilt: takes one file, or - for standard input');
  const motion = motionOf(values.motion, values.side);
  if ('exitCode' in motion) return motion;
  const found = textOf(file, read);
  if ('exitCode' in found) return found;
  const samples = samplesOf(file, found.text);
  if ('exitCode' in samples) return samples;
  try {
    const { zero, end, excursion, peak, outOfPlane, verdict, holds } = readTilt(samples);
    const { min, max } = motion.limits;
    if (excursion < min || excursion > max)
      return refuse(
        `${file}: comes to ${hundredths(excursion)}°, which ${motion.name.toLowerCase()} cannot hold; allowed: ${min} to ${max}`,
      );
    return print({
      ...{ zero: hundredths(zero), end: hundredths(end), excursion: hundredths(excursion), peak: hundredths(peak) },
      ...{ outOfPlane: hundredths(outOfPlane), verdict, holds: holds.map(({ t, degrees }) => ({ t, degrees: hundredths(degrees) })) },
    });
  } catch (error) {
    if (!(error instanceof TiltError)) throw error;
    // The header is line 1.
    return refuse(`${error.at === null ? file : `line ${error.at + 2}, ${error.field}`}: ${error.message}`);
  }
}

/** What is read: a motion that turns in an upright plane, as whatever an inclinometer reads does. */
function motionOf(id: string | undefined, side: string | undefined): Motion | Outcome {
  const motion = findMotion(id ?? '');
  if (!motion) return refuse(`--motion: ${id === undefined ? 'is missing' : `"${id}" is no motion`}; allowed: one such as knee.flexion`);
  if (!motion.protocols.some(({ instruments }) => instruments.includes('inclinometer')))
    return refuse(
      `--motion: ${motion.name.toLowerCase()} cannot be read by gravity in any position; allowed: a motion that an inclinometer reads`,
    );
  const allowed: readonly string[] = allowedSides(motion);
  if (side === undefined || !allowed.includes(side))
    return refuse(`--side: ${side === undefined ? 'is missing' : `"${side}" does not fit ${motion.id}`}; allowed: ${allowed.join(', ')}`);
  return motion;
}

function samplesOf(file: string, text: string): GravitySample[] | Outcome {
  const { rows, problems } = tableRows(text);
  if (problems.length > 0) return refuse(...problems.map(({ path, message }) => `${path}: ${message}`));
  const [header = [], ...lines] = rows;
  const at = COLUMNS.map((name) => header.findIndex((cell) => cell.trim() === name));
  const missing = COLUMNS.filter((_, index) => at[index]! < 0);
  if (missing.length > 0) return refuse(`${file}: has no column ${missing.join(', ')}; allowed: ${COLUMNS.join(',')} in the first line`);
  const refused: string[] = [];
  const samples = lines.flatMap((cells, index): GravitySample[] => {
    if (cells.every((cell) => cell.trim() === '')) return [];
    const figures = at.map((column, of) => {
      const cell = (cells[column] ?? '').trim();
      if (!NUMBER.test(cell))
        refused.push(`line ${index + 2}, ${COLUMNS[of]}: ${cell === '' ? 'is empty' : `"${cell}" is no number`}; allowed: a number`);
      return Number(cell);
    });
    const [t, x, y, z] = figures as [number, number, number, number];
    return [{ t, g: [x, y, z] }];
  });
  return refused.length > 0 ? refuse(...refused.slice(0, MOST_NAMED)) : samples;
}

/** A file with more wrong is usually wrong in one way. */
const MOST_NAMED = 100;
