import { addWeeks } from '../days.js';
import type { Confidence, IsoDate, Mode, MotionId, Region, Side, Source } from '../terms.js';
import type { Precaution } from './precaution.js';

/** One usual limit after a procedure. */
export interface UsualLimit {
  readonly motion: MotionId;
  readonly mode?: Mode;
  /** null: not to be measured. */
  readonly limit: number | null;
  /** It holds before this many weeks after the procedure. */
  readonly untilWeek: number;
}

/** A procedure with the limits that are usual after it. Every one is a proposal: the surgeon's limits win. */
export interface Procedure {
  readonly id: string;
  readonly name: string;
  readonly region: Region;
  readonly limits: readonly UsualLimit[];
  /** What the limits do not say. */
  readonly note: string;
  readonly confidence: Confidence;
  readonly source: Source;
}

/** Said wherever a ready set of limits is shown. */
export const SURGEON_WINS =
  'Usual limits, as a proposal. The surgeon’s limits for this patient win; change, add or remove them to match the letter, and ask when there is none.';

const memory = (cite: string): Source => ({ cite, fromMemory: true });
const not = (motion: MotionId, untilWeek: number, mode?: Mode): UsualLimit => ({ motion, mode, limit: null, untilWeek });
const to = (motion: MotionId, limit: number, untilWeek: number, mode?: Mode): UsualLimit => ({ motion, mode, limit, untilWeek });
const NECK: readonly MotionId[] = ['cervical.flexion', 'cervical.extension', 'cervical.rotation', 'cervical.lateralFlexion'];
const BACK: readonly MotionId[] = [
  'lumbar.flexion',
  'lumbar.extension',
  'lumbar.lateralFlexion',
  'thoracolumbar.rotation',
  'thoracolumbar.lateralFlexion',
];

