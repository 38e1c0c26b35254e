import { motion } from '../catalogue/index.js';
import { bandAround } from '../error/sem.js';
import type { Confidence, MotionId, Source } from '../terms.js';
import { shortfall } from './compare.js';

/** What one everyday task asks of one motion: a goal, not a cut-off; it changes with height, seat, step and technique. */
export interface TaskNeed {
  readonly task: string;
  readonly motion: MotionId;
  /** At least this much, in the motion's unit. */
  readonly atLeast: number;
  readonly confidence: Confidence;
  readonly source: Source;
}

const from = (cite: string): Source => ({ cite, fromMemory: true });
const LAUBENTHAL = from('Laubenthal KN, Smidt GL, Kettelkamp DB. Phys Ther 1972;52:34-43');
const JOHNSTON = from('Johnston RC, Smidt GL. Clin Orthop 1970;72:205-215');
const PERRY = from('Perry J. Gait Analysis, 1992');
const MULHOLLAND = from('Mulholland SJ, Wyss UP. Int J Rehabil Res 2001;24:191-198; Hemmerich A et al. J Orthop Res 2006;24:770-781');
const LIVINGSTON = from('Livingston LA, Stevenson JM, Olney SJ. Arch Phys Med Rehabil 1991;72:398-402');
const NAMDARI = from('Namdari S et al. J Shoulder Elbow Surg 2012;21:1177-1183; largest of ten tasks');
const SHOULDER_REVIEW = from('Magermans DJ et al. Clin Biomech 2005;20:591-599; reviews');
const MORREY = from('Morrey BF, Askew LJ, Chao EY. J Bone Joint Surg Am 1981;63:872-877; fifteen tasks');
const SARDELLI = from('Sardelli M, Tashjian RZ, MacWilliams BA. J Bone Joint Surg Am 2011;93:471-477');
const RYU = from('Ryu JY et al. J Hand Surg Am 1991;16:409-419; most of 24 tasks');
const HUME = from('Hume MC et al. J Hand Surg Am 1990;15:240-243; mean of the functional arc');
const BENNETT = from('Bennett SE, Schenk RJ, Simmons ED. J Spinal Disord Tech 2002;15:307-311');
const NAWOCZENSKI = from('Nawoczenski DA et al. J Bone Joint Surg Am 1999;81:370-376');
const PRACTICE = from('common practice, no source');

type Row = readonly [motion: MotionId, atLeast: number, confidence: Confidence, source: Source];
const task = (name: string, ...rows: readonly Row[]): TaskNeed[] =>
  rows.map(([motionId, atLeast, confidence, source]) => ({ task: name, motion: motionId, atLeast, confidence, source }));

