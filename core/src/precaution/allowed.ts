import { findMotion, isJoint, motion, protocolOfId, regionName, type Motion } from '../catalogue/index.js';
import {
  directionOf,
  imposesOf,
  jointOf,
  jointOfRow,
  traitsOf,
  type DoneTrait,
  type Imposition,
  type JointMotion,
  type Moves,
  type Works,
} from '../imposes/index.js';
import type { IsoDate, Joint, Mode, MotionId, Position, Side } from '../terms.js';
import { cautionLimits, cautionSays, type AnsweredCaution, type CautionLimit } from './caution-limits.js';
import { holdsOn, kindOf, precautionWords, type Precaution } from './precaution.js';

/** What is asked about: a way of measuring, on one side in one mode. */
export interface Moved {
  readonly protocol: string;
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
}

/** What is done to the body, be it a way of measuring, an item of a screen or an exercise. */
interface Done {
  /** Null where nothing is measured. */
  readonly protocol: string | null;
  readonly motion: MotionId | null;
  /** Measurements that this is, whatever it is called: a toe touch that is looked at is the toe touch that is measured. */
  readonly is: readonly MotionId[];
  readonly side: Side;
  readonly mode: Mode;
  readonly position: Position;
  readonly rows: readonly Imposition[];
  readonly traits: ReadonlySet<DoneTrait>;
}

/** Everything that limits a person on a day: whatever tells somebody to do something is held against all of it. */
export interface Limits {
  readonly precautions: readonly Precaution[];
  /** Cautions that were answered yes before this visit. */
  readonly cautions: readonly AnsweredCaution[];
  /** Without a day every precaution holds. */
  readonly on: IsoDate | null;
}

/** What a limit may be: a precaution, or the answer to a caution. */
export type Limit = Precaution | CautionLimit;

/**
 * What the precautions say of it. `gentle`: to where it goes by itself, with
 * no push at the end. `row` is what the way of measuring does that is limited;
 * null where the precaution names the measurement itself.
 */
export type Allowed =
  | { readonly kind: 'free' }
  | { readonly kind: 'gentle'; readonly by: Limit; readonly row: Imposition | null }
  | { readonly kind: 'stop'; readonly at: number; readonly by: Precaution; readonly row: Imposition | null }
  | { readonly kind: 'forbidden'; readonly by: Limit; readonly row: Imposition | null };

const FREE: Allowed = { kind: 'free' };

/**
 * What may be done: everything a way of measuring imposes is held against
 * every precaution that holds on the day, and the strictest answer counts. What
 * is read may be stopped at a limit; what is done beside it cannot be, and
 * leaves it out.
 */
export function allowedFor({ protocol, motion: id, side, mode }: Moved, limits: Limits): Allowed {
  const traits = traitsOf(protocol, mode);
  const { position } = protocolOfId(protocol)!;
  return strictestOf({ protocol, motion: id, is: [], side, mode, position, rows: imposesOf(protocol), traits }, limits);
}

/** Something that is done and not measured: an item of a screen, an exercise. */
export interface Doing {
  readonly imposes: readonly Imposition[];
  /** All of them, also those that follow from what is imposed. */
  readonly traits: ReadonlySet<DoneTrait>;
  /** Measurements that are no direction of a joint and that this is. */
  readonly is: readonly MotionId[];
  readonly position: Position;
  readonly mode: Mode;
}

/** The same of something that is done and not measured: all that it does to the body is held against every limit. Nothing of it can be stopped at a limit. */
export function allowedDoing({ imposes: rows, traits, is, position, mode }: Doing, side: Side, limits: Limits): Allowed {
  return strictestOf({ protocol: null, motion: null, is, side, mode, position, rows, traits }, limits);
}

/** Of somebody for whom nothing is set and nothing was answered yes. */
export const NO_LIMITS: Limits = { precautions: [], cautions: [], on: null };

