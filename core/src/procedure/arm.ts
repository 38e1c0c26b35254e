import {
  behindBack,
  below,
  each,
  ELBOW,
  FINGERS_BEND,
  FINGERS_STRAIGHTEN,
  FOREARM,
  lacking,
  noEnd,
  noForce,
  noLeaning,
  noLift,
  none,
  notWith,
  SHOULDER,
  to,
  WRIST,
} from './limits.js';
import type { Procedure, UsualLimit } from './types.js';

const source = { cite: 'common protocols after this procedure', fromMemory: true } as const;

/** The arm taken out and turned out: where a shoulder slips forward, and what twists a cuff. */
const outAndTurned = (weeks: number, limit?: number): UsualLimit =>
  notWith('shoulder.externalRotation', ['shoulder.abduction'], weeks, 'high', limit === undefined ? {} : { limit });
/** Directions without a row of their own: a missing row permits nothing. */
const restOfShoulder = (named: readonly string[], weeks: number): UsualLimit[] =>
  each(
    SHOULDER.filter((motion) => !named.includes(motion)),
    (motion) => none(motion, weeks, 'high'),
  );
const passiveLift = (first: number): UsualLimit[] => [
  to('shoulder.flexion', 90, first, 'medium', 'passive'),
  to('shoulder.flexion', 120, 6, 'medium', 'passive'),
];
const BICEPS: readonly UsualLimit[] = [
  none('elbow.flexion', 2, 'medium', 'active'),
  none('forearm.supination', 2, 'medium', 'active'),
  ...each(['elbow.flexion', 'forearm.supination'], (motion) => noForce(motion, 8)),
];
const LONG_LEVERS = [
  'strength.shoulderInternalRotation',
  'strength.shoulderExternalRotation',
  'strength.shoulderFlexion',
  'strength.shoulderAbduction',
] as const;

