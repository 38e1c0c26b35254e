import type { ScreenDone } from '@dial-gauge/core';
import * as z from 'zod';
import { EpisodeView } from './episode-view.js';
import { AnyDay, Id, Side } from './ids.js';
import { PatientView } from './patients.js';
import { OwnErrors } from './reliability.js';
import { ValueChecks } from './value-checks.js';
import { ById, none, nothing, route } from './route.js';
import { ItemTry } from './screen-file.js';
import { CautionsView } from './sheet.js';
import { VisitView } from './visit-view.js';

const Moment = z.iso.datetime();
const ItemName = z.string().min(1).max(80);

/** What an item was done as. */
const way = {
  screen: z.string().min(1).max(40),
  item: ItemName,
  view: z.string().max(10).optional(),
  with: z.array(z.string().max(20)).max(4).optional(),
  side: Side.optional(),
};

/** One try of an item, or that it was left out and why. `id` is made by the client: sending it twice keeps it once. */
export const NewScreenTry = z
  .strictObject({
    id: Id,
    ...way,
    try: ItemTry.optional(),
    skipped: z.string().trim().min(1).max(200).optional(),
  })
  .superRefine((entered, context) => {
    if ((entered.try === undefined) === (entered.skipped === undefined))
      context.addIssue({ code: 'custom', path: ['try'], message: 'is missing, or stands beside "skipped"; allowed: one of the two' });
  });
export type NewScreenTry = z.infer<typeof NewScreenTry>;

/** What stands in place of a try that was entered before: another one, or none. The first stays on record. */
export const ScreenCorrection = z.strictObject({ id: Id, try: ItemTry.nullable() });
export type ScreenCorrection = z.infer<typeof ScreenCorrection>;

/** A try as it stands. */
export const ScreenTryView = z.object({
  id: Id,
  ...way,
  try: z.looseObject({}).nullable(),
  skipped: z.string().nullable(),
  by: z.string(),
  heldAt: Moment,
});
export type ScreenTryView = z.infer<typeof ScreenTryView>;

const ItemId = z.string().regex(/^[A-Za-z]+\.[A-Za-z]+$/, 'is no item; allowed: <screen>.<item>, as patterns.toeTouch');

/** What a clinic changes about the screens. Every change is another version, from its day on. */
export const NewScreenSettings = z.strictObject({
  id: Id,
  thresholds: z.record(ItemId, z.number()),
  hidden: z.array(ItemId).max(300),
  own: z
    .array(
      z.strictObject({
        id: z.string().regex(/^own-[a-z0-9-]{1,30}$/, 'is not the id of an own screen; allowed: own- and letters or digits'),
        version: z.int().min(1),
        name: z.string().trim().min(2).max(60),
        purpose: z.string().trim().max(200),
        items: z.array(ItemId).min(1).max(60),
      }),
    )
    .max(30),
});
export type NewScreenSettings = z.infer<typeof NewScreenSettings>;

export const ScreenSettingsView = z.object({
  since: AnyDay,
  thresholds: z.record(z.string(), z.number()),
  hidden: z.array(z.string()),
  own: z.array(z.object({ id: z.string(), version: z.int(), name: z.string(), purpose: z.string(), items: z.array(z.string()) })),
});
export type ScreenSettingsView = z.infer<typeof ScreenSettingsView>;

const Word = z.string().min(1).max(40);

/** An item that is to be looked at: from a view, with something changed about it. */
export const ScreenWay = z.strictObject({
  screen: Word,
  item: ItemName,
  view: z.string().max(10).optional(),
  with: z.array(z.string().max(20)).max(4).optional(),
});
export type ScreenWay = z.infer<typeof ScreenWay>;

/** What is added to the screens of a visit, and what is taken off again: in whatever order it arrives, it comes to the same. */
export const ScreenPlanChange = z
  .strictObject({
    choose: z.array(Word).max(40).optional(),
    leave: z.array(Word).max(40).optional(),
    ask: z.array(ScreenWay).max(40).optional(),
    drop: z.array(ScreenWay).max(40).optional(),
  })
  .superRefine(({ choose = [], leave = [], ask = [], drop = [] }, context) => {
    if (choose.length + leave.length + ask.length + drop.length === 0)
      context.addIssue({ code: 'custom', path: [], message: 'changes nothing; allowed: choose, leave, ask or drop with one or more' });
    const both = choose.find((id) => leave.includes(id));
    if (both !== undefined)
      context.addIssue({ code: 'custom', path: ['leave'], message: `"${both}" is chosen and left at once; allowed: one of the two` });
  });
