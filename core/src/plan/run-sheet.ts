import { protocolOfId } from '../catalogue/index.js';
import type { Digit, Mode, MotionId, Position, Side } from '../terms.js';
import type { PlanStep } from './plan.js';
import { stationFor, type Station } from './station.js';

/** One line of the run sheet: a way of measuring and a mode, with the sides in the order they are measured. */
export interface RunRow {
  readonly motion: MotionId;
  readonly digit?: Digit;
  readonly mode: Mode;
  readonly position: Position;
  readonly protocol: string;
  readonly sides: readonly Side[];
}

/** Everything done before the patient is turned. */
export interface RunBlock {
  readonly position: Position;
  readonly station: Station;
  readonly rows: readonly RunRow[];
}

/**
 * The steps of a plan as a run sheet: a block for every stay in one position,
 * and in it a line for every motion and mode, whose sides follow each other.
 *
 * @throws RangeError for a protocol that the catalogue does not hold
 */
export function runSheet(steps: readonly PlanStep[]): RunBlock[] {
  const blocks: { position: Position; station: Station; rows: (RunRow & { sides: Side[] })[] }[] = [];
  for (const { protocol: id, digit, side, mode } of steps) {
    const protocol = protocolOfId(id);
    if (!protocol) throw new RangeError(`no protocol "${id}" in the catalogue`);
    const { motion: motionId, position } = protocol;
    const station = stationFor(position, side);
    let block = blocks[blocks.length - 1];
    if (block?.station !== station) blocks.push((block = { position, station, rows: [] }));
    const row = block.rows[block.rows.length - 1];
    if (row?.protocol === id && row.digit === digit && row.mode === mode) row.sides.push(side);
    else block.rows.push({ motion: motionId, ...(digit ? { digit } : {}), mode, position, protocol: id, sides: [side] });
  }
  return blocks;
}

/** What sets a way of measuring apart from others of its motion on the same sheet: "arm at the side". */
export function variantWords(row: RunRow, rows: readonly RunRow[]): string {
  const twins = rows.some((other) => other.motion === row.motion && other.position === row.position && other.protocol !== row.protocol);
  return twins ? (protocolOfId(row.protocol)?.variantLabel ?? '') : '';
}
