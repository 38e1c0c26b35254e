import type { AmountUnit, Unit } from '../terms.js';

/** Units a reading may be entered in, beside the one it is kept in. */
export const ENTRY_UNITS = ['deg', 'cm', 'in', 'N', 'lb', 'kg', 's'] as const;
export type EntryUnit = (typeof ENTRY_UNITS)[number];

interface Conversion {
  readonly to: AmountUnit;
  readonly factor: number;
}

/**
 * @see inch 2.54 cm exactly (1959 agreement); pound-force 4.448 221 615 260 5 N and kilogram-force
 *   9.806 65 N by definition, NIST SP 811 (from memory)
 */
const CONVERSIONS: Readonly<Record<EntryUnit, Conversion>> = {
  deg: { to: 'deg', factor: 1 },
  cm: { to: 'cm', factor: 1 },
  in: { to: 'cm', factor: 2.54 },
  N: { to: 'N', factor: 1 },
  lb: { to: 'N', factor: 4.4482216152605 },
  kg: { to: 'N', factor: 9.80665 },
  s: { to: 's', factor: 1 },
};

/** The units in which a value of this kind may be entered. */
export function entryUnitsFor(unit: Unit): readonly EntryUnit[] {
  return ENTRY_UNITS.filter((from) => CONVERSIONS[from].to === unit);
}

/**
 * A value as entered, in the unit it is kept in.
 *
 * @example toKept(47, 'lb') // 209.07 N
 */
export function toKept(value: number, from: EntryUnit): number {
  return value * CONVERSIONS[from].factor;
}
