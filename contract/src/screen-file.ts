import {
  allowedDoing,
  checkItem,
  ENTRY_UNITS,
  findItem,
  findScreen,
  forbiddenWords,
  gradeScreen,
  unknownScreen,
  type GradedItem,
  type ItemEntered,
  type ScreenDone,
  type Side as SideId,
} from '@dial-gauge/core';
import * as z from 'zod';
import { Precaution } from './plan-file.js';
import { Day, Sex, Side } from './ids.js';

/** An hour of a circle: 12 is forward or up, 3 outward, 6 back or down, 9 inward. */
const Hour = z.union(([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] as const).map((hour) => z.literal(hour)));

/** One try. What is left out was not asked. */
export const ItemTry = z.strictObject({
  value: z.number().optional(),
  unit: z.enum(ENTRY_UNITS).optional(),
  meets: z.boolean().nullable().optional(),
  faults: z.array(z.string()).max(30).optional(),
  pain: z.int().min(0).max(10).optional(),
  painWhere: z.string().max(200).optional(),
  lines: z.strictObject({ shin: z.number().min(-30).max(90), trunk: z.number().min(-30).max(120) }).optional(),
  sector: z.strictObject({ from: Hour, to: Hour }).nullable().optional(),
  felt: z.array(z.string()).max(12).optional(),
  answer: z.string().max(40).optional(),
  picture: z.strictObject({ words: z.string().trim().min(1).max(120), error: z.number().min(0).max(180).nullable() }).optional(),
  note: z.string().trim().max(120).optional(),
});

/** An item of a screen, on one side, from one view. */
export const ScreenItemDone = z.strictObject({
  item: z.string(),
  view: z.string().optional(),
  with: z.array(z.string()).max(4).optional(),
  side: Side.optional(),
  tries: z.array(ItemTry).max(12).default([]),
  skipped: z.string().trim().min(1).max(200).optional(),
});

/** The items of a screen, held to what the screen asks. */
const Items = z.array(ScreenItemDone).min(1).max(300);

interface Entered {
  readonly screen: string;
  readonly items: readonly ItemEntered[];
}

function checkItems({ screen, items }: Entered, refuse: (path: PropertyKey[], message: string) => void): void {
  if (!findScreen(screen)) return refuse(['screen'], unknownScreen(screen));
  const seen = new Map<string, number>();
  items.forEach((item, at) => {
    const before = seen.get(sameItem(item));
    if (before === undefined) seen.set(sameItem(item), at);
    else
      refuse(['items', at], `${item.item} is given twice, first as ${before}; allowed: once a side, view and change, with all its tries`);
    for (const { path, message } of checkItem(screen, item)) refuse(['items', at, ...path], message);
  });
}

const sameItem = ({ item, view, side, with: changes = [] }: ItemEntered): string => [item, view, side, [...changes].sort()].join(' ');

/** What precautions forbid of a screen is not run. */
function checkForbidden(
  { screen: id, items }: Entered,
  precautions: readonly Precaution[],
  on: string,
  refuse: (path: PropertyKey[], message: string) => void,
): void {
  const screen = findScreen(id);
  items.forEach((entered, at) => {
    const item = screen && findItem(screen, entered.item);
    if (!item || entered.tries.length === 0) return;
    const allowed = allowedDoing(item, (entered.side ?? 'midline') as SideId, { precautions, cautions: [], on });
    if (allowed.kind === 'forbidden')
      refuse(['items', at], `${item.id} is forbidden: ${forbiddenWords(allowed)}; allowed: no tries, and "skipped" with the reason`);
  });
}

/** `dial-gauge/screen`, version 1: one screen of one person on one day. */
export const ScreenFile = z
  .strictObject({
    format: z.literal('dial-gauge/screen'),
    version: z.literal(1),
    person: z.strictObject({ birthDate: Day, sex: Sex }).optional(),
    screenedOn: Day,
    screen: z.string(),
    items: Items,
    precautions: z.array(Precaution).max(200).default([]),
  })
  .superRefine((file, context) => {
    const refuse = (path: PropertyKey[], message: string) => context.addIssue({ code: 'custom', path, message });
    if (file.person && file.screenedOn < file.person.birthDate)
      refuse(['screenedOn'], `lies before the birth date; allowed: ${file.person.birthDate} or later`);
    checkItems(file, refuse);
    checkForbidden(file, file.precautions, file.screenedOn, refuse);
  });
export type ScreenFile = z.infer<typeof ScreenFile>;

/** A screen inside an assessment file: person and day may be those of the file. */
export const ScreenInFile = z
  .strictObject({
    format: z.literal('dial-gauge/screen').optional(),
    version: z.literal(1).optional(),
    person: z.strictObject({ birthDate: Day, sex: Sex }).optional(),
    screenedOn: Day.optional(),
    screen: z.string(),
    items: Items,
  })
  .superRefine((file, context) => checkItems(file, (path, message) => context.addIssue({ code: 'custom', path, message })));
export type ScreenInFile = z.infer<typeof ScreenInFile>;

/** A screen that has been accepted, as the core takes it. */
export function screenDoneOf({ screen, items, screenedOn }: Pick<ScreenInFile, 'screen' | 'items' | 'screenedOn'>, on: string): ScreenDone {
  return { screen, screenedOn: screenedOn ?? on, items: items as ScreenDone['items'] };
}

/** Its items, graded. */
export function gradedOf(done: ScreenDone): GradedItem[] {
  const screen = findScreen(done.screen);
  return screen ? gradeScreen(screen, done) : [];
}
