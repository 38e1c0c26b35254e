import { formatNumber, formatSigned, formatSize } from '../words/figures.js';
import { say } from '../words/say.js';
import { protocolOf } from '../catalogue/index.js';
import { mdcOfDifference } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import type { Joint, Mode, MotionId, Position } from '../terms.js';

/** Two opposite ends of one joint in one position, as one arc on each side. Degrees. */
export interface TotalArc {
  readonly joint: Joint;
  readonly name: string;
  readonly mode: Mode;
  readonly position: Position;
  /** The two ends, the one that is written first first. */
  readonly motions: readonly [MotionId, MotionId];
  readonly how: string;
  readonly left: ArcOfSide | null;
  readonly right: ArcOfSide | null;
  /** left − right; null with one side alone. */
  readonly difference: number | null;
  /** Error of that difference, from all four readings. */
  readonly mdc: number | null;
}

export interface ArcOfSide {
  readonly value: number;
  readonly first: number;
  readonly last: number;
  readonly sem: number;
}

const ARC_NAMES = { shoulder: 'Shoulder rotation, total', hip: 'Hip rotation, total' } as const;
const ROTATIONS: readonly (readonly [keyof typeof ARC_NAMES, MotionId, MotionId])[] = [
  ['shoulder', 'shoulder.externalRotation', 'shoulder.internalRotation'],
  ['hip', 'hip.externalRotation', 'hip.internalRotation'],
];
/**
 * Sides whose arcs differ by less usually belong to a healthy thrower.
 *
 * @see Wilk KE, Meister K, Andrews JR. Am J Sports Med 2002;30:136-151 (from memory)
 */
const THROWERS_ARC = 5;
/** Ends that differ at least so much while the arc is the same have been traded for each other. @see Kibler 2012; Wilk 2011: 18–20° (from memory) */
const TRADED = 18;

/**
 * Total rotation of shoulders and hips: external and internal rotation in the
 * same position and mode, side by side. A throwing arm may have given up one
 * end for the other: then the ends differ and the arc does not.
 */
export function totalArcs(measured: readonly MeasuredValue[]): TotalArc[] {
  return ROTATIONS.flatMap(([joint, firstMotion, lastMotion]) => {
    const ends = measured.filter(({ measurement: m }) => m.motion === firstMotion || m.motion === lastMotion);
    const ways = new Map(
      ends.map(({ measurement: m }) => {
        const { position, variant, label } = protocolOf(m);
        return [`${position}|${variant ?? ''}|${m.mode}`, { position, variant, label, mode: m.mode }] as const;
      }),
    );
    return [...ways.values()].flatMap(({ position, variant, label, mode }): TotalArc[] => {
      const find = (id: MotionId, side: 'left' | 'right') =>
        ends.find(
          ({ measurement: m }) =>
            m.motion === id && m.side === side && m.mode === mode && m.position === position && protocolOf(m).variant === variant,
        );
      const of = (side: 'left' | 'right'): ArcOfSide | null => {
        const [first, last] = [find(firstMotion, side), find(lastMotion, side)];
        if (!first || !last) return null;
        return { value: first.value + last.value, first: first.value, last: last.value, sem: Math.hypot(first.sem, last.sem) };
      };
      const [left, right] = [of('left'), of('right')];
      if (!left && !right) return [];
      const difference = left && right ? left.value - right.value : null;
      const mdc = left && right ? mdcOfDifference(left.sem, right.sem) : null;
      const name = ARC_NAMES[joint];
      return [{ joint, name, mode, position, motions: [firstMotion, lastMotion], how: label, left, right, difference, mdc }];
    });
  });
}

/** "8° apart, within error" */
export function arcVerdict({ difference, mdc }: TotalArc): string {
  if (difference === null || mdc === null) return say('one side alone');
  const size = formatSize(Math.abs(difference));
  return Math.abs(difference) < mdc ? say('{size} apart, within error', { size }) : say('{size} apart, real', { size });
}

/** Whether one end was given up for the other, and by how much the whole differs. */
export function arcWords({ joint, left, right, difference, mdc }: TotalArc): string {
  const sum = (arc: ArcOfSide) => `${formatNumber(arc.first)} + ${formatNumber(arc.last)} = ${formatNumber(arc.value)}°`;
  const sides = [left && say('left {sum}', { sum: sum(left) }), right && say('right {sum}', { sum: sum(right) })]
    .filter(Boolean)
    .join(', ');
  if (!left || !right || difference === null || mdc === null) return say('{sides}; the other side is not measured', { sides });
  const parts = { sides, size: `${formatSigned(difference)}°`, mdc: formatNumber(mdc), usual: THROWERS_ARC };
  if (Math.abs(difference) >= mdc)
    return say('{sides}; left − right {size}, more than measuring error ({mdc}°): the arc itself is less on one side', parts);
  const [first, last] = [left.first - right.first, left.last - right.last];
  const traded =
    Math.min(Math.abs(first), Math.abs(last)) >= TRADED / 2 && Math.max(Math.abs(first), Math.abs(last)) >= TRADED && first * last < 0;
  if (traded)
    return say(
      '{sides}; left − right {size}, within measuring error ({mdc}°): one end is traded for the other, the arc is the same',
      parts,
    );
  return joint === 'shoulder' && Math.abs(difference) > THROWERS_ARC
    ? say(
        '{sides}; left − right {size}, within measuring error ({mdc}°), though beyond the {usual}° usual between the arms of throwers',
        parts,
      )
    : say('{sides}; left − right {size}, within measuring error ({mdc}°)', parts);
}
