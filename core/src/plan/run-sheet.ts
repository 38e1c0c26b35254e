import { motion, protocolOfId, type Protocol } from '../catalogue/index.js';
import { MODES, type Digit, type InvolvedSide, type Mode, type MotionId, type Position, type Side } from '../terms.js';

/** One thing to be measured at a visit: a way of measuring, and the finger where there is one. */
export interface SheetItem {
  readonly protocol: string;
  readonly digit?: Digit;
}

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
  readonly rows: readonly RunRow[];
}

/** From upright to face down, so that nobody in pain is turned back and forth. @see common practice, no source */
const POSITION_ORDER: readonly Position[] = ['standing', 'sitting', 'halfKneeling', 'quadruped', 'supine', 'sidelying', 'prone'];

/**
 * The run sheet of an exam: everything in one position before the patient is
 * turned, active before passive, and the side that is not involved first,
 * since it shows the patient what is coming and sets the comparison. Within a
 * position the items keep their order.
 *
 * @param involved the complaint's side; with both or none the right side goes first
 * @throws RangeError for a protocol that the catalogue does not hold
 */
export function runSheet(items: readonly SheetItem[], involved: InvolvedSide | null): RunBlock[] {
  const rows = items.flatMap((item) => rowsOf(item, involved));
  return POSITION_ORDER.map((position) => ({ position, rows: rows.filter((row) => row.position === position) })).filter(
    (block) => block.rows.length > 0,
  );
}

function rowsOf({ protocol: id, digit }: SheetItem, involved: InvolvedSide | null): RunRow[] {
  const protocol = protocolOfId(id);
  if (!protocol) throw new RangeError(`no protocol "${id}" in the catalogue`);
  const { motion: motionId, position } = protocol;
  return modesOf(protocol).map((mode) => ({
    motion: motionId,
    ...(digit ? { digit } : {}),
    mode,
    position,
    protocol: id,
    sides: sidesOf(protocol, involved),
  }));
}

/** A joint is measured in every mode it has; a length, a force or a time once. */
function modesOf(protocol: Protocol): readonly Mode[] {
  const modes = MODES.filter((mode) => protocol.modes.includes(mode));
  return motion(protocol.motion).unit === 'deg' ? modes : modes.slice(0, 1);
}

function sidesOf(protocol: Protocol, involved: InvolvedSide | null): readonly Side[] {
  if (motion(protocol.motion).sides === 'midline') return ['midline'];
  return involved === 'right' ? ['left', 'right'] : ['right', 'left'];
}