export type ScreenPlanChange = z.infer<typeof ScreenPlanChange>;

/** Which screens are run at a visit, and single items that are asked for beside them. */
export const ScreenPlanView = z.object({
  screens: z.array(z.string()),
  asked: z.array(z.object({ screen: z.string(), item: z.string(), view: z.string().optional(), with: z.array(z.string()).optional() })),
});
export type ScreenPlanView = z.infer<typeof ScreenPlanView>;

/** Screens of a visit as they were run, those of visits before, and what the clinic changed about screens. */
export const ScreensView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  ownErrors: OwnErrors,
  /** Values that the clinic looked up, as far as they are needed here. */
  valueChecks: ValueChecks,
  cautions: CautionsView.nullable(),
  /** What was chosen to be run; it may be more or less than what was begun. */
  plan: ScreenPlanView,
  /** What is measured at this visit already. */
  measured: z.array(
    z.object({ motion: z.string(), protocol: z.string().optional(), side: z.string(), mode: z.string(), position: z.string() }),
  ),
  tries: z.array(ScreenTryView),
  /** The last visit before with a screen. */
  before: z.object({ on: AnyDay, tries: z.array(ScreenTryView) }).nullable(),
  settings: ScreenSettingsView,
});
export type ScreensView = z.infer<typeof ScreensView>;

export const ClinicScreensView = z.object({ settings: ScreenSettingsView });
export type ClinicScreensView = z.infer<typeof ClinicScreensView>;

/** Movement screens of a visit, and how the clinic has them. */
export const SCREENINGS = {
  screens: route({
    method: 'get',
    path: '/visits/:id/screens',
    keep: true,
    summary: 'Movement screens of a visit, as they were run',
    params: ById,
    body: nothing,
    answer: ScreensView,
  }),
  planScreens: route({
    method: 'post',
    path: '/visits/:id/screen-plan',
    summary: 'Choose screens for a visit, leave them again, or ask for single items; sent twice it comes to the same',
    params: ById,
    body: ScreenPlanChange,
    answer: ScreensView,
  }),
  holdScreenTry: route({
    method: 'post',
    path: '/visits/:id/screens',
    summary: 'Save one try of an item, or that it was left out; answered once it is committed',
    params: ById,
    body: NewScreenTry,
    answer: ScreensView,
  }),
  correctScreenTry: route({
    method: 'post',
    path: '/screen-tries/:id/corrections',
    summary: 'Put another try in place of one, or take it back; the first stays on record',
    params: ById,
    body: ScreenCorrection,
    answer: ScreensView,
  }),
  clinicScreens: route({
    method: 'get',
    path: '/clinic/screens',
    keep: true,
    summary: 'What the clinic changed about the screens',
    params: none,
    body: nothing,
    answer: ClinicScreensView,
  }),
  setScreens: route({
    method: 'post',
    path: '/clinic/screens',
    summary: 'Change thresholds, hide items, put own screens together; old results keep what held on their day',
    params: none,
    body: NewScreenSettings,
    answer: ClinicScreensView,
  }),
} as const;

type Tried = Pick<ScreenTryView, 'screen' | 'item' | 'view' | 'with' | 'side' | 'skipped'> & { readonly try: object | null };

/** Tries as the core reads them: by screen, and by item, view, change and side, in the order they were done. */
export function screensDoneOf(tries: readonly Tried[], screenedOn: string): ScreenDone[] {
  const screens = new Map<string, Map<string, Record<string, unknown> & { tries: object[] }>>();
  for (const { screen, item, view, with: changes = [], side, skipped, try: one } of tries) {
    const items = screens.get(screen) ?? new Map();
    screens.set(screen, items);
    const key = [item, view, side, ...[...changes].sort()].join(' ');
    const done = items.get(key) ?? {
      item,
      ...(view ? { view } : {}),
      ...(changes.length ? { with: changes } : {}),
      ...(side ? { side } : {}),
      tries: [],
    };
    items.set(key, done);
    if (one) done.tries.push(one);
    // What was left out first and done after all is done.
    if (skipped !== null && done.tries.length === 0) done.skipped = skipped;
    else delete done.skipped;
  }
  return [...screens].map(([screen, items]) => ({ screen, screenedOn, items: [...items.values()] }) as unknown as ScreenDone);
}
