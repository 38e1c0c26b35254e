import { PROTOCOLS, type Protocol, type Substitution } from '../catalogue/index.js';
import { END_FEELS, type Degrees, type EndFeel } from '../terms.js';
import { END_FEEL_TOLD, SUBSTITUTIONS_TOLD } from './told.js';
import { between, oneOf, type Exercise, type SlipId } from './types.js';

/** A movement told as it is felt and seen, without the words for it. */
export interface FeelTask {
  readonly protocol: Protocol;
  readonly feel: EndFeel;
  readonly feelTold: string;
  /** What gives before the end, and how that looks; null: nothing does. */
  readonly substitution: Substitution | null;
  readonly substitutionTold: string | null;
  /** Where the joint's own movement ends: the honest reading. */
  readonly truth: Degrees;
  /** Where the limb comes to. */
  readonly comesTo: Degrees;
}

export interface FeelAnswer {
  readonly degrees: Degrees;
  readonly feel: EndFeel;
  /** Whether this end feel is usual for this motion. */
  readonly isUsual: boolean;
  /** Id of what gave; null: nothing. */
  readonly substitution: string | null;
}

/** What may be told of: read from zero by degrees, with a substitution that can be told without its name. */
const TOLD_OF = PROTOCOLS.filter(
  ({ figure, reads, endFeel, substitutions }) =>
    figure.kind === 'turn' &&
    reads === 'excursion' &&
    figure.end >= 20 &&
    endFeel.length > 0 &&
    substitutions.some(({ label }) => SUBSTITUTIONS_TOLD[label]),
);

/** Judging how a movement ends, and where its honest end was. */
export const FEEL: Exercise<FeelTask, FeelAnswer> = {
  id: 'feel',
  cards: END_FEELS.flatMap((feel) => ['alone', 'gives'].map((end) => `${feel}/${end}`)),
  make: (card, random) => {
    const [feel, end] = card.split('/') as [EndFeel, string];
    const protocol = oneOf(random, TOLD_OF);
    const usual = protocol.figure.kind === 'turn' ? protocol.figure.end : 0;
    const truth = between(random, Math.round(usual * 0.55), usual);
    const substitution =
      end === 'gives'
        ? oneOf(
            random,
            protocol.substitutions.filter(({ label }) => SUBSTITUTIONS_TOLD[label]),
          )
        : null;
    return {
      protocol,
      feel,
      feelTold: oneOf(random, END_FEEL_TOLD[feel]),
      substitution,
      substitutionTold: substitution && SUBSTITUTIONS_TOLD[substitution.label]!,
      truth,
      comesTo: substitution ? truth + between(random, 6, 14) : truth,
    };
  },
  score: (task, answer) => {
    const off = answer.degrees - task.truth;
    const slips: SlipId[] = [];
    const isFar = Math.abs(off) > 1;
    if (isFar && task.substitution && Math.abs(answer.degrees - task.comesTo) <= 1) slips.push('pastEnd');
    else if (isFar) slips.push('misread');
    if (answer.feel !== task.feel) slips.push('endFeel');
    const isUsual = task.protocol.endFeel.includes(task.feel);
    if (answer.isUsual !== isUsual) slips.push(isUsual ? 'usualDoubted' : 'unusualMissed');
    const was = task.substitution?.id ?? null;
    if (answer.substitution !== was)
      slips.push(was === null ? 'substitutionInvented' : answer.substitution === null ? 'substitutionMissed' : 'otherSubstitution');
    return { mark: slips.length > 0 ? 'wrong' : off === 0 ? 'right' : 'near', off, slips };
  },
  read: (_, { degrees }) => degrees,
  truth: ({ truth }) => truth,
};
