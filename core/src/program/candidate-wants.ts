import type { CandidateId } from '../reason/index.js';
import type { MotionId } from '../terms.js';
import type { NeedWant } from './drills/types.js';

/** What is worked on where answers point to a candidate; null: nothing here changes it, or it is not ours to change. */
interface CandidateWant {
  readonly motion: MotionId;
  readonly want: NeedWant;
  /** Of a joint that has several directions: those that the answers were read of, where they were. */
  readonly asRead?: true;
  /** Drills that answer it, the best first, and no others. */
  readonly through?: readonly string[];
}

const range = (motion: MotionId): CandidateWant => ({ motion, want: 'range' });
const length = (motion: MotionId): CandidateWant => ({ motion, want: 'length' });
const control = (motion: MotionId): CandidateWant => ({ motion, want: 'control' });

/** @see common practice, no source */
export const CANDIDATE_WANTS: Readonly<Record<CandidateId, CandidateWant | null>> = {
  hipFlexionRange: range('hip.flexion'),
  hamstrings: length('muscleLength.straightLegRaise'),
  glutealTissue: range('hip.flexion'),
  hipCapsule: range('hip.flexion'),
  hipShape: null,
  pelvicControl: control('hip.flexion'),
  depthPastRange: control('hip.flexion'),
  // Bowing itself comes first, a weight at the chest last: it lets the trunk stay upright.
  forwardLeanAvoided: { ...control('hip.flexion'), through: ['hip-hinge-band', 'rock-back', 'goblet-squat'] },
  ankleDorsiflexion: range('ankle.dorsiflexion'),
  calf: length('muscleLength.calfKneeStraight'),
  soleus: length('muscleLength.calfKneeBent'),
  ankleJoint: range('ankle.dorsiflexion'),
  footMobility: range('subtalar.inversion'),
  greatToe: range('greatToeMtp.extension'),
  hipStrength: { motion: 'strength.hipAbduction', want: 'strength' },
  footPosture: control('subtalar.inversion'),
  hipInternalRotation: range('hip.internalRotation'),
  hipFlexors: length('muscleLength.hipExtensionDrop'),
  thighFront: length('muscleLength.kneeDrop'),
  lateralBand: length('muscleLength.sideLyingLegDrop'),
  // What behaves like a nerve is not stretched.
  neural: null,
  backMobility: range('lumbar.flexion'),
  thoracicSpine: range('thoracic.extension'),
  shoulderCapsule: { ...range('shoulder.flexion'), asRead: true },
  latissimus: length('muscleLength.latissimus'),
  endRangeControl: control('hip.internalRotation'),
  neckControl: control('cervical.rotation'),
  hips: { ...range('hip.internalRotation'), asRead: true },
  wristJoint: range('wrist.extension'),
  forearmRotation: { ...range('forearm.pronation'), asRead: true },
};
