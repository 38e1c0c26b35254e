import { entryUnitsFor } from '../angle/units.js';
import { formatNumber, suffixOf } from '../words/figures.js';
import { kept } from './amount.js';
import { isFault, type FaultId } from './faults.js';
import { findItem, findScreen, SCREENS } from './list.js';
import type { ItemTry } from './result.js';
import type { Screen, ScreenItem, View } from './types.js';

/** What is wrong, where, and what is allowed. */
export interface ItemProblem {
  readonly path: readonly PropertyKey[];
  readonly message: string;
}

/** An item as it comes from outside: names are not known to be right. */
export interface ItemEntered {
  readonly item: string;
  readonly view?: string;
  readonly with?: readonly string[];
  readonly side?: string;
  readonly tries: readonly (Omit<ItemTry, 'faults' | 'felt'> & {
    readonly faults?: readonly string[];
    readonly felt?: readonly string[];
  })[];
  readonly skipped?: string;
}

const list = (allowed: readonly string[], none = 'none'): string => (allowed.length > 0 ? allowed.join(', ') : none);

export function unknownScreen(id: string, screens: readonly Screen[] = SCREENS): string {
  return `${JSON.stringify(id)} is no screen; allowed: ${screens.map((screen) => screen.id).join(', ')}`;
}

/** Everything about an item that does not fit its screen. */
export function checkItem(screenId: string, entered: ItemEntered, screens: readonly Screen[] = SCREENS): ItemProblem[] {
  const screen = findScreen(screenId, screens);
  if (!screen) return [{ path: ['screen'], message: unknownScreen(screenId, screens) }];
  const item = findItem(screen, entered.item);
  if (!item)
    return [
      {
        path: ['item'],
        message: `${JSON.stringify(entered.item)} is no item of ${screen.id}; allowed: ${list(screen.items.map(({ id }) => id))}`,
      },
    ];
  return [
    ...checkView(item, entered),
    ...checkWith(item, entered),
    ...checkSide(item, entered),
    ...(entered.tries.length === 0 && entered.skipped === undefined
      ? [{ path: ['tries'], message: 'is empty; allowed: at least one try, or "skipped" with the reason' }]
      : []),
    ...entered.tries.flatMap((one, at) =>
      checkTry(item, entered, one).map(({ path, message }) => ({ path: ['tries', at, ...path], message })),
    ),
  ];
}

function checkView({ views, id }: ScreenItem, { view }: ItemEntered): ItemProblem[] {
  if (view === undefined) return [];
  if ((views as readonly string[]).includes(view)) return [];
  return [
    {
      path: ['view'],
      message: views.length === 0 ? `does not belong to ${id}; leave it out` : `"${view}" is no view of ${id}; allowed: ${list(views)}`,
    },
  ];
}

function checkWith({ modifications, id }: ScreenItem, entered: ItemEntered): ItemProblem[] {
  return (entered.with ?? []).flatMap((change, at) =>
    (modifications as readonly string[]).includes(change)
      ? []
      : [{ path: ['with', at], message: `"${change}" is no change of ${id}; allowed: ${list(modifications, 'none, leave it out')}` }],
  );
}

function checkSide({ sides, id }: ScreenItem, { side }: ItemEntered): ItemProblem[] {
  if (sides === 'none')
    return side === undefined || side === 'midline'
      ? []
      : [{ path: ['side'], message: `"${side}" does not fit ${id}, which has no sides; allowed: midline, or leave it out` }];
  if (sides === 'either')
    return side === undefined || SIDED.includes(side) || side === 'midline'
      ? []
      : [{ path: ['side'], message: `"${side}" is no side; allowed: left, right, midline` }];
  if (side !== undefined && SIDED.includes(side)) return [];
  return [{ path: ['side'], message: `${side === undefined ? 'is missing' : `"${side}" does not fit ${id}`}; allowed: left, right` }];
}
const SIDED: readonly string[] = ['left', 'right'];

