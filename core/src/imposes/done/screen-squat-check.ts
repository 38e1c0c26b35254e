import type { Demands } from './types.js';

/** From clinical knowledge, from memory, no source. */
export const SCREEN_SQUAT_CHECK = {
  'squatCheck.squat': {
    working: '',
    helping: '',
    both: 'hip.flexion full body active, ankle.dorsiflexion full body active, shoulder.flexion 90 limb active, knee.flexion 135 body active, hip.abduction 15 body active, shoulder.flexion 90 limb, ankle.plantarflexion 15 body, elbow.extension 0 limb',
    neck: '',
    chest: '',
    lowBack: 'lumbar.flexion 40 body measurement, lumbar.flexion 35 body active',
    effort: { working: '', helping: '', both: 'knee.extension, hip.extension, ankle.plantarflexion', trunk: 'thoracic.extension' },
    weight: { working: '', helping: '', both: 'hip, knee, ankle, subtalar, greatToeMtp' },
    grip: 'none',
    traits: ['balance-risk', 'deep-squat', 'breath-hold', 'dizzy-on-rising', 'loaded-end-range-spine-flexion', 'calf-stretch'],
  },
  'squatCheck.rockBack': {
    working: '',
    helping: '',
    both: 'knee.flexion 120 body active, wrist.extension 90 body, elbow.extension 0 body, hip.flexion 90, ankle.plantarflexion 40, fingerMcp.extension 0 body, fingerPip.extension 0 body, fingerDip.extension 0 body, shoulder.flexion 130 body, hip.flexion 125 body, knee.flexion 135 body, ankle.plantarflexion 50 body, hip.flexion full body active',
    neck: '',
    chest: '',
    lowBack: 'lumbar.flexion 10 body',
    effort: { working: '', helping: '', both: '', trunk: 'lumbar.extension' },
    weight: { working: '', helping: '', both: 'wrist, elbow, shoulder, hip, knee' },
    grip: 'none',
    traits: ['kneeling', 'hands-bearing', 'end-range', 'getting-to-floor'],
  },
} as const satisfies Record<string, Demands>;
