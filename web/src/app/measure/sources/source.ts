import type { Signal } from '@angular/core';
import type { Instrument, ReadAtDial } from '@dial-gauge/core';

/** Where a reading comes from. The exam takes whatever the one in hand offers and knows none of them. */
export type SourceKind = 'typed' | 'device' | 'phone' | 'picture' | 'practice';

/** What gives a reading: the hand that types or drags, a device, a phone, a picture. */
export interface ReadingSource {
  readonly kind: SourceKind;
  /** The reading as it would be held this moment; or why there is none, and what is allowed. */
  readonly offer: Signal<ReadAtDial>;
  /** What the offer comes to, in the motion's unit: the needle stands there. */
  readonly value: Signal<number | null>;
  /** What it is taken with; null: with the tool in hand. */
  readonly instrument: Signal<Instrument | null>;
  /** Under which id it is held, where it was held at the instrument; null: a new one. */
  readonly id?: Signal<string | null>;
  /** What was offered is held now. */
  held(): void;
}
