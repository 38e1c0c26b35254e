import type { Joint, Position } from '../terms.js';
import { bears, both, FACE_DOWN, FLAT, measured, ON_ALL_FOURS, other, SIDE_LYING, SITTING, STANDING, type Row } from './rows.js';
import { jointOfRow } from './table.js';
import type { ImposedLimb, Imposition } from './types.js';

/** What a position imposes by itself, whatever is done in it. @see common practice, no source */
const BY_POSITION: Readonly<Record<Position, readonly Row[]>> = {
  supine: FLAT,
  prone: [...FACE_DOWN, both('ankle.plantarflexion', 40)],
  sidelying: SIDE_LYING,
  sitting: SITTING,
  standing: STANDING,
  quadruped: ON_ALL_FOURS,
  halfKneeling: [
    measured('hip.flexion', 90),
    both('knee.flexion', 90, 'body'),
    other('hip.extension', 0, 'body'),
    other('ankle.plantarflexion', 40),
    ...bears('measured', ['hip', 'knee', 'ankle', 'subtalar']),
    ...bears('other', ['hip', 'knee']),
  ],
};

/** What a position imposes, each limb by itself. */
export const imposedByPosition = (position: Position): Imposition[] =>
  BY_POSITION[position].flatMap((row): Imposition[] => {
    if (row.what === 'own') throw new RangeError(`${position} measures nothing`);
    return row.limb === 'both'
      ? [
          { ...row, limb: 'measured' },
          { ...row, limb: 'other' },
        ]
      : [row];
  });

const LEG: readonly Joint[] = ['hip', 'knee', 'ankle', 'subtalar', 'greatToeMtp'];
const covers = (limb: ImposedLimb, other: ImposedLimb): boolean => limb === other || limb === 'both';

/**
 * What is done in a position, with what the position adds: all that it imposes
 * on joints of which the rows say nothing themselves. Rows that say where the
 * weight of the legs or the arms goes say it for all of them.
 */
export function inPosition(position: Position, rows: readonly Imposition[]): Imposition[] {
  const isSaid = (held: Imposition): boolean =>
    rows.some((row) => {
      if (row.what !== held.what) return false;
      if (row.what === 'bears') return LEG.includes(jointOfRow(row)) === LEG.includes(jointOfRow(held));
      return jointOfRow(row) === jointOfRow(held) && covers(row.limb, held.limb);
    });
  return [...rows, ...imposedByPosition(position).filter((held) => !isSaid(held))];
}
