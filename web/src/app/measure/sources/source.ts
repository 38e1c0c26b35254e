import type { Signal } from '@angular/core';
import { valueOfReading, type Instrument, type Protocol, type ReadAtDial } from '@dial-gauge/core';

/** What gives a reading: the hand that types or drags, a device, a phone, a picture. The exam takes whatever the one in hand offers and knows none of them. */
export interface ReadingSource {
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

/** What an offer comes to, in the motion's unit; null where it is none. */
export const valueOf = (offer: ReadAtDial, protocol: Protocol): number | null =>
  offer.ok && !('arc' in offer) ? valueOfReading(protocol, offer.reading) : null;
