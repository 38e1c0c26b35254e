import type { Source } from '../terms.js';
import type { Motion, Protocol, Substitution } from './types.js';

const TEACHING: Source = {
  cite: 'standard goniometry teaching: AAOS 1965; Norkin & White; Reese & Bandy',
  fromMemory: true,
};

const PELVIS_ROLLS: Substitution = { id: 'pelvis-rolls-back', label: 'pelvis rolls back' };
const PELVIS_HIKES: Substitution = { id: 'pelvis-hikes', label: 'pelvis hikes' };
const BACK_ARCHES: Substitution = { id: 'back-arches', label: 'low back arches' };
const LEG_TURNS_OUT: Substitution = { id: 'leg-turns-out', label: 'leg turns out' };
const PELVIS_LIFTS: Substitution = { id: 'pelvis-lifts', label: 'pelvis lifts' };
const THIGH_DRIFTS: Substitution = { id: 'thigh-drifts', label: 'thigh drifts' };
const TRUNK_LEANS: Substitution = { id: 'trunk-leans', label: 'trunk leans' };
const KNEE_BENDS: Substitution = { id: 'knee-bends', label: 'knee bends' };

const common = {
  version: 1,
  modes: ['active', 'passive'],
  instruments: ['goniometer', 'inclinometer', 'visual'],
  source: TEACHING,
} as const;
/** In supine with the examiner at the feet, gravity cannot read a movement across the table. */
const goniometerOnly = { ...common, instruments: ['goniometer', 'visual'] } as const;

const FROM_THE_SIDE = 'from the side being measured';
const FROM_THE_FEET = 'from the feet';

const rotationTrap = (motion: 'internal' | 'external', foot: 'outward' | 'inward'): string =>
  `The foot swings ${foot}: that is ${motion} rotation. It is named by the thigh bone, not by the foot.`;

const proneRotation = (motion: 'internalRotation' | 'externalRotation'): Protocol => ({
  ...common,
  id: `hip.${motion}/prone`,
  motion: `hip.${motion}`,
  position: 'prone',
  startingPosition: 'Face down, knee bent to 90°, shin straight up, thighs together.',
  axis: 'front of the knee cap, below the bent knee',
  stationaryArm: 'plumb, straight up',
  movingArm: 'along the crest of the shin, midway between the ankle bones',
  stabilise: 'pelvis flat on the table, hand on the sacrum',
  substitutions: [PELVIS_LIFTS, THIGH_DRIFTS, { id: 'knee-leaves-90', label: 'knee leaves 90°' }],
  endFeel: ['firm'],
  twoJoint: 'Rectus femoris is stretched with the knee at 90°: note it when the front of the thigh stops the motion.',
  namingTrap: motion === 'internalRotation' ? rotationTrap('internal', 'outward') : rotationTrap('external', 'inward'),
  dial: { zeroAt: 0, sense: motion === 'internalRotation' ? -1 : 1, scale: { on: 70, back: 70 }, seenFrom: FROM_THE_FEET },
});

const sittingRotation = (motion: 'internalRotation' | 'externalRotation'): Protocol => ({
  ...common,
  id: `hip.${motion}/sitting`,
  motion: `hip.${motion}`,
  position: 'sitting',
  startingPosition: 'Sitting, hip and knee at 90°, a folded towel under the thigh, shin hanging plumb.',
  axis: 'front of the knee cap, at its middle',
  stationaryArm: 'plumb, straight down',
  movingArm: 'along the crest of the shin, midway between the ankle bones',
  stabilise: 'end of the thigh, both sitting bones on the table',
  substitutions: [PELVIS_HIKES, TRUNK_LEANS, THIGH_DRIFTS],
  endFeel: ['firm'],
  namingTrap: motion === 'internalRotation' ? rotationTrap('internal', 'outward') : rotationTrap('external', 'inward'),
  dial: { zeroAt: 180, sense: motion === 'internalRotation' ? -1 : 1, scale: { on: 70, back: 70 }, seenFrom: 'facing the patient' },
});

