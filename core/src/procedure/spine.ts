import { BACK, each, NECK, noEnd, noForce, none, notWith, to } from './limits.js';
import type { Procedure } from './types.js';

const source = { cite: 'common protocols after this procedure', fromMemory: true } as const;
const BACK_SIGNS =
  'leg pain back as before; numb saddle, bladder or bowel (emergency); foot weaker; headache upright or clear leak; fever, chills or steadily rising back pain at any time';

/** Procedures of the spine. Digits are from memory; protocols differ between surgeons. */
export const SPINE_PROCEDURES: readonly Procedure[] = [
  {
    id: 'lumbar-disc-operation',
    name: 'Disc operation, low back',
    region: 'lumbar',
    limits: [
      ...each(['lumbar.flexion', 'lumbar.extension'], (motion) => noEnd(motion, 6)),
      notWith('lumbar.flexion', ['lumbar.rotation'], 6),
      ...each(['lumbar.flexion', 'lumbar.extension'], (motion) => noForce(motion, 8)),
      noEnd('muscleLength.straightLegRaise', 6),
    ],
    alsoOut:
      'finger to floor, toe touch, sit and reach, slump, straightening the knee seated with a round back, lowering both legs, sit-up, end of a deep squat, press-up face down (if told), lifting tests',
    tellSigns: BACK_SIGNS,
    tellWhen: [],
    note: 'Centres differ, many set no limit. Leg raise to the first tension, no push.',
    source,
  },
  {
    id: 'lumbar-fusion',
    name: 'Spinal fusion, lumbar',
    region: 'lumbar',
    limits: [
      ...each(BACK, (motion) => none(motion, 12, 'high')),
      ...each(BACK, (motion) => noForce(motion, 12, 'high')),
      to('hip.flexion', 90, 12),
    ],
    alsoOut:
      'knees to chest, hugging a knee for the edge-of-table test, press-up face down, trunk turn, leg raise past the tipping of the pelvis, side plank, deep squat, long sitting; and what is out after a disc operation',
    tellSigns: `${BACK_SIGNS}; new pain with loading after months without it; a sudden step or change in stance`,
    tellWhen: [],
    note: 'Not measured until the surgeon clears it; middle range for daily life. Fused levels stay stiff, which is no deficit.',
    source,
  },
  {
    id: 'cervical-fusion',
    name: 'Spinal fusion, neck',
    region: 'cervical',
    limits: [
      ...each(NECK, (motion) => none(motion, 12, 'high')),
      ...each(NECK, (motion) => noForce(motion, 12)),
      notWith('cervical.extension', ['cervical.rotation'], 12, 'high'),
    ],
    alsoOut:
      'looking up, looking over the shoulder, leaning back, lying face down without a hole for the face, head against the wall, head-lift endurance, nerve tension of the arm, shrugs with weight, chin to chest, arms overhead with load',
    tellSigns:
      'trouble breathing, swelling neck, swallowing getting worse (emergency); voice worse; clumsy hands, unsteady gait; new arm weakness',
    tellWhen: [],
    note: 'One level from the front is often measured from week 6: ask. Middle range for daily life.',
    source,
  },
];
