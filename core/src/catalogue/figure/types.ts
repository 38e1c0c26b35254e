import type { Degrees } from '../../terms.js';

/** A point of a scene, in its own units: x to the right, y down, 360 × 240. */
export type Point = readonly [x: number, y: number];

/** A bone between two points, so and so thick. */
export type Bone = readonly [from: string, to: string, width: number];

/** A body in a position, as the examiner sees it: what every figure of that position is drawn on. */
export interface Scene {
  readonly id: string;
  /** From where it is seen, in words: "from the left side". The left limb is the one that is drawn in front. */
  readonly seenFrom: string;
  readonly points: Readonly<Record<string, Point>>;
  readonly bones: readonly Bone[];
  readonly head?: { readonly at: string; readonly radius: number };
  /** Table, seat, floor or wall. */
  readonly furniture: readonly (readonly [from: Point, to: Point])[];
}

/** What is drawn on the scene. */
export type Figure =
  | {
      readonly kind: 'turn';
      readonly scene: string;
      /** The joint that turns. */
      readonly axis: string;
      /** Points that go with the limb; the moving arm lies along the first. */
      readonly moving: readonly string[];
      /** A point the stationary arm runs to, or a direction in degrees clockwise from up. */
      readonly still: string | Degrees;
      /** Where the moving arm points at zero, where the drawing differs from the dial. */
      readonly zeroAt?: Degrees;
      /** Where the inclinometers sit. */
      readonly sites?: readonly string[];
      /** How far the limb is drawn. */
      readonly end: Degrees;
    }
  | { readonly kind: 'tape'; readonly scene: string; readonly from: string; readonly to: string }
  | { readonly kind: 'ring'; readonly scene: string; readonly at: string; readonly width: number; readonly tilt: Degrees }
  | { readonly kind: 'push'; readonly scene: string; readonly at: string; readonly towards: Degrees }
  | { readonly kind: 'stand'; readonly scene: string };
