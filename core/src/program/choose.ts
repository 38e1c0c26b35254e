import { allowedDoing, type Allowed, type Limits } from '../precaution/index.js';
import type { MotionId, Side } from '../terms.js';
import type { Judgement } from '../finding/index.js';
import { kindOf } from '../finding/index.js';
import { isUnknown, STAGE_WEIGHTS, type Held, type Need, type Pain, type ProgramOrder } from './needs.js';
import { minutesOf, sidesCounted } from './dose.js';
import { DRILL_STAGES, type Drill, type DrillStage, type Dose, type Equipment } from './drills/types.js';

/** A programme is no longer than this. @see common practice, no source */
export const MOST_DRILLS = 5;

/** On which side a drill is done. */
export type DrillSide = Side | 'both';

/** Why a drill that would serve is not given. */
export type NotGivenWhy =
  | { readonly why: 'forbidden'; readonly side: DrillSide; readonly by: Exclude<Allowed, { kind: 'free' }> }
  | { readonly why: 'equipment'; readonly missing: readonly Equipment[] }
  | { readonly why: 'lax'; readonly motion: MotionId | null }
  | { readonly why: 'hurts'; readonly motion: MotionId; readonly held: Held }
  | { readonly why: 'healing'; readonly weeks: number; readonly before: number; readonly known: boolean }
  | { readonly why: 'too-painful'; readonly motion: MotionId; readonly pain: number; readonly most: number }
  | { readonly why: 'nerve'; readonly side: DrillSide }
  | { readonly why: 'made-worse'; readonly times: number }
  | { readonly why: 'minutes'; readonly minutes: number; readonly available: number }
  | { readonly why: 'worth-less' };

export interface NotGiven {
  readonly drill: Drill;
  readonly why: NotGivenWhy;
}

/** What a drill did to this person so far. */
export interface DrillPast {
  readonly better: number;
  readonly worse: number;
}

/** What stands beside the needs. */
export interface Given {
  readonly limits: Limits;
  /** Whole weeks since an operation on a side; null: there was none. Of an unknown date: 0. */
  readonly operated: { readonly side: Side | 'both'; readonly weeks: number; readonly known: boolean } | null;
  readonly equipment: readonly Equipment[];
  readonly minutesADay: number;
  /** More mobile than most in general: neither freed nor lengthened anywhere. */
  readonly lax: boolean;
  readonly order: ProgramOrder;
  readonly past: ReadonlyMap<string, DrillPast>;
  /** What hurt at this visit. */
  readonly pains: readonly Pain[];
  /** Sides on which answers point to a nerve: nothing that draws on one is given there. */
  readonly nerves: readonly Side[];
}

export interface Chosen {
  readonly drill: Drill;
  readonly side: DrillSide;
  readonly dose: Dose;
  /** Minutes of a day. */
  readonly minutes: number;
  /** The needs that it answers, the one of most worth first. */
  readonly needs: readonly Need[];
}

/** One drill on a side, with what it would add. */
interface Unit extends Chosen {
  readonly at: number;
  /** Need, stage and weight. */
  readonly adds: readonly (readonly [need: number, stage: number, weight: number])[];
}

/** A second stage of one need counts half, a third a quarter: other needs come first. @see common practice, no source */
const AGAIN = [1, 0.5, 0.25, 0.125, 0.0625];
/** What helped before counts a quarter more. @see common practice, no source */
const HELPED = 1.25;
/** For every easier drill of the same stage that serves it too, a hundredth less: one begins with the easier one. @see common practice, no source */
const EASIER_FIRST = 0.01;
const NOTHING = 1e-9;

/**
 * At most five drills within the minutes of a day that answer the needs best:
 * exact. Each need counts by its worth and by how well the stage of a drill
 * answers it; nothing is chosen that precautions, laxity, pain, healing,
 * equipment or earlier retests speak against. What would have served is left
 * out with its reason.
 */
