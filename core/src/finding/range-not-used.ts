import { itemName, notReached, type FaultId, type GradedItem, type Sector } from '../screen/index.js';
import { FAULTS } from '../screen/faults.js';
import { say } from '../words/say.js';
import { found, motionOf } from './make.js';
import { note, readings, type Step } from './steps.js';
import { wherePhrase } from './sums.js';
import type { Kind } from './types.js';

/** What was done, and what showed that the range was not used in it. */
interface Facts {
  readonly screen: string;
  readonly item: string;
  readonly name: string;
  readonly faults: readonly FaultId[];
  readonly sector: Sector | null;
}

/** How it showed: the part of the circle that is cut off, or the faults. */
function shownBy({ name, sector, faults }: Facts): Step {
  if (sector) return note('{name}: cut off from {from} to {to} o’clock', { name, from: sector.from, to: sector.to });
  return note('{name}: {faults}', { name, faults: faults.map((id) => FAULTS[id]) });
}

/** Of the try that counts. */
function sectorOf({ reasons }: GradedItem): Sector | null {
  const circle = reasons.find((reason) => reason.kind === 'circle');
  return circle?.sector ?? null;
}

/**
 * Range that is there by hand, by the norm that judges it, and that a movement
 * does not use. Only where the passive reading was judged and is not short: of
 * a range that nobody measured nothing is said.
 *
 * @see common practice, no source
 */
export const rangeNotUsed: Kind<Facts> = {
  stage: 'loss',
  rank: 4,
  mark: 'inner',
  wants: 'control',
  joins: true,
  detect: ({ measured, judging, stopped, screened }) => {
    if (screened.length === 0) return [];
    const seen = new Set<string>();
    return notReached(screened).flatMap(({ motion, side, graded }) => {
      const passive = measured.filter(({ measurement: m }) => m.motion === motion && m.side === side && m.mode === 'passive');
      const told = passive.filter((m) => judging.get(m.key) && !stopped.has(m.key));
      const hurt = passive.some(({ measurement }) => (measurement.pain ?? 0) > 0);
      const [first] = told;
      if (!first || hurt || told.some((m) => judging.get(m.key)!.short) || seen.has(`${motion}|${side}`)) return [];
      seen.add(`${motion}|${side}`);
      const facts: Facts = {
        screen: graded.screen,
        item: graded.item.id,
        name: graded.item.name,
        faults: graded.item.faults.flatMap(({ id, ownStrength }) =>
          graded.faults.includes(id) && ownStrength?.includes(motion) ? [id] : [],
        ),
        sector: graded.missing.includes(motion) ? sectorOf(graded) : null,
      };
      return [
        found(first, {
          severity: 'note',
          facts,
          steps: [
            readings(first, 'passive'),
            { step: 'norm', motion: motionOf(first).id, norm: judging.get(first.key)! },
            shownBy(facts),
            note('the range is there by hand, and the movement does not use it: points to strength or control rather than stiffness'),
          ],
        }),
      ];
    });
  },
  verdict: ({ facts }) =>
    say('there by hand, not used in “{item}”', { item: itemName({ name: facts.name, side: 'midline', view: null, with: [] }) }),
  sum: { at: 2.5, words: (all) => wherePhrase('There by hand and not used in a movement: {where}.', all) },
};
