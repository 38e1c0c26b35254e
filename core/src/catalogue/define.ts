import type { Plane } from '../notation/planes.js';
import type { Degrees, EndFeel, Instrument, Joint, Mode, MotionId, MotionName, Position, Region, Source, Unit } from '../terms.js';
import { MODES } from '../terms.js';
import { sceneOf } from './figure/scenes.js';
import type { Figure } from './figure/types.js';
import type { Better, DialView, Motion, Placement, Protocol, Reads, Substitution, Summary, Swing } from './types.js';

const TEACHING: Source = {
  cite: 'standard goniometry teaching: AAOS 1965; Norkin & White; Reese & Bandy; Clarkson',
  fromMemory: true,
};
export const INCLINOMETRY: Source = { cite: 'standard inclinometry teaching; AMA Guides, 4th/5th ed., spine chapters', fromMemory: true };
export const MUSCLE_LENGTH: Source = { cite: 'standard muscle-length teaching: Kendall; Reese & Bandy; Magee', fromMemory: true };

/** What reads a movement in a vertical plane: gravity does. Across the table it does not. */
const BY_SWING: Readonly<Record<Swing, readonly Instrument[]>> = {
  vertical: ['goniometer', 'inclinometer', 'phone', 'picture', 'visual'],
  horizontal: ['goniometer', 'picture', 'visual'],
  none: ['tape'],
};

/** A protocol as a catalogue file writes it; the rest follows from it. */
export interface ProtocolSpec {
  readonly at: Position;
  readonly variant?: string;
  /** Added to the position in the label: "arm at the side". */
  readonly variantLabel?: string;
  readonly version?: number;
  readonly modes?: readonly Mode[];
  /** Instruments, where they are not those that the swing allows. */
  readonly by?: readonly Instrument[];
  readonly swing: Swing;
  readonly reads?: Reads;
  readonly start: string;
  readonly put: Placement;
  readonly hold: string;
  /** Substitutions in words; their ids follow from the words. */
  readonly fakes: readonly string[];
  readonly feel?: readonly EndFeel[];
  readonly twoJoint?: string;
  readonly trap?: string;
  readonly not?: string;
  readonly caution?: string;
  readonly trials?: number;
  readonly summary?: Summary;
  /** Zero, sense, how far the scale runs on and back. */
  readonly dial?: readonly [zeroAt: Degrees, sense: 1 | -1, on: Degrees, back: Degrees];
  readonly figure: Figure;
  readonly source?: Source;
}

export interface MotionSpec {
  readonly name: string;
  readonly short?: string;
  readonly plane?: Plane;
  readonly unit?: Unit;
  readonly better?: Better;
  readonly sides?: Motion['sides'];
  readonly opposite?: MotionName | null;
  readonly limits: readonly [min: number, max: number];
  readonly zeroIs?: Motion['zeroIs'];
  readonly hyper?: boolean;
  /** Its usual end lies at zero or near it, where it is told how much is lacking; left out: just where past zero is more than straight. */
  readonly nearZero?: boolean;
  readonly perDigit?: boolean;
  readonly plus?: Motion['plus'];
  readonly minus?: Motion['minus'];
  readonly protocols: readonly ProtocolSpec[];
}

export const arms = (axis: string, still: string, moving: string, site?: string): Placement => ({ how: 'arms', axis, still, moving, site });
export const tape = (from: string, to: string): Placement => ({ how: 'tape', from, to });
export const push = (at: string, against: string): Placement => ({ how: 'push', at, against });
export const dual = (upper: string, lower: string): Placement => ({ how: 'sites', upper, lower });

/** A limb turning about a joint of a scene. */
export const turn = (
  scene: string,
  axis: string,
  moving: readonly string[],
  still: string | Degrees,
  end: Degrees,
  more: { zeroAt?: Degrees; sites?: readonly string[] } = {},
): Figure => ({ kind: 'turn', scene, axis, moving, still, end, ...more });

/** "knee leaves 90°" → `knee-leaves-90`. */
function slug(words: string): string {
  return words
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
}

const substitution = (label: string): Substitution => ({ id: slug(label), label });

const DEFAULT_READS: Readonly<Record<Unit, Reads>> = { deg: 'excursion', cm: 'length', N: 'force', s: 'time', yesNo: 'answer' };

function protocolOf(motion: MotionId, unit: Unit, spec: ProtocolSpec): Protocol {
  const { at, variant = null, dial } = spec;
  const seenFrom = sceneOf(spec.figure.scene).seenFrom;
  const view: DialView | undefined = dial && { zeroAt: dial[0], sense: dial[1], scale: { on: dial[2], back: dial[3] }, seenFrom };
  return {
    id: `${motion}/${at}${variant ? `-${variant}` : ''}`,
    version: spec.version ?? 1,
    motion,
    position: at,
    variant,
    label: [POSITION_WORDS[at], spec.variantLabel].filter(Boolean).join(', '),
    variantLabel: spec.variantLabel ?? '',
    modes: spec.modes ?? MODES,
    instruments: spec.by ?? BY_SWING[spec.swing],
    swing: spec.swing,
    reads: spec.reads ?? DEFAULT_READS[unit],
    startingPosition: spec.start,
    placement: spec.put,
    stabilise: spec.hold,
    substitutions: spec.fakes.map(substitution),
    endFeel: spec.feel ?? ['firm'],
    twoJoint: spec.twoJoint,
    namingTrap: spec.trap,
    notThisWay: spec.not,
    caution: spec.caution,
    trials: { count: spec.trials ?? 3, summary: spec.summary ?? 'mean' },
    dial: view,
    figure: spec.figure,
    source: spec.source ?? TEACHING,
  };
}

export const POSITION_WORDS: Readonly<Record<Position, string>> = {
  supine: 'supine',
  prone: 'prone',
  sidelying: 'side-lying',
  sitting: 'sitting',
  standing: 'standing',
  quadruped: 'on hands and knees',
  halfKneeling: 'half-kneeling',
};

/** One motion from its description. `opposite` names the motion of the same joint on the other side of zero. */
export function defineMotion(id: MotionId, spec: MotionSpec): Motion {
  const joint = id.slice(0, id.indexOf('.')) as Region;
  const unit = spec.unit ?? 'deg';
  return {
    id,
    joint,
    plane: spec.plane ?? null,
    name: spec.name,
    short: spec.short ?? spec.name,
    unit,
    better: spec.better ?? 'more',
    sides: spec.sides ?? 'limb',
    perDigit: spec.perDigit ?? false,
    opposite: spec.opposite ? (`${joint as Joint}.${spec.opposite}` as MotionId) : null,
    limits: { min: spec.limits[0], max: spec.limits[1] },
    zeroIs: spec.zeroIs ?? 'neutral',
    pastZeroIsHyper: spec.hyper ?? false,
    endsNearZero: spec.nearZero ?? spec.hyper ?? false,
    plus: spec.plus,
    minus: spec.minus,
    protocols: spec.protocols.map((protocol) => protocolOf(id, unit, protocol)),
  };
}
