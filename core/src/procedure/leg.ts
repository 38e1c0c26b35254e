import {
  ANKLE,
  below,
  each,
  FOR_GOOD,
  HEEL_TO_BUTTOCK,
  HIP_TURNS,
  KNEE_OVER_TOES,
  lacking,
  noEnd,
  noForce,
  noLift,
  none,
  notAlone,
  notWith,
  noWeight,
  noWeightFrom,
  to,
} from './limits.js';
import type { Procedure, UsualLimit } from './types.js';

const source = { cite: 'common protocols after this procedure', fromMemory: true } as const;

const HIP_SIGNS =
  'clunk, or sudden pain with a short or turned leg (emergency); cannot load; new groin or thigh pain on loading; new feeling of unequal legs; foot drop';
/** The leg may stand, in a brace that keeps the knee straight. */
const BRACED: readonly UsualLimit[] = [noWeightFrom('knee.flexion', 20, 6)];
const NO_KNEELING = (weeks: number): UsualLimit => noWeightFrom('knee.flexion', 90, weeks);
const FRONT_OF_HIP: readonly UsualLimit[] = [notWith('hip.extension', ['hip.externalRotation'], 12, 'high'), none('hip.extension', 6)];
const ANKLE_FIXED: readonly UsualLimit[] = [
  ...each(['ankle.dorsiflexion', 'ankle.plantarflexion'], (motion) => noEnd(motion, 6, 'high', 'passive')),
  ...each(['ankle.dorsiflexion', 'ankle.plantarflexion'], (motion) => none(motion, 2, 'high', 'active')),
  ...each(['subtalar.inversion', 'subtalar.eversion'], (motion) => noEnd(motion, 6, 'high')),
  ...each(ANKLE, (motion) => noForce(motion, 8)),
  ...each(KNEE_OVER_TOES, (motion) => none(motion, 8)),
  noWeight('ankle.dorsiflexion', 6, 'high'),
  notAlone('ankle.dorsiflexion', 8),
];
const ANKLE_SIGNS = 'new inner or front-outer pain; giving way; numb sole or top of the foot; skin over metal';

