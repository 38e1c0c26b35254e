import { protocolOf } from '../catalogue/index.js';
import { bandAround } from '../error/index.js';
import { demandsOf } from '../imposes/done/index.js';
import { allowedDoing, type Limits } from '../precaution/index.js';
import type { Judgement } from '../finding/index.js';
import type { MotionId, Position, Side, Source } from '../terms.js';
import { COMMON_PRACTICE } from '../terms.js';

/** A pattern that is left out for now, and the reading that brings it back. */
export interface LeaveRule {
  readonly id: string;
  /** In words: what is left. */
  readonly leave: string;
  /** What may be done in its place, where no limit speaks against it. */
  readonly instead: string;
  /** It is left while any of these readings is less, past its error. */
  readonly while: readonly {
    readonly motion: MotionId;
    readonly mode: 'active' | 'passive';
    readonly below: number;
    readonly protocols?: readonly string[];
  }[];
  readonly source: Source;
}

/** @see common practice, no source: thresholds are those of the breakdowns that ask the same */
export const LEAVE_RULES: readonly LeaveRule[] = [
  {
    id: 'deep-squat-turning',
    leave: 'deep squats',
    instead: 'squats to level, slowly',
    while: [{ motion: 'hip.internalRotation', mode: 'passive', below: 20 }],
    source: COMMON_PRACTICE,
  },
  {
    id: 'deep-squat-bending',
    leave: 'squats deeper than where the pelvis tucks',
    instead: 'squats stopped short of it, the weight close to the body',
    while: [{ motion: 'hip.flexion', mode: 'passive', below: 110 }],
    source: COMMON_PRACTICE,
  },
  {
    id: 'overhead',
    leave: 'hanging and pressing overhead',
    instead: 'pushing and pulling in front of the body',
    while: [{ motion: 'shoulder.flexion', mode: 'passive', below: 160 }],
    source: COMMON_PRACTICE,
  },
  {
    id: 'overhand-grip',
    leave: 'bars held palm down',
    instead: 'handles or rings that turn with the hand',
    while: [{ motion: 'forearm.pronation', mode: 'active', below: 70 }],
    source: COMMON_PRACTICE,
  },
  {
    id: 'flat-hand',
    leave: 'push-ups on the flat hand',
    instead: 'fists or handles',
    while: [{ motion: 'wrist.extension', mode: 'active', below: 90, protocols: ['wrist.extension/quadruped-loaded'] }],
    source: COMMON_PRACTICE,
  },
];

/** One rule that holds, with the reading that makes it hold. */
export interface Leave {
  readonly rule: LeaveRule;
  readonly side: Side;
  readonly motion: MotionId;
  readonly value: number;
  readonly below: number;
  /** What may be done in its place; null where a limit speaks against that too. */
  readonly instead: string | null;
}

const INSTEAD_AT: Readonly<Record<string, Position>> = { 'flat-hand': 'prone' };
/** What is advised in the place of each pattern does to the body too. */
const DOING = new Map(
  LEAVE_RULES.map(({ id }) => {
    const position = INSTEAD_AT[id] ?? 'standing';
    return [id, { ...demandsOf(`instead.${id}`, position, 'active'), is: [], position, mode: 'active' as const }];
  }),
);

/** Advice is done with both limbs: a limit of either leaves it out. */
const insteadOf = ({ id, instead }: LeaveRule, limits: Limits): string | null =>
  allowedDoing(DOING.get(id)!, 'midline', limits).kind === 'free' ? instead : null;

/** Patterns to leave for now. A reading inside its error of the line leaves nothing out. What is advised instead keeps to every limit. */
export function leaveFor({ measurements }: Pick<Judgement, 'measurements'>, limits: Limits): Leave[] {
  return LEAVE_RULES.flatMap((rule) =>
    rule.while.flatMap(({ motion, mode, below, protocols }) =>
      measurements.flatMap(({ measurement: m, value, sem }): Leave[] => {
        if (m.motion !== motion || m.mode !== mode || (protocols && !protocols.includes(protocolOf(m).id))) return [];
        return value + bandAround(sem) < below ? [{ rule, side: m.side, motion, value, below, instead: insteadOf(rule, limits) }] : [];
      }),
    ),
  );
}