/** Ready precautions by procedure. Digits are from memory; protocols differ between surgeons. */
export const PROCEDURES: readonly Procedure[] = [
  {
    id: 'knee-replacement',
    name: 'Knee replacement',
    region: 'knee',
    limits: [],
    note: 'No usual limit of bending or straightening. No forced kneeling before the wound has healed. Look for a clot before anything else.',
    confidence: 'medium',
    source: memory('general practice after knee replacement; Stratford 2010 for the course'),
  },
  {
    id: 'hip-replacement-posterior',
    name: 'Hip replacement, posterior approach',
    region: 'hip',
    limits: [to('hip.flexion', 90, 12), to('hip.adduction', 0, 12), to('hip.internalRotation', 0, 12)],
    note: 'Measure lying. Never combine bending, crossing the midline and turning in. Many surgeons set no limits now: ask.',
    confidence: 'medium',
    source: memory('traditional precautions after the posterior approach'),
  },
  {
    id: 'hip-replacement-anterior',
    name: 'Hip replacement, anterior approach',
    region: 'hip',
    limits: [to('hip.extension', 0, 6), not('hip.externalRotation', 6, 'passive')],
    note: 'No straightening past zero with the leg turned out; no extremes of turning out.',
    confidence: 'medium',
    source: memory('traditional precautions after the direct anterior approach'),
  },
  {
    id: 'hip-replacement-lateral',
    name: 'Hip replacement, lateral approach',
    region: 'hip',
    limits: [
      to('hip.extension', 0, 12),
      not('hip.externalRotation', 12, 'passive'),
      to('hip.adduction', 0, 12),
      not('strength.hipAbduction', 12),
    ],
    note: 'No resisted abduction where the abductors were repaired.',
    confidence: 'medium',
    source: memory('traditional precautions after the direct lateral and anterolateral approach'),
  },
  {
    id: 'cruciate-reconstruction',
    name: 'Anterior cruciate reconstruction',
    region: 'knee',
    limits: [not('strength.kneeExtension', 12), not('strength.kneeFlexion', 8)],
    note: 'No usual limit of range: straightening like the other side comes first. After a hamstring graft no resisted bending for 6 to 8 weeks.',
    confidence: 'medium',
    source: memory('van Melick N et al. Br J Sports Med 2016;50:1506-1515; Wright RW et al. Sports Health 2015;7:239-243'),
  },
  {
    id: 'meniscus-repair',
    name: 'Meniscus repair, vertical',
    region: 'knee',
    limits: [to('knee.flexion', 90, 6)],
    note: 'No loaded bending past 90° for about four months.',
    confidence: 'medium',
    source: memory('Cavanaugh & Killian 2012; Spang 2018'),
  },
  {
    id: 'meniscus-root-repair',
    name: 'Meniscus repair, radial or root',
    region: 'knee',
    limits: [to('knee.flexion', 90, 6)],
    note: 'Not weight-bearing for about six weeks; slow afterwards.',
    confidence: 'medium',
    source: memory('Cavanaugh & Killian 2012; Spang 2018'),
  },
  {
    id: 'knee-tendon-repair',
    name: 'Quadriceps or patellar tendon repair',
    region: 'knee',
    limits: [
      to('knee.flexion', 30, 2),
      to('knee.flexion', 60, 4),
      to('knee.flexion', 90, 6),
      not('knee.extension', 6, 'active'),
      not('strength.kneeExtension', 12),
    ],
    note: 'Full bending by 10 to 12 weeks.',
    confidence: 'low-medium',
    source: memory('general practice after extensor tendon repair'),
  },
  {
    id: 'rotator-cuff-repair',
    name: 'Rotator cuff repair',
    region: 'shoulder',
    limits: [
      not('shoulder.flexion', 6, 'active'),
      not('shoulder.abduction', 6, 'active'),
      not('shoulder.externalRotation', 6, 'active'),
      not('shoulder.internalRotation', 12),
      to('shoulder.flexion', 90, 2, 'passive'),
      to('shoulder.flexion', 120, 6, 'passive'),
      to('shoulder.externalRotation', 20, 2, 'passive'),
      to('shoulder.externalRotation', 30, 6, 'passive'),
      not('distance.handsBehindBack', 12),
      not('strength.shoulderFlexion', 12),
      not('strength.shoulderAbduction', 12),
      not('strength.shoulderExternalRotation', 12),
    ],
    note: 'Two weeks of strict rest. Large tears: no active movement before eight weeks. After subscapularis repair external rotation stays below 30°.',
    confidence: 'medium',
    source: memory('Thigpen CA et al. J Shoulder Elbow Surg 2016;25:521-535'),
  },
  {
    id: 'anterior-shoulder-stabilisation',
    name: 'Anterior shoulder stabilisation',
    region: 'shoulder',
    limits: [to('shoulder.externalRotation', 30, 6), not('shoulder.horizontalAbduction', 8)],
    note: 'No turning out at 90° of abduction before about six to eight weeks.',
    confidence: 'low-medium',
    source: memory('general practice after anterior capsule repair'),
  },
  {
    id: 'achilles-repair',
    name: 'Achilles repair',
    region: 'ankle',
    limits: [
      not('ankle.dorsiflexion', 12, 'passive'),
      to('ankle.dorsiflexion', 0, 6, 'active'),
      to('ankle.dorsiflexion', 5, 8, 'active'),
      not('distance.kneeToWall', 12),
    ],
    note: 'In the boot for the first two weeks: nothing is measured. Later look for an ankle that bends up further than the other: the tendon may have lengthened.',
    confidence: 'medium',
    source: memory('general practice after Achilles repair; Carmont MR 2013'),
  },
  {
    id: 'ankle-fixation',
    name: 'Ankle fracture, fixed',
    region: 'ankle',
    limits: [not('distance.kneeToWall', 6)],
    note: 'First two weeks: splint, nothing beyond what the surgeon allows.',
    confidence: 'medium',
    source: memory('general practice after ankle fixation'),
  },
  {
    id: 'syndesmosis-fixation',
    name: 'Ankle fracture with syndesmosis fixation',
    region: 'ankle',
    limits: [not('ankle.dorsiflexion', 8, 'passive'), not('distance.kneeToWall', 12)],
    note: 'No forced bending up and no turning out of the foot before six to twelve weeks.',
    confidence: 'medium',
    source: memory('general practice after syndesmosis fixation'),
  },
  {
    id: 'distal-radius-plate',
    name: 'Distal radius fracture, plated',
    region: 'wrist',
    limits: [not('strength.wristExtension', 6), not('strength.wristFlexion', 6)],
    note: 'Active movement from the first or second week.',
    confidence: 'low-medium',
    source: memory('general practice after volar plating'),
  },
  {
    id: 'flexor-tendon-repair',
    name: 'Flexor tendon repair, hand',
    region: 'fingerPip',
    limits: [
      not('fingerMcp.extension', 6, 'passive'),
      not('fingerPip.extension', 6, 'passive'),
      not('fingerDip.extension', 6, 'passive'),
      not('wrist.extension', 6, 'passive'),
    ],
    note: 'Dorsal block: no passive straightening beyond it for four to six weeks. Limits of the wrist are the surgeon’s.',
    confidence: 'low-medium',
    source: memory('general practice after flexor tendon repair'),
  },
  {
    id: 'lumbar-fusion',
    name: 'Spinal fusion, lumbar',
    region: 'lumbar',
    limits: BACK.map((motion) => not(motion, 12)),
    note: 'No range of the spine is tested until the surgeon clears it, often at twelve weeks.',
    confidence: 'low-medium',
    source: memory('general practice after spinal fusion'),
  },
  {
    id: 'cervical-fusion',
    name: 'Spinal fusion, neck',
    region: 'cervical',
    limits: NECK.map((motion) => not(motion, 12)),
    note: 'No range of the neck is tested until the surgeon clears it, often at twelve weeks.',
    confidence: 'low-medium',
    source: memory('general practice after spinal fusion'),
  },
];

/** The procedure of an id, or undefined. */
export function findProcedure(id: string): Procedure | undefined {
  return PROCEDURES.find((procedure) => procedure.id === id);
}

/**
 * The usual limits after a procedure as precautions of an episode, dated from
 * the day of the procedure. Those that have run out by `on` are left away.
 *
 * @example usualPrecautions(findProcedure('meniscus-repair')!, 'left', '2026-11-02', '2026-11-23')
 *   // [{ motion: 'knee.flexion', side: 'left', limit: 90, until: '2026-12-14', … }]
 */
export function usualPrecautions({ name, limits }: Procedure, side: Side | undefined, operatedOn: IsoDate, on: IsoDate): Precaution[] {
  return limits
    .map(({ motion, mode, limit, untilWeek }): Precaution => ({
      motion,
      ...(side && side !== 'midline' ? { side } : {}),
      ...(mode ? { mode } : {}),
      limit,
      until: addWeeks(operatedOn, untilWeek),
      source: `usual after ${name.charAt(0).toLowerCase()}${name.slice(1)}, to week ${untilWeek}`,
    }))
    .filter(({ until }) => until !== null && on < until);
}
