import { SEVERITIES, type InvolvedSide, type Joint } from '../terms.js';
import type { Operation } from '../course/course.js';
import { findProcedure } from '../procedure/index.js';
import { FROM_THE_GROUND, jointOf, jointsApart } from './body.js';
import { kindOf, stageOf, type Finding, type Unplaced } from './kinds.js';
import { sidedName } from './make.js';
import { DEFAULT_RANKING, type Ranking } from './rankings.js';
import { FINDING_STAGES } from './stages.js';
import type { Place } from './types.js';
import { placeWords, saidOf } from './words.js';

/** What the order depends on beside the findings. */
export interface RankContext {
  readonly ranking?: Ranking;
  readonly complaintAt?: Joint;
  readonly procedure?: Operation;
  readonly involvedSide?: InvolvedSide;
}

/**
 * Order of reading: what got worse since the last visit, pain, then readings to take again, then losses by the
 * clinic's rule, then patterns, change, and what has no norm. After an
 * operation on the knee, a loss of straightening comes before every other
 * loss. Where a rule calls two alike, the heavier comes first, and a
 * difference between the sides before a loss on both.
 *
 * @returns the findings in order, each saying why it stands there
 */
export function rank(findings: readonly Unplaced[], context: RankContext = {}): Finding[] {
  const { ranking = DEFAULT_RANKING } = context;
  const hurts = new Set(findings.filter((f) => f.kind === 'painful').map(wayOf));
  const keyed = findings.map((finding) => {
    const stage = stageOf(finding.kind);
    const isLoss = stage === 'loss';
    const rankOfKind = kindOf(finding.kind)?.rank ?? 0;
    const { by, place } = isLoss ? ruleOf(finding, ranking, context, hurts) : { by: [rankOfKind, 0], place: BY_STAGE };
    const keys = [
      FINDING_STAGES.indexOf(stage),
      ...by,
      -SEVERITIES.indexOf(finding.severity),
      isLoss ? rankOfKind * 1e-3 : 0,
      -(finding.timesError ?? 0),
    ];
    return { keys: largestLast(keys), finding: placed(finding, place) };
  });
  return keyed.sort((a, b) => compare(a.keys, b.keys)).map(({ finding }) => finding);
}

const BY_STAGE: Place = { by: 'stage' };

/** A finding with its place, written out: spreading took longer than ranking. */
function placed(f: Unplaced, place: Place): Finding {
  return {
    kind: f.kind,
    severity: f.severity,
    motion: f.motion,
    side: f.side,
    mode: f.mode,
    position: f.position,
    protocol: f.protocol,
    digit: f.digit,
    unit: f.unit,
    value: f.value,
    expected: f.expected,
    difference: f.difference,
    percentLoss: f.percentLoss,
    timesError: f.timesError,
    agreement: f.agreement,
    facts: f.facts,
    steps: f.steps,
    place,
  } as Finding;
}

/** Asymmetry decides only where severity and size are alike: it goes behind the multiples of error. */
const largestLast = ([stage, first, second, severity, kind, times]: readonly number[]): number[] => [
  stage!,
  first!,
  second!,
  severity!,
  times!,
  kind!,
];

/** By the first key that differs. */
export function compare(a: readonly number[], b: readonly number[]): number {
  const at = a.findIndex((value, index) => value !== b[index]);
  return at < 0 ? 0 : a[at]! - b[at]!;
}

const wayOf = ({ motion, side, digit }: Pick<Finding, 'motion' | 'side' | 'digit'>): string => `${motion}|${side}|${digit ?? ''}`;

/** Keys of the order, and why. */
interface Rule {
  readonly by: readonly [number, number];
  readonly place: Place;
}

function ruleOf(finding: Unplaced, ranking: Ranking, context: RankContext, hurts: ReadonlySet<string>): Rule {
  const { procedure, involvedSide } = context;
  // Without an operation, or where both sides were operated on, neither side goes before the other.
  const isOther = procedure !== undefined && involvedSide !== 'both' && finding.side !== 'midline' && finding.side !== involvedSide;
  const rule = ruleOfSide(finding, ranking, context, hurts, !isOther);
  if (!isOther || involvedSide === undefined) return rule;
  return { by: [rule.by[0] + LATER, rule.by[1]], place: { ...rule.place, otherSide: true } };
}

/** Further back than any rule puts a finding. */
const LATER = 1000;

function ruleOfSide(
  finding: Unplaced,
  ranking: Ranking,
  { complaintAt, procedure }: RankContext,
  hurts: ReadonlySet<string>,
  isOperated: boolean,
): Rule {
  // Bending and straightening of a knee are not alike: after surgery on it, straightening counts for more.
  if (isOperated && finding.motion === 'knee.extension' && findProcedure(procedure?.id ?? '')?.region === 'knee')
    return { by: [-1, 0], place: { by: 'straight-first' } };
  const joint = jointOf(finding.motion);
  switch (ranking) {
    case 'ground-up':
      return { by: [0, FROM_THE_GROUND.indexOf(joint)], place: { by: 'ground-up', joint } };
    case 'nearest-complaint': {
      if (!complaintAt) return { by: [0, 0], place: { by: 'no-complaint' } };
      const apart = jointsApart(complaintAt, joint);
      return { by: [0, apart], place: { by: 'nearest', joint, complaintAt, apart } };
    }
    case 'painless-first': {
      const painful = hurts.has(wayOf(finding));
      return { by: [0, painful ? 1 : 0], place: { by: 'painless-first', hurts: painful } };
    }
    default:
      return { by: [0, 0], place: { by: 'largest' } };
  }
}

/** A finding that moved when the rule was changed: places from 1. */
export interface Move {
  readonly name: string;
  readonly from: number;
  readonly to: number;
  readonly because: string;
}

/**
 * What a change of rule did to the order, in words: the losses that moved,
 * those that rose the most first.
 */
export function explainMoves(before: readonly Finding[], after: readonly Finding[]): Move[] {
  const idOf = (f: Finding) => `${f.kind}|${f.protocol}|${f.digit ?? ''}|${f.side}|${f.mode}`;
  const places = new Map(before.map((finding, at) => [idOf(finding), at + 1]));
  return after
    .flatMap((finding, at): Move[] => {
      const from = places.get(idOf(finding));
      if (from === undefined || from === at + 1) return [];
      const name = `${sidedName(finding.motion, finding.side, finding.digit)}: ${saidOf(finding).verdict}`;
      return [{ name, from, to: at + 1, because: placeWords(finding) }];
    })
    .sort((a, b) => b.from - b.to - (a.from - a.to));
}
