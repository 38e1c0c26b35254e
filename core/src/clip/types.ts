import type { FaultId, View } from '../screen/index.js';
import type { Point } from '../angle/points.js';
import type { Side } from '../terms.js';

/** What a mark tells the sender. */
export const CLIP_TELLS = ['strength', 'work', 'unseen'] as const;
export type ClipTells = (typeof CLIP_TELLS)[number];

/** How sure one can be from this view. */
export const SURENESS = ['sure', 'likely', 'unsure'] as const;
export type Sureness = (typeof SURENESS)[number];

/** More than this nobody works on at once. @see common practice, no source */
export const MOST_TO_WORK_ON = 3;
/** More marks than this are no help to anybody. */
export const MOST_MARKS = 40;

/** What was measured at the moment of a mark. */
export interface ClipAngle {
  readonly label: string;
  readonly degrees: number;
  /** By how much it may be off, by view and placing together. */
  readonly error: number;
}

/** A moment of a clip, and what it shows. */
export interface ClipMark {
  readonly id: string;
  /** Seconds from the beginning. */
  readonly t: number;
  readonly tells: ClipTells;
  readonly side: Side;
  /** An item of a screen, and a fault of it; null: free words alone. */
  readonly shows: { readonly screen: string; readonly item: string; readonly fault: FaultId | null } | null;
  readonly words: string;
  readonly sure: Sureness;
  /** Drawn on the picture: shares of its width and height. */
  readonly lines: readonly (readonly [from: Point, to: Point])[];
  readonly angles: readonly ClipAngle[];
  /** A still that was attached on purpose, with the lines drawn on it. */
  readonly still: string | null;
}

/** A clip that somebody sent, looked over. */
export interface ClipReview {
  /** What the file was called. */
  readonly file: string;
  /** From where it was taken. */
  readonly view: View;
  readonly marks: readonly ClipMark[];
}
