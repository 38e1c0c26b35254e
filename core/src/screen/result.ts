import type { Degrees, IsoDate, Side } from '../terms.js';
import type { EntryUnit } from '../angle/units.js';
import type { FaultId } from './faults.js';
import type { Felt, Hour, Modification, View } from './types.js';

/** The part of a circle that is cut off, from one hour on to another. */
export interface Sector {
  readonly from: Hour;
  readonly to: Hour;
}

/** One try of an item, as it was seen. What is left out was not asked. */
export interface ItemTry {
  /** In the item's unit, where none is said. */
  readonly value?: number;
  readonly unit?: EntryUnit;
  /** What the examiner says of it, where there is no number. */
  readonly meets?: boolean | null;
  /** Seen; an empty list: looked for, and none seen. */
  readonly faults?: readonly FaultId[];
  /** 0–10. */
  readonly pain?: number;
  readonly painWhere?: string;
  /** Lines of shin and trunk seen from the side, degrees forward of upright. */
  readonly lines?: { readonly shin: Degrees; readonly trunk: Degrees };
  /** Null: the circle is whole. */
  readonly sector?: Sector | null;
  readonly felt?: readonly Felt[];
  readonly answer?: string;
  /** Read off a still or a clip: how, and the standard error of the amount in the item's unit; null: seen, not measured. */
  readonly picture?: { readonly words: string; readonly error: number | null };
  /** What was done before it, or anything else worth keeping. */
  readonly note?: string;
}

/** An item as it was done on one side, from one view, with what was changed about it. */
export interface ItemDone {
  readonly item: string;
  readonly view?: View;
  readonly with?: readonly Modification[];
  readonly side?: Side;
  readonly tries: readonly ItemTry[];
  /** Why it was left out. */
  readonly skipped?: string;
}

/** A screen as it was run on one day. */
export interface ScreenDone {
  readonly screen: string;
  readonly screenedOn: IsoDate;
  readonly items: readonly ItemDone[];
}
