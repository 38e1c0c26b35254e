import type { FindingKind } from '../terms.js';

/** What a kind of finding is about, in the order in which they are read. */
export const FINDING_STAGES = ['pain', 'again', 'loss', 'pattern', 'beyond', 'change', 'error', 'silence'] as const;
export type FindingStage = (typeof FINDING_STAGES)[number];

/** Why a stage stands where it stands; losses say it each for itself. */
export const STAGE_PLACES: Readonly<Record<FindingStage, string>> = {
  pain: 'pain and an end that says stop are handled before range',
  again: 'readings to take again come before what they would say',
  loss: '',
  pattern: 'what several losses have in common follows the losses',
  beyond: 'more than expected follows what is short',
  change: 'change since the last visit follows what is found today',
  error: 'what measuring error covers comes late',
  silence: 'what no norm judges comes last',
};

/** What is to be known of a kind of finding beside what finds it. */
export interface KindTraits {
  readonly stage: FindingStage;
  /** Order among kinds of one stage where all else is alike. */
  readonly rank: number;
  /** Losses of one motion are told in one sentence. */
  readonly joins?: true;
  /** Told apart from what matters today. */
  readonly aside?: true;
  /** A reason to measure it again next time. */
  readonly telling?: true;
}

/** Every kind; nothing else lists them. */
export const KINDS: Readonly<Record<FindingKind, KindTraits>> = {
  painful: { stage: 'pain', rank: 0, telling: true },
  'end-feel': { stage: 'pain', rank: 0, telling: true },
  'opposite-direction-pain': { stage: 'pain', rank: 1 },
  'active-beyond-passive': { stage: 'again', rank: 0 },
  'inconsistent-trials': { stage: 'again', rank: 0 },
  substituted: { stage: 'again', rank: 0 },
  'lumbar-slr-invalid': { stage: 'again', rank: 0 },
  'short-of-other-side': { stage: 'loss', rank: 0, joins: true, telling: true },
  'short-of-normal': { stage: 'loss', rank: 1, joins: true, telling: true },
  'active-short-of-passive': { stage: 'loss', rank: 2, joins: true, telling: true },
  'behind-course': { stage: 'loss', rank: 3, joins: true, telling: true },
  'capsular-pattern': { stage: 'pattern', rank: 0 },
  'two-joint-limit': { stage: 'pattern', rank: 0 },
  'beyond-normal': { stage: 'beyond', rank: 0 },
  changed: { stage: 'change', rank: 0, aside: true },
  'within-error': { stage: 'error', rank: 0, aside: true },
  'no-norm': { stage: 'silence', rank: 0, aside: true },
};

/** What a kind is about. A kind of a later version is told last, never before pain. */
export const stageOf = (kind: FindingKind): FindingStage => (KINDS[kind] as KindTraits | undefined)?.stage ?? 'silence';