/** Procedures of the hip, leg and foot. Digits are from memory; protocols differ between surgeons. */
export const LEG_PROCEDURES: readonly Procedure[] = [
  {
    id: 'knee-replacement',
    name: 'Knee replacement',
    region: 'knee',
    limits: [
      noEnd('knee.flexion', 6, 'high'),
      to('knee.extension', 0, 12),
      noForce('knee.extension', 6),
      none('strength.kneeExtension', 12),
      NO_KNEELING(12),
    ],
    alsoOut:
      'heel to buttock, deep squat, sitting back on the heels, kneeling lunge, edge-of-table drop with push, hop, step down, full-effort force test',
    tellSigns: 'sudden loss of active straightening, new lag; giving way; new start-up pain after good years; ooze past day 7',
    tellWhen: [below('knee.flexion', 90, 6), lacking('knee.extension', 10, 6)],
    note: 'To tolerance, no push; no fixed limit of bending as a rule. Look for a clot before anything else. Where the extensor was repaired, take the limits of a tendon repair.',
    source: { cite: 'general practice after knee replacement; Stratford 2010 for the course', fromMemory: true },
  },
  {
    id: 'hip-replacement-posterior',
    name: 'Hip replacement, posterior approach',
    region: 'hip',
    limits: [
      to('hip.flexion', 90, 12, 'high'),
      to('hip.adduction', 0, 12, 'high'),
      to('hip.internalRotation', 0, 12, 'high'),
      noForce('hip.flexion', 6, 'high'),
      ...each(['hip.adduction', 'hip.internalRotation'], (motion) => noForce(motion, 12, 'high')),
      noEnd('hip.externalRotation', 6, 'medium', 'active'),
      noForce('hip.externalRotation', 6),
      notWith('hip.flexion', ['hip.adduction', 'hip.internalRotation'], FOR_GOOD, 'high'),
    ],
    alsoOut:
      'hugging this knee for the edge-of-table test of the other side, knee to chest, finger to floor, toe touch, deep squat, low chair, inward rotation seated or prone, side-lying drop, crossed legs, high step',
    tellSigns: HIP_SIGNS,
    tellWhen: [],
    note: 'Measure lying. Never combine bending, crossing the midline and turning in. Centres differ: 6 weeks, 12, or no rule: ask.',
    source,
  },
  {
    id: 'hip-replacement-anterior',
    name: 'Hip replacement, anterior approach',
    region: 'hip',
    limits: [
      ...FRONT_OF_HIP,
      to('hip.externalRotation', 20, 6),
      ...each(['hip.extension', 'hip.externalRotation'], (motion) => noForce(motion, 6)),
      none('muscleLength.straightLegRaise', 6, 'low', 'active'),
      ...each(HEEL_TO_BUTTOCK, (motion) => none(motion, 6)),
    ],
    alsoOut:
      'edge-of-table drop of this leg, hip extension and rotation face down, heel to buttock, lunge with this leg behind, full bridge, leaning back, ankle on the other knee, heel to mid-shin',
    tellSigns: `${HIP_SIGNS}; numb front of the thigh that grows, weak straightening of the knee`,
    tellWhen: [],
    note: 'No straightening past zero with the leg turned out. Some allow 10 to 20° of extension, or forbid only the extreme.',
    source,
  },
  {
    id: 'hip-replacement-lateral',
    name: 'Hip replacement, lateral approach',
    region: 'hip',
    limits: [
      ...FRONT_OF_HIP,
      noLift('hip.abduction', 6, 'high'),
      noForce('hip.abduction', 12, 'high'),
      to('hip.adduction', 0, 6, 'high'),
      to('hip.flexion', 90, 6),
      notAlone('hip.abduction', 6),
    ],
    alsoOut:
      'side-lying lift, standing on this leg alone, step down, cross-over step, side plank, seated ankle on knee, side-lying drop; leaning back, hip extension face down, lunge with this leg behind',
    tellSigns: `${HIP_SIGNS}; a new pelvic drop, or one that lasts past month 3 to 6; pain over the side that starts suddenly`,
    tellWhen: [],
    note: 'The abductors were detached and repaired: some protect only a weak repair.',
    source,
  },
  {
    id: 'cruciate-reconstruction',
    name: 'Anterior cruciate reconstruction',
    region: 'knee',
    limits: [
      to('knee.extension', 0, 6, 'medium', 'passive'),
      noEnd('knee.flexion', 6, 'medium', 'passive'),
      noForce('knee.extension', 4),
      none('strength.kneeExtension', 12),
      noForce('knee.flexion', 6),
      none('strength.kneeFlexion', 12),
      noWeightFrom('knee.flexion', 90, 12),
    ],
    alsoOut:
      'hop, landing, cutting and twisting, heel to buttock with push, resisted straightening to 0, hamstring bridge or kneeling lowering after a hamstring graft, deep loaded squat',
    tellSigns: 'loss of straightening after having it; locking; giving way; lag past week 4; hot swollen knee',
    tellWhen: [lacking('knee.extension', 5, 4), below('knee.flexion', 90, 4), below('knee.flexion', 110, 8)],
    note: 'Straightening like the other side comes first. Against resistance only between 90 and 45° up to week 12. Bending is soft to about 120°: what is freely reached is fine. Lower limits where a meniscus or another ligament was repaired.',
    source: {
      cite: 'van Melick N et al. Br J Sports Med 2016;50:1506-1515; Wright RW et al. Sports Health 2015;7:239-243',
      fromMemory: true,
    },
  },
  {
    id: 'posterior-cruciate-reconstruction',
    name: 'Posterior cruciate reconstruction',
    region: 'knee',
    limits: [
      to('knee.extension', 0, 12, 'medium', 'passive'),
      to('knee.flexion', 90, 6, 'high', 'passive'),
      noLift('knee.flexion', 8, 'high'),
      noForce('knee.flexion', 16, 'high'),
      noWeight('knee.flexion', 6, 'high'),
      noWeightFrom('knee.flexion', 70, 16, 'high'),
      ...each(HEEL_TO_BUTTOCK, (motion) => none(motion, 12)),
    ],
    alsoOut:
      'heel to buttock, bridge, hamstring curl, bending the knee standing, hamstring length with heel push, face up with knees bent and unsupported, kneeling, drawer tests',
    tellSigns: 'the shin sags back visibly; numb foot',
    tellWhen: [below('knee.flexion', 90, 8), lacking('knee.extension', 10, 6)],
    note: 'The shin is held forward while the knee is bent. 60° in the first two weeks in some centres.',
    source,
  },
  ...meniscus(),
  {
    id: 'knee-tendon-repair',
    name: 'Quadriceps or patellar tendon repair',
    region: 'knee',
    limits: [
      to('knee.flexion', 30, 2),
      to('knee.flexion', 60, 4),
      to('knee.flexion', 90, 6),
      noEnd('knee.flexion', 12),
      ...each(HEEL_TO_BUTTOCK, (motion) => none(motion, 12)),
      none('knee.extension', 6, 'high', 'active'),
      noForce('knee.extension', 12, 'high'),
      none('strength.kneeExtension', 24, 'high'),
      none('muscleLength.straightLegRaise', 12, 'high'),
      ...BRACED,
      noWeightFrom('knee.flexion', 45, 12, 'high'),
    ],
    alsoOut: 'heel to buttock, edge-of-table drop, straight-leg raise of any kind, squat, stairs, rising without arms, hop, kneel',
    tellSigns: 'sudden loss of active straightening; a growing lag, or one of 10 or more after week 10; a gap; a kneecap higher or lower',
    tellWhen: [below('knee.flexion', 60, 6), below('knee.flexion', 90, 10)],
    note: 'Full bending by 10 to 12 weeks. Centres differ by 15 to 30°.',
    source,
  },
  {
    id: 'patellar-stabilisation',
    name: 'Kneecap stabilisation',
    region: 'knee',
    limits: [
      to('knee.flexion', 90, 6),
      none('knee.extension', 6, 'medium', 'active'),
      noForce('knee.extension', 12),
      ...BRACED,
      ...each(HEEL_TO_BUTTOCK, (motion) => none(motion, 6)),
    ],
    alsoOut: 'gliding the kneecap outwards, heel to buttock, squat on one leg or with the knees or toes turned, step down, twisting',
    tellSigns: 'kneecap slipped again; lag of 10 or more at week 8; shin pain on loading where the tubercle was moved',
    tellWhen: [below('knee.flexion', 90, 6), lacking('knee.extension', 10, 6)],
    note: 'Where the tubercle was not moved, active straightening is often free: ask. Many set no limit of bending.',
    source,
  },
  {
    id: 'tibial-plateau-fixation',
    name: 'Tibial plateau fracture, fixed',
    region: 'knee',
    limits: [
      to('knee.flexion', 90, 6),
      none('knee.extension', 6, 'medium', 'active'),
      noForce('knee.extension', 8),
      noForce('knee.flexion', 6),
      noWeight('knee.flexion', 8, 'high'),
      noWeightFrom('knee.flexion', 70, 16),
    ],
    alsoOut: 'squat, stairs, kneeling, knee to wall, sitting on the heels, side-opening test, leg press, heel to buttock with push',
    tellSigns: 'new bow or knock of the leg; early tight unbearable leg; numb foot',
    tellWhen: [below('knee.flexion', 90, 6), lacking('knee.extension', 10, 8)],
    note: 'Earlier loading after a simple split. Many leave bending free from week 2.',
    source,
  },
  {
    id: 'hip-fracture-fixation',
    name: 'Hip fracture, fixed',
    region: 'hip',
    limits: [
      notAlone('hip.flexion', 12, 'high'),
      noWeightFrom('hip.flexion', 60, 12),
      ...each(HIP_TURNS, (motion) => noEnd(motion, 8, 'medium', 'passive')),
      none('muscleLength.straightLegRaise', 6),
      noLift('hip.abduction', 6),
      ...each(['hip.flexion', 'hip.extension', 'hip.abduction', 'hip.adduction', ...HIP_TURNS], (motion) => noForce(motion, 6)),
    ],
    alsoOut:
      'standing on this leg alone, heel raise, squat, seated rotation with push, ankle on the other knee, straight-leg raise, hop, rising without arms where weight is limited',
    tellSigns: 'cannot load any more, leg shorter or turned out (emergency); new groin pain, also up to two years later; a second fall',
    tellWhen: [],
    note: 'How much weight: ask, never assume. After half a replacement the rows of its approach hold.',
    source,
  },
  {
    id: 'achilles-repair',
    name: 'Achilles repair',
    region: 'ankle',
    limits: [
      none('ankle.dorsiflexion', 2, 'high'),
      to('ankle.dorsiflexion', 0, 6, 'high'),
      to('ankle.dorsiflexion', 0, 12, 'high', 'passive'),
      notWith('ankle.dorsiflexion', ['knee.extension'], 12, 'high'),
      ...each(KNEE_OVER_TOES, (motion) => none(motion, 12, 'high')),
      none('ankle.plantarflexion', 4, 'high', 'active'),
      noForce('ankle.plantarflexion', 12, 'high'),
      noWeight('ankle.dorsiflexion', 8, 'high'),
      notAlone('ankle.dorsiflexion', 16),
    ],
    alsoOut:
      'knee to wall, deep squat heels down, leg raise with the foot pulled up, toe pull sitting, toe touch with straight knees, heel raise, hop, lunge with this leg behind, barefoot standing up to week 8, squeezing the calf',
    tellSigns: 'pop or gap; no active push down; no single heel raise at month 6; wound; calf',
    tellWhen: [{ motion: 'ankle.dorsiflexion', fromWeek: 0, beyondOther: 5 }],
    note: 'In the boot at first: nothing is measured for two weeks. Lengthening stays for good. The same holds without an operation.',
    source: { cite: 'general practice after Achilles repair; Carmont MR 2013', fromMemory: true },
  },
  {
    id: 'ankle-fixation',
    name: 'Ankle fracture, fixed',
    region: 'ankle',
    limits: ANKLE_FIXED,
    alsoOut:
      'knee to wall, squat, standing on this leg alone, heel raise, step down, side lunge, sitting on the heels, turning the foot out',
    tellSigns: ANKLE_SIGNS,
    tellWhen: [below('ankle.dorsiflexion', 0, 8)],
    note: 'First two weeks: splint, nothing beyond what the surgeon allows. Bearing in a boot is usual in some centres.',
    source,
  },
  {
    id: 'syndesmosis-fixation',
    name: 'Ankle fracture with syndesmosis fixation',
    region: 'ankle',
    limits: [
      ...ANKLE_FIXED,
      to('ankle.dorsiflexion', 0, 6, 'medium', 'passive'),
      noWeight('ankle.dorsiflexion', 10),
      ...each(KNEE_OVER_TOES, (motion) => none(motion, 12)),
    ],
    alsoOut: 'as after ankle fixation; deep squat, downhill step, pivot, squeeze and turn-out tests',
    tellSigns: `${ANKLE_SIGNS}; ankle widening, new high ankle pain on push-off; pain when a screw breaks`,
    tellWhen: [below('ankle.dorsiflexion', 0, 8)],
    note: 'No bending up with the foot turned out before week 12.',
    source,
  },
  {
    id: 'great-toe-fusion',
    name: 'Great toe fusion',
    region: 'greatToeMtp',
    limits: [
      ...each(['greatToeMtp.flexion', 'greatToeMtp.extension'], (motion) => none(motion, FOR_GOOD, 'high')),
      noWeight('greatToeMtp.extension', 10, 'high'),
    ],
    alsoOut: 'toe-off, heel raise, tiptoe, lunge with this foot behind, kneeling on bent toes, press-up on the toes, toe strength',
    tellSigns: 'movement or pain felt at the base of the toe after week 10 to 12; toe rubs or points up; pain in the ball of the foot',
    tellWhen: [],
    note: 'Fused: it is not measured and never a loss. Weight on the heel or in a flat stiff shoe until X-ray shows union.',
    source,
  },
];

