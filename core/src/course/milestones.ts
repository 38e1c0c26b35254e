import type { Confidence, Mode, MotionId, Source } from '../terms.js';

/** What is usual so many weeks after a procedure, in the motion's unit. */
export interface Milestone {
  readonly week: number;
  readonly low: number;
  /** null: the source gives a least figure alone, as "90" or "110+". */
  readonly high: number | null;
}

/** The usual course of one motion after one procedure. */
export interface Course {
  readonly procedure: string;
  readonly motion: MotionId;
  /** Left out: the source does not tell active from passive. */
  readonly mode?: Mode;
  /** Variants of protocol it holds for, null the usual one; left out: all. */
  readonly variants?: readonly (string | null)[];
  /** In order of weeks. */
  readonly milestones: readonly Milestone[];
  /** Below this from this week on, sources advise asking the surgeon. */
  readonly ask?: { readonly fromWeek: number; readonly below: number };
  readonly confidence: Confidence;
  readonly source: Source;
}

const memory = (cite: string): Source => ({ cite, fromMemory: true });
const at = (week: number, low: number, high: number | null = null): Milestone => ({ week, low, high });

const REPLACEMENT = memory('practice norms after knee replacement; Stratford 2010 for the shape of the course');
const CRUCIATE = memory('van Melick N et al. Br J Sports Med 2016;50:1506-1515; Wright RW et al. Sports Health 2015;7:239-243');
const CUFF = memory('Thigpen CA et al. J Shoulder Elbow Surg 2016;25:521-535');
const HIP = memory('general practice after hip replacement');
const ACHILLES = memory('general practice after Achilles repair');
const ANKLE = memory('general practice after fixation of an ankle fracture');

/**
 * Usual courses after procedures: practice norms of rehabilitation guides, not
 * measured outcomes, and all from memory. Centres differ by weeks, and the
 * surgeon's limits for the patient win.
 */
export const COURSES: readonly Course[] = [
  {
    procedure: 'knee-replacement',
    motion: 'knee.flexion',
    milestones: [at(0.3, 70, 90), at(2, 90), at(6, 105, 110), at(12, 110, 120)],
    ask: { fromWeek: 6, below: 90 },
    confidence: 'medium',
    source: REPLACEMENT,
  },
  {
    procedure: 'knee-replacement',
    motion: 'knee.extension',
    milestones: [at(0.3, -10), at(2, -10, -5), at(6, -5, 0), at(12, 0)],
    ask: { fromWeek: 6, below: -10 },
    confidence: 'medium',
    source: REPLACEMENT,
  },
  {
    procedure: 'cruciate-reconstruction',
    motion: 'knee.flexion',
    milestones: [at(1, 90), at(2, 90, 100), at(4, 110, 120), at(6, 120, 130)],
    ask: { fromWeek: 4, below: 90 },
    confidence: 'medium',
    source: CRUCIATE,
  },
  {
    procedure: 'cruciate-reconstruction',
    motion: 'knee.extension',
    milestones: [at(1, 0), at(12, 0)],
    ask: { fromWeek: 4, below: -5 },
    confidence: 'medium',
    source: CRUCIATE,
  },
  {
    procedure: 'rotator-cuff-repair',
    motion: 'shoulder.flexion',
    mode: 'passive',
    milestones: [at(2, 60, 90), at(6, 90, 120), at(9, 130, 155), at(12, 140)],
    ask: { fromWeek: 6, below: 100 },
    confidence: 'medium-high',
    source: CUFF,
  },
  {
    procedure: 'rotator-cuff-repair',
    motion: 'shoulder.flexion',
    mode: 'active',
    milestones: [at(9, 80, 120), at(12, 120)],
    confidence: 'medium-high',
    source: CUFF,
  },
  {
    procedure: 'rotator-cuff-repair',
    motion: 'shoulder.externalRotation',
    mode: 'passive',
    variants: ['at-side'],
    milestones: [at(2, 0, 20), at(6, 20, 30), at(9, 30, 45), at(12, 30)],
    ask: { fromWeek: 6, below: 10 },
    confidence: 'medium-high',
    source: CUFF,
  },
  {
    procedure: 'rotator-cuff-repair',
    motion: 'shoulder.externalRotation',
    mode: 'passive',
    variants: [null],
    milestones: [at(9, 45, 60), at(12, 75)],
    confidence: 'medium-high',
    source: CUFF,
  },
  ...(['hip-replacement-posterior', 'hip-replacement-anterior', 'hip-replacement-lateral'] as const).flatMap((procedure): Course[] => [
    { procedure, motion: 'hip.flexion', milestones: [at(6, 90), at(12, 100, 110)], confidence: 'medium', source: HIP },
    { procedure, motion: 'hip.abduction', milestones: [at(6, 20, 30)], confidence: 'medium', source: HIP },
  ]),
  {
    procedure: 'achilles-repair',
    motion: 'ankle.dorsiflexion',
    mode: 'active',
    variants: [null],
    milestones: [at(6, 0, 5), at(8, 0, 5), at(12, 5, 10)],
    confidence: 'medium',
    source: ACHILLES,
  },
  {
    procedure: 'ankle-fixation',
    motion: 'ankle.dorsiflexion',
    variants: [null],
    milestones: [at(6, 0, 10), at(12, 10)],
    confidence: 'medium',
    source: ANKLE,
  },
  {
    procedure: 'ankle-fixation',
    motion: 'ankle.plantarflexion',
    variants: [null],
    milestones: [at(6, 20, 30), at(12, 40)],
    confidence: 'medium',
    source: ANKLE,
  },
];

/** Said wherever a course is shown. */
export const COURSE_CAUTION = 'Practice norms from memory, not a promise; centres differ by weeks, and the surgeon’s limits win.';