export const HIP: readonly Motion[] = [
  {
    id: 'hip.flexion',
    joint: 'hip',
    plane: 'S',
    name: 'Hip flexion',
    short: 'Flexion',
    opposite: 'hip.extension',
    limits: { min: -60, max: 170 },
    zeroIs: 'straight',
    pastZeroIsHyper: false,
    protocols: [
      {
        ...common,
        id: 'hip.flexion/supine',
        motion: 'hip.flexion',
        position: 'supine',
        startingPosition: 'Face up, the other thigh flat on the table. The knee bends as the hip bends.',
        axis: 'outer side of the greater trochanter',
        stationaryArm: 'mid-line of the pelvis and trunk',
        movingArm: 'outer mid-line of the thigh, towards the lateral epicondyle',
        stabilise: 'pelvis: stop when it starts to roll, keep the other thigh down',
        substitutions: [PELVIS_ROLLS, LEG_TURNS_OUT, { id: 'other-thigh-lifts', label: 'other thigh lifts' }],
        endFeel: ['soft'],
        twoJoint: 'Hamstrings: keep the knee bent.',
        dial: { zeroAt: 270, sense: 1, scale: { on: 150, back: 30 }, seenFrom: FROM_THE_SIDE },
      },
    ],
  },
  {
    id: 'hip.extension',
    joint: 'hip',
    plane: 'S',
    name: 'Hip extension',
    short: 'Extension',
    opposite: 'hip.flexion',
    limits: { min: -90, max: 60 },
    zeroIs: 'straight',
    pastZeroIsHyper: false,
    protocols: [
      {
        ...common,
        id: 'hip.extension/prone',
        motion: 'hip.extension',
        position: 'prone',
        startingPosition: 'Face down, both legs straight, no pillow under the belly.',
        axis: 'outer side of the greater trochanter',
        stationaryArm: 'mid-line of the pelvis',
        movingArm: 'outer mid-line of the thigh, towards the lateral epicondyle',
        stabilise: 'pelvis held down on the table',
        substitutions: [BACK_ARCHES, PELVIS_LIFTS, { id: 'leg-drifts-out', label: 'leg drifts out' }],
        endFeel: ['firm'],
        twoJoint: 'Rectus femoris: keep the knee straight.',
        dial: { zeroAt: 90, sense: -1, scale: { on: 50, back: 40 }, seenFrom: FROM_THE_SIDE },
      },
    ],
  },
  {
    id: 'hip.abduction',
    joint: 'hip',
    plane: 'F',
    name: 'Hip abduction',
    short: 'Abduction',
    opposite: 'hip.adduction',
    limits: { min: -40, max: 100 },
    zeroIs: 'neutral',
    pastZeroIsHyper: false,
    protocols: [
      {
        ...goniometerOnly,
        id: 'hip.abduction/supine',
        motion: 'hip.abduction',
        position: 'supine',
        startingPosition: 'Face up, both legs straight, toes to the ceiling.',
        axis: 'front pelvic bone (ASIS) of the same side',
        stationaryArm: 'line to the other front pelvic bone; the 90° reading is zero',
        movingArm: 'front mid-line of the thigh, towards the middle of the knee cap',
        stabilise: 'the other front pelvic bone',
        substitutions: [PELVIS_HIKES, LEG_TURNS_OUT, { id: 'hip-bends', label: 'hip bends' }],
        endFeel: ['firm'],
        twoJoint: 'Gracilis: bend the knee and look whether the range grows.',
        dial: { zeroAt: 180, sense: -1, scale: { on: 80, back: 50 }, seenFrom: FROM_THE_FEET },
      },
    ],
  },
  {
    id: 'hip.adduction',
    joint: 'hip',
    plane: 'F',
    name: 'Hip adduction',
    short: 'Adduction',
    opposite: 'hip.abduction',
    limits: { min: -60, max: 70 },
    zeroIs: 'neutral',
    pastZeroIsHyper: false,
    protocols: [
      {
        ...goniometerOnly,
        id: 'hip.adduction/supine',
        motion: 'hip.adduction',
        position: 'supine',
        startingPosition: 'Face up, toes to the ceiling, the other leg moved out of the way.',
        axis: 'front pelvic bone (ASIS) of the same side',
        stationaryArm: 'line to the other front pelvic bone; the 90° reading is zero',
        movingArm: 'front mid-line of the thigh, towards the middle of the knee cap',
        stabilise: 'the same side of the pelvis',
        substitutions: [PELVIS_HIKES, { id: 'leg-turns-in', label: 'leg turns in' }, KNEE_BENDS],
        endFeel: ['firm'],
        dial: { zeroAt: 180, sense: 1, scale: { on: 50, back: 80 }, seenFrom: FROM_THE_FEET },
      },
    ],
  },
  {
    id: 'hip.internalRotation',
    joint: 'hip',
    plane: 'R',
    name: 'Hip internal rotation',
    short: 'Internal rotation',
    opposite: 'hip.externalRotation',
    limits: { min: -60, max: 100 },
    zeroIs: 'neutral',
    pastZeroIsHyper: false,
    protocols: [proneRotation('internalRotation'), sittingRotation('internalRotation')],
  },
  {
    id: 'hip.externalRotation',
    joint: 'hip',
    plane: 'R',
    name: 'Hip external rotation',
    short: 'External rotation',
    opposite: 'hip.internalRotation',
    limits: { min: -60, max: 110 },
    zeroIs: 'neutral',
    pastZeroIsHyper: false,
    protocols: [proneRotation('externalRotation'), sittingRotation('externalRotation')],
  },
];
