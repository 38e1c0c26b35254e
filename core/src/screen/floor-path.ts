import { type Row } from '../imposes/rows.js';
import { defineScreen, seen, type ItemSpec } from './define.js';
import type { FaultId } from './faults.js';
import type { ItemFault } from './types.js';

/** A lean, or hands on the floor: the hip is not turned in and held out to the side by its own strength. */
const byOwnStrength = (...faults: FaultId[]): ItemFault[] =>
  faults.map((id) => ({ id, views: [], opens: null, counts: true, ownStrength: ['hip.internalRotation', 'hip.abduction'] }));

const step = (
  spec: Pick<ItemSpec, 'id' | 'name' | 'say' | 'meets' | 'faults' | 'figure'> & {
    readonly imposes?: readonly Row[];
    readonly sides?: ItemSpec['sides'];
  },
): ItemSpec => ({
  setUp:
    'One unbroken slow path: standing, deep squat, one knee turns in and down to a seat with both hips and knees at right angles, the back leg comes round, over the foot, up.',
  at: 'standing',
  sides: 'each',
  opens: 'floorPath',
  minutes: 0.4,
  ...spec,
});

/**
 * Down to the floor and up again by one's own strength, both ways. Plenty of
 * range that is not owned shows as a lean, or as hands on the floor.
 *
 * @see common practice, no source
 */
export const FLOOR_PATH = defineScreen({
  id: 'floorPath',
  version: 1,
  name: 'Floor path',
  purpose: 'Control through large ranges: standing to the floor and back without a break. The side is that of the leg that turns in.',
  items: [
    step({
      id: 'squatDown',
      name: 'Down into the squat',
      say: 'Go down into a deep squat, slowly.',
      meets: 'the squat is deep, heels down',
      faults: seen({ notDeep: 'squat.notDeep', heelLifts: 'squat.heelLifts' }),
      sides: 'none',
      figure: 'deepSquat',
    }),
    step({
      id: 'sitBones',
      name: 'Both sitting bones towards the floor',
      say: 'Turn one knee in and down, and sit with both knees at right angles.',
      meets: 'both sitting bones come towards the floor, nothing rolls or pops up',
      faults: ['kneePopsUp', ...byOwnStrength('trunkLeans')],
      figure: 'floorSeat',
    }),
    step({
      id: 'trunkTall',
      name: 'Trunk tall, no hands',
      say: 'Sit tall. Do not use your hands.',
      meets: 'the trunk stays tall and the hands stay off the floor',
      faults: byOwnStrength('trunkLeans', 'handsUsed'),
      figure: 'floorSeat',
    }),
    step({
      id: 'backLeg',
      name: 'Back leg lift',
      say: 'Lift the back leg by itself and bring it round to the front.',
      meets: 'the back leg lifts sideways by its own strength, without the trunk leaning',
      faults: [...byOwnStrength('trunkLeans', 'handsUsed'), 'pelvisTwists'],
      figure: 'floorSeat',
    }),
    step({
      id: 'kneesPressed',
      name: 'Knees pressed down',
      say: 'Press both knees into the floor.',
      meets: 'both knees stay pressed down, nothing rolls or pops up',
      faults: ['kneePopsUp'],
      figure: 'floorSeat',
    }),
    step({
      id: 'overTheFoot',
      name: 'Over the front foot',
      say: 'Bring your chest to your thigh, then your weight over the front foot.',
      meets: 'the gap between chest and thigh is closed before weight goes onto the front foot',
      faults: ['gapStaysOpen', 'heelLifts'],
      figure: 'elbowToInstep',
    }),
    step({
      id: 'footRolls',
      name: 'Foot rolls, up to standing',
      say: 'Roll over the foot and stand up.',
      meets: 'the foot is rolled and not picked up',
      faults: ['footPickedUp', 'handsUsed'],
      figure: 'deepSquat',
    }),
  ],
});
