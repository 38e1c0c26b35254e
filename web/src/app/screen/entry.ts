import { ASSUMED_HAND, handsToCm, type FaultId, type Felt, type ItemTry, type Sector } from '@dial-gauge/core';
import type { ScreenStep } from './steps';

/** What is being entered at a step and not kept yet. */
export interface Entry {
  readonly meets: boolean | null;
  readonly faults: readonly FaultId[];
  /** As typed. */
  readonly value: string;
  readonly pain: string;
  readonly painWhere: string;
  readonly sector: Sector | null | undefined;
  readonly felt: readonly Felt[] | undefined;
  readonly answer: string | null;
  readonly shin: string;
  readonly trunk: string;
  /** Read off a picture, and not changed since. */
  readonly picture?: ItemTry['picture'];
}

export const NOTHING: Entry = {
  meets: null,
  faults: [],
  value: '',
  pain: '',
  painWhere: '',
  sector: undefined,
  felt: undefined,
  answer: null,
  shin: '',
  trunk: '',
};

export const isEntry = (value: unknown): value is Entry =>
  typeof value === 'object' && value !== null && 'faults' in value && 'pain' in value;

/** A number as it is typed: a decimal comma or point; fists and fingers as 1f2, where centimetres are asked. */
function amountOf(typed: string, isCm: boolean): number | null {
  const hands = /^(\d)f(\d)?$/i.exec(typed.replace(/\s/g, ''));
  if (hands && isCm) return handsToCm(Number(hands[1]), Number(hands[2] ?? 0), ASSUMED_HAND);
  const plain = typed.trim().replace(',', '.');
  return plain !== '' && Number.isFinite(Number(plain)) ? Number(plain) : null;
}

/** What is entered as a try, or what is wrong with it. */
export function tryOf({ item, view }: Pick<ScreenStep, 'item' | 'view'>, entry: Entry): ItemTry | string {
  const { meets, faults, value, pain, painWhere, sector, felt, answer, shin, trunk } = entry;
  const { answered } = item;
  const amount = value.trim() === '' ? undefined : amountOf(value, answered.by === 'amount' && answered.unit === 'cm');
  if (amount === null)
    return `“${value}” is no amount; allowed: a number, as 12.5${answered.by === 'amount' && answered.unit === 'cm' ? ', or fists and fingers, as 1f2' : ''}.`;
  const pained = pain.trim() === '' ? undefined : Number(pain);
  if (pained !== undefined && (!Number.isInteger(pained) || pained < 0 || pained > 10))
    return `Pain “${pain}” is not on the scale; allowed: 0 to 10, or nothing where it was not asked.`;
  const lines = [shin, trunk].map((line) => (line.trim() === '' ? undefined : amountOf(line, false)));
  if (lines.includes(null) || (lines[0] === undefined) !== (lines[1] === undefined))
    return 'Lines: both shin and trunk are needed, in degrees forward of upright; or neither.';
  const looksForFaults = answered.by === 'look' && answered.noFaults === true && view !== null;
  const told =
    amount !== undefined ||
    meets !== null ||
    faults.length > 0 ||
    sector !== undefined ||
    felt !== undefined ||
    answer !== null ||
    lines[0] !== undefined;
  if (!told && !looksForFaults)
    return 'Nothing was told yet: choose meets or short, tick what you see, or type the amount. What was not done is left out, with the reason.';
  return {
    ...(amount === undefined ? {} : { value: amount }),
    ...(meets === null ? {} : { meets }),
    ...(faults.length > 0 || looksForFaults ? { faults } : {}),
    ...(pained === undefined ? {} : { pain: pained }),
    ...(painWhere.trim() === '' ? {} : { painWhere: painWhere.trim() }),
    ...(lines[0] === undefined ? {} : { lines: { shin: lines[0]!, trunk: lines[1]! } }),
    ...(sector === undefined ? {} : { sector }),
    ...(felt === undefined ? {} : { felt }),
    ...(answer === null ? {} : { answer }),
    ...(entry.picture ? { picture: entry.picture } : {}),
  };
}

/** A try that was kept, as it was entered. */
export const entryOf = (one: ItemTry): Entry => ({
  meets: one.meets ?? null,
  faults: one.faults ?? [],
  value: one.value === undefined ? '' : String(one.value),
  pain: one.pain === undefined ? '' : String(one.pain),
  painWhere: one.painWhere ?? '',
  sector: one.sector,
  felt: one.felt,
  answer: one.answer ?? null,
  shin: one.lines ? String(one.lines.shin) : '',
  trunk: one.lines ? String(one.lines.trunk) : '',
  ...(one.picture ? { picture: one.picture } : {}),
});

const FIELDS: Readonly<Record<string, string>> = {
  value: 'Amount',
  pain: 'Pain',
  faults: 'What you see',
  side: 'Side',
  lines: 'Lines',
  sector: 'Circle',
  felt: 'Felt',
  answer: 'Answer',
};
/** The field of a path, in words. */
export const fieldName = (path: readonly PropertyKey[]): string => path.map((part) => FIELDS[String(part)]).find(Boolean) ?? 'This try';
