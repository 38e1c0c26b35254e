import { readFileSync } from 'node:fs';
import type { Measurement } from '../assessment.js';
import { MOTIONS } from '../catalogue/index.js';
import { addWeeks } from '../days.js';
import { allowedDoing, type Limits } from '../precaution/index.js';
import { PROCEDURES, usualPrecautions } from '../procedure/index.js';
import { SCREENS } from '../screen/index.js';
import type { Side } from '../terms.js';
import { DONE_THINGS, enteredLines, enteredRows, isKnownRow, type DoneThing } from '../testing/done-second-entry.js';
import type { DoneTrait } from '../imposes/index.js';
import { made } from '../testing/programs.js';
import { DRILLS, EQUIPMENT, findDrill, forbiddenDrill, LADDERS, leaveFor, walkLadder, type DrillSide } from './index.js';

/*
 * After every procedure, in every week of a year: what is shown against what
 * may not be done. Whether it may be done is asked of the second entry, which
 * was made apart from what our exercises and items declare.
 */

const read = (file: string): string => readFileSync(new URL(`../imposes/done/${file}`, import.meta.url), 'utf8');
const ENTERED = enteredLines(read('second-entry.csv'));
const ENTERED_TRAITS = enteredLines(read('second-entry-traits.csv')) as [string, DoneTrait][];

const OPERATED = '2026-01-05';
const WEEKS = Array.from({ length: 53 }, (_, week) => week);
const SIDES = ['left', 'right'] as const;

/** Everything that is an angle, on both sides, far from its norm and without pain. */
const LACKING: Measurement[] = MOTIONS.filter(({ unit, better, perDigit }) => unit === 'deg' && better === 'more' && !perDigit).flatMap(
  ({ id, sides, limits, protocols: [protocol] }) =>
    (sides === 'midline' ? (['midline'] as const) : SIDES).map((side): Measurement => {
      const { position, modes, instruments } = protocol!;
      const end = Math.round(Math.max(limits.min, limits.max * 0.2));
      return {
        motion: id,
        side,
        position,
        mode: modes.includes('passive') ? 'passive' : 'active',
        instrument: instruments[0]!,
        trials: [{ end }],
      };
    }),
);

/** The second entry of each thing, as it is asked. */
const SECOND: ReadonlyMap<string, DoneThing> = new Map(
  DONE_THINGS.filter(({ id }) => ENTERED.some(([of]) => of === id)).map((thing) => [
    thing.id,
    {
      ...thing,
      is: [],
      imposes: ENTERED.filter(([id]) => id === thing.id)
        .flatMap(enteredRows)
        .filter(isKnownRow),
      traits: new Set(ENTERED_TRAITS.filter(([id]) => id === thing.id).map(([, trait]) => trait)),
    },
  ]),
);

/** Limits after a procedure on the left, week by week; weeks in which nothing changes stand together. */
function limitsOver(procedure: (typeof PROCEDURES)[number]): { readonly limits: Limits; readonly weeks: number }[] {
  const found = new Map<string, { limits: Limits; weeks: number }>();
  for (const week of WEEKS) {
    const on = addWeeks(OPERATED, week);
    const precautions = usualPrecautions(procedure, 'left', OPERATED, on);
    const key = JSON.stringify(precautions);
    const before = found.get(key);
    found.set(key, before ? { ...before, weeks: before.weeks + 1 } : { limits: { precautions, cautions: [], on }, weeks: 1 });
  }
  return [...found.values()];
}

const notAllowed = (id: string, side: Side, limits: Limits): boolean => {
  const second = SECOND.get(id);
  return second !== undefined && allowedDoing(second, side, limits).kind === 'forbidden';
};
/** On both sides at once, on each of them. */
const limbsOf = (side: DrillSide): readonly Side[] => (side === 'both' ? SIDES : [side]);
const sidesOf = ({ sides }: Pick<DoneThing, 'sides'>): readonly Side[] => (sides === 'none' ? ['midline'] : SIDES);

describe('after every procedure, week by week', () => {
  it('no exercise, item or ladder step is shown that its limits do not allow', () => {
    let shown = 0;
    const wrong: string[] = [];
    const see = (what: string, id: string, side: DrillSide, limits: Limits, weeks: number, procedure: string) => {
      shown += weeks;
      if (limbsOf(side).some((limb) => notAllowed(id, limb, limits))) wrong.push(`${procedure}: ${what} ${id} ${side} on ${limits.on}`);
    };
    for (const procedure of PROCEDURES)
      for (const { limits, weeks } of limitsOver(procedure)) {
        const tell = (what: string, id: string, side: DrillSide) => see(what, id, side, limits, weeks, procedure.id);
        for (const drill of DRILLS)
          for (const side of sidesOf(drill)) if (forbiddenDrill(drill, side, limits) === null) tell('exercise', drill.id, side);
        for (const screen of SCREENS)
          for (const item of screen.items)
            for (const side of sidesOf(item))
              if (allowedDoing(item, side, limits).kind === 'free') tell('item', `${screen.id}.${item.id}`, side);
        for (const { steps } of LADDERS)
          for (const from of steps)
            for (const side of sidesOf(findDrill(from)!)) {
              const day = (on: string) => ({ on, done: true, easy: true, pain: 0, swelling: false, worse: false });
              const walked = walkLadder(from, [day('2026-01-01'), day('2026-01-02')], {
                ...{ side, limits, equipment: EQUIPMENT, tolerated: 3, on: limits.on!, givenOn: limits.on! },
                operation: { id: procedure.id, on: OPERATED },
              });
              if (!walked.rests) tell('ladder', walked.drill, side);
            }
      }
    console.log(`After ${PROCEDURES.length} procedures, over ${WEEKS.length} weeks: ${wrong.length} of ${shown} shown are not allowed`);
    expect(wrong).toEqual([]);
    expect(shown).toBeGreaterThan(100_000);
  });

  it('no programme of somebody who lacks everything holds what is not allowed', () => {
    let given = 0;
    const wrong: string[] = [];
    for (const procedure of PROCEDURES)
      for (const { limits } of limitsOver(procedure)) {
        const program = made(LACKING, {
          limits,
          on: limits.on!,
          involvedSide: 'left',
          procedure: { id: procedure.id, on: OPERATED },
        });
        for (const { drill, side } of program.drills) {
          given += 1;
          if (limbsOf(side).some((limb) => notAllowed(drill.id, limb, limits)))
            wrong.push(`${procedure.id} ${drill.id} ${side} on ${limits.on}`);
        }
      }
    console.log(`Programmes after ${PROCEDURES.length} procedures: ${wrong.length} of ${given} exercises given are not allowed`);
    expect(wrong).toEqual([]);
    expect(given).toBeGreaterThan(PROCEDURES.length);
  });

  it('nothing is left out for now where nothing was measured', () => {
    expect(leaveFor({ measurements: [] }, { precautions: [], cautions: [], on: null })).toEqual([]);
  });
});
