import type { Demands } from './types.js';

const NO_EFFORT = { working: '', helping: '', both: '', trunk: '' } as const;
const ON_BOTH_FEET = { working: '', helping: '', both: 'hip, knee, ankle, subtalar, greatToeMtp' } as const;
const ON_BOTH_HANDS = { working: '', helping: '', both: 'wrist, elbow, shoulder, ankle, greatToeMtp' } as const;

/** What is advised in the place of something that is left out. From clinical knowledge, from memory, no source. */
export const INSTEAD = {
  'instead.deep-squat-turning': {
    working: '',
    helping: '',
    both: 'hip.flexion 100 body active, knee.flexion 100 body active, ankle.dorsiflexion 20 body active',
    neck: '',
    chest: '',
    lowBack: 'lumbar.flexion 20 body',
    effort: { ...NO_EFFORT, both: 'hip.extension, knee.extension, ankle.plantarflexion', trunk: 'lumbar.extension' },
    weight: ON_BOTH_FEET,
    grip: 'none',
    traits: ['dizzy-on-rising'],
  },
  'instead.deep-squat-bending': {
    working: '',
    helping: '',
    both: 'hip.flexion 100 body active, knee.flexion 100 body active, ankle.dorsiflexion 20 body active, elbow.flexion 130 resisted active',
    neck: '',
    chest: '',
    lowBack: 'lumbar.flexion 20 body',
    effort: { ...NO_EFFORT, both: 'hip.extension, knee.extension, ankle.plantarflexion', trunk: 'lumbar.extension' },
    weight: ON_BOTH_FEET,
    grip: 'both',
    traits: ['dizzy-on-rising', 'weight-lifted', 'breath-hold'],
  },
  'instead.overhead': {
    working: '',
    helping: '',
    both: 'shoulder.flexion 90 resisted active, shoulder.extension 30 resisted active, shoulder.horizontalAdduction 90 resisted active, elbow.flexion 120 resisted active, elbow.extension 0 resisted active',
    neck: '',
    chest: '',
    lowBack: '',
    effort: { ...NO_EFFORT, both: 'shoulder.internalRotation, shoulder.horizontalAbduction', trunk: 'lumbar.extension, lumbar.flexion' },
    weight: ON_BOTH_FEET,
    grip: 'both',
    traits: ['breastbone-pushed', 'breastbone-pulled', 'gripping-hard', 'weight-lifted', 'breath-hold', 'max-effort'],
  },
  'instead.overhand-grip': {
    working: '',
    helping: '',
    both: 'forearm.supination 80 resisted active, elbow.flexion 120 resisted active, shoulder.extension 30 resisted active',
    neck: '',
    chest: '',
    lowBack: '',
    effort: { ...NO_EFFORT, both: 'shoulder.flexion', trunk: 'lumbar.extension' },
    weight: ON_BOTH_FEET,
    grip: 'both',
    traits: ['gripping-hard', 'weight-lifted', 'breastbone-pulled', 'breath-hold', 'max-effort'],
  },
  'instead.flat-hand': {
    working: '',
    helping: '',
    both: 'shoulder.flexion 70 body active, shoulder.horizontalAdduction 90 body active, shoulder.extension 30 body, elbow.flexion 110 body active, elbow.extension 0 body active, wrist.extension 10 body, fingerMcp.flexion 90 body, fingerPip.flexion 100 body, fingerDip.flexion 70 body, greatToeMtp.extension 60 body',
    neck: 'cervical.extension 20 limb',
    chest: '',
    lowBack: 'lumbar.extension 10 body',
    effort: { ...NO_EFFORT, both: 'shoulder.internalRotation, hip.flexion, knee.extension', trunk: 'lumbar.flexion' },
    weight: ON_BOTH_HANDS,
    grip: 'both',
    traits: ['hands-bearing', 'breastbone-pushed', 'trunk-effort', 'breath-hold', 'fist', 'head-down', 'getting-to-floor', 'max-effort'],
  },
} as const satisfies Record<string, Demands>;
