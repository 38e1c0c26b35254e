import type { MeasurementKey } from '../assessment.js';
import type { Operation } from '../course/index.js';
import { protocolOf } from '../catalogue/index.js';
import { addWeeks, weeksBetween } from '../days.js';
import { measuredMobility, mobilityScore, type Judgement } from '../finding/index.js';
import { ageOn } from '../norms/index.js';
import type { Limits } from '../precaution/index.js';
import { pointedLimbs, type Reasoned } from '../reason/index.js';
import type { InvolvedSide, IsoDate, MotionId, Side } from '../terms.js';
import { chooseDrills, type Chosen, type DrillPast, type DrillSide, type NotGiven } from './choose.js';
import { leaveFor, type Leave } from './leave.js';
import { DRILLS } from './list.js';
import { needsOf, painsOf, type Held, type Need, type ProgramOrder } from './needs.js';
import type { Drill, Equipment, Moves } from './drills/types.js';

/** A need that drills answered for weeks while its reading did not change. */
export interface Unchanged {
  readonly motion: MotionId;
  readonly side: Side;
  readonly weeks: number;
}

/** Everything a programme is made from. */
export interface ProgramAsk {
  readonly judgement: Judgement;
  readonly reasoned: readonly Reasoned[];
  readonly person: { readonly birthDate: IsoDate };
  readonly on: IsoDate;
  /** Those of the visit. */
  readonly limits: Limits;
  readonly procedure?: Operation | { readonly id: string; readonly on: null };
  readonly involvedSide?: InvolvedSide;
  readonly equipment: readonly Equipment[];
  readonly minutesADay: number;
  readonly painTolerated: number;
  readonly order: ProgramOrder;
  /** By the id of a drill: what it did in earlier retests. */
  readonly past?: ReadonlyMap<string, DrillPast>;
  /** Change a week of what was measured before, for better positive. */
  readonly slopes?: ReadonlyMap<MeasurementKey, number>;
  readonly unchanged?: readonly Unchanged[];
  /** The drills there are: those that ship and a clinic's own. */
  readonly drills?: readonly Drill[];
}

/** When a real change of a reading could be seen at all. */
export interface SeenFrom {
  /** So much has to change, in its unit: less is error. */
  readonly mdc95: number;
  /** At the pace so far; null: it is not known, or it does not move for the better. */
  readonly weeks: number | null;
}

/** One drill of a programme. */
export interface Prescribed extends Chosen {
  readonly moves: Moves;
  /** Of what it moves: that of the need, where the drill itself has none. */
  readonly movesSide: DrillSide;
  /** Null where it was not measured this time. */
  readonly seen: SeenFrom | null;
}

export type Recheck =
  /** After an operation each visit is a look again. */
  | { readonly on: IsoDate; readonly why: 'after-surgery'; readonly weeks: number }
  | { readonly on: IsoDate; readonly why: 'four-weeks' }
  /** Before that, nothing that changes could be told from error. */
  | { readonly on: IsoDate; readonly why: 'first-change-seen'; readonly weeks: number };

/** When it is no longer for drills alone. */
export type Refer =
  | { readonly why: 'end-feel'; readonly held: Extract<Held, { why: 'end-feel' }> }
  | { readonly why: 'answered'; readonly says: string }
  | { readonly why: 'unchanged'; readonly unchanged: Unchanged };

export interface Program {
  readonly drills: readonly Prescribed[];
  readonly minutesADay: number;
  readonly needs: readonly Need[];
  readonly held: readonly Held[];
  readonly leftOut: readonly NotGiven[];
  readonly leave: readonly Leave[];
  readonly refer: readonly Refer[];
  readonly recheck: Recheck;
}

/** @see common practice, no source */
export const USUAL_WEEKS = 4;
const AFTER_SURGERY = { until: 12, weeks: 2 };
/** A correction is given so long before it is called fair. @see common practice, no source */
export const FAIR_TRIAL_WEEKS = 4;
/** A pace so slow that nothing is seen before says nothing of a date. */
const LONGEST_WEEKS = 12;

