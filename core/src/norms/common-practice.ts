import { COMMON_PRACTICE, type MotionId } from '../terms.js';
import { cutoff, point, range, type Of } from './entry.js';
import type { NormSet } from './types.js';

const at = (motion: MotionId, expected: number, of: Of = {}) => point(motion, expected, 'medium', of);
const from = (motion: MotionId, low: number, high: number, of: Of = {}) => range(motion, low, high, 'medium', of);
const STANDING: Of = { position: 'standing', summary: 'best', note: 'a line without regard to age' };
const HIP_90: Of = { mode: 'passive', position: 'supine', variant: 'hip-90', note: 'bent-knee, passive test of one school' };

/** Seconds to be held on one leg; the screen and the norm draw the same line. @see common practice, no source */
export const ONE_LEG_STANCE = { open: 30, closed: 5 } as const;

/** What is taken as good in daily work, with no publication behind it. */
export const COMMON_PRACTICE_NORMS: NormSet = {
  id: 'common-practice',
  title: 'Common practice',
  short: 'Common practice',
  year: null,
  where: 'no publication',
  source: COMMON_PRACTICE,
  entries: [
    at('shoulder.flexion', 180),
    at('shoulder.abduction', 180),
    at('wrist.extension', 90, { mode: 'active', position: 'quadruped', variant: 'loaded', note: '100–110 is good' }),
    from('hip.flexion', 110, 135, { note: '125 typical; at least 110 for any squat' }),
    from('hip.extension', 10, 30),
    from('hip.abduction', 40, 45),
    at('hip.adduction', 30),
    from('hip.internalRotation', 30, 45),
    at('hip.externalRotation', 45),
    from('hip.internalRotation', 20, 30, HIP_90),
    at('hip.externalRotation', 90, { ...HIP_90, variant: 'combined', note: 'turning and spreading together: the test of one school' }),
    at('knee.flexion', 135, { note: 'heel to or near the buttock' }),
    at('knee.extension', 0),
    from('ankle.dorsiflexion', 35, 45, { position: 'standing', variant: 'loaded', note: 'restricted below 35–38' }),
    from('ankle.dorsiflexion', 30, 40, { position: 'standing', variant: 'loaded-straight', note: 'knee straight' }),
    at('subtalar.inversion', 20, { position: 'prone' }),
    at('subtalar.eversion', 10, { position: 'prone' }),
    from('thoracic.rotation', 40, 60, { position: 'sitting', note: 'depends on the method' }),
    from('muscleLength.straightLegRaise', 70, 90, { variant: 'any' }),
    from('muscleLength.activeKneeExtension', 0, 20, {
      note: 'teaching texts; people without complaint lack 28 (women) and 39 (men) passively, so 20 calls too many short',
    }),
    from('muscleLength.hipExtensionDrop', 0, 15, { note: 'thigh at or below level' }),
    from('muscleLength.kneeDrop', 80, 90, { note: 'thigh held on the table' }),
    from('muscleLength.hipDropAbduction', 0, 15),
    from('muscleLength.proneKneeBend', 120, 135),
    from('muscleLength.sideLyingLegDrop', 0, 30, { variant: 'any', note: 'above level is short' }),
    at('muscleLength.latissimus', 180, { note: 'arm reaches the table with the low back flat' }),
    at('muscleLength.pectoralisMajorSternal', 0, { note: 'arm reaches the level of the table' }),
    at('muscleLength.pectoralisMajorClavicular', 0, { note: 'arm reaches the level of the table' }),
    from('distance.kneeToWall', 9, 12, { position: 'standing', note: 'one fist is the gate' }),
    from('distance.heelToButtock', 0, 3, { position: 'prone' }),
    at('distance.fingerToFloor', 0),
    from('distance.tragusToWall', 10, 12),
    at('distance.occiputToWall', 0),
    from('distance.chestExpansion', 5, 8),
    from('distance.chinToSternum', 0, 3),
    from('distance.lateralFingertipTravel', 20, 22),
    from('distance.heelHeightDifference', 0, 1),
    at('distance.pulpToCrease', 0),
    at('distance.thumbOpposition', 0),
    at('distance.handBehindBackFromAbove', 0, { note: 'fingers to the top of the far blade' }),
    at('distance.handBehindBackFromBelow', 0, { note: 'fingers to the bottom of the far blade' }),
    at('distance.schoberModified', 5),
    cutoff('balance.singleLegStanceEyesOpen', ONE_LEG_STANCE.open, 'medium', STANDING),
    cutoff('balance.singleLegStanceEyesClosed', ONE_LEG_STANCE.closed, 'medium', STANDING),
  ],
};
