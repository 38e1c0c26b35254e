import type { Degrees, EndFeel, Instrument, Joint, Mode, MotionId, Position, Source } from '../terms.js';
import type { ZeroWords } from '../angle/words.js';
import type { Plane } from '../notation/planes.js';

/** How the dial is drawn: where zero points and which way the motion turns, as the examiner sees it. */
export interface DialView {
  /** Where the moving segment points at zero, for the left side: degrees clockwise from straight up. */
  readonly zeroAt: Degrees;
  /** 1 when the left side turns clockwise on the dial, −1 when it turns the other way. The right side mirrors both. */
  readonly sense: 1 | -1;
  /** How far the scale runs beyond zero, and back past it, where no reading asks for more. */
  readonly scale: { readonly on: Degrees; readonly back: Degrees };
  /** From where the examiner looks, in words. */
  readonly seenFrom: string;
}

/** A movement of a neighbour that fakes range. */
export interface Substitution {
  readonly id: string;
  readonly label: string;
}

/** One way of measuring one motion. Two protocols of a motion are never compared with each other unsaid. */
export interface Protocol {
  /** `<motion>/<position>`; kept with every reading. */
  readonly id: string;
  readonly version: number;
  readonly motion: MotionId;
  readonly position: Position;
  readonly modes: readonly Mode[];
  /** The first is the usual one. */
  readonly instruments: readonly Instrument[];
  readonly startingPosition: string;
  readonly axis: string;
  readonly stationaryArm: string;
  readonly movingArm: string;
  readonly stabilise: string;
  readonly substitutions: readonly Substitution[];
  readonly endFeel: readonly EndFeel[];
  /** A two-joint muscle that can stop the motion early, and how to slacken it. */
  readonly twoJoint?: string;
  /** Where students and patients read the name backwards. */
  readonly namingTrap?: string;
  readonly dial?: DialView;
  readonly source: Source;
}

export interface Motion extends ZeroWords {
  readonly id: MotionId;
  readonly joint: Joint;
  readonly plane: Plane;
  /** "Hip internal rotation" */
  readonly name: string;
  /** "Internal rotation" */
  readonly short: string;
  /** The motion on the other side of zero, with which this one makes an arc. */
  readonly opposite: MotionId | null;
  /** End positions a human joint can hold. Outside lies a typing error, not a finding. */
  readonly limits: { readonly min: Degrees; readonly max: Degrees };
  readonly protocols: readonly Protocol[];
}
