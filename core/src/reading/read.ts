import { handsToCm, handWords, type HandWidths } from '../angle/hands.js';
import { dualExcursion, type Sense } from '../angle/excursion.js';
import { isOnScale, movedBetween, possibleWays, rangeOf, unfoldQuadrant, type DeviceScale, type Moved } from '../angle/scale.js';
import { entryUnitsFor, toKept, type EntryUnit } from '../angle/units.js';
import { describeEnd, formatNumber, suffixOf } from '../words/figures.js';
import { storedTrial, type StoredReading } from '../assessment.js';
import { checkValue, isTooFine } from '../catalogue/check.js';
import { motion, type Protocol } from '../catalogue/index.js';
import { endPosition } from '../trial.js';
import { parseEntry } from '../notation/entry.js';
import type { Instrument, MotionId } from '../terms.js';
import { splitTyped } from './split.js';

/** What is in the hand, and how it counts. */
export interface Tool {
  readonly instrument: Instrument;
  /** null: set to zero at the start, so that it shows the change itself. */
  readonly scale: DeviceScale | null;
  /** Two devices, or one moved between two repeats of the movement: which figure comes after which. */
  readonly hands: 'two' | 'one';
  /** null: the unit in which the motion is kept. */
  readonly unit: EntryUnit | null;
  readonly widths: HandWidths;
}

/** What was typed, as a reading; or what is wrong with it and what is allowed. */
export type ReadAtDial =
  | {
      readonly ok: true;
      readonly reading: StoredReading;
      readonly side: 'left' | 'right' | null;
      /** The same figures with the device counting the other way, where the motion can have gone so too. */
      readonly other: StoredReading | null;
    }
  | { readonly ok: true; readonly arc: string }
  | {
      readonly ok: false;
      readonly message: string;
      /** The figure that is wanted next, where the rest was right so far. */
      readonly next?: string;
    };

const refuse = (message: string): ReadAtDial => ({ ok: false, message });
const tenth = (value: number): number => Math.round(value * 10) / 10;

/** The figures of a reading at two sites, in the order of the hands. */
export function sitesInOrder({ scale, hands }: Pick<Tool, 'scale' | 'hands'>): readonly string[] {
  if (scale === null) return ['upper end', 'lower end'];
  return hands === 'two' ? ['upper zero', 'lower zero', 'upper end', 'lower end'] : ['upper zero', 'upper end', 'lower zero', 'lower end'];
}

/** Upper and lower bend of an example, invented, as large as that direction is in somebody. */
const EXAMPLE_BENDS: Readonly<Record<string, readonly [upper: number, lower: number]>> = {
  flexion: [86, 34],
  extension: [29, 12],
  'cervical.flexion': [57, 9],
  'cervical.extension': [66, 8],
};
const OTHER_BENDS = [38, 11] as const;
/** Where devices that are not set to zero stand at the beginning of an example. */
const EXAMPLE_ZEROS = { upper: 353, lower: 8 };

/** A reading at two sites as it is typed with the tool in hand: "86/34" of bowing, "29/12" of bending back. */
export function twoSiteExample(id: MotionId, tool: Pick<Tool, 'scale' | 'hands'>): string {
  const [upper, lower] = EXAMPLE_BENDS[id] ?? EXAMPLE_BENDS[id.split('.')[1]!] ?? OTHER_BENDS;
  const shown: Readonly<Record<string, number>> =
    tool.scale === null
      ? { 'upper end': upper, 'lower end': lower }
      : {
          'upper zero': EXAMPLE_ZEROS.upper,
          'lower zero': EXAMPLE_ZEROS.lower,
          'upper end': (EXAMPLE_ZEROS.upper + upper) % 360,
          'lower end': EXAMPLE_ZEROS.lower + lower,
        };
  return sitesInOrder(tool)
    .map((site) => shown[site])
    .join('/');
}

/**
 * Reads what was typed at the dial with the tool in hand.
 *
 * @example readAtDial('86/34', lumbarFlexion, twoInclinometers) // reading { start: 0, end: 86, lower: { zero: 0, end: 34 } }
 * @example readAtDial('350/20', hipFlexion, { …inclinometer, scale: '360' }) // 30° of excursion
 */
export function readAtDial(text: string, protocol: Protocol, tool: Tool): ReadAtDial {
  if (text.trim() === '') return refuse('Type a reading first: digits, then Enter.');
  const { side, isArc, unit, body } = splitTyped(text);
  if (isArc) return { ok: true, arc: body };
  const read = readBody(body, unit, text, protocol, tool);
  if (!read.ok || 'arc' in read) return read;
  const wrong = checkReading(protocol, tool, read.reading);
  return wrong ? refuse(wrong) : { ...read, side };
}