/** A programme from what was found, what is open, and what is at hand; with what was left out, what is left for now, and when to look again. */
export function makeProgram(ask: ProgramAsk): Program {
  const { judgement, on, procedure, involvedSide, minutesADay } = ask;
  const { needs, held } = needsOf(ask);
  const operated = procedure
    ? {
        side: !involvedSide || involvedSide === 'both' ? ('both' as const) : involvedSide,
        weeks: procedure.on === null ? 0 : Math.max(0, weeksBetween(procedure.on, on)),
        known: procedure.on !== null,
      }
    : null;
  const given = {
    limits: ask.limits,
    operated,
    equipment: ask.equipment,
    minutesADay,
    lax: isLax(judgement, ask.person.birthDate, on),
    order: ask.order,
    past: ask.past ?? new Map(),
    pains: painsOf(judgement),
    nerves: ask.reasoned.flatMap(({ candidates }) => candidates.filter(({ id }) => id === 'neural').flatMap(pointedLimbs)),
  };
  const { chosen, leftOut } = chooseDrills(needs, held, judgement, given, ask.drills ?? DRILLS);
  const drills = chosen.map((one) => prescribed(one, ask));
  return {
    drills,
    minutesADay: drills.reduce((sum, one) => sum + one.minutes, 0),
    needs,
    held,
    leftOut,
    leave: leaveFor(judgement, ask.limits),
    refer: referOf(held, ask),
    recheck: recheckOf(drills, on, operated?.weeks ?? null),
  };
}

/** By the readings that answer the nine points: what was not asked does not count. */
function isLax({ measurements }: Judgement, birthDate: IsoDate, on: IsoDate): boolean {
  const { score, from } = mobilityScore(measuredMobility(measurements), ageOn(birthDate, on));
  return score >= from;
}

/** The reading that found the worthiest need is the one to look at again; else a marker of the drill, one that was measured first. */
function prescribed(one: Chosen, { judgement, slopes }: ProgramAsk): Prescribed {
  const movesSide = one.side === 'midline' ? one.needs[0]!.side : one.side;
  const onSide = (side: Side) => movesSide === 'both' || movesSide === 'midline' || side === movesSide;
  const measuredBy = (moves: Moves) =>
    'protocol' in moves
      ? judgement.measurements.find(({ measurement: m }) => protocolOf(m).id === moves.protocol && m.mode === moves.mode && onSide(m.side))
      : undefined;
  const moves = foundBy(one) ?? one.drill.moves.find(measuredBy) ?? one.drill.moves[0]!;
  const measured = measuredBy(moves);
  return { ...one, moves, movesSide, seen: measured ? seenFrom(measured.mdc95, slopes?.get(measured.key)) : null };
}

function foundBy({ needs: [first] }: Chosen): Moves | null {
  for (const because of first?.because ?? [])
    if (because.by === 'finding') return { protocol: because.finding.protocol, mode: because.finding.mode };
  return null;
}

function seenFrom(mdc95: number, slope: number | undefined): SeenFrom {
  const weeks = slope !== undefined && slope > 0 ? Math.ceil(mdc95 / slope) : null;
  return { mdc95, weeks: weeks !== null && weeks <= LONGEST_WEEKS ? weeks : null };
}

/** Each visit after an operation; else about every four weeks, and not before a real change of anything could be seen. */
function recheckOf(drills: readonly Prescribed[], on: IsoDate, operated: number | null): Recheck {
  if (operated !== null && operated < AFTER_SURGERY.until)
    return { on: addWeeks(on, AFTER_SURGERY.weeks), why: 'after-surgery', weeks: operated };
  const soonest = drills.flatMap(({ seen }) => seen?.weeks ?? []).sort((a, b) => a - b)[0];
  if (soonest !== undefined && soonest > USUAL_WEEKS) return { on: addWeeks(on, soonest), why: 'first-change-seen', weeks: soonest };
  return { on: addWeeks(on, USUAL_WEEKS), why: 'four-weeks' };
}

function referOf(held: readonly Held[], { reasoned, unchanged = [] }: ProgramAsk): Refer[] {
  const said = new Set(reasoned.flatMap(({ candidates }) => candidates.flatMap((c) => c.for.flatMap(({ says }) => says.refer ?? []))));
  return [
    ...held.flatMap((one): Refer[] => (one.why === 'end-feel' ? [{ why: 'end-feel', held: one }] : [])),
    ...[...said].map((says): Refer => ({ why: 'answered', says })),
    ...unchanged.filter(({ weeks }) => weeks >= FAIR_TRIAL_WEEKS).map((one): Refer => ({ why: 'unchanged', unchanged: one })),
  ];
}
