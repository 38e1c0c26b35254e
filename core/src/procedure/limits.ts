import type { Confidence, Mode, MotionId } from '../terms.js';
import type { TellWhen, UsualLimit } from './types.js';

type Weeks = number | null;

/** For good: no week lifts it. */
export const FOR_GOOD = null;

const usual =
  (kind: UsualLimit['kind']) =>
  (motion: MotionId, untilWeek: Weeks, confidence: Confidence = 'medium', mode?: Mode): UsualLimit => ({
    kind,
    motion,
    limit: null,
    untilWeek,
    confidence,
    ...(mode && { mode }),
  });

/** Not at all. */
export const none = usual('range');
/** Not to its end. */
export const noEnd = usual('end-range');
/** Not by own strength against gravity. */
export const noLift = usual('against-gravity');
/** Not against resistance. */
export const noForce = usual('resisted');
/** No weight on the joint. */
export const noWeight = usual('weight');
/** Not on this leg alone. */
export const notAlone = usual('single-leg');

/** Not past an end position. */
export const to = (motion: MotionId, limit: number, untilWeek: Weeks, confidence: Confidence = 'medium', mode?: Mode): UsualLimit => ({
  ...none(motion, untilWeek, confidence, mode),
  limit,
});
/** No weight on the joint bent so far or further. */
export const noWeightFrom = (motion: MotionId, limit: number, untilWeek: Weeks, confidence: Confidence = 'medium'): UsualLimit => ({
  ...noWeight(motion, untilWeek, confidence),
  limit,
});
/** Not at once, or the first only so far while the others are done. */
export const notWith = (
  motion: MotionId,
  others: readonly MotionId[],
  untilWeek: Weeks,
  confidence: Confidence = 'medium',
  more: { mode?: Mode; limit?: number } = {},
): UsualLimit => ({ ...none(motion, untilWeek, confidence, more.mode), with: others, limit: more.limit ?? null });

/** The same of several motions. */
export const each = (motions: readonly MotionId[], make: (motion: MotionId) => UsualLimit): UsualLimit[] => motions.map(make);

const SHOULDER_ENDS = [
  'flexion',
  'extension',
  'abduction',
  'adduction',
  'internalRotation',
  'externalRotation',
  'horizontalAbduction',
  'horizontalAdduction',
] as const;
export const SHOULDER: readonly MotionId[] = SHOULDER_ENDS.map((end): MotionId => `shoulder.${end}`);
export const WRIST: readonly MotionId[] = (['flexion', 'extension', 'radialDeviation', 'ulnarDeviation'] as const).map(
  (end): MotionId => `wrist.${end}`,
);
export const FOREARM: readonly MotionId[] = ['forearm.pronation', 'forearm.supination'];
export const ELBOW: readonly MotionId[] = ['elbow.flexion', 'elbow.extension'];
export const FINGERS_BEND: readonly MotionId[] = ['fingerMcp.flexion', 'fingerPip.flexion', 'fingerDip.flexion'];
export const FINGERS_STRAIGHTEN: readonly MotionId[] = ['fingerMcp.extension', 'fingerPip.extension', 'fingerDip.extension'];
export const ANKLE: readonly MotionId[] = ['ankle.dorsiflexion', 'ankle.plantarflexion', 'subtalar.inversion', 'subtalar.eversion'];
export const NECK: readonly MotionId[] = ['cervical.flexion', 'cervical.extension', 'cervical.rotation', 'cervical.lateralFlexion'];
const BENDS = ['flexion', 'extension', 'lateralFlexion', 'rotation'] as const;
export const BACK: readonly MotionId[] = BENDS.flatMap((end): MotionId[] => [`lumbar.${end}`, `thoracolumbar.${end}`]);
export const HIP_TURNS: readonly MotionId[] = ['hip.internalRotation', 'hip.externalRotation'];
export const HEEL_TO_BUTTOCK: readonly MotionId[] = ['distance.heelToButtock', 'check.heelTouchesButtock', 'muscleLength.proneKneeBend'];
export const KNEE_OVER_TOES: readonly MotionId[] = ['distance.kneeToWall', 'check.fistToWall'];
/** Hand behind the back. */
export const behindBack = (untilWeek: Weeks, confidence: Confidence = 'medium'): UsualLimit =>
  notWith('shoulder.extension', ['shoulder.adduction', 'shoulder.internalRotation'], untilWeek, confidence);
/** Leaning on the palm: the hand, elbow and shoulder carry. */
export const noLeaning = (untilWeek: Weeks, confidence: Confidence = 'high'): UsualLimit[] =>
  each(['wrist.extension', 'elbow.extension', 'shoulder.flexion'], (motion) => noWeight(motion, untilWeek, confidence));

export const below = (motion: MotionId, value: number, fromWeek: number, mode?: Mode, variants?: TellWhen['variants']): TellWhen => ({
  motion,
  below: value,
  fromWeek,
  ...(mode && { mode }),
  ...(variants && { variants }),
});
/** Lacks so much of straight, or more. */
export const lacking = (motion: MotionId, degrees: number, fromWeek: number): TellWhen => ({ motion, atMost: -degrees, fromWeek });
