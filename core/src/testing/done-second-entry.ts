import { findMotion } from '../catalogue/index.js';
import type { DoneTrait, Imposition } from '../imposes/index.js';
import { DRILLS } from '../program/index.js';
import { SCREENS } from '../screen/index.js';
import type { Mode, MotionId, Position } from '../terms.js';

/** An exercise or an item of a screen, as what it does to the body. */
export interface DoneThing {
  readonly id: string;
  readonly imposes: readonly Imposition[];
  readonly traits: ReadonlySet<DoneTrait>;
  readonly position: Position;
  readonly mode: Mode;
  readonly sides: string;
  readonly is: readonly MotionId[];
}

export const DONE_THINGS: readonly DoneThing[] = [
  ...DRILLS,
  ...SCREENS.flatMap(({ id, items, former }) => [...items, ...former].map((item) => ({ ...item, id: `${id}.${item.id}` }))),
];

/** Lines of a second entry, made apart from clinical knowledge without a look at ours: no field holds a comma. */
export const enteredLines = (text: string): string[][] =>
  text
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(','));

/** The second entry speaks of the fingers, the thumb and the great toe as one joint each. */
const LUMPED: Readonly<Record<string, readonly string[]>> = {
  fingers: ['fingerMcp', 'fingerPip', 'fingerDip'],
  thumb: ['thumbCmc', 'thumbMcp', 'thumbIp'],
  greatToe: ['greatToeMtp', 'greatToeIp'],
};

/** A row of the second entry as rows of ours, one a joint. */
export function enteredRows([, limb, joint, direction, degrees, load, by]: readonly string[]): Imposition[] {
  const of = { limb, load, by };
  return (LUMPED[joint!] ?? [joint!]).flatMap((one): Imposition[] => {
    if (direction === 'weight')
      // The tip of the toe carries with its ball, the fingers with their knuckles.
      return ['greatToeIp', 'fingerPip', 'fingerDip'].includes(one) ? [] : [{ what: 'bears', joint: one, ...of } as Imposition];
    const motion = `${one}.${direction}`;
    if (LUMPED[joint!] && !findMotion(motion)) return [];
    if (degrees === '0' && load === 'resisted') return [{ what: 'works', motion, ...of } as Imposition];
    return [{ what: 'moves', motion, degrees: degrees === 'full' ? degrees : Number(degrees), isFigure: false, ...of } as Imposition];
  });
}

/** What is declared and in the catalogue, and what has no motion of its own there: sideways strain, a shin that turns. */
export const isKnownRow = (row: Imposition): boolean => !('motion' in row) || findMotion(row.motion) !== undefined;
