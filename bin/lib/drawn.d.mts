export interface Angles {
  readonly shin: number;
  readonly knee: number;
  readonly trunk: number;
}
export type Landmarks = Readonly<Record<'ankle' | 'knee' | 'hip' | 'shoulder' | 'hand' | 'head', readonly [number, number]>>;
export const SIZE: { readonly width: number; readonly height: number };
export const DEEPEST: Angles;
export const STANDING: Angles;
export const TIMES: { readonly down: number; readonly deepest: number; readonly up: number; readonly end: number };
export function anglesAt(t: number): Angles;
export function landmarksOf(angles: Angles): Landmarks;