function readBody(body: string, unit: EntryUnit | null, text: string, protocol: Protocol, tool: Tool): ReadAtDial {
  const about = motion(protocol.motion);
  if (about.unit === 'yesNo') return readYesNo(body);
  if (about.unit === 'deg') {
    if (unit !== null && unit !== 'deg') return refuse(`"${text}" is in ${unit}; allowed: degrees.`);
    if (tool.instrument === 'dualInclinometer') return readTwoSites(body, protocol, tool);
    return isTilted(protocol, tool) ? readTilt(body, protocol, tool) : readAngle(body, protocol);
  }
  const hands = /^(\d+)\s*f(?:ists?)?\s*(\d*)(?:\s*f(?:ingers?)?)?$/i.exec(body);
  if (hands && about.unit === 'cm') return readHands(Number(hands[1]), Number(hands[2] || 0), tool);
  return readAmount(body, unit ?? tool.unit ?? about.unit, text, protocol, tool.instrument);
}

/** Two tilts are typed only where the reading is a way moved and the device was not set to zero. */
export function isTilted({ reads }: Protocol, { instrument, scale }: Pick<Tool, 'instrument' | 'scale'>): boolean {
  return instrument === 'inclinometer' && scale !== null && reads === 'excursion';
}

function readYesNo(body: string): ReadAtDial {
  const said = /^(y|yes|1)$/i.test(body) ? 1 : /^(n|no|0)$/i.test(body) ? 0 : null;
  return said === null ? refuse(`"${body}" is neither; allowed: y for yes, n for no.`) : plain({ start: 0, end: said });
}

function plain(reading: StoredReading): ReadAtDial {
  return { ok: true, reading, side: null, other: null };
}

function readAngle(body: string, { reads }: Protocol): ReadAtDial {
  const entry = parseEntry(body);
  if (!entry.ok) return entry;
  if (reads === 'position' && entry.start !== 0) {
    return refuse(`"${body}" has a start, but this is read as a position against plumb or level; allowed: one figure.`);
  }
  return plain({ start: entry.start, end: entry.end });
}

/** One figure in a unit of its own: tape, dynamometer, stopwatch. */
function readAmount(body: string, from: EntryUnit, text: string, { motion: id }: Protocol, instrument: Instrument): ReadAtDial {
  const { unit } = motion(id);
  const entry = parseEntry(body);
  const allowed = entryUnitsFor(unit);
  if (!entry.ok) return refuse(`"${text}" is not a ${unit === 's' ? 'time' : 'figure'}; allowed: a number, in ${allowed.join(', ')}.`);
  if (entry.start !== 0) return refuse(`"${text}" has a start; allowed: one figure in ${suffixOf(unit).trim()}.`);
  if (!allowed.includes(from)) return refuse(`"${text}" is in ${from}, which does not measure this; allowed: ${allowed.join(', ')}.`);
  if (from === unit) return plain({ start: 0, end: entry.end });
  if (isTooFine(instrument, entry.end, unit))
    return refuse(`${formatNumber(entry.end)} ${from} is finer than the instrument reads; allowed: steps of 0.1 ${from}.`);
  return plain({ start: 0, end: tenth(toKept(entry.end, from)), entered: `${formatNumber(entry.end)} ${from}` });
}

function readHands(fists: number, fingers: number, { instrument, widths }: Tool): ReadAtDial {
  if (instrument !== 'visual')
    return refuse('Fists and fingers are read by hand and eye: choose that as the instrument, or type centimetres.');
  if (fingers > 4) return refuse(`${fingers} fingers are more than a fist; allowed: 0 to 4 beside the fists, as 1f2.`);
  const { fist, finger } = widths;
  const entered = `${handWords(fists, fingers)} (${formatNumber(fist)} and ${formatNumber(finger)} cm)`;
  return plain({ start: 0, end: handsToCm(fists, fingers, widths), entered });
}

const FIGURE = /^[-−]?\d{1,3}(?:[.,]\d)?\+*$/;

/** Figures of a device: numbers, and on a 0–90 device a + for every corner it passed. */
function readFigures(body: string, scale: DeviceScale | null): number[] | string {
  const parts = body.split(/[/\s]+/).filter(Boolean);
  const wrong = parts.find((part) => !FIGURE.test(part) || (part.includes('+') && scale !== 'quadrant'));
  if (wrong !== undefined)
    return `"${wrong}" is not a figure of the device; allowed: degrees${scale === 'quadrant' ? ', with a + for every corner passed, as 30+' : ', as 96 or 12.5'}.`;
  const figures = parts.map((part) => Number(part.replace('−', '-').replace(',', '.').replace(/\++$/, '')));
  if (scale === null) return figures;
  const off = figures.find((figure) => !isOnScale(figure, scale));
  const [min, max] = rangeOf(scale);
  if (off !== undefined) return `${formatNumber(off)} is not on this device; allowed: ${formatNumber(min)} to ${max}, as it counts.`;
  return scale === 'quadrant' ? figures.map((figure, i) => unfoldQuadrant(figure, parts[i]!.split('+').length - 1)) : figures;
}

