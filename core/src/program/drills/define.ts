import { findMotion, protocolOfId } from '../../catalogue/index.js';
import { demandsOf } from '../../imposes/done/index.js';
import { allTraits } from '../../imposes/index.js';
import { COMMON_PRACTICE, type Mode, type MotionId, type Position } from '../../terms.js';
import { unsaid, withParts } from './unsaid.js';
import type { Dose, Drill, DrillStage, Equipment, Moves, NotWith, Pose } from './types.js';

/** A drill as its file writes it; the rest follows from its stage. */
export interface DrillSpec {
  readonly id: string;
  readonly name: string;
  readonly stage: DrillStage;
  readonly serves: readonly MotionId[];
  readonly onlyWhere?: Drill['onlyWhere'];
  readonly sides?: Drill['sides'];
  readonly at: Position;
  readonly with?: readonly Equipment[];
  readonly cues: readonly [string, string, string];
  readonly cheat: string;
  readonly dose: Dose;
  readonly easier?: string;
  readonly harder?: string;
  readonly mode?: Mode;
  readonly notWith?: Partial<NotWith>;
  readonly stop?: string;
  readonly moves: readonly (string | { readonly screen: string; readonly item: string })[];
  readonly start: Pose;
  readonly end: Pose;
}

/** Repetitions or seconds, times a day, days a week. */
export const reps = (count: number, timesADay = 1, daysAWeek = 7, sets = 1, seconds: number | null = null): Dose => ({
  sets,
  reps: count,
  seconds,
  timesADay,
  daysAWeek,
});
export const hold = (seconds: number, sets = 2, timesADay = 1, daysAWeek = 7): Dose => ({
  sets,
  reps: null,
  seconds,
  timesADay,
  daysAWeek,
});

export const scene = (id: string): Pose => ({ scene: id });
export const turned = (protocol: string, value: number): Pose => ({ protocol, value });

/** Muscles or a hand. */
export const usualMode = (stage: DrillStage): Mode => (stage === 'activate' || stage === 'load' ? 'active' : 'passive');

/** What a stage asks for where a drill says nothing else. @see common practice, no source */
export const USUAL: Readonly<Record<DrillStage, NotWith & { readonly stop: string }>> = {
  free: { lax: true, pain: null, healingWeeks: 2, stop: 'Stop at sharp pain, tingling or numbness.' },
  mobilise: { lax: true, pain: null, healingWeeks: 0, stop: 'A pull may be felt. Stop at sharp pain, a pinch or a block.' },
  lengthen: { lax: true, pain: 3, healingWeeks: 6, stop: 'A stretch may be felt. Stop at pain, tingling or numbness.' },
  activate: { lax: false, pain: null, healingWeeks: 0, stop: 'Stop when it hurts more than before, or when you can no longer do it well.' },
  load: { lax: false, pain: 3, healingWeeks: 6, stop: 'Stop when it hurts more than before, or when you can no longer do it well.' },
};

function movesOf(id: string, moves: DrillSpec['moves'], mode: Mode): Moves[] {
  return moves.map((one): Moves => {
    if (typeof one !== 'string') return one;
    const [name, of] = one.split(' ');
    const protocol = protocolOfId(name!);
    if (!protocol) throw new RangeError(`${id} should move "${name}", which the catalogue does not hold`);
    const wanted = (of as Mode | undefined) ?? mode;
    return { protocol: protocol.id, mode: protocol.modes.includes(wanted) ? wanted : protocol.modes[0]! };
  });
}

/** Lengths and distances that a drill works on: limited, they are not worked on. A force that may not be tested may be built up. */
export const reachesOf = (serves: readonly MotionId[]): MotionId[] =>
  serves.filter((id) => ['muscleLength', 'distance'].includes(findMotion(id)?.joint ?? ''));

/** What is declared; and what a drill serves without naming it, taken as far as it goes. */
function demanded({ id, serves, stage, at }: DrillSpec, mode: Mode): Pick<Drill, 'imposes' | 'traits'> {
  const declared = demandsOf(id, at, mode);
  const imposes = [...declared.imposes, ...unsaid({ serves, stage, mode, imposes: declared.imposes }).flatMap(withParts)];
  return { imposes, traits: allTraits([...declared.traits], { rows: imposes, position: at, mode }) };
}

/** Drills from their data. */
export function defineDrills(specs: readonly DrillSpec[]): Drill[] {
  return specs.map((spec) => {
    const { stop, ...usual } = USUAL[spec.stage];
    const mode = spec.mode ?? usualMode(spec.stage);
    for (const id of spec.serves) if (!findMotion(id)) throw new RangeError(`${spec.id} serves "${id}", which the catalogue does not hold`);
    return {
      id: spec.id,
      name: spec.name,
      stage: spec.stage,
      serves: spec.serves,
      ...(spec.onlyWhere && { onlyWhere: spec.onlyWhere }),
      sides: spec.sides ?? 'each',
      position: spec.at,
      equipment: spec.with ?? [],
      cues: spec.cues,
      cheat: spec.cheat,
      dose: spec.dose,
      doseSource: COMMON_PRACTICE,
      easier: spec.easier ?? null,
      harder: spec.harder ?? null,
      mode,
      ...demanded(spec, mode),
      is: reachesOf(spec.serves),
      notWith: { ...usual, ...spec.notWith },
      stop: spec.stop ?? stop,
      moves: movesOf(spec.id, spec.moves, mode),
      start: spec.start,
      end: spec.end,
      source: COMMON_PRACTICE,
    };
  });
}
