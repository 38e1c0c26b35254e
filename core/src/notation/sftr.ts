import { arcSize, type Arc } from '../angle/arc.js';
import type { Joint } from '../terms.js';
import { JOINT_PLANES, PLANES, type Plane } from './planes.js';

/** One line of SFTR notation: a plane, the position of the test where it is stated, and the arc. */
export interface SftrRecord {
  readonly plane: Plane;
  /** Test position as written in brackets, e.g. `F90`; null for the anatomical position. */
  readonly position: string | null;
  readonly arc: Arc;
}

/** What an SFTR line said once it is tied to a joint: signed end positions by motion. */
export interface SftrReading {
  readonly joint: Joint;
  readonly plane: Plane;
  readonly position: string | null;
  /** Keyed by motion id; the spine's paired motions hold left and right. */
  readonly motions?: Readonly<Record<string, number | { left: number; right: number }>>;
  readonly fixedAt?: Readonly<Record<string, number | { left: number } | { right: number }>>;
  readonly arc: number;
  readonly canonical: string;
}

/** The text is not a possible arc. The message says which part and what is allowed. */
export class SftrError extends Error {
  override readonly name = 'SftrError';
}

const SHAPE = /^([A-Z])(?:\(([SFTR]\d{1,3})\))?:?(.*)$/;

/**
 * Reads one SFTR line: `plane [ (position) ] : a-n-b`, or two numbers for a
 * joint that is fixed. Spaces, degree signs, dashes of any length and lower
 * case are accepted; signs are not, since the notation has none.
 *
 * @throws SftrError when the numbers cannot be an arc
 * @example parseSftr('S:0-15-120') // { plane: 'S', position: null, arc: { kind: 'moving', first: -15, last: 120 } }
 */
export function parseSftr(text: string): SftrRecord {
  const compact = text
    .replace(/[\s°º]/g, '')
    .replace(/[‐‑‒–—−]/g, '-')
    .toUpperCase();
  const shape = SHAPE.exec(compact);
  const plane = PLANES.find((p) => p === shape?.[1]);
  if (!shape || !plane) {
    throw new SftrError(`"${text}" does not begin with a plane; allowed: S, F, T or R, as in S:15-0-125`);
  }
  const numbers = (shape[3] ?? '').split('-').map((part, index) => {
    if (!/^\d{1,3}$/.test(part)) {
      const ordinal = ['first', 'second', 'third'][index] ?? `${index + 1}th`;
      throw new SftrError(`the ${ordinal} number "${part}" in "${text}" is not a whole number from 0 to 360 without a sign`);
    }
    return Number(part);
  });
  const outOfRange = numbers.find((n) => n > 360);
  if (outOfRange !== undefined) throw new SftrError(`${outOfRange} in "${text}" is more than 360`);
  return { plane, position: shape[2] ?? null, arc: toArc(numbers, text) };
}

function toArc(numbers: readonly number[], text: string): Arc {
  if (numbers.length === 2) return fixedArc(numbers, text);
  if (numbers.length !== 3) {
    throw new SftrError(
      `"${text}" has ${numbers.length} number${numbers.length === 1 ? '' : 's'}; a moving joint has three (15-0-125), a fixed one two (0-30)`,
    );
  }
  const [a, n, b] = numbers as readonly [number, number, number];
  if (n === 0) return { kind: 'moving', first: a, last: b };
  if (a > 0 && b > 0) {
    throw new SftrError(
      `the middle number ${n} in "${text}" is not 0, so the first (${a}) or the third (${b}) must be: zero is not reached on that side`,
    );
  }
  const outer = a > 0 ? a : b;
  if (outer < n) {
    const which = a > 0 ? 'first' : 'third';
    throw new SftrError(
      `the ${which} number ${outer} in "${text}" is smaller than the start ${n}; the end of the arc lies at or past its start`,
    );
  }
  return a > 0 ? { kind: 'moving', first: a, last: -n } : { kind: 'moving', first: -n, last: b };
}

function fixedArc([a = 0, n = 0]: readonly number[], text: string): Arc {
  if (a > 0 && n > 0) throw new SftrError(`"${text}" has two numbers, so the joint is fixed, and one of them must be 0 (0-30 or 15-0)`);
  return { kind: 'fixed', at: n - a };
}

/**
 * Writes the canonical text of a record: `S:15-0-125`.
 *
 * @throws SftrError when the arc ends before it starts, or an angle is not whole
 */
export function formatSftr(record: SftrRecord): string {
  const place = record.position === null ? '' : `(${record.position})`;
  return `${record.plane}${place}:${slots(record.arc).join('-')}`;
}

function slots(arc: Arc): number[] {
  const ends = arc.kind === 'fixed' ? [arc.at] : [arc.first, arc.last];
  if (ends.some((end) => !Number.isInteger(end) || Math.abs(end) > 360)) {
    throw new SftrError('SFTR holds whole degrees from 0 to 360');
  }
  if (arc.kind === 'fixed') return arc.at < 0 ? [-arc.at, 0] : [0, arc.at];
  const { first, last } = arc;
  if (first + last < 0) throw new SftrError(`an arc from ${-first} to ${last} ends before it starts`);
  if (first < 0) return [0, -first, last];
  if (last < 0) return [first, -last, 0];
  return [first, 0, last];
}

/**
 * Ties a parsed line to a joint and names its motions.
 *
 * @throws SftrError when the joint does not move in that plane
 * @example readSftr('S:0-15-120', 'knee').motions // { 'knee.extension': -15, 'knee.flexion': 120 }
 */
export function readSftr(text: string, joint: Joint): SftrReading {
  const record = parseSftr(text);
  const pair = JOINT_PLANES[joint][record.plane];
  if (!pair) {
    const allowed = Object.keys(JOINT_PLANES[joint]).join(', ');
    throw new SftrError(`the ${joint} has no motion in plane ${record.plane}; allowed: ${allowed}`);
  }
  const { arc, plane, position } = record;
  const [first, last] = [`${joint}.${pair.first}`, `${joint}.${pair.last}`];
  const twoSided = first === last;
  const common = { joint, plane, position };
  const tail = { arc: arcSize(arc), canonical: formatSftr(record) };
  if (arc.kind === 'fixed') {
    const size = Math.abs(arc.at);
    if (twoSided) return { ...common, fixedAt: { [first]: arc.at < 0 ? { left: size } : { right: size } }, ...tail };
    return { ...common, fixedAt: { [arc.at < 0 ? first : last]: size }, ...tail };
  }
  const motions = twoSided ? { [first]: { left: arc.first, right: arc.last } } : { [first]: arc.first, [last]: arc.last };
  return { ...common, motions, ...tail };
}
