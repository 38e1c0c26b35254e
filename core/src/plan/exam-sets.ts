import type { SheetItem } from './items.js';

/** A ready choice of what to measure for a complaint. */
export interface ExamSet {
  readonly id: string;
  readonly name: string;
  readonly items: readonly SheetItem[];
}

const set = (id: string, name: string, ...protocols: readonly string[]): ExamSet => ({
  id,
  name,
  items: protocols.map((protocol) => ({ protocol })),
});
const finger = (digit: 2 | 3 | 4 | 5): SheetItem[] =>
  ['fingerMcp.flexion', 'fingerPip.flexion', 'fingerPip.extension', 'fingerDip.flexion'].map((motion) => ({
    protocol: `${motion}/sitting`,
    digit,
  }));

/** Ready exam sets. @see common practice, no source */
export const EXAM_SETS: readonly ExamSet[] = [
  set(
    'hip',
    'Hip',
    'hip.flexion/supine',
    'hip.abduction/supine',
    'hip.adduction/supine',
    'hip.extension/prone',
    'hip.internalRotation/prone',
    'hip.externalRotation/prone',
  ),
  set(
    'knee',
    'Knee',
    'knee.extension/supine',
    'knee.flexion/supine',
    'muscleLength.straightLegRaise/supine',
    'girth.knee/supine',
    'girth.thigh/supine',
    'muscleLength.proneKneeBend/prone',
  ),
  set(
    'hip-knee',
    'Hip and knee',
    'hip.flexion/supine',
    'hip.abduction/supine',
    'knee.flexion/supine',
    'knee.extension/supine',
    'hip.internalRotation/prone',
    'hip.externalRotation/prone',
  ),
  set(
    'knee-replacement',
    'Knee after replacement',
    'knee.extension/supine',
    'knee.flexion/supine',
    'girth.knee/supine',
    'strength.kneeExtension/sitting',
  ),
  set(
    'shoulder',
    'Shoulder',
    'distance.handsBehindBack/standing',
    'shoulder.flexion/supine',
    'shoulder.internalRotation/supine',
    'shoulder.externalRotation/supine',
    'shoulder.externalRotation/supine-at-side',
    'shoulder.abduction/supine',
    'shoulder.extension/prone',
  ),
  set(
    'ankle',
    'Ankle and foot',
    'distance.kneeToWall/standing',
    'balance.singleLegStanceEyesOpen/standing',
    'ankle.dorsiflexion/sitting',
    'ankle.plantarflexion/sitting',
    'subtalar.inversion/sitting',
    'subtalar.eversion/sitting',
    'girth.ankleFigureOfEight/supine',
    'greatToeMtp.extension/supine',
  ),
  set(
    'neck',
    'Neck',
    'cervical.flexion/sitting',
    'cervical.lateralFlexion/sitting',
    'cervical.extension/sitting',
    'cervical.rotation/supine',
  ),
  set(
    'low-back',
    'Low back',
    'lumbar.flexion/standing',
    'lumbar.extension/standing',
    'lumbar.lateralFlexion/standing',
    'distance.fingerToFloor/standing',
    'muscleLength.straightLegRaise/supine',
    'muscleLength.hipExtensionDrop/supine',
  ),
  {
    id: 'wrist-hand',
    name: 'Wrist and hand',
    items: [
      ...[
        'forearm.pronation',
        'forearm.supination',
        'wrist.flexion',
        'wrist.extension',
        'wrist.radialDeviation',
        'wrist.ulnarDeviation',
      ].map((motion) => ({ protocol: `${motion}/sitting` })),
      ...['thumbMcp.flexion', 'thumbIp.flexion', 'thumbCmc.abduction'].map((motion) => ({ protocol: `${motion}/sitting` })),
      ...finger(2),
    ],
  },
  set(
    'quick',
    'Whole body, quick',
    'distance.fingerToFloor/standing',
    'distance.kneeToWall/standing',
    'distance.handsBehindBack/standing',
    'cervical.rotation/sitting',
    'thoracolumbar.rotation/sitting',
    'shoulder.flexion/supine',
    'hip.flexion/supine',
    'muscleLength.straightLegRaise/supine',
    'hip.internalRotation/prone',
    'muscleLength.proneKneeBend/prone',
  ),
];

/** The set of an id, or undefined. */
export function findExamSet(id: string): ExamSet | undefined {
  return EXAM_SETS.find((found) => found.id === id);
}

/** What a visit measures where nothing else was chosen. */
export const DEFAULT_EXAM_SET: ExamSet = EXAM_SETS[0]!;
