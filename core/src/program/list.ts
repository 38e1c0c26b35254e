import { ANKLE_DRILLS } from './drills/ankle.js';
import { HAND_DRILLS } from './drills/hand.js';
import { HIP_CONTROL_DRILLS } from './drills/hip-control.js';
import { HIP_RANGE_DRILLS } from './drills/hip-range.js';
import { KNEE_DRILLS } from './drills/knee.js';
import { PATTERN_DRILLS } from './drills/patterns.js';
import { SHOULDER_DRILLS } from './drills/shoulder.js';
import { SPINE_DRILLS } from './drills/spine.js';
import type { Drill } from './drills/types.js';

/** Every drill that ships. A clinic adds its own beside them. */
export const DRILLS: readonly Drill[] = [
  ...HIP_RANGE_DRILLS,
  ...HIP_CONTROL_DRILLS,
  ...KNEE_DRILLS,
  ...ANKLE_DRILLS,
  ...SPINE_DRILLS,
  ...SHOULDER_DRILLS,
  ...HAND_DRILLS,
  ...PATTERN_DRILLS,
];

export const findDrill = (id: string, drills: readonly Drill[] = DRILLS): Drill | undefined => drills.find((drill) => drill.id === id);