function strictestOf(moved: Done, { precautions, cautions, on }: Limits): Allowed {
  let strictest: Allowed = FREE;
  for (const by of cautionLimits(cautions)) {
    const says = cautionSays(by, moved);
    if (says) strictest = stricter(strictest, { kind: says.kind, by, row: says.row }, moved);
    if (strictest.kind === 'forbidden') return strictest;
  }
  for (const by of precautions) {
    // What this version does not know is shown as odd and holds nothing back.
    if (![by.motion, ...(by.with ?? [])].every(findMotion)) continue;
    if (!holdsOn(by, on) || (by.protocol !== undefined && by.protocol !== moved.protocol)) continue;
    strictest = stricter(strictest, itself(by, moved), moved);
    if (by.with?.length) strictest = stricter(strictest, together(by, moved), moved);
    else for (const row of moved.rows) strictest = stricter(strictest, held(by, row, moved), moved);
    if (strictest.kind === 'forbidden') return strictest;
  }
  return strictest;
}

/** Whether a value goes past where it had to stop. */
export function isPast(allowed: Allowed, value: number, id: MotionId): boolean {
  if (allowed.kind === 'forbidden') return true;
  return allowed.kind === 'stop' && (isLess(id) ? value < allowed.at : value > allowed.at);
}

const isLess = (id: MotionId): boolean => motion(id).better === 'less';

const ORDER = { free: 0, gentle: 1, stop: 2, forbidden: 3 } as const;

function stricter(a: Allowed, b: Allowed, { motion: id }: Done): Allowed {
  if (a.kind === 'stop' && b.kind === 'stop') return (id !== null && isLess(id) ? b.at > a.at : b.at < a.at) ? b : a;
  return ORDER[b.kind] > ORDER[a.kind] ? b : a;
}

/** A limit that leaves nothing to measure: a motion that starts at zero and may not leave it. */
function stopAt(about: Motion, by: Precaution, at: number, row: Imposition | null): Allowed {
  const leavesNothing = at <= 0 && about.better === 'more' && !about.endsNearZero;
  return leavesNothing ? { kind: 'forbidden', by, row } : { kind: 'stop', at, by, row };
}

/** A precaution that names what is measured and is no direction of a joint: a length, a distance, a force, a stance. */
function itself(by: Precaution, moved: Done): Allowed {
  const { motion: id, side, mode } = moved;
  if (by.with?.length || !ofSide(by, side)) return FREE;
  if (moved.is.includes(by.motion)) return { kind: 'forbidden', by, row: null };
  if (id === null || by.motion !== id || (by.mode ?? mode) !== mode) return FREE;
  const about = motion(id);
  if (isOfJoint(about)) return FREE;
  if (kindOf(by) === 'range') return by.limit === null ? { kind: 'forbidden', by, row: null } : stopAt(about, by, by.limit, null);
  return { kind: kindOf(by) === 'end-range' ? 'gentle' : 'forbidden', by, row: null };
}

const isOfJoint = ({ joint }: Motion): boolean => isJoint(joint);

const ofSide = ({ side }: Precaution, moved: Side): boolean =>
  side === undefined || side === moved || side === 'midline' || moved === 'midline';

/** The whole trunk is its parts: what is limited of it is limited of the chest and the low back. */
const PARTS: Readonly<Partial<Record<Joint, readonly Joint[]>>> = { thoracolumbar: ['thoracolumbar', 'thoracic', 'lumbar'] };
const partsOf = (joint: Joint): readonly Joint[] => PARTS[joint] ?? [joint];
/** Whether two joints share a part: what is done to the whole trunk is done to the low back, and the other way round. */
const overlap = (a: Joint, b: Joint): boolean => partsOf(a).some((part) => partsOf(b).includes(part));

/** Whether a row is of the joint and of a limb that a precaution is about. */
function isAbout(by: Precaution, joint: Joint, row: Imposition, moved: Done): boolean {
  return overlap(joint, jointOfRow(row)) && limbsOf(row, moved).some((side) => ofSide(by, side));
}

const OTHER = { left: 'right', right: 'left', midline: 'midline' } as const;