export function chooseDrills(
  needs: readonly Need[],
  held: readonly Held[],
  judgement: Pick<Judgement, 'findings'>,
  given: Given,
  drills: readonly Drill[],
): { readonly chosen: readonly Chosen[]; readonly leftOut: readonly NotGiven[] } {
  const { units, leftOut } = unitsFor(needs, held, judgement, given, drills);
  const chosen = best(units, needs, given.minutesADay).sort(inOrder);
  const isGiven = new Set(chosen.map(({ drill }) => drill.id));
  const isOut = new Set(leftOut.map(({ drill }) => drill.id));
  const rest = new Map<string, NotGiven>();
  for (const { drill, minutes } of units)
    if (!isGiven.has(drill.id) && !isOut.has(drill.id)) rest.set(drill.id, { drill, why: notChosen(minutes, chosen, given.minutesADay) });
  return {
    chosen: chosen.map(({ drill, side, dose, minutes, needs: own }) => ({ drill, side, dose, minutes, needs: own })),
    leftOut: [...leftOut, ...rest.values()],
  };
}

function notChosen(minutes: number, chosen: readonly Chosen[], available: number): NotGivenWhy {
  const used = chosen.reduce((sum, one) => sum + one.minutes, 0);
  return chosen.length < MOST_DRILLS && used + minutes > available ? { why: 'minutes', minutes, available } : { why: 'worth-less' };
}

const inOrder = (a: Unit, b: Unit): number => stageAt(a.drill) - stageAt(b.drill) || b.needs[0]!.worth - a.needs[0]!.worth || a.at - b.at;
const stageAt = ({ stage }: Drill): number => DRILL_STAGES.indexOf(stage);

/** Every drill that serves a need, on every side or pair of sides for which it does; and those that may not be given. */
function unitsFor(
  needs: readonly Need[],
  held: readonly Held[],
  { findings }: Pick<Judgement, 'findings'>,
  given: Given,
  drills: readonly Drill[],
): { readonly units: Unit[]; readonly leftOut: NotGiven[] } {
  const weights = STAGE_WEIGHTS[given.order];
  const tooMuch = findings.filter((f) => kindOf(f.kind)?.tooMuch);
  const units: Unit[] = [];
  const leftOut: NotGiven[] = [];
  drills.forEach((drill, at) => {
    const served = needs.flatMap((need, index) => {
      const weight = weightFor(drill, need, weights[need.want]);
      return weight > 0 ? [{ need, index, weight }] : [];
    });
    if (served.length === 0) return;
    const always = againstAnySide(drill, given);
    if (always) {
      leftOut.push({ drill, why: always });
      return;
    }
    const past = given.past.get(drill.id);
    const factor = past && past.better > past.worse ? HELPED : 1;
    const { dose } = drill;
    let why: NotGivenWhy | null = null;
    for (const side of sidesOf(
      drill,
      served.map(({ need }) => need.side),
    )) {
      const own = served.filter(({ need }) => side === 'midline' || side === 'both' || need.side === 'midline' || need.side === side);
      const against = againstOneSide(drill, side, held, tooMuch, given);
      if (against) {
        why ??= against;
        continue;
      }
      const minutes = minutesOf(dose, sidesCounted(side));
      if (minutes > given.minutesADay) {
        why ??= { why: 'minutes', minutes, available: given.minutesADay };
        continue;
      }
      units.push({
        drill,
        side,
        dose,
        minutes,
        needs: own.map(({ need }) => need).sort((a, b) => b.worth - a.worth),
        at,
        adds: own.map(({ need, index, weight }) => {
          const eased = easierOf(drill, need, drills) * EASIER_FIRST;
          return [index, stageAt(drill), need.worth * weight * factor * (1 - eased)] as const;
        }),
      });
    }
    if (why) leftOut.push({ drill, why });
  });
  return { units, leftOut };
}

/** Of drills that a need names in an order, each after the first. @see common practice, no source */
const NEXT_BEST = 0.6;

/** How well a drill answers a need; 0: not at all. */
function weightFor(drill: Drill, need: Need, byStage: Readonly<Partial<Record<DrillStage, number>>>): number {
  if (drill.onlyWhere && !need.because.some((because) => because.by === 'candidate' && drill.onlyWhere!.includes(because.candidate)))
    return 0;
  if (need.through) return need.through.includes(drill.id) ? NEXT_BEST ** need.through.indexOf(drill.id) : 0;
  return drill.serves.includes(need.motion) ? (byStage[drill.stage] ?? 0) : 0;
}

/** How many easier drills lead up to one that serve the same in the same stage. */
function easierOf({ easier, stage }: Drill, { motion }: Pick<Need, 'motion'>, drills: readonly Drill[]): number {
  const before = easier === null ? undefined : drills.find(({ id }) => id === easier);
  if (!before) return 0;
  return (before.stage === stage && before.serves.includes(motion) ? 1 : 0) + easierOf(before, { motion }, drills);
}

