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

/** The figures of an entry. */
interface Figures {
  readonly amount: number | undefined;
  readonly pain: number | undefined;
  readonly lines: ItemTry['lines'];
}

/** The amount that was typed; words where it is none. */
function enteredAmount({ answered }: ScreenStep['item'], value: string): number | undefined | string {
  if (value.trim() === '') return undefined;
  const isCm = answered.by === 'amount' && answered.unit === 'cm';
  const hands = isCm ? ', or fists and fingers, as 1f2' : '';
  return amountOf(value, isCm) ?? `“${value}” is no amount; allowed: a number, as 12.5${hands}.`;
}

/** The pain that was typed; words where it is not on the scale. */
function enteredPain(pain: string): number | undefined | string {
  if (pain.trim() === '') return undefined;
  const figure = Number(pain);
  const isOnScale = Number.isInteger(figure) && figure >= 0 && figure <= 10;
  return isOnScale ? figure : `Pain “${pain}” is not on the scale; allowed: 0 to 10, or nothing where it was not asked.`;
}

/** Both lines that were typed, or neither; words where one is missing or is no figure. */
function enteredLines({ shin, trunk }: Entry): ItemTry['lines'] | string {
  if (shin.trim() === '' && trunk.trim() === '') return undefined;
  const [lower, upper] = [amountOf(shin, false), amountOf(trunk, false)];
  if (shin.trim() === '' || trunk.trim() === '' || lower === null || upper === null)
    return 'Lines: both shin and trunk are needed, in degrees forward of upright; or neither.';
  return { shin: lower, trunk: upper };
}

/** The figures of an entry, or what is wrong with the first that is not right. */
function figuresOf(item: ScreenStep['item'], entry: Entry): Figures | string {
  const [amount, pain, lines] = [enteredAmount(item, entry.value), enteredPain(entry.pain), enteredLines(entry)];
  if (typeof amount === 'string') return amount;
  if (typeof pain === 'string') return pain;
  return typeof lines === 'string' ? lines : { amount, pain, lines };
}

/** Whether anything was told: of nothing no try is made. */
const isTold = ({ meets, faults, sector, felt, answer }: Entry, { amount, lines }: Figures): boolean =>
  [amount, lines, sector, felt, meets ?? undefined, answer ?? undefined].some((one) => one !== undefined) || faults.length > 0;

/** Without what was not said; null says something: no part of the circle. */
const said = <T extends object>(fields: T): Partial<T> =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined && value !== '')) as Partial<T>;

/** What is entered as a try, or what is wrong with it. */
export function tryOf({ item, view }: Pick<ScreenStep, 'item' | 'view'>, entry: Entry): ItemTry | string {
  const figures = figuresOf(item, entry);
  if (typeof figures === 'string') return figures;
  const { answered } = item;
  const looksForFaults = answered.by === 'look' && answered.noFaults === true && view !== null;
  if (!looksForFaults && !isTold(entry, figures))
    return 'Nothing was told yet: choose meets or short, tick what you see, or type the amount. What was not done is left out, with the reason.';
  const { meets, faults, painWhere, sector, felt, answer, picture } = entry;
  const { amount, pain, lines } = figures;
  return said({
    ...{ value: amount, pain, painWhere: painWhere.trim(), lines, sector, felt, picture },
    ...{ meets: meets ?? undefined, answer: answer ?? undefined },
    faults: faults.length > 0 || looksForFaults ? faults : undefined,
  }) as ItemTry;
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
