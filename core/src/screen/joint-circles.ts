import type { MotionId, Position } from '../terms.js';
import { defineScreen, type ItemSpec } from './define.js';
import type { FaultId } from './faults.js';
import type { Hour } from './types.js';

type Hours = Readonly<Record<Hour, readonly MotionId[]>>;

/** Motions of the four quarters, from 12 o'clock on: forward or up, outward, back or down, inward. What lies between belongs to both. */
function quarters(up: MotionId[], out: MotionId[], back: MotionId[], inward: MotionId[]): Hours {
  const both = (a: MotionId[], b: MotionId[]): MotionId[] => [...new Set([...a, ...b])];
  return {
    12: up,
    1: both(up, out),
    2: both(up, out),
    3: out,
    4: both(out, back),
    5: back,
    6: back,
    7: back,
    8: both(back, inward),
    9: inward,
    10: both(inward, up),
    11: both(inward, up),
  };
}

interface Circle {
  readonly id: string;
  readonly name: string;
  readonly setUp: string;
  readonly hours: Hours;
  readonly faults: readonly FaultId[];
  readonly at: Position;
  readonly near?: readonly string[];
  readonly figure: string;
  readonly midline?: boolean;
  readonly caution?: string;
  readonly opens?: ItemSpec['opens'];
}

const circle = ({ midline, hours, ...rest }: Circle): ItemSpec => ({
  ...rest,
  say: 'Make the largest circle you can, slowly. Nothing else moves. Then the other way round.',
  meets: 'the circle is round: nothing is cut off, and no neighbour moves instead',
  answered: { by: 'circle', hours },
  pain: 'Does anything pinch or hurt, and where in the circle?',
  sides: midline ? 'none' : 'each',
  tries: 2,
  atHome: true,
});

/**
 * Circles that a person draws with one joint by their own strength. A circle is
 * a skill: it keeps range and shows it, it does not win it.
 *
 * @see common practice, no source
 */
export const JOINT_CIRCLES = defineScreen({
  id: 'jointCircles',
  version: 1,
  name: 'Joint circles',
  purpose: 'From head to toe: where a circle cuts the corner, and what moves instead.',
  items: [
    circle({
      id: 'neck',
      name: 'Neck circle',
      setUp: 'Sitting or standing tall, shoulders still.',
      hours: quarters(['cervical.flexion'], ['cervical.lateralFlexion'], ['cervical.extension'], ['cervical.lateralFlexion']),
      faults: ['shoulderLifts', 'chestLifts'],
      at: 'sitting',
      near: ['cervical.lateralFlexion/sitting'],
      figure: 'sittingFront',
      midline: true,
      caution: 'Not with dizziness, double vision or fainting on moving the head: ask first.',
      opens: 'neckTurn',
    }),
    circle({
      id: 'blade',
      name: 'Shoulder blade circle',
      setUp: 'Standing, arms hanging straight: forward, up, back, down.',
      hours: quarters([], [], [], []),
      faults: ['handsSlide', 'trunkSways', 'elbowsBend'],
      at: 'standing',
      figure: 'standingSide',
    }),
    circle({
      id: 'shoulder',
      name: 'Shoulder circle',
      setUp: 'Standing, straight arm: forward and up past the ear, back and down.',
      hours: quarters(
        ['shoulder.flexion'],
        ['shoulder.abduction', 'shoulder.externalRotation'],
        ['shoulder.extension', 'shoulder.internalRotation'],
        ['shoulder.horizontalAdduction'],
      ),
      faults: ['trunkTwists', 'ribsFlare', 'lowBackArches', 'elbowsBend'],
      at: 'standing',
      near: ['shoulder.flexion/standing', 'shoulder.extension/standing'],
      figure: 'standingSide',
      opens: 'overheadReach',
    }),
    circle({
      id: 'elbowTurn',
      name: 'Elbow and forearm circle',
      setUp: 'Elbow at the side at a right angle: palm up, palm down, bend and straighten.',
      hours: quarters(['elbow.flexion'], ['forearm.supination'], ['elbow.extension'], ['forearm.pronation']),
      faults: ['wristTwists', 'shoulderLifts'],
      at: 'standing',
      near: ['forearm.pronation/standing', 'forearm.supination/standing'],
      figure: 'standingSide',
      opens: 'gripTurn',
    }),
    circle({
      id: 'wrist',
      name: 'Wrist circle',
      setUp: 'Forearm on a table, hand over its edge, a pencil laid across the hand.',
      hours: quarters(['wrist.extension'], ['wrist.radialDeviation'], ['wrist.flexion'], ['wrist.ulnarDeviation']),
      faults: ['fingersCurl', 'wristTwists'],
      at: 'sitting',
      near: ['wrist.extension/sitting', 'wrist.flexion/sitting'],
      figure: 'sittingForearm',
      opens: 'palmLean',
    }),
    circle({
      id: 'hip',
      name: 'Hip circle',
      setUp: 'Standing, a hand on something steady: knee up in front, out, back, and through.',
      hours: quarters(
        ['hip.flexion'],
        ['hip.abduction', 'hip.externalRotation'],
        ['hip.extension'],
        ['hip.adduction', 'hip.internalRotation'],
      ),
      faults: ['lowBackArches', 'pelvisTwists', 'hipHikes', 'pinchInFront', 'trunkLeans'],
      at: 'standing',
      near: ['hip.extension/prone', 'hip.internalRotation/sitting'],
      figure: 'oneLeg',
      opens: 'hipRotation',
    }),
    circle({
      id: 'kneeCap',
      name: 'Kneecap glide',
      setUp: 'Sitting, the leg straight and slack; the hands glide the kneecap up, out, down, in.',
      hours: quarters([], [], [], []),
      faults: ['kneesBend'],
      at: 'sitting',
      figure: 'sittingLegOut',
    }),
    circle({
      id: 'shinTurn',
      name: 'Shin turned in and out',
      setUp: 'Sitting, knee bent, heel off the floor, the hands carry the thigh.',
      hours: quarters(['knee.flexion'], [], ['knee.extension'], []),
      faults: ['ankleTurns', 'kneesBend'],
      at: 'sitting',
      figure: 'sittingSide',
    }),
    circle({
      id: 'ankle',
      name: 'Ankle circle',
      setUp: 'Sitting or lying, the shin held still.',
      hours: quarters(['ankle.dorsiflexion'], ['subtalar.eversion'], ['ankle.plantarflexion'], ['subtalar.inversion']),
      faults: ['kneeRollsIn', 'kneeRollsOut'],
      at: 'sitting',
      near: ['ankle.dorsiflexion/sitting', 'subtalar.eversion/sitting'],
      figure: 'sittingLegOut',
      opens: 'dorsiflexionStuck',
    }),
    circle({
      id: 'toes',
      name: 'Toe circle',
      setUp: 'Sitting, the foot flat: the great toe alone, then the others, spread and draw together.',
      hours: quarters(['greatToeMtp.extension'], [], ['greatToeMtp.flexion'], []),
      faults: ['footFlattens'],
      at: 'sitting',
      near: ['greatToeMtp.extension/sitting'],
      figure: 'sittingSide',
    }),
  ],
});