/** Both limbs where both are in need, and either alone where there is time for one. */
function sidesOf({ sides }: Drill, wanted: readonly Side[]): DrillSide[] {
  if (sides === 'none') return ['midline'];
  const all = new Set(wanted);
  if (all.has('midline') || (all.has('left') && all.has('right'))) return ['left', 'right', 'both'];
  return [...all] as DrillSide[];
}

function againstAnySide({ equipment, notWith, id }: Drill, { equipment: there, lax, past }: Given): NotGivenWhy | null {
  const missing = equipment.filter((piece) => !there.includes(piece));
  if (missing.length > 0) return { why: 'equipment', missing };
  if (lax && notWith.lax) return { why: 'lax', motion: null };
  const before = past.get(id);
  if (before && before.worse > 0 && before.worse >= before.better) return { why: 'made-worse', times: before.worse };
  return null;
}

const limbsOf = (side: DrillSide): readonly Side[] =>
  side === 'both' || side === 'midline' ? ['left', 'right', 'midline'] : [side, 'midline'];

/** The limit that speaks against a drill on a side, or on one of both. A drill is not read and cannot be stopped at a limit: whatever is not free is out. */
export function forbiddenDrill(drill: Drill, side: DrillSide, limits: Limits): Exclude<Allowed, { kind: 'free' }> | null {
  for (const limb of side === 'both' ? (['left', 'right'] as const) : [side]) {
    const allowed = allowedDoing(drill, limb, limits);
    if (allowed.kind !== 'free') return allowed;
  }
  return null;
}

const NERVE_TRAITS = ['nerve-tension', 'femoral-nerve-tension'] as const;

/** What speaks against a drill on a side: precautions, what is too mobile, what hurts or has to be looked at, and healing. */
function againstOneSide(
  drill: Drill,
  side: DrillSide,
  held: readonly Held[],
  tooMuch: readonly Judgement['findings'][number][],
  { limits, operated, pains, nerves }: Given,
): NotGivenWhy | null {
  const forbidden = forbiddenDrill(drill, side, limits);
  if (forbidden) return { why: 'forbidden', side, by: forbidden };
  const limbs = limbsOf(side);
  const lax = drill.notWith.lax && tooMuch.find((f) => drill.serves.includes(f.motion) && limbs.includes(f.side));
  if (lax) return { why: 'lax', motion: lax.motion };
  const hurts = held.find((h) => !isUnknown(h) && touches(drill, h.motion, h.side, limbs));
  if (hurts) return { why: 'hurts', motion: hurts.motion, held: hurts };
  const most = drill.notWith.pain;
  const tooMuchPain = most !== null && pains.find(({ motion, side: at, pain }) => pain > most && touches(drill, motion, at, limbs));
  if (tooMuchPain) return { why: 'too-painful', motion: tooMuchPain.motion, pain: tooMuchPain.pain, most };
  const drawsOnNerve = NERVE_TRAITS.some((trait) => drill.traits.has(trait));
  if (drawsOnNerve && nerves.some((at) => limbs.includes(at) || at === 'midline')) return { why: 'nerve', side };
  const heals = operated && (operated.side === 'both' || limbs.includes(operated.side)) && operated.weeks < drill.notWith.healingWeeks;
  return heals ? { why: 'healing', weeks: operated.weeks, before: drill.notWith.healingWeeks, known: operated.known } : null;
}

/** Whether a drill works on a motion of a limb, or takes it there on the way. A position that it is held in counts too. */
function touches({ serves, imposes }: Drill, id: MotionId, at: Side, limbs: readonly Side[]): boolean {
  if (serves.includes(id) && limbs.includes(at)) return true;
  return imposes.some((row) => {
    if (row.what !== 'moves' || row.motion !== id || row.degrees === 0) return false;
    if (row.limb === 'trunk' || at === 'midline') return true;
    if (row.limb === 'both') return true;
    const isMeasured = limbs.includes(at) && limbs.length < 3;
    return limbs.length === 3 || (row.limb === 'measured' ? isMeasured : !isMeasured);
  });
}

