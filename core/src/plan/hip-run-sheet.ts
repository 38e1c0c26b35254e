import { findProtocol } from '../catalogue/index.js';
import { MODES, type InvolvedSide, type Mode, type MotionId, type Position, type Side } from '../terms.js';

/** One line of the run sheet: a motion and mode in a position, with both sides in the order they are measured. */
export interface RunRow {
  readonly motion: MotionId;
  readonly mode: Mode;
  readonly position: Position;
  readonly sides: readonly Side[];
}

/** Everything done before the patient is turned. */
export interface RunBlock {
  readonly position: Position;
  readonly rows: readonly RunRow[];
}

const HIP_ORDER: readonly (readonly [Position, readonly MotionId[]])[] = [
  ['supine', ['hip.flexion', 'hip.abduction', 'hip.adduction']],
  ['prone', ['hip.extension', 'hip.internalRotation', 'hip.externalRotation']],
];

/**
 * The hip exam in its fixed order: one turn, active before passive, and the
 * side that is not involved first, since it shows the patient what is coming
 * and sets the comparison.
 *
 * @param involved the complaint's side; with both or none the right side goes first
 */
export function hipRunSheet(involved: InvolvedSide | null): RunBlock[] {
  const sides: Side[] = involved === 'right' ? ['left', 'right'] : ['right', 'left'];
  return HIP_ORDER.map(([position, motions]) => ({
    position,
    rows: motions.flatMap((motion) => {
      const modes = findProtocol(motion, position)?.modes ?? [];
      return MODES.filter((mode) => modes.includes(mode)).map((mode) => ({ motion, mode, position, sides }));
    }),
  }));
}