/** Which limbs a row is about. The side of a trunk motion is the way it goes and no limb: it may be either. */
function limbsOf({ limb, ...row }: Imposition, { motion: id, side }: Done): readonly Side[] {
  if (limb === 'trunk') return row.by === 'measurement' ? [side] : ['midline'];
  if (limb === 'both' || side === 'midline' || (id !== null && motion(id).sides !== 'limb')) return ['left', 'right'];
  return [limb === 'measured' ? side : OTHER[side]];
}

/** Whether a row is done in a mode. A position that muscles hold is of both. */
function inMode(row: Imposition, mode: Mode | undefined, moved: Done): boolean {
  if (mode === undefined) return true;
  if (row.by === 'measurement') return moved.mode === mode;
  if (row.by === 'held') return mode === 'passive' || row.load === 'limb' || row.load === 'body' || row.load === 'resisted';
  return row.by === mode;
}

/** Whether a row is work of muscles against a weight or a hand. */
function isWork(row: Imposition, moved: Done): boolean {
  return row.load !== 'none' && row.load !== 'stretch' && inMode(row, 'active', moved);
}

/** Zero is nothing, but where it is the end: a straight knee that is moved there, or carries, and not one that lies so. */
const goesSomewhere = (row: Moves): boolean =>
  isAtEnd(row) && (row.degrees !== 0 || row.by !== 'held' || row.load === 'body' || row.load === 'stretch' || row.load === 'resisted');

/** Away from zero; or at zero, where that is the end. */
const isAtEnd = ({ degrees, motion: id }: Moves): boolean => degrees === 'full' || degrees > 0 || (findMotion(id)?.endsNearZero ?? false);

function held(by: Precaution, row: Imposition, moved: Done): Allowed {
  const about = motion(by.motion);
  if (!isOfJoint(about) || !isAbout(by, about.joint as Joint, row, moved)) return FREE;
  if (row.what === 'touches') return FREE;
  if (row.what === 'bears') return forbiddenWhere(bearing(by, row, moved), by, row);
  const same = directionOf(row.motion) === directionOf(by.motion as JointMotion);
  if (!inMode(row, by.mode, moved)) return FREE;
  if (kindOf(by) === 'resisted') return forbiddenWhere(isResisted(row, same, by), by, row);
  if (!same) return FREE;
  return row.what === 'works' ? forbiddenWhere(isAgainstEffort(by, row, moved), by, row) : moving(by, row, moved);
}

/** An effort counts against "not at all" and "not by own strength", and not against degrees: it takes the joint nowhere. */
function isAgainstEffort(by: Precaution, row: Works, moved: Done): boolean {
  if (kindOf(by) === 'against-gravity') return isWork(row, moved);
  return kindOf(by) === 'range' && by.limit === null;
}

const forbiddenWhere = (isForbidden: boolean, by: Precaution, row: Imposition): Allowed =>
  isForbidden ? { kind: 'forbidden', by, row } : FREE;

/** A joint that is moved in the direction and in the mode of the limit. */
function moving(by: Precaution, row: Moves, moved: Done): Allowed {
  switch (kindOf(by)) {
    case 'against-gravity':
      return forbiddenWhere(isWork(row, moved) && goesSomewhere(row), by, row);
    case 'end-range':
      if (!toItsEnd(row)) return FREE;
      return row.isFigure && row.load !== 'stretch' ? { kind: 'gentle', by, row } : { kind: 'forbidden', by, row };
    case 'range':
      return inRange(by, row, moved);
    default:
      return FREE;
  }
}

function inRange(by: Precaution, row: Moves, moved: Done): Allowed {
  if (by.limit === null) return forbiddenWhere(goesSomewhere(row) || row.load === 'stretch', by, row);
  if (row.isFigure && moved.motion !== null) return stopAt(motion(moved.motion), by, by.limit, row);
  return forbiddenWhere(row.degrees === 'full' || row.degrees > by.limit, by, row);
}