/** Procedures of the shoulder, arm and hand. Digits are from memory; protocols differ between surgeons. */
export const ARM_PROCEDURES: readonly Procedure[] = [
  {
    id: 'rotator-cuff-repair',
    name: 'Rotator cuff repair',
    region: 'shoulder',
    limits: [
      ...each(SHOULDER, (motion) => none(motion, 6, 'high', 'active')),
      ...each(SHOULDER, (motion) => noForce(motion, 12, 'high')),
      ...passiveLift(4),
      to('shoulder.externalRotation', 20, 6, 'medium', 'passive'),
      ...restOfShoulder(['shoulder.flexion', 'shoulder.externalRotation'], 6),
      ...each(['shoulder.internalRotation', 'shoulder.extension', 'shoulder.adduction', 'shoulder.horizontalAdduction'], (motion) =>
        none(motion, 8, 'high'),
      ),
      outAndTurned(8),
      notWith('shoulder.internalRotation', ['shoulder.abduction'], 8, 'high'),
      ...BICEPS,
      ...noLeaning(12),
    ],
    alsoOut:
      'hands behind the back or head, overhead squat, stick behind, wall arms, cross-body pull, lift-off tests, plank, press-up, all fours, leaning on the palm, hanging, pushing up to rise, arms up in turning tests',
    tellSigns: 'sudden loss of active lift; pop',
    tellWhen: [
      below('shoulder.flexion', 90, 6, 'passive'),
      below('shoulder.flexion', 120, 12, 'passive'),
      below('shoulder.externalRotation', 10, 8, 'passive', ['at-side']),
    ],
    note: 'Turning out to 30° where the front tendon was not repaired. Large tears: no active movement before eight weeks. The biceps rows hold where it was fixed too: ask.',
    source: { cite: 'Thigpen CA et al. J Shoulder Elbow Surg 2016;25:521-535', fromMemory: true },
  },
  {
    id: 'anterior-shoulder-stabilisation',
    name: 'Anterior shoulder stabilisation',
    region: 'shoulder',
    limits: [
      outAndTurned(6),
      outAndTurned(12, 45),
      to('shoulder.externalRotation', 0, 3),
      to('shoulder.externalRotation', 30, 6),
      none('shoulder.flexion', 6, 'medium', 'active'),
      ...passiveLift(4),
      to('shoulder.extension', 0, 6, 'high'),
      none('shoulder.horizontalAbduction', 6, 'high'),
      none('shoulder.abduction', 6),
      noEnd('shoulder.internalRotation', 6, 'medium', 'active'),
      ...each(SHOULDER, (motion) => noForce(motion, 12)),
      noForce('elbow.flexion', 12),
      ...noLeaning(12),
    ],
    alsoOut:
      'hands behind the head, wall arms, stick overhead, lifts face down with the arms out, dips, press-up, overhead squat, chest stretch, tests of slipping and drawer',
    tellSigns: 'slipped again or feels it will; numb outer arm; after a bone block weak elbow bend or numb outer forearm; new click',
    tellWhen: [below('shoulder.externalRotation', 0, 6), below('shoulder.externalRotation', 30, 12)],
    note: 'Turning out 30° from the start in some centres. With a bone block the biceps tendon carries: no force at the elbow.',
    source,
  },
  ...replacements(),
  {
    id: 'proximal-humerus-fracture',
    name: 'Upper arm fracture at the shoulder',
    region: 'shoulder',
    limits: [
      ...each(SHOULDER, (motion) => none(motion, 2)),
      to('shoulder.flexion', 90, 6, 'medium', 'passive'),
      to('shoulder.externalRotation', 20, 6, 'medium', 'passive'),
      ...restOfShoulder(['shoulder.flexion', 'shoulder.externalRotation'], 6),
      ...each(SHOULDER, (motion) => noLift(motion, 6)),
      ...each(SHOULDER, (motion) => noForce(motion, 12)),
      outAndTurned(8),
      behindBack(8),
      ...noLeaning(12),
    ],
    alsoOut:
      'hands behind the back or head, leaning, pushing up from a chair, wall arms, all fours, lying on it, seated trunk turn with the arms',
    tellSigns: 'numb outer shoulder, no deltoid; deformity; grinding; cold hand',
    tellWhen: [below('shoulder.flexion', 90, 12)],
    note: 'It must move as one piece first. Pendulum swinging in week 1 in some centres.',
    source,
  },
  {
    id: 'clavicle-fracture',
    name: 'Clavicle fracture',
    region: 'shoulder',
    limits: [
      ...each(['shoulder.flexion', 'shoulder.abduction'], (motion) => to(motion, 90, 6)),
      noEnd('shoulder.horizontalAdduction', 6),
      behindBack(6),
      ...each(SHOULDER, (motion) => noForce(motion, 8)),
      ...noLeaning(12),
    ],
    alsoOut:
      'arms overhead, cross-body pull, hands behind the head, press-up, leaning, lying on it, load of a backpack, sideways pull of the neck',
    tellSigns: 'skin stretched or white over the bone; movement or click at the break after week 12; numb or heavy arm',
    tellWhen: [],
    note: 'The bone turns above 90°. After a plate many are free.',
    source,
  },
  {
    id: 'distal-biceps-repair',
    name: 'Distal biceps repair',
    region: 'elbow',
    limits: [
      to('elbow.extension', -40, 2, 'low'),
      to('elbow.extension', -20, 4, 'low'),
      noEnd('elbow.extension', 6, 'low', 'passive'),
      none('elbow.flexion', 2, 'high', 'active'),
      none('forearm.supination', 2, 'high', 'active'),
      ...each(['elbow.flexion', 'forearm.supination'], (motion) => noForce(motion, 12, 'high')),
      notWith('elbow.extension', ['forearm.pronation'], 8, 'medium', { mode: 'passive' }),
      ...noLeaning(12),
    ],
    alsoOut:
      'elbow locked straight, shoulder extension with a straight elbow, nerve tension of the arm, grip palm up, pull, hang, carry, leaning on the palm',
    tellSigns: 'pop, changed shape of the muscle; weak lift of thumb or fingers; numb outer forearm that grows; rotation lost fast',
    tellWhen: [lacking('elbow.extension', 30, 8)],
    note: 'Centres differ widely; some leave straightening free at once.',
    source,
  },
  {
    id: 'elbow-fixation',
    name: 'Elbow fracture, fixed',
    region: 'elbow',
    limits: [
      ...each(ELBOW, (motion) => noEnd(motion, 8, 'high', 'passive')),
      ...each(ELBOW, (motion) => none(motion, 2, 'medium', 'active')),
      to('elbow.flexion', 100, 4),
      ...each(ELBOW, (motion) => noForce(motion, 8)),
      ...each(FOREARM, (motion) => notWith('elbow.extension', [motion], 6, 'low', { limit: -30 })),
      ...each(LONG_LEVERS, (motion) => none(motion, 8)),
      ...noLeaning(12),
    ],
    alsoOut:
      'leaning on the palm, pushing up from a chair, plank, arm held out sideways, maximum grip, shoulder tests with weight in the hand',
    tellSigns: 'fast loss with warmth; tingling of ring and little finger; clunk; locking',
    tellWhen: [below('elbow.flexion', 110, 8), lacking('elbow.extension', 30, 8)],
    note: 'Which limits hold depends on what was fixed: tip of the elbow, outer or inner ligament. Reverse rules exist: ask.',
    source,
  },
  {
    id: 'distal-radius-plate',
    name: 'Distal radius fracture, plated',
    region: 'wrist',
    limits: [
      ...each([...WRIST, ...FOREARM], (motion) => noEnd(motion, 6, 'high', 'passive')),
      ...each([...WRIST, ...FOREARM], (motion) => none(motion, 2, 'high', 'active')),
      ...each([...WRIST, ...FOREARM], (motion) => noForce(motion, 8)),
      ...noLeaning(10),
    ],
    alsoOut:
      'leaning on the palm, prayer stretch with push, press-up, all fours, force of grip and pinch, turning a jar lid, pushing up from a chair',
    tellSigns:
      'no full fist or straightening of the fingers at week 2; thumb tip suddenly not lifting or bending, even years later; growing tingling; burning, change of colour',
    tellWhen: [below('forearm.supination', 45, 8)],
    note: 'Fingers free from the first day. Where the joint beside was pinned, no turning of the forearm for 4 weeks.',
    source,
  },
  {
    id: 'scaphoid-fixation',
    name: 'Scaphoid fracture, fixed',
    region: 'wrist',
    limits: [
      ...each(WRIST, (motion) => noEnd(motion, 8, 'medium', 'passive')),
      ...each(WRIST, (motion) => none(motion, 2, 'medium', 'active')),
      ...each(WRIST, (motion) => noForce(motion, 12, 'high')),
      notWith('wrist.extension', ['wrist.radialDeviation'], 8),
      ...noLeaning(12),
    ],
    alsoOut: 'leaning on the palm, prayer stretch, force of grip and pinch, press-up, thumb press',
    tellSigns: 'pain in the hollow beside the thumb after week 12 or coming back; loss of motion after gain; click',
    tellWhen: [],
    note: 'Until a scan shows union. A cast for 2 to 6 weeks in some.',
    source,
  },
  {
    id: 'flexor-tendon-repair',
    name: 'Flexor tendon repair, hand',
    region: 'fingerPip',
    limits: [
      ...each(FINGERS_STRAIGHTEN, (motion) => notWith('wrist.extension', [motion], 8, 'high')),
      ...each(FINGERS_BEND, (motion) => none(motion, 4, 'high', 'active')),
      ...each(FINGERS_STRAIGHTEN, (motion) => none(motion, 6, 'high', 'passive')),
      to('wrist.extension', 0, 4, 'low'),
      none('distance.pulpToCrease', 4, 'high'),
      ...each([...FINGERS_BEND, 'wrist.flexion', 'wrist.extension'], (motion) => noForce(motion, 12, 'high')),
      ...noLeaning(12),
    ],
    alsoOut:
      'prayer stretch, leaning on the palm, nerve tension of the arm, fist, grip, pinch, finger to palm distance (only by the hand therapist)',
    tellSigns:
      'sudden loss of active bending (same day, even without pain); passive bending full but active none; middle joint fixed bent 30 or more at week 6; wound',
    tellWhen: [],
    note: 'Early gentle active bending only in the hand therapist’s protocol. Straightening inside the splint, with the neighbouring joint bent.',
    source,
  },
  {
    id: 'extensor-tendon-repair',
    name: 'Extensor tendon repair, hand',
    region: 'fingerPip',
    limits: [
      ...each(FINGERS_BEND, (motion) => notWith('wrist.flexion', [motion], 8, 'high')),
      none('distance.pulpToCrease', 4),
      none('fingerMcp.flexion', 4),
      none('fingerDip.flexion', 8, 'high'),
      to('fingerPip.flexion', 30, 2),
      to('fingerPip.flexion', 40, 3),
      to('fingerPip.flexion', 50, 4),
      noEnd('fingerPip.flexion', 6),
      ...each([...FINGERS_STRAIGHTEN, 'wrist.flexion', 'wrist.extension'], (motion) => noForce(motion, 10)),
      ...noLeaning(10),
    ],
    alsoOut: 'full fist, finger to palm distance, reverse prayer, wrist bend with a fist, grip',
    tellSigns:
      'new droop, sudden loss of active straightening; splint slipped (the count restarts: ask); no fist at week 10 to 12; middle joint bent with the tip stretched',
    tellWhen: [],
    note: 'Which limits hold depends on the zone: ask the hand therapist. At the fingertip not once, also not for a look.',
    source,
  },
];