function readTilt(body: string, { motion: id }: Protocol, { scale }: Tool): ReadAtDial {
  const { figures: typed, told } = toldSense(body);
  const figures = readFigures(typed, scale);
  if (typeof figures === 'string') return refuse(figures);
  const [zero, end, ...more] = figures;
  if (zero === undefined || more.length > 0) return refuse(`"${body}" has ${figures.length} figures; allowed: zero/end, as 350/20.`);
  if (end === undefined) return { ok: false, message: `"${body}" is the zero; now the end, as 350/20.`, next: 'end' };
  const { limits, name } = motion(id);
  const reading = (sense: Sense): StoredReading => ({ start: zero, end, scale, sense, entered: body });
  return (
    byWay(movedBetween({ zero, end }, limits), told, reading) ??
    refuse(
      `From ${formatNumber(zero)} to ${formatNumber(end)} is more than ${name.toLowerCase()} can move; allowed: ${formatNumber(limits.min)} to ${limits.max}°.`,
    )
  );
}

/** The reading by the way that was told, or by the only one there can be; both where nobody said. */
function byWay(ways: readonly Moved[], told: Sense | null, reading: (sense: Sense) => StoredReading): ReadAtDial | undefined {
  const possible = told === null ? ways : ways.filter(({ sense }) => sense === told);
  const [first, second] = [...possible].sort((a, b) => Number(a.value < 0) - Number(b.value < 0));
  if (!first) return undefined;
  return { ok: true, reading: reading(first.sense), side: null, other: second ? reading(second.sense) : null };
}

/** "u" or "d" behind the figures says that the device counted up or down. */
function toldSense(body: string): { readonly figures: string; readonly told: Sense | null } {
  const said = /\s*([ud])$/i.exec(body);
  return { figures: said ? body.slice(0, said.index) : body, told: said ? (said[1]!.toLowerCase() === 'u' ? 1 : -1) : null };
}

/** Where nobody said which way a device counted: both readings, and how to say it. */
export function bothWaysWords({ motion: id }: Pick<Protocol, 'motion'>, reading: StoredReading, other: StoredReading): string {
  const about = motion(id);
  const said = (of: StoredReading): string =>
    `${describeEnd(about, tenth(endPosition(storedTrial(id, of))))} (counting ${of.sense === 1 ? 'up' : 'down'})`;
  return `The device can have gone both ways: ${said(reading)} or ${said(other)}. Choose one, or type u or d behind the figures`;
}

function readTwoSites(body: string, { motion: id }: Protocol, tool: Tool): ReadAtDial {
  const { figures: typed, told } = toldSense(body);
  const figures = readFigures(typed, tool.scale);
  if (typeof figures === 'string') return refuse(figures);
  const wanted = sitesInOrder(tool);
  // A device that was set to zero may still be given with its zeros, one device after the other.
  const shape: Pick<Tool, 'scale' | 'hands'> = tool.scale === null && figures.length > 2 ? { scale: '180', hands: 'one' } : tool;
  const order = sitesInOrder(shape);
  if (figures.length > order.length)
    return refuse(`"${body}" has ${figures.length} figures; allowed: ${wanted.join('/')}, as ${twoSiteExample(id, tool)}.`);
  if (figures.length < order.length) {
    const next = order[figures.length]!;
    return {
      ok: false,
      message: `"${body}" is half a reading; now the ${next} (${order.join(', ')}), as ${twoSiteExample(id, { ...tool, ...shape })}.`,
      next,
    };
  }
  const at = (name: string): number => figures[order.indexOf(name)] ?? 0;
  const upper = { zero: at('upper zero'), end: at('upper end') };
  const lower = { zero: at('lower zero'), end: at('lower end') };
  if (tool.scale === null) return plain({ start: upper.zero, end: upper.end, lower });
  const { limits, name } = motion(id);
  const ways = possibleWays((sense) => dualExcursion(upper, lower, sense), limits);
  return (
    byWay(ways, told, (sense) => ({ start: upper.zero, end: upper.end, lower, scale: tool.scale, sense, entered: body })) ??
    refuse(`${body} leaves more than ${name.toLowerCase()} can move; allowed: ${formatNumber(limits.min)} to ${limits.max}°.`)
  );
}

/** What a reading comes to, in the motion's unit. */
export function valueOfReading({ motion: id }: Protocol, reading: StoredReading): number {
  return endPosition(storedTrial(id, reading));
}

/** What does not fit the motion and the instrument; figures that are subtracted are held to what is left. */
export function checkReading(
  { motion: id }: Protocol,
  { instrument }: Pick<Tool, 'instrument'>,
  reading: StoredReading,
): string | undefined {
  if (reading.lower || reading.scale) return checkValue(id, instrument, tenth(endPosition(storedTrial(id, reading))));
  if (reading.start !== 0 && reading.start > reading.end)
    return `The start, ${formatNumber(reading.start)}, lies after the end, ${formatNumber(reading.end)}; allowed: start/end, as 10/45.`;
  const end = checkValue(id, instrument, reading.end);
  return end ?? (reading.start === 0 ? undefined : checkValue(id, instrument, reading.start));
}