/** Joints stand on one limb alone only where the other bears nothing. */
function bearing(by: Precaution, row: Imposition, moved: Done): boolean {
  if (row.load !== 'body' && row.load !== 'resisted') return false;
  const { rows } = moved;
  if (kindOf(by) === 'single-leg' && moved.traits.has('standing-on-one-leg')) return true;
  if (kindOf(by) === 'single-leg')
    return row.limb !== 'both' && !rows.some((r) => r.what === 'bears' && r.limb !== row.limb && r.load === 'body');
  if (kindOf(by) !== 'weight') return false;
  if (by.limit === null) return true;
  const least = by.limit;
  return rows.some(
    (r) => r.what === 'moves' && r.motion === by.motion && sharesLimb(r, row) && (r.degrees === 'full' || r.degrees >= least),
  );
}

const sharesLimb = (a: Imposition, b: Imposition): boolean => a.limb === b.limb || a.limb === 'both' || b.limb === 'both';

/** Effort against a hand; or the joint carrying the body while it moves, whichever way: the muscles of both sides are loaded. */
function isResisted(row: Moves | Works, same: boolean, by: Precaution): boolean {
  if (row.load === 'resisted') return same;
  const sameLine = same || findMotion(row.motion)?.opposite === by.motion;
  return sameLine && row.load === 'body' && row.by !== 'held';
}

/** From so many degrees on body weight takes a joint towards its end. @see common practice, no source */
const DEEP = 90;

function toItsEnd({ degrees, load }: Moves): boolean {
  if (load === 'stretch' || degrees === 'full') return true;
  return load === 'body' && degrees >= DEEP;
}

/** All directions of a combined position on one limb at once. The mode is that of the first. */
function together(by: Precaution, moved: Done): Allowed {
  const rows = moved.rows.filter((row) => row.what === 'moves' || row.what === 'works');
  const parts = [by.motion, ...(by.with ?? [])].map((id, part) =>
    rows.filter((row) => {
      const about = motion(id);
      if (!isOfJoint(about) || !isAbout(by, about.joint as Joint, row, moved)) return false;
      if (directionOf(row.motion) !== directionOf(id as JointMotion)) return false;
      return (row.what === 'works' || row.load === 'resisted' || isAtEnd(row)) && (part > 0 || inMode(row, by.mode, moved));
    }),
  );
  const [first = [], ...rest] = parts;
  const found = first.find((row) =>
    rest.every((others) => others.some((other) => row.limb === 'trunk' || other.limb === 'trunk' || sharesLimb(row, other))),
  );
  if (!found) return FREE;
  if (by.limit === null) return { kind: 'forbidden', by, row: found };
  if (found.what === 'works') return FREE;
  if (found.isFigure && moved.motion !== null) return stopAt(motion(moved.motion), by, by.limit, found);
  return found.degrees === 'full' || found.degrees > by.limit ? { kind: 'forbidden', by, row: found } : FREE;
}

/** "takes the other hip flexion to 120°": what a way of measuring does that is limited, beside what is read. */
function rowWords(row: Imposition | null): string {
  if (!row || (row.what === 'moves' && row.isFigure)) return '';
  const whose = row.limb === 'other' ? 'the other ' : row.limb === 'both' ? 'both sides’ ' : 'the ';
  if (row.what === 'bears' || row.what === 'touches') return `puts weight on ${whose}${regionName(row.joint).toLowerCase()}`;
  const name = findMotion(row.motion)?.name.toLowerCase() ?? `sideways strain of the ${regionName(jointOf(row.motion)).toLowerCase()}`;
  if (row.what === 'works') return `asks ${whose}${name} for effort`;
  return `takes ${whose}${name} to ${row.degrees === 'full' ? 'its end' : `${row.degrees}°`}${row.load === 'body' ? ' under body weight' : ''}`;
}

/** Why something is left out: the precaution, who set it, and what of this way of measuring is meant. */
export function forbiddenWords({ by, row }: Exclude<Allowed, { kind: 'free' }>): string {
  const does = rowWords(row);
  return `${limitWords(by)} (${by.source})${does ? `; this way ${does}` : ''}`;
}

/** "knee flexion, passive: not past 90°", or what an answer to a caution leaves out. */
export const limitWords = (by: Limit): string => ('caution' in by ? by.words : precautionWords(by));
