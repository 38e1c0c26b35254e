import type { Position, Source } from '../terms.js';
import { defineMotion, push } from './define.js';
import type { Figure } from './figure/types.js';
import type { Motion } from './types.js';

const SOURCE: Source = { cite: 'standard hand-held dynamometry teaching (make test); Reese; Kendall', fromMemory: true };
const CAUTION = 'Not across a healing fracture, a repaired tendon or muscle, or where the surgeon forbids load. Stop at pain.';

interface Strength {
  readonly id: string;
  readonly name: string;
  readonly at: Position;
  readonly start: string;
  readonly put: readonly [at: string, against: string];
  readonly hold: string;
  readonly fakes: readonly string[];
  readonly draw: readonly [scene: string, at: string, towards: number];
}

const SIT = 'Sitting, feet off the floor, hands on the lap.';

const TESTS: readonly Strength[] = [
  {
    id: 'shoulderFlexion',
    name: 'Shoulder flexion strength',
    at: 'sitting',
    start: 'Sitting, arm forward at 90°, elbow straight, palm down.',
    put: ['front of the upper arm, just above the elbow', 'down'],
    hold: 'trunk',
    fakes: ['trunk leans back', 'shoulder shrugs'],
    draw: ['sittingForearm', 'elbow', 180],
  },
  {
    id: 'shoulderAbduction',
    name: 'Shoulder abduction strength',
    at: 'sitting',
    start: 'Sitting, arm out at 90°, elbow bent.',
    put: ['outer side of the upper arm, just above the elbow', 'down'],
    hold: 'other shoulder',
    fakes: ['trunk leans', 'shoulder shrugs'],
    draw: ['front', 'elbow', 270],
  },
  {
    id: 'shoulderInternalRotation',
    name: 'Shoulder internal rotation strength',
    at: 'supine',
    start: 'Face up, arm at the side, elbow at 90°, forearm plumb.',
    put: ['palm side of the forearm, just above the wrist', 'outward'],
    hold: 'elbow at the side',
    fakes: ['elbow leaves the side', 'trunk rolls'],
    draw: ['trunkFromFeet', 'wrist', 90],
  },
  {
    id: 'shoulderExternalRotation',
    name: 'Shoulder external rotation strength',
    at: 'supine',
    start: 'Face up, arm at the side, elbow at 90°, forearm plumb.',
    put: ['back of the forearm, just above the wrist', 'inward'],
    hold: 'elbow at the side',
    fakes: ['elbow leaves the side', 'trunk rolls'],
    draw: ['trunkFromFeet', 'wrist', 270],
  },
  {
    id: 'elbowFlexion',
    name: 'Elbow flexion strength',
    at: 'supine',
    start: 'Face up, elbow at 90°, palm towards the shoulder.',
    put: ['palm side of the forearm, just above the wrist', 'towards the feet'],
    hold: 'upper arm on the table',
    fakes: ['shoulder bends', 'wrist bends'],
    draw: ['lyingUpArmOut', 'wrist', 270],
  },
  {
    id: 'elbowExtension',
    name: 'Elbow extension strength',
    at: 'supine',
    start: 'Face up, elbow at 90°, forearm plumb.',
    put: ['back of the forearm, just above the wrist', 'towards the head'],
    hold: 'upper arm on the table',
    fakes: ['shoulder extends', 'trunk rolls'],
    draw: ['lyingUpArmOut', 'wrist', 90],
  },
  {
    id: 'wristExtension',
    name: 'Wrist extension strength',
    at: 'sitting',
    start: 'Sitting, forearm palm-down on the table, fingers relaxed.',
    put: ['back of the hand, at the knuckles', 'down'],
    hold: 'forearm',
    fakes: ['elbow lifts', 'fingers extend'],
    draw: ['handSide', 'mcp', 180],
  },
  {
    id: 'wristFlexion',
    name: 'Wrist flexion strength',
    at: 'sitting',
    start: 'Sitting, forearm palm-up on the table, fingers relaxed.',
    put: ['palm, at the knuckles', 'down'],
    hold: 'forearm',
    fakes: ['elbow bends', 'fingers curl'],
    draw: ['handSide', 'mcp', 180],
  },
  {
    id: 'hipFlexion',
    name: 'Hip flexion strength',
    at: 'sitting',
    start: SIT,
    put: ['front of the thigh, just above the knee', 'down'],
    hold: 'trunk upright',
    fakes: ['trunk leans back', 'leg turns out'],
    draw: ['sittingSide', 'knee', 180],
  },
  {
    id: 'hipExtension',
    name: 'Hip extension strength',
    at: 'prone',
    start: 'Face down, knee bent to 90°, thigh on the table.',
    put: ['back of the thigh, just above the knee', 'down'],
    hold: 'pelvis',
    fakes: ['low back arches', 'pelvis turns'],
    draw: ['lyingDownKneeBent', 'knee', 180],
  },
  {
    id: 'hipAbduction',
    name: 'Hip abduction strength',
    at: 'sidelying',
    start: 'On the other side, the upper leg level and straight.',
    put: ['outer side of the leg, just above the ankle bone', 'down'],
    hold: 'pelvis stacked',
    fakes: ['hip bends', 'pelvis rolls back', 'pelvis hikes'],
    draw: ['sidelying', 'ankle', 180],
  },
  {
    id: 'hipAdduction',
    name: 'Hip adduction strength',
    at: 'supine',
    start: 'Face up, legs straight and slightly apart.',
    put: ['inner side of the leg, just above the ankle bone', 'outward'],
    hold: 'pelvis',
    fakes: ['leg turns', 'hip bends'],
    draw: ['planSupine', 'ankle', 90],
  },
  {
    id: 'hipInternalRotation',
    name: 'Hip internal rotation strength',
    at: 'sitting',
    start: SIT,
    put: ['outer side of the shin, just above the ankle bone', 'inward'],
    hold: 'thigh',
    fakes: ['pelvis hikes', 'thigh drifts'],
    draw: ['sittingFront', 'ankle', 270],
  },
  {
    id: 'hipExternalRotation',
    name: 'Hip external rotation strength',
    at: 'sitting',
    start: SIT,
    put: ['inner side of the shin, just above the ankle bone', 'outward'],
    hold: 'thigh',
    fakes: ['trunk leans', 'thigh drifts'],
    draw: ['sittingFront', 'ankle', 90],
  },
  {
    id: 'kneeExtension',
    name: 'Knee extension strength',
    at: 'sitting',
    start: `${SIT} Knee at 90°, a strap behind the instrument if the leg is stronger than the hand.`,
    put: ['front of the shin, just above the ankle bones', 'backward'],
    hold: 'thigh',
    fakes: ['trunk leans back', 'pelvis lifts'],
    draw: ['sittingSide', 'ankle', 90],
  },
  {
    id: 'kneeFlexion',
    name: 'Knee flexion strength',
    at: 'prone',
    start: 'Face down, knee at 90°.',
    put: ['back of the heel', 'towards straight'],
    hold: 'thigh',
    fakes: ['hip lifts', 'leg turns'],
    draw: ['lyingDownKneeBent', 'ankle', 90],
  },
  {
    id: 'ankleDorsiflexion',
    name: 'Ankle dorsiflexion strength',
    at: 'supine',
    start: 'Face up, knee straight, ankle at 0°.',
    put: ['back of the foot, at the toe knuckles', 'down and away'],
    hold: 'lower leg',
    fakes: ['toes pull up', 'hip bends'],
    draw: ['footUp', 'mtp', 270],
  },
  {
    id: 'anklePlantarflexion',
    name: 'Ankle plantarflexion strength',
    at: 'supine',
    start: 'Face up, knee straight, ankle at 0°.',
    put: ['sole, at the ball of the foot', 'towards the head'],
    hold: 'lower leg',
    fakes: ['knee bends', 'hip pushes'],
    draw: ['footUp', 'mtp', 90],
  },
  {
    id: 'footInversion',
    name: 'Foot inversion strength',
    at: 'supine',
    start: 'Face up, knee straight, ankle at 0°.',
    put: ['inner edge of the foot', 'outward'],
    hold: 'lower leg',
    fakes: ['hip turns', 'toes curl'],
    draw: ['footFront', 'foot', 90],
  },
  {
    id: 'footEversion',
    name: 'Foot eversion strength',
    at: 'supine',
    start: 'Face up, knee straight, ankle at 0°.',
    put: ['outer edge of the foot', 'inward'],
    hold: 'lower leg',
    fakes: ['hip turns', 'toes lift'],
    draw: ['footFront', 'foot', 270],
  },
];

const figure = ([scene, at, towards]: Strength['draw']): Figure => ({ kind: 'push', scene, at, towards });

export const STRENGTHS: readonly Motion[] = TESTS.map((test) =>
  defineMotion(`strength.${test.id}`, {
    name: test.name,
    unit: 'N',
    limits: [0, 1500],
    protocols: [
      {
        at: test.at,
        by: ['dynamometer'],
        modes: ['active'],
        swing: 'none',
        start: test.start,
        put: push(...test.put),
        hold: test.hold,
        fakes: test.fakes,
        feel: [],
        caution: CAUTION,
        not: 'The same lever arm every time: mark where the instrument sat. Five seconds, building up.',
        figure: figure(test.draw),
        source: SOURCE,
      },
    ],
  }),
);
