import { isJoint, motion, protocolOfId } from '../catalogue/index.js';
import { kindOf, saidOf, type Finding, type Judgement } from '../finding/index.js';
import { candidateWords, pointedLimbs, type Candidate, type Reasoned } from '../reason/index.js';
import { itemOf, type ItemOutcome } from '../screen/index.js';
import { allowedFor, type Limits } from '../precaution/index.js';
import type { Family, InvolvedSide, Mode, MotionId, Severity, Side } from '../terms.js';
import { say } from '../words/say.js';
import { CANDIDATE_WANTS } from './candidate-wants.js';
import type { DrillStage, NeedWant } from './drills/types.js';

/** Why something is wanted: a finding, or what answers of a breakdown point to. */
export type Because =
  | { readonly by: 'finding'; readonly finding: Finding }
  | { readonly by: 'candidate'; readonly reasoned: Reasoned; readonly candidate: keyof typeof CANDIDATE_WANTS };

/** One thing to work on. */
export interface Need {
  readonly motion: MotionId;
  readonly side: Side;
  readonly want: NeedWant;
  /** By how much it weighs against the others. */
  readonly worth: number;
  readonly because: readonly Because[];
  /** Drills that answer it, the best first, and no others; left out: all that serve its motion. */
  readonly through?: readonly string[];
}

/** Why nothing is worked on there yet. */
export type Held =
  | { readonly why: 'hurts'; readonly motion: MotionId; readonly side: Side; readonly pain: number }
  | { readonly why: 'end-feel'; readonly motion: MotionId; readonly side: Side; readonly finding: Finding }
  /** An item of a screen that hurts is looked at before anything near it is worked on. */
  | { readonly why: 'item-hurts'; readonly motion: MotionId; readonly side: Side; readonly outcome: ItemOutcome }
  /** An active reading alone: whether the range is there by hand decides what is done. */
  | { readonly why: 'measure-by-hand'; readonly motion: MotionId; readonly side: Side }
  /** The same, and a limit forbids to take it there by hand: what is done is not known yet. */
  | { readonly why: 'not-by-hand-now'; readonly motion: MotionId; readonly side: Side };

/** What is not known yet holds back no exercise that another need asks for. */
export const isUnknown = ({ why }: Held): boolean => why === 'measure-by-hand' || why === 'not-by-hand-now';

/** Pain of ten at a motion on a side. */
export interface Pain {
  readonly motion: MotionId;
  readonly side: Side;
  readonly pain: number;
}

export interface Needs {
  readonly needs: readonly Need[];
  readonly held: readonly Held[];
}

/** @see common practice, no source: each step of severity weighs twice the one below it */
const WORTH: Readonly<Record<Severity, number>> = { note: 1, mild: 2, moderate: 4, marked: 8 };
/** What answers point to weighs between a mild and a moderate loss. @see common practice, no source */
const POINTED_AT = 3;
/** The first of the clinic's order weighs half as much again as the last, so that alike needs follow it. */
const FIRST = 0.5;

/** Which stages answer a want, the best first, in each order. Stages that are not named do not. */
export const PROGRAM_ORDERS = ['stages', 'releaseActivate'] as const;
export type ProgramOrder = (typeof PROGRAM_ORDERS)[number];
type Weights = Readonly<Partial<Record<DrillStage, number>>>;
/** @see the two schools of order: common practice, no source */
export const STAGE_WEIGHTS: Readonly<Record<ProgramOrder, Readonly<Record<NeedWant, Weights>>>> = {
  stages: {
    range: { mobilise: 1, free: 0.8, lengthen: 0.6, activate: 0.4 },
    length: { lengthen: 1, free: 0.8, mobilise: 0.6, activate: 0.4 },
    control: { activate: 1, load: 0.6 },
    strength: { load: 1, activate: 0.8 },
  },
  releaseActivate: {
    range: { free: 1, mobilise: 0.9, lengthen: 0.8, activate: 0.5 },
    length: { free: 1, lengthen: 0.9, mobilise: 0.7, activate: 0.5 },
    control: { activate: 1, load: 0.7 },
    strength: { activate: 1, load: 0.9 },
  },
};

interface Asked {
  readonly judgement: Judgement;
  readonly reasoned: readonly Reasoned[];
  readonly painTolerated: number;
  readonly involvedSide?: InvolvedSide;
  readonly limits: Limits;
}

/**
 * The other side is a target only where it is sound itself: neither the one of
 * the complaint nor further than people go.
 */
