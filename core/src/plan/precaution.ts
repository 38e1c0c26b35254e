import { findMotion, motion, type Motion } from '../catalogue/index.js';
import { formatNumber, suffixOf } from '../angle/words.js';
import type { IsoDate, Mode, MotionId, Side } from '../terms.js';

/**
 * What may not be done to one motion of this episode: not at all, or only up
 * to a limit, until a day, and who said so. The surgeon's limits win over
 * whatever the program proposes.
 */
export interface Precaution {
  readonly motion: MotionId;
  /** Which side; both where it is left out. */
  readonly side?: Side;
  /** Which mode; both where it is left out. */
  readonly mode?: Mode;
  /** Furthest end position allowed, in the motion's unit; null: not to be measured at all. */
  readonly limit: number | null;
  /** First day on which it no longer holds; null: until it is lifted. */
  readonly until: IsoDate | null;
  /** Who or what set it: "surgeon, letter of 3 March". */
  readonly source: string;
}

/** What is asked about: one motion on one side in one mode. */
export interface Moved {
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
}

/** What the precautions say of it. */
export type Allowed =
  | { readonly kind: 'free' }
  | { readonly kind: 'stop'; readonly at: number; readonly by: Precaution }
  | { readonly kind: 'forbidden'; readonly by: Precaution };

/** Whether a precaution still holds on a day. Without a day every one holds. */
export function holdsOn({ until }: Pick<Precaution, 'until'>, on: IsoDate | null): boolean {
  return until === null || on === null || on < until;
}

/** What is often found short of zero, so that a limit of zero still leaves something to measure. */
const COMES_FROM_BEHIND_ZERO =
  /^(knee|elbow|hip|fingerPip|fingerDip|fingerMcp|thumbMcp|thumbIp)\.extension$|^ankle\.dorsiflexion$|Extension$/;

/** A limit that leaves nothing to measure: a motion that starts at zero and may not leave it. */
function leavesNothing({ id, better }: Motion, limit: number): boolean {
  return limit <= 0 && better !== 'less' && !COMES_FROM_BEHIND_ZERO.test(id);
}

/** Another name for the same movement: the two lengths of a bent knee, the raised straight leg. */
const ALSO: Readonly<Partial<Record<string, readonly MotionId[]>>> = {
  'knee.flexion': ['muscleLength.proneKneeBend', 'distance.heelToButtock'],
  'hip.extension': ['muscleLength.hipExtensionDrop'],
  'hip.flexion': ['muscleLength.straightLegRaise'],
  'ankle.dorsiflexion': ['distance.kneeToWall'],
};

/** The motions that a precaution about one holds for. A limit in degrees says nothing to a tape: there it forbids. */
function reaches(precaution: Precaution, id: MotionId): boolean {
  return precaution.motion === id || (ALSO[precaution.motion]?.includes(id) ?? false);
}

/** Those that are about this motion, side and mode, whether they still hold or not. */
export function precautionsFor(moved: Moved, precautions: readonly Precaution[]): Precaution[] {
  return precautions.filter(
    (by) =>
      reaches(by, moved.motion) &&
      (by.side === undefined || by.side === moved.side || moved.side === 'midline') &&
      (by.mode === undefined || by.mode === moved.mode),
  );
}

/**
 * What may be done: the strictest precaution that holds. Straight-leg raise,
 * prone knee bend and the like are held to the limit of the joint they move;
 * a distance cannot be, and is left out.
 */
export function allowedFor(moved: Moved, precautions: readonly Precaution[], on: IsoDate | null): Allowed {
  let strictest: Allowed = { kind: 'free' };
  for (const by of precautionsFor(moved, precautions)) {
    if (!holdsOn(by, on)) continue;
    const about = motion(moved.motion);
    const sameUnit = about.unit === motion(by.motion).unit;
    if (by.limit === null || !sameUnit || leavesNothing(about, by.limit)) return { kind: 'forbidden', by };
    if (strictest.kind === 'free' || by.limit < strictest.at) strictest = { kind: 'stop', at: by.limit, by };
  }
  return strictest;
}

/** Whether a value goes past where it had to stop. */
export function isPast(allowed: Allowed, value: number): boolean {
  return allowed.kind === 'forbidden' || (allowed.kind === 'stop' && value > allowed.at);
}

/** "knee flexion, passive: not past 90°, until 12 January (surgeon)" without the day's wording, which is the screen's. */
export function precautionWords({ motion: id, mode, limit }: Precaution): string {
  const about = findMotion(id);
  const name = about?.name.toLowerCase() ?? id;
  const what = limit === null ? 'not to be measured' : `not past ${formatNumber(limit)}${about ? suffixOf(about.unit) : ''}`;
  return `${name}${mode ? `, ${mode}` : ''}: ${what}`;
}
