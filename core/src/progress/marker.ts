import type { Digit, Instrument, Mode, MotionId, Side } from '../terms.js';

/** A quick measurement that shows within minutes whether a drill did anything. */
export interface Marker {
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
  readonly protocol: string;
  readonly digit?: Digit;
  readonly instrument: Instrument;
}

/** Two or three markers, so that it stays quick and one lucky reading does not decide. */
export const MARKERS = { least: 1, usual: 2, most: 3 } as const;
