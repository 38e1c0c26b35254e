import type { Degrees } from '../terms.js';

/**
 * The same direction, written from 0 up to but not including 360.
 *
 * @example wrap360(-10) // 350
 */
export function wrap360(angle: Degrees): Degrees {
  const wrapped = angle % 360;
  const up = wrapped < 0 ? wrapped + 360 : wrapped + 0;
  // A hair below zero rounds up to the full turn.
  return up === 360 ? 0 : up;
}

/**
 * The same direction, written above −180 up to and including 180.
 *
 * @example wrap180(190) // -170
 */
export function wrap180(angle: Degrees): Degrees {
  const wrapped = wrap360(angle);
  return wrapped > 180 ? wrapped - 360 : wrapped;
}