/** Tasks and the range they ask for, from the least demanding of each part of the body to the most. */
export const TASK_NEEDS: readonly TaskNeed[] = [
  ...task(
    'walking',
    ['hip.flexion', 30, 'high', PERRY],
    ['hip.extension', 10, 'high', PERRY],
    ['knee.flexion', 60, 'high', PERRY],
    ['knee.extension', -5, 'medium-high', PERRY],
    ['ankle.dorsiflexion', 10, 'high', PERRY],
    ['ankle.plantarflexion', 15, 'high', PERRY],
    ['greatToeMtp.extension', 45, 'medium-high', NAWOCZENSKI],
  ),
  ...task(
    'stairs up',
    ['hip.flexion', 67, 'high', JOHNSTON],
    ['knee.flexion', 83, 'high', LAUBENTHAL],
    ['ankle.dorsiflexion', 14, 'medium-high', LIVINGSTON],
  ),
  ...task(
    'stairs down',
    ['hip.flexion', 36, 'high', JOHNSTON],
    ['knee.flexion', 90, 'medium-high', LAUBENTHAL],
    ['ankle.dorsiflexion', 21, 'medium-high', LIVINGSTON],
  ),
  ...task('rising from a chair', ['hip.flexion', 104, 'high', JOHNSTON], ['knee.flexion', 93, 'high', LAUBENTHAL]),
  ...task(
    'tying a shoe, sitting',
    ['hip.flexion', 124, 'high', JOHNSTON],
    ['hip.externalRotation', 15, 'high', JOHNSTON],
    ['knee.flexion', 106, 'high', LAUBENTHAL],
  ),
  ...task('most daily activities of the knee', ['knee.flexion', 110, 'high', from('Rowe PJ et al. Gait Posture 2000;12:143-155')]),
  ...task(
    'picking up from the floor',
    ['hip.flexion', 117, 'high', JOHNSTON],
    ['hip.abduction', 21, 'high', JOHNSTON],
    ['hip.externalRotation', 18, 'high', JOHNSTON],
  ),
  ...task('cycling', ['hip.flexion', 90, 'medium', PRACTICE], ['knee.flexion', 105, 'medium', from('Ericson MO et al. 1988')]),
  ...task(
    'squat',
    ['hip.flexion', 122, 'high', JOHNSTON],
    ['hip.abduction', 28, 'high', JOHNSTON],
    ['hip.externalRotation', 26, 'high', JOHNSTON],
  ),
  ...task(
    'deep squat, heels down',
    ['hip.flexion', 130, 'medium', MULHOLLAND],
    ['knee.flexion', 154, 'medium', MULHOLLAND],
    ['ankle.dorsiflexion', 38, 'medium', MULHOLLAND],
  ),
  ...task('kneeling on the heels', ['knee.flexion', 155, 'medium', MULHOLLAND]),
  ...task(
    'sitting cross-legged',
    ['hip.externalRotation', 35, 'medium', MULHOLLAND],
    ['hip.abduction', 40, 'medium', MULHOLLAND],
    ['knee.flexion', 135, 'medium', MULHOLLAND],
  ),
  ...task(
    'eating and drinking',
    ['shoulder.flexion', 45, 'medium', SHOULDER_REVIEW],
    ['elbow.flexion', 130, 'high', MORREY],
    ['forearm.supination', 50, 'high', MORREY],
  ),
  ...task(
    'combing the hair',
    ['shoulder.flexion', 110, 'medium', SHOULDER_REVIEW],
    ['shoulder.externalRotation', 55, 'medium', SHOULDER_REVIEW],
  ),
  ...task('reaching a high shelf', ['shoulder.flexion', 120, 'medium', SHOULDER_REVIEW]),
  ...task(
    'ten daily tasks of the shoulder',
    ['shoulder.flexion', 121, 'medium-high', NAMDARI],
    ['shoulder.extension', 46, 'medium-high', NAMDARI],
    ['shoulder.abduction', 128, 'medium-high', NAMDARI],
    ['shoulder.externalRotation', 59, 'medium-high', NAMDARI],
  ),
  ...task('tucking in a shirt', ['shoulder.extension', 35, 'medium', from('Matsen FA 1994; Magermans DJ et al. 2005')]),
  ...task('telephone at the ear', ['elbow.flexion', 142, 'medium-high', SARDELLI]),
  ...task(
    'most daily tasks of the elbow',
    ['elbow.flexion', 130, 'high', MORREY],
    ['elbow.extension', -30, 'high', MORREY],
    ['forearm.pronation', 50, 'high', MORREY],
  ),
  ...task('keyboard', ['forearm.pronation', 65, 'medium-high', SARDELLI]),
  ...task('using a fork', ['forearm.supination', 77, 'medium-high', SARDELLI]),
  ...task(
    'most daily tasks of the wrist',
    ['wrist.flexion', 40, 'high', RYU],
    ['wrist.extension', 40, 'high', RYU],
    ['wrist.radialDeviation', 10, 'high', RYU],
    ['wrist.ulnarDeviation', 30, 'high', RYU],
  ),
  ...task('push-up, palms flat', ['wrist.extension', 90, 'medium', PRACTICE]),
  ...task(
    'grasping',
    ['fingerMcp.flexion', 61, 'high', HUME],
    ['fingerPip.flexion', 60, 'high', HUME],
    ['fingerDip.flexion', 39, 'high', HUME],
    ['thumbMcp.flexion', 21, 'high', HUME],
    ['thumbIp.flexion', 18, 'high', HUME],
  ),
  ...task('backing a car', ['cervical.rotation', 67, 'medium', BENNETT]),
  ...task('looking before crossing a road', ['cervical.rotation', 85, 'low-medium', BENNETT]),
  ...task('everyday bending of the low back', [
    'lumbar.flexion',
    49,
    'medium',
    from('Bible JE et al. J Spinal Disord Tech 2010;23:106-112'),
  ]),
];

/** By motion, the least demanding first. */
const NEEDS_OF = new Map<MotionId, TaskNeed[]>();
for (const need of [...TASK_NEEDS].sort((a, b) => a.atLeast - b.atLeast))
  NEEDS_OF.set(need.motion, [...(NEEDS_OF.get(need.motion) ?? []), need]);

/** Enough, not enough, or too near to tell from measuring error. */
export type NeedVerdict = 'enough' | 'unsure' | 'not-enough';

export interface NeedComparison extends TaskNeed {
  readonly verdict: NeedVerdict;
  /** How much is missing, in the motion's unit; 0 or less when there is enough. */
  readonly missing: number;
}

/**
 * A value against what everyday tasks ask of the motion. Within the 95 % band
 * of a single reading it is too near to tell.
 *
 * @example compareWithNeeds('knee.flexion', 98, 3).filter((n) => n.verdict === 'enough').map((n) => n.task)
 *   // walking, stairs up, stairs down … but 'kneeling on the heels' is not among them
 */
export function compareWithNeeds(id: MotionId, value: number, sem: number): NeedComparison[] {
  const { better } = motion(id);
  return (NEEDS_OF.get(id) ?? []).map((need) => {
    const missing = shortfall(need.atLeast, value, better);
    const verdict: NeedVerdict = Math.abs(missing) < bandAround(sem) ? 'unsure' : missing > 0 ? 'not-enough' : 'enough';
    const { task, motion: of, atLeast, confidence, source } = need;
    return { task, motion: of, atLeast, confidence, source, missing, verdict };
  });
}

const LISTS: readonly (readonly [NeedVerdict, string])[] = [
  ['enough', 'enough for'],
  ['unsure', 'too near to tell for'],
  ['not-enough', 'not enough for'],
];

/** "enough for walking, stairs up; not enough for squat": the second kind of comparison in a sentence; empty without a task. */
export function needWords(needs: readonly NeedComparison[]): string {
  return LISTS.flatMap(([verdict, words]) => {
    const tasks = needs.filter((need) => need.verdict === verdict).map((need) => need.task);
    return tasks.length ? [`${words} ${tasks.join(', ')}`] : [];
  }).join('; ');
}