function checkTry(item: ScreenItem, { view }: ItemEntered, one: ItemEntered['tries'][number]): ItemProblem[] {
  return [
    ...checkAmount(item, one as ItemTry),
    ...(one.faults ?? []).flatMap((fault, at) => {
      const message = faultProblem(item, fault, view as View | undefined);
      return message === null ? [] : [{ path: ['faults', at], message }];
    }),
    ...(one.sector !== undefined && item.answered.by !== 'circle'
      ? [{ path: ['sector'], message: `does not belong to ${item.id}, which is no circle; leave it out` }]
      : []),
    ...(one.lines !== undefined && view !== 'side'
      ? [{ path: ['lines'], message: 'are drawn from the side; allowed: with view "side"' }]
      : []),
    ...(one.picture !== undefined && one.picture.error !== null && item.answered.by !== 'amount'
      ? [{ path: ['picture', 'error'], message: `does not belong to ${item.id}, which is not told by a number; allowed: null` }]
      : []),
    ...checkFelt(item, one.felt),
    ...checkAnswer(item, one.answer),
  ];
}

function checkAmount(item: ScreenItem, one: ItemTry): ItemProblem[] {
  const { answered } = item;
  if (one.value === undefined) return one.unit === undefined ? [] : [{ path: ['unit'], message: 'stands without a value; leave it out' }];
  if (answered.by !== 'amount') return [{ path: ['value'], message: `${item.id} is not told by a number; leave it out` }];
  const units = entryUnitsFor(answered.unit);
  if (one.unit !== undefined && !units.includes(one.unit))
    return [{ path: ['unit'], message: `"${one.unit}" does not fit ${item.id}; allowed: ${list(units)}` }];
  const value = kept(item, one)!;
  if (value >= answered.min && value <= answered.max) return [];
  const suffix = suffixOf(answered.unit);
  return [
    {
      path: ['value'],
      message: `${formatNumber(value)}${suffix} is more than ${item.id} can hold; allowed: ${formatNumber(answered.min)} to ${formatNumber(answered.max)}${suffix}`,
    },
  ];
}

/** Why a fault cannot be ticked here; null where it can. */
function faultProblem({ faults, id, views }: ScreenItem, fault: string, view: View | undefined): string | null {
  const here = faults.filter((f) => f.views.length === 0 || view === undefined || f.views.includes(view));
  if (here.some((f) => f.id === fault)) return null;
  const allowed = list(here.map((f) => f.id));
  if (!isFault(fault)) return `"${fault}" is no fault; allowed: ${allowed}`;
  const elsewhere = faults.find((f) => f.id === (fault as FaultId));
  if (elsewhere && views.length > 0)
    return `"${fault}" is seen from ${elsewhere.views.join(' or ')}, not from ${view ?? 'nowhere'}; allowed: ${allowed}`;
  return `"${fault}" is no fault of ${id}; allowed: ${allowed}`;
}

function checkFelt({ answered, id }: ScreenItem, felt: readonly string[] | undefined): ItemProblem[] {
  if (felt === undefined) return [];
  if (answered.by !== 'felt') return [{ path: ['felt'], message: `does not belong to ${id}; leave it out` }];
  const allowed: readonly string[] = [...answered.wanted, ...answered.unwanted];
  return felt.flatMap((muscle, at) =>
    allowed.includes(muscle) ? [] : [{ path: ['felt', at], message: `"${muscle}" is not asked for; allowed: ${list(allowed)}` }],
  );
}

function checkAnswer({ answered, id }: ScreenItem, answer: string | undefined): ItemProblem[] {
  if (answer === undefined) return [];
  if (answered.by !== 'choice') return [{ path: ['answer'], message: `does not belong to ${id}; leave it out` }];
  const allowed = answered.choices.map((choice) => choice.id);
  return allowed.includes(answer) ? [] : [{ path: ['answer'], message: `"${answer}" is not an answer; allowed: ${list(allowed)}` }];
}