function replacements(): Procedure[] {
  const both = (turnOut: number): UsualLimit[] => [
    ...passiveLift(3),
    none('shoulder.flexion', 6, 'medium', 'active'),
    none('shoulder.abduction', 6),
    none('shoulder.horizontalAbduction', 6),
    to('shoulder.externalRotation', turnOut, 6, 'high'),
    ...each(SHOULDER, (motion) => noForce(motion, 12, 'high')),
    behindBack(12, 'high'),
    ...noLeaning(12),
  ];
  return [
    {
      id: 'shoulder-replacement-anatomic',
      name: 'Shoulder replacement, anatomic',
      isReplacement: true,
      region: 'shoulder',
      limits: [
        ...both(30),
        outAndTurned(12),
        none('shoulder.internalRotation', 6, 'high', 'active'),
        noEnd('shoulder.internalRotation', 6, 'medium', 'passive'),
        to('shoulder.extension', 0, 6, 'high'),
      ],
      alsoOut: 'belly press, lift-off, bear hug, hands behind the back, wall arms, pushing up from a chair, leaning on the palm, all fours',
      tellSigns: 'suddenly more outward rotation with a weak inward push; new weakness of lifting; instability',
      tellWhen: [below('shoulder.flexion', 90, 8)],
      note: 'The front tendon was repaired: nothing that pulls it off. Turning out to the surgeon’s figure.',
      source,
    },
    {
      id: 'shoulder-replacement-reverse',
      name: 'Shoulder replacement, reverse',
      isReplacement: true,
      region: 'shoulder',
      limits: [...both(20), noEnd('shoulder.internalRotation', 12, 'high'), to('shoulder.extension', 0, 12, 'high')],
      alsoOut:
        'hands behind the back, reaching the back pocket, tucking in, pushing up from a chair, leaning, extension face down, all fours, lifting the arm out of the sling',
      tellSigns: 'clunk or changed shape; suddenly cannot lift; new pain at the top or back of the blade at any time; numb hand',
      tellWhen: [],
      note: 'It slips out with the arm behind the body. Many set a limit of weight for life.',
      source,
    },
  ];
}
