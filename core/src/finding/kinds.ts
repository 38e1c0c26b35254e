import { activeBeyondPassive } from './active-beyond-passive.js';
import { activeShortOfPassive } from './active-short-of-passive.js';
import { behindCourse } from './behind-course.js';
import { beyondNormal } from './beyond-normal.js';
import { capsularPattern } from './capsular-pattern.js';
import { changed } from './changed.js';
import { endFeel } from './end-feel.js';
import { inconsistentTrials } from './inconsistent-trials.js';
import { lumbarSlr } from './lumbar-slr.js';
import { noNorm } from './no-norm.js';
import { oppositeDirectionPain } from './opposite-pain.js';
import { painful } from './painful.js';
import { rangeNotUsed } from './range-not-used.js';
import { shortOfNormal } from './short-of-normal.js';
import { shortOfOtherSide } from './short-of-other-side.js';
import type { FindingStage } from './stages.js';
import { substituted } from './substituted.js';
import { twoJointLimit } from './two-joint.js';
import type { FindingOf, Kind, UnplacedOf } from './types.js';
import { withinError } from './within-error.js';
import { worse } from './worse.js';

/** Every kind of finding under its id, each in a file of its own; nothing else lists them. */
export const KINDS = {
  worse,
  painful,
  'end-feel': endFeel,
  'opposite-direction-pain': oppositeDirectionPain,
  'active-beyond-passive': activeBeyondPassive,
  'inconsistent-trials': inconsistentTrials,
  substituted,
  'lumbar-slr-invalid': lumbarSlr,
  'short-of-other-side': shortOfOtherSide,
  'short-of-normal': shortOfNormal,
  'active-short-of-passive': activeShortOfPassive,
  'range-not-used': rangeNotUsed,
  'behind-course': behindCourse,
  'capsular-pattern': capsularPattern,
  'two-joint-limit': twoJointLimit,
  'beyond-normal': beyondNormal,
  changed,
  'within-error': withinError,
  'no-norm': noNorm,
} satisfies Readonly<Record<string, Kind>>;

export type FindingKind = keyof typeof KINDS;
export const FINDING_KINDS = Object.keys(KINDS) as readonly FindingKind[];

type FactsOf<K extends FindingKind> = (typeof KINDS)[K] extends Kind<infer F> ? F : never;

/** One thing the numbers say: what kind of thing, what it knows, and the steps it rests on. Words are made of it when it is read (`saidOf`). */
export type Finding = { [K in FindingKind]: FindingOf<K, FactsOf<K>> }[FindingKind];
/** A finding before it has its place among the others. */
export type Unplaced = { [K in FindingKind]: UnplacedOf<K, FactsOf<K>> }[FindingKind];

/** What there is to a kind; undefined for one of a later version. */
export const kindOf = (kind: FindingKind): Kind | undefined => (KINDS as Readonly<Record<string, Kind>>)[kind];

/** What a kind is about. A kind of a later version is told last, never before pain. */
export const stageOf = (kind: FindingKind): FindingStage => kindOf(kind)?.stage ?? 'silence';
