import { motion, protocolOfId, type Protocol } from '../catalogue/index.js';
import { allowedSides } from '../catalogue/check.js';
import { MODES, type Digit, type Mode, type MotionId, type Position, type Side } from '../terms.js';

/** One thing to be measured at a visit: a way of measuring, and the finger where there is one. Without a side or mode: all it has. */
export interface SheetItem {
  readonly protocol: string;
  readonly digit?: Digit;
  readonly side?: Side;
  readonly mode?: Mode;
}

/** One measurement that is asked of the plan. */
export interface PlanItem {
  readonly motion: MotionId;
  readonly digit?: Digit;
  readonly side: Side;
  readonly mode: Mode;
  /** Ways of measuring that will do, the preferred one first. More than one leaves the position to the plan. */
  readonly protocols: readonly string[];
  readonly provoking?: boolean;
  /** Keeps its place among the other locked ones, and stays whatever the time. */
  readonly locked?: boolean;
  /** Stays whatever the time. */
  readonly keep?: boolean;
}

/** A sheet as chosen, one item for every side and mode. */
export function itemsOfSheet(sheet: readonly SheetItem[]): PlanItem[] {
  return sheet.flatMap(({ protocol: id, digit, side, mode }) => {
    const protocol = protocolNamed(id);
    return modesOf(protocol)
      .filter((m) => mode === undefined || m === mode)
      .flatMap((m) =>
        allowedSides(motion(protocol.motion))
          .filter((s) => side === undefined || s === side)
          .map((s): PlanItem => ({ motion: protocol.motion, ...(digit ? { digit } : {}), side: s, mode: m, protocols: [id] })),
      );
  });
}

/** A joint is measured in every mode it has; a length, a force or a time once. */
export function modesOf(protocol: Protocol): readonly Mode[] {
  const modes = MODES.filter((mode) => protocol.modes.includes(mode));
  return motion(protocol.motion).unit === 'deg' ? modes : modes.slice(0, 1);
}

/** Positions in which a motion can be measured in a mode, the usual first: what a plan may choose from. */
export function waysOf(id: MotionId, mode: Mode, position?: Position): string[] {
  const ways = motion(id).protocols.filter((p) => p.modes.includes(mode) && (position === undefined || p.position === position));
  const usual = ways.filter((p) => p.variant === null);
  return (usual.length > 0 ? usual : ways).map((p) => p.id);
}

/** @throws RangeError for a way of measuring that the catalogue does not hold */
export function protocolNamed(id: string): Protocol {
  const protocol = protocolOfId(id);
  if (!protocol) throw new RangeError(`no protocol "${id}" in the catalogue`);
  return protocol;
}
