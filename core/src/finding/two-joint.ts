import { protocolOf } from '../catalogue/index.js';
import { mdcOfDifference } from '../error/sem.js';
import type { Source } from '../terms.js';
import { COMMON_PRACTICE } from '../terms.js';
import { say, upper } from '../words/say.js';
import { errorStep, found, sizeOf } from './make.js';
import { weigh } from './severity.js';
import { note, readings, type Step } from './steps.js';
import { nameOf } from './sums.js';
import type { Kind } from './types.js';

/** One range measured with a muscle's other joint stretching it, and with that joint slackening it. Protocol ids. */
interface Pair {
  readonly taut: string;
  readonly slack: string;
  readonly muscle: string;
  readonly slackened: string;
  /** Where the slack test is longer in everybody: the taut one must also fall below this. */
  readonly below?: number;
  readonly source: Source;
}

const taught = (cite: string): Source => ({ cite, fromMemory: true });
const CALF = { muscle: 'the calf muscle that crosses the knee', slackened: 'the knee bent' };
const DIGIOVANNI = taught('Silfverskiöld 1924; DiGiovanni CW et al. J Bone Joint Surg Am 2002;84:962-970');
const FRONT = { muscle: 'the thigh muscle that crosses hip and knee', slackened: 'the hip bent' };

/** Tests that come in pairs. The range is the same; one neighbour differs. */
export const TWO_JOINT_PAIRS: readonly Pair[] = [
  { taut: 'muscleLength.calfKneeStraight/supine', slack: 'muscleLength.calfKneeBent/supine', ...CALF, below: 10, source: DIGIOVANNI },
  { taut: 'muscleLength.calfKneeStraight/supine', slack: 'ankle.dorsiflexion/prone', ...CALF, below: 10, source: DIGIOVANNI },
  { taut: 'ankle.dorsiflexion/supine', slack: 'ankle.dorsiflexion/sitting', ...CALF, below: 10, source: DIGIOVANNI },
  {
    taut: 'ankle.dorsiflexion/standing-loaded-straight',
    slack: 'ankle.dorsiflexion/standing-loaded',
    ...CALF,
    below: 30,
    source: taught('Munteanu SE et al. J Sci Med Sport 2009;12:54-59'),
  },
  {
    taut: 'muscleLength.proneKneeBend/prone',
    slack: 'knee.flexion/supine',
    ...FRONT,
    below: 120,
    source: taught('Piva SR et al. BMC Musculoskelet Disord 2006;7:33'),
  },
  {
    taut: 'knee.flexion/prone',
    slack: 'knee.flexion/supine',
    ...FRONT,
    below: 120,
    source: taught('Piva SR et al. BMC Musculoskelet Disord 2006;7:33'),
  },
  {
    taut: 'muscleLength.straightLegRaise/supine',
    slack: 'hip.flexion/supine',
    muscle: 'the hamstrings',
    slackened: 'the knee bent',
    below: 70,
    source: COMMON_PRACTICE,
  },
  {
    taut: 'muscleLength.adductorsKneeStraight/supine',
    slack: 'muscleLength.adductorsKneeBent/supine',
    muscle: 'the adductor that crosses the knee',
    slackened: 'the knee bent',
    source: taught('textbook practice'),
  },
  {
    taut: 'muscleLength.fingerIntrinsicsMcpExtended/sitting',
    slack: 'muscleLength.fingerIntrinsicsMcpFlexed/sitting',
    muscle: 'the small muscles of the hand',
    slackened: 'the knuckle bent',
    source: taught('standard hand texts'),
  },
  {
    // With the knee bent the thigh drops less far: Gajdosik RL et al. Clin Biomech 2003;18:77-79 (from memory).
    taut: 'muscleLength.sideLyingLegDrop/sidelying',
    slack: 'muscleLength.sideLyingLegDrop/sidelying-knee-straight',
    muscle: 'the muscles and band of the outer and front thigh that cross the knee',
    slackened: 'the knee straight',
    source: taught('Gajdosik RL, Sandler MM, Marr HL. Clin Biomech 2003;18:77-79'),
  },
];

/** What ends the range, and what slackens it. */
interface Facts {
  readonly muscle: string;
  readonly slackened: string;
  readonly gap: number;
}

/**
 * Range that grows when the other joint slackens a muscle: the muscle, not the
 * joint, ends it. Both tests on the same side, in the same mode.
 */
export const twoJointLimit: Kind<Facts> = {
  stage: 'pattern',
  rank: 0,
  mark: 'inner',
  wants: 'length',
  detect: ({ measured, thresholds }) =>
    measured.flatMap((taut) => {
      const { side, mode, digit } = taut.measurement;
      const id = protocolOf(taut.measurement).id;
      return TWO_JOINT_PAIRS.filter((pair) => pair.taut === id).flatMap((pair) => {
        const slack = measured.find(
          ({ measurement: m }) => protocolOf(m).id === pair.slack && m.side === side && m.mode === mode && m.digit === digit,
        );
        if (!slack || (pair.below !== undefined && taut.value >= pair.below)) return [];
        const mdc = mdcOfDifference(taut.sem, slack.sem);
        const gap = slack.value - taut.value;
        if (gap <= Math.max(mdc, thresholds.activeGap)) return [];
        const weight = weigh({ value: taut.value, expected: slack.value, better: 'more', mdc }, thresholds);
        const steps: Step[] = [
          readings(taut, 'stretched'),
          readings(slack, `with ${pair.slackened}`),
          {
            step: 'difference',
            motion: taut.measurement.motion,
            from: slack.value,
            take: taut.value,
            is: gap,
            mdc,
            least: thresholds.activeGap,
          },
        ];
        if (pair.below !== undefined)
          steps.push(
            note('the slack test goes further in most people: it counts only where the stretched one stays below {below}', {
              below: { value: pair.below, unit: 'deg' },
            }),
          );
        steps.push(errorStep(taut), { step: 'source', source: pair.source });
        return [
          found(taut, {
            severity: weight.severity === 'marked' ? 'moderate' : weight.severity,
            expected: slack.value,
            timesError: weight.timesError,
            facts: { muscle: pair.muscle, slackened: pair.slackened, gap },
            steps,
          }),
        ];
      });
    }),
  verdict: (f) =>
    say('{size} more with {slackened}: points to {muscle}', {
      size: sizeOf(f, f.facts.gap),
      slackened: say(f.facts.slackened),
      muscle: say(f.facts.muscle),
    }),
  sum: { at: 6, words: (all) => all.map((f) => `${upper(nameOf(f))}: ${f.verdict}.`).join(' ') },
};