function hasSoundTarget(
  { kind, motion: of, mode, side, digit }: Finding,
  { findings, measurements }: Judgement,
  involved: InvolvedSide | undefined,
): boolean {
  if (kindOf(kind)?.mark !== 'sides' || side === 'midline') return true;
  const other = side === 'left' ? 'right' : 'left';
  if (involved === other) return false;
  if (findings.some((f) => f.motion === of && f.mode === mode && f.side === other && kindOf(f.kind)?.tooMuch)) return false;
  return !measurements.some(
    (one) =>
      one.measurement.motion === of &&
      one.measurement.mode === mode &&
      one.measurement.side === other &&
      one.measurement.digit === digit &&
      goesTooFar(one),
  );
}

/** Past what the set that judges it, or any that may be compared, finds in people. A figure without a spread says nothing of that. */
function goesTooFar({ norms, judgedBy, measurement }: Judgement['measurements'][number]): boolean {
  if (motion(measurement.motion).better !== 'more') return false;
  const spread = norms.filter(({ kind, comparable }) => comparable && (kind === 'range' || kind === 'distribution'));
  const own = spread.find(({ set }) => set === judgedBy);
  return (own ? [own] : spread).some(({ value, expectedBand }) => value > expectedBand.high);
}

/** What findings and open breakdowns ask for, and what is held back and why. */
export function needsOf({ judgement, reasoned, painTolerated, involvedSide, limits }: Asked): Needs {
  const { findings, measurements } = judgement;
  const held = heldIn(judgement, painTolerated);
  const isHeld = (id: MotionId, side: Side) => held.some((h) => !isUnknown(h) && h.motion === id && sameSide(h.side, side));
  const needs = new Map<string, Need>();
  const add = (need: Need) => {
    if (isHeld(need.motion, need.side)) return;
    const key = [need.motion, need.side, need.want, ...(need.through ?? [])].join(' ');
    const before = needs.get(key);
    needs.set(key, before ? { ...before, worth: Math.max(before.worth, need.worth), because: [...before.because, ...need.because] } : need);
  };
  findings.forEach((finding, at) => {
    const want = hasSoundTarget(finding, judgement, involvedSide) ? wantOf(finding, findings, measurements) : null;
    if (want === null) return;
    if (want === 'unknown') {
      const { motion: id, side } = finding;
      held.push({ why: mayBeTakenByHand(id, side, limits) ? 'measure-by-hand' : 'not-by-hand-now', motion: id, side });
      return;
    }
    const worth = WORTH[finding.severity] * (1 + FIRST * (1 - at / findings.length));
    add({ motion: finding.motion, side: finding.side, want, worth, because: [{ by: 'finding', finding }] });
  });
  for (const one of reasoned)
    for (const candidate of one.candidates) {
      const wanted = CANDIDATE_WANTS[candidate.id];
      if (!wanted) continue;
      const because: Because = { by: 'candidate', reasoned: one, candidate: candidate.id };
      const { want, through, asRead } = wanted;
      for (const side of pointedLimbs(candidate))
        for (const id of asRead ? motionsRead(candidate, wanted.motion, side) : [wanted.motion])
          if (want !== 'range' || !isFreeByHand(id, side, judgement))
            add({ motion: id, want, side, worth: POINTED_AT, because: [because], ...(through && { through }) });
    }
  return { needs: [...needs.values()].sort((a, b) => b.worth - a.worth), held: once(held) };
}

/** Directions of the joint that answers for a candidate were read of on a limb; the usual one where none was. */
function motionsRead({ for: pro }: Candidate, usual: MotionId, side: Side): readonly MotionId[] {
  const { joint } = motion(usual);
  const read = pro.flatMap(({ answered }) => (answered.motion && sameSide(answered.side, side) ? [answered.motion] : []));
  const ofJoint = [...new Set(read)].filter((id) => motion(id).joint === joint);
  return ofJoint.length > 0 ? ofJoint : [usual];
}

/** Read by hand, judged, and not short on any side that is meant: no range is wanted there, whatever points to it. */
function isFreeByHand(id: MotionId, side: Side, { measurements, findings }: Judgement): boolean {
  const isOf = (of: { readonly motion: MotionId; readonly side: Side; readonly mode: Mode }) =>
    of.motion === id && of.mode === 'passive' && sameSide(of.side, side);
  const judged = measurements.filter(({ measurement, judgedBy }) => judgedBy !== null && isOf(measurement));
  return judged.length > 0 && !findings.some((f) => isOf(f) && kindOf(f.kind)?.wants === 'loss');
}

const sameSide = (a: Side, b: Side): boolean => a === b || a === 'midline' || b === 'midline';

/**
 * What one finding asks for. A loss of an active reading asks for control where
 * the range is there by hand, for nothing of its own where that is lost too, and
 * for a reading by hand where there is none.
 */
