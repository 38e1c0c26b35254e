import type { DoneTrait } from '../traits.js';

/**
 * Movements of joints, parted by commas: "hip.flexion 90, knee.flexion 110 body
 * active". A number of degrees or `full`, what acts on it (left out: nothing)
 * and how it comes about (left out: it is held there). Empty: none.
 */
type Movements = string;

/** Directions in which muscles work against a load, whatever the position: "hip.extension, knee.extension held". */
type Efforts = string;

/** Joints that carry body weight: "hip, knee"; or less than that: "knee limb", "thoracic touch". */
type Carriers = string;

interface Limbs<T> {
  /** The limb or side that it is counted for. */
  readonly working: T;
  /** The opposite one: it stands, leans, holds or helps. */
  readonly helping: T;
  readonly both: T;
}

/** All that an exercise or an item of a screen does to the body. Every field has to be said; nothing is taken for nothing. */
export interface Demands extends Limbs<Movements> {
  readonly neck: Movements;
  readonly chest: Movements;
  readonly lowBack: Movements;
  readonly effort: Limbs<Efforts> & { readonly trunk: Efforts };
  readonly weight: Limbs<Carriers>;
  /** Whose hands grip with effort. */
  readonly grip: 'none' | 'working' | 'helping' | 'both';
  /** What it asks of the whole person; what follows from the rows above need not be named. */
  readonly traits: readonly DoneTrait[];
}