function meniscus(): Procedure[] {
  const alsoOut =
    'deep squat, sitting on the heels, lunge to the floor, squat with a twist, hamstring curl, knee to wall past 90° of bend, bend-turn-press test';
  const tellSigns = 'locking or catching; new swelling at the joint line; numb inner shin or foot';
  const tellWhen = [lacking('knee.extension', 5, 6), below('knee.flexion', 90, 8)];
  return [
    {
      id: 'meniscus-repair',
      name: 'Meniscus repair, vertical',
      region: 'knee',
      limits: [to('knee.flexion', 90, 6), noForce('knee.flexion', 8), noWeightFrom('knee.flexion', 90, 16, 'high'), ...BRACED],
      alsoOut,
      tellSigns,
      tellWhen,
      note: 'No loaded bending past 90° for about four months. Some limit bending for 4 weeks, or leave the rim free.',
      source: { cite: 'Cavanaugh & Killian 2012; Spang 2018', fromMemory: true },
    },
    {
      id: 'meniscus-root-repair',
      name: 'Meniscus repair, radial or root',
      region: 'knee',
      limits: [
        to('knee.flexion', 90, 6, 'high'),
        noForce('knee.flexion', 12),
        noWeight('knee.flexion', 6, 'high'),
        noWeightFrom('knee.flexion', 70, 16),
        noWeightFrom('knee.flexion', 90, 24),
      ],
      alsoOut: `${alsoOut}; every standing test while weight is restricted, leg press, stairs`,
      tellSigns: `${tellSigns}; pop at the back of the knee; swelling that returns`,
      tellWhen,
      note: 'Not weight-bearing for about six weeks; slow afterwards.',
      source: { cite: 'Cavanaugh & Killian 2012; Spang 2018', fromMemory: true },
    },
  ];
}
