import type { IsoDate } from '../terms.js';

/**
 * Completed years on a day. Somebody born on 29 February completes a year on
 * 1 March in a common year.
 *
 * @throws RangeError when the day lies before the birth
 * @example ageOn('1984-05-02', '2026-11-20') // 42
 */
export function ageOn(birthDate: IsoDate, day: IsoDate): number {
  if (day < birthDate) throw new RangeError(`${day} lies before the birth date ${birthDate}`);
  const years = Number(day.slice(0, 4)) - Number(birthDate.slice(0, 4));
  return day.slice(5) < birthDate.slice(5) ? years - 1 : years;
}