/** What the stages of a need are worth: the largest in full, each after it half of the one before. */
function worthOfNeed(own: Float64Array): number {
  let sum = 0;
  let counted = 0;
  // Few stages, and most of them empty: the largest that is left is looked for, without an array of its own.
  for (const part of AGAIN) {
    let largest = 0;
    let at = -1;
    for (let stage = 0; stage < own.length; stage += 1)
      if (!(counted & (1 << stage)) && own[stage]! > largest) [largest, at] = [own[stage]!, stage];
    if (at < 0) break;
    counted |= 1 << at;
    sum += largest * part;
  }
  return sum;
}

/** What the best drills from here on would add, one way of each. */
function mostOf(fitting: readonly { readonly unit: Unit; readonly adds: number }[], from: number, places: number): number {
  const seen: Drill[] = [];
  let sum = 0;
  for (let at = from; at < fitting.length && seen.length < places; at += 1) {
    const { unit, adds } = fitting[at]!;
    if (seen.includes(unit.drill)) continue;
    seen.push(unit.drill);
    sum += adds;
  }
  return sum;
}

/** What drills from here on would add in the minutes that are left, the last of them in part: more than any of them can. */
function mostIn(
  dense: readonly { readonly unit: Unit; readonly adds: number; readonly at: number }[],
  from: number,
  minutes: number,
): number {
  let left = minutes;
  let sum = 0;
  for (const { unit, adds, at } of dense) {
    if (at < from) continue;
    if (unit.minutes >= left) return sum + (adds * left) / unit.minutes;
    sum += adds;
    left -= unit.minutes;
  }
  return sum;
}

/**
 * Branch and bound. What a drill adds never grows as others are chosen (each
 * need counts its stages by less and less), so that the largest additions to
 * what is chosen so far bound whatever may follow.
 */
function best(units: readonly Unit[], needs: readonly Need[], minutesADay: number): Unit[] {
  const stages = needs.map(() => new Float64Array(DRILL_STAGES.length));
  const added = ({ adds }: Unit): number => {
    let sum = 0;
    for (const [need, stage, weight] of adds) {
      const own = stages[need]!;
      const before = own[stage]!;
      if (weight <= before) continue;
      const was = worthOfNeed(own);
      own[stage] = weight;
      sum += worthOfNeed(own) - was;
      own[stage] = before;
    }
    return sum;
  };
  let found: { readonly units: readonly Unit[]; readonly worth: number; readonly minutes: number } = { units: [], worth: 0, minutes: 0 };
  const isBetter = (worth: number, minutes: number, picked: readonly Unit[]): boolean => {
    if (worth > found.worth + NOTHING) return true;
    if (worth < found.worth - NOTHING) return false;
    return minutes < found.minutes || (minutes === found.minutes && picked.length < found.units.length);
  };
  const look = (from: readonly Unit[], picked: readonly Unit[], worth: number, minutes: number): void => {
    if (isBetter(worth, minutes, picked)) found = { units: picked, worth, minutes };
    const places = MOST_DRILLS - picked.length;
    if (places === 0) return;
    const fitting = from
      .filter((unit) => minutes + unit.minutes <= minutesADay)
      .map((unit) => ({ unit, adds: added(unit) }))
      .filter(({ adds }) => adds > NOTHING)
      .sort((a, b) => b.adds - a.adds || a.unit.minutes - b.unit.minutes || a.unit.at - b.unit.at);
    const dense = fitting.map((one, at) => ({ ...one, at })).sort((a, b) => b.adds / b.unit.minutes - a.adds / a.unit.minutes);
    for (let at = 0; at < fitting.length; at += 1) {
      const bound = worth + Math.min(mostOf(fitting, at, places), mostIn(dense, at, minutesADay - minutes));
      // With as much worth, fewer minutes would still be better.
      if (bound < found.worth - NOTHING) return;
      const { unit, adds } = fitting[at]!;
      const undo = unit.adds.map(([need, stage]) => stages[need]![stage]!);
      for (const [need, stage, weight] of unit.adds) stages[need]![stage] = Math.max(stages[need]![stage]!, weight);
      const rest = fitting.slice(at + 1).flatMap(({ unit: other }) => (other.drill.id === unit.drill.id ? [] : [other]));
      look(rest, [...picked, unit], worth + adds, minutes + unit.minutes);
      unit.adds.forEach(([need, stage], i) => (stages[need]![stage] = undo[i]!));
    }
  };
  look(units, [], 0, 0);
  return [...found.units];
}