function wantOf(finding: Finding, findings: readonly Finding[], measurements: Judgement['measurements']): NeedWant | 'unknown' | null {
  const { wants } = kindOf(finding.kind) ?? {};
  if (!wants) return null;
  if (wants !== 'loss') return wants;
  const { joint } = motion(finding.motion);
  if (!isJoint(joint)) return OF_FAMILY[joint];
  if (finding.mode === 'passive') return 'range';
  const byHand = measurements.filter(
    ({ measurement: m }) => m.motion === finding.motion && m.side === finding.side && m.mode === 'passive' && m.digit === finding.digit,
  );
  if (byHand.length === 0) return takenByHand(finding.motion) ? 'unknown' : 'range';
  const isLost = findings.some(
    (f) =>
      f.motion === finding.motion &&
      f.side === finding.side &&
      f.mode === 'passive' &&
      f.digit === finding.digit &&
      kindOf(f.kind)?.wants === 'loss',
  );
  return isLost ? null : 'control';
}

/** What a loss asks for of what is no direction of a joint. A girth is noted. */
const OF_FAMILY: Readonly<Record<Family, NeedWant | null>> = {
  muscleLength: 'length',
  distance: 'range',
  girth: null,
  strength: 'strength',
  balance: 'strength',
  check: 'range',
};

/** Whether there is a way of measuring it by hand at all: the trunk has none. */
const takenByHand = (id: MotionId): boolean => waysByHand(id).length > 0;
const waysByHand = (id: MotionId) => motion(id).protocols.filter(({ modes }) => (modes as readonly Mode[]).includes('passive'));

/** Whether any way of taking it by hand is allowed on that side, be it to a limit. */
const mayBeTakenByHand = (id: MotionId, side: Side, limits: Limits): boolean =>
  waysByHand(id).some((way) => allowedFor({ protocol: way.id, motion: id, side, mode: 'passive' }, limits).kind !== 'forbidden');

function heldIn({ findings, measurements, screens = [] }: Judgement, tolerated: number): Held[] {
  const hurts = measurements.flatMap(({ measurement: { motion: id, side, pain = 0 } }): Held[] =>
    pain > tolerated ? [{ why: 'hurts', motion: id, side, pain }] : [],
  );
  const felt = findings.flatMap((finding): Held[] =>
    kindOf(finding.kind)?.holds ? [{ why: 'end-feel', motion: finding.motion, side: finding.side, finding }] : [],
  );
  const items = screens.flatMap((outcome): Held[] => {
    if ((outcome.pain ?? 0) === 0) return [];
    const near = itemOf(outcome)?.near.flatMap(({ protocol }) => protocolOfId(protocol)?.motion ?? []) ?? [];
    return [...new Set(near)].map((id) => ({ why: 'item-hurts', motion: id, side: outcome.side, outcome }));
  });
  return [...felt, ...hurts, ...items];
}

/** Everything that hurt, however little: each exercise says itself how much it bears. */
export const painsOf = ({ measurements, screens = [] }: Judgement): Pain[] => [
  ...measurements.flatMap(({ measurement: { motion: id, side, pain = 0 } }) => (pain > 0 ? [{ motion: id, side, pain }] : [])),
  ...screens.flatMap((outcome) =>
    (itemOf(outcome)?.near ?? []).flatMap(({ protocol }) => {
      const id = protocolOfId(protocol)?.motion;
      return id && (outcome.pain ?? 0) > 0 ? [{ motion: id, side: outcome.side, pain: outcome.pain ?? 0 }] : [];
    }),
  ),
];

/** The worst of what is said of a motion on a side, once. */
function once(held: readonly Held[]): Held[] {
  const seen = new Map<string, Held>();
  for (const one of held) {
    const key = `${one.motion} ${one.side}`;
    const before = seen.get(key);
    const isWorse = before?.why === 'hurts' && one.why === 'hurts' && one.pain > before.pain;
    if (!before || isUnknown(before) || isWorse) seen.set(key, one);
  }
  return [...seen.values()];
}

/** "Left hip internal rotation, passive 19°: 21° short of 40°" or "hip internal rotation: points to it (Squat: the knee rolls in)". */
export function becauseWords(because: Because): string {
  if (because.by === 'finding') {
    const { subject, verdict } = saidOf(because.finding);
    return `${subject}: ${verdict}`;
  }
  const { reasoned, candidate } = because;
  return say('{candidate}: answers point to it ({pattern})', {
    candidate: candidateWords(candidate),
    pattern: say(reasoned.breakdown.name),
  });
}
