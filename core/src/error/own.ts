import type { Instrument, IsoDate, MotionId } from '../terms.js';
import type { ValueCheck } from '../looked-up.js';

/** A measuring error that a clinic found out for itself and judges by. */
export interface OwnError {
  readonly motion: MotionId;
  readonly instrument: Instrument;
  /** The protocol it was studied with; it says nothing about another one. */
  readonly protocol: string;
  /** Readings of one examiner, or of different ones. */
  readonly examiners: 'same' | 'other';
  /** In the motion's unit. */
  readonly sem: number;
  readonly subjects: number;
  readonly raters: number;
  readonly adoptedOn: IsoDate;
}

/** What a measuring error depends on beside the reading: what the clinic knows of itself, and what was operated on. */
export interface ErrorContext {
  readonly own?: readonly OwnError[];
  /** Id of the procedure of this episode: some published errors are of people after it. */
  readonly procedure?: string;
  /** Values that the clinic looked up, published errors among them. */
  readonly checks?: readonly ValueCheck[];
}
