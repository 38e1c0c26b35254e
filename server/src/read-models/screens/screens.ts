import {
  screensDoneOf,
  type ClinicScreensView,
  type NewScreenTry,
  type ScreenSettingsView,
  type ScreensView,
  type ScreenTryView,
} from '@dial-gauge/contract';
import {
  findItem,
  findScreen,
  itemName,
  NO_SETTINGS,
  screensFor,
  SCREENS,
  settingsOn,
  type Modification,
  type Screen,
  type ScreenDay,
  type ScreenDone,
  type ScreenSettings,
  type Side,
  type View,
} from '@dial-gauge/core';
import { In } from 'typeorm';
import { grouped } from '../../shared/grouped.js';
import { type UnitOfWork } from '../../database/unit-of-work.js';
import type { Names } from '../../database/ports.js';
import { MeasurementRow } from '../../records/readings/entities.js';
import { protocolIdOf } from '../../records/readings/views.js';
import { Visit } from '../../records/visits/entities.js';
import { oneVisitView, settingOf } from '../visit-record/record.js';
import { ScreenSettingsRow, ScreenTryRow } from '../../records/screens/entities.js';

export async function screensView(work: UnitOfWork, visitId: string): Promise<ScreensView> {
  const row = await work.one(Visit, visitId, 'visit');
  const [{ patient, episode, ownErrors, valueChecks }, visit, tries, before, all, measured] = await Promise.all([
    settingOf(work, row),
    oneVisitView(work, row),
    triesOf(work, [visitId]),
    lastTimes(work, visitId),
    settingsOf(work),
    measuredAt(work, visitId),
  ]);
  const last = before.at(-1);
  const earlier = last && (await triesOf(work, [last.id])).get(last.id);
  return {
    visit,
    patient,
    episode,
    ownErrors,
    valueChecks: valueChecks.filter(({ kind }) => kind === 'errors'),
    cautions: row.cautions,
    plan: row.screenPlan ?? { screens: [], asked: [] },
    measured,
    tries: tries.get(visitId) ?? [],
    before: last && earlier ? { on: last.assessedOn, tries: earlier } : null,
    settings: settingsView(settingsOn(all, row.assessedOn)),
  };
}
/** What a visit has a standing reading of. */
async function measuredAt({ manager, clinicId }: UnitOfWork, visitId: string): Promise<ScreensView['measured']> {
  const rows = await manager
    .createQueryBuilder(MeasurementRow, 'm')
    .where('m.clinicId = :clinicId AND m.visitId = :visitId', { clinicId, visitId })
    .andWhere('EXISTS (SELECT 1 FROM trial t WHERE t.clinic_id = m.clinic_id AND t.measurement_id = m.id AND t.withdrawn_at IS NULL)')
    .getMany();
  return rows.map((row) => {
    const { motion, side, mode, position } = row;
    return { motion, side, mode, position, ...(row.variant === '' ? {} : { protocol: protocolIdOf(row) }) };
  });
}
/** Screens of a visit and of those before it, as the core judges them, with the screens as the clinic had them on the day. */
export async function screensForJudging(
  work: UnitOfWork,
  visitId: string,
): Promise<{ screens: Screen[]; done: ScreenDone[]; before: ScreenDone[] }> {
  const row = await work.one(Visit, visitId, 'visit');
  const earlier = await lastTimes(work, visitId);
  const tries = await triesOf(work, [visitId, ...earlier.map(({ id }) => id)]);
  const screens = await screensOn(work, row.assessedOn);
  return {
    screens,
    done: screensDoneOf(tries.get(visitId) ?? [], row.assessedOn),
    before: earlier.flatMap(({ id, assessedOn }) => screensDoneOf(tries.get(id) ?? [], assessedOn)),
  };
}
/** Screens of several visits, oldest first, each with the screens as the clinic had them on its day. Visits without any are left out. */
export async function screenDays(work: UnitOfWork, visits: readonly Pick<Visit, 'id' | 'assessedOn'>[]): Promise<ScreenDay[]> {
  const tries = await triesOf(
    work,
    visits.map(({ id }) => id),
  );
  const all = await settingsOf(work);
  const asTheyWere = new Map<ScreenSettings, Screen[]>();
  return visits.flatMap(({ id, assessedOn }, visit) => {
    const own = tries.get(id);
    if (!own) return [];
    const settings = settingsOn(all, assessedOn);
    const screens = asTheyWere.get(settings) ?? screensFor(SCREENS, settings);
    asTheyWere.set(settings, screens);
    return [{ visit, on: assessedOn, done: screensDoneOf(own, assessedOn), screens }];
  });
}
/** The screens as the clinic had them on a day. */
export const screensOn = async (work: UnitOfWork, day: string): Promise<Screen[]> =>
  screensFor(SCREENS, settingsOn(await settingsOf(work), day));
/** "left knee to wall: 4 cm": a try for a list of what arrived late. */
export function tryWords({ screen, item, view, side, with: changes, skipped }: Omit<NewScreenTry, 'id'>): string {
  const found = findScreen(screen);
  const name = (found && findItem(found, item)?.name) ?? item;
  const what = itemName({
    name,
    side: side ?? 'midline',
    view: (view as View | undefined) ?? null,
    with: (changes ?? []) as Modification[],
  });
  return `screen, ${what}${skipped === undefined ? '' : `: left out, ${skipped}`}`;
}
export async function clinicScreensView(work: UnitOfWork): Promise<ClinicScreensView> {
  return { settings: settingsView((await settingsOf(work)).at(-1) ?? NO_SETTINGS) };
}
const settingsView = ({ since, thresholds, hidden, own }: ScreenSettings): ScreenSettingsView => ({
  since,
  thresholds: { ...thresholds },
  hidden: [...hidden],
  own: own.map((screen) => ({ ...screen, items: [...screen.items] })),
});
/** Every change of the screens, oldest first; of those of one day the last one counts. */
export async function settingsOf({ manager, clinicId }: UnitOfWork): Promise<ScreenSettings[]> {
  const rows = await manager.find(ScreenSettingsRow, { where: { clinicId }, order: { since: 'ASC', setAt: 'ASC' } });
  const byDay = new Map(rows.map(({ since, settings }) => [since, { ...settings, since }]));
  return [...byDay.values()];
}
/** Visits of the same episode before one, oldest first. */
/**
 * Visits before one, oldest first, at which any item was done for the last
 * time the same way: of a hundred earlier visits these are a few.
 */
async function lastTimes({ manager, clinicId }: UnitOfWork, visitId: string): Promise<Pick<Visit, 'id' | 'assessedOn'>[]> {
  return manager.query<Pick<Visit, 'id' | 'assessedOn'>[]>(LAST_TIMES, [clinicId, visitId]);
}
/** Of what stands: not put right by another, not taken back. */
const LAST_TIMES = `SELECT DISTINCT id, assessedOn, startedAt FROM (
    SELECT v.id, v.assessed_on AS assessedOn, v.started_at AS startedAt, ROW_NUMBER() OVER (
      PARTITION BY t.screen, t.item, t.view, t.changes, t.side ORDER BY v.assessed_on DESC, v.started_at DESC, v.id DESC) AS back
    FROM visit this
    JOIN visit v ON v.clinic_id = this.clinic_id AND v.episode_id = this.episode_id
      AND (v.assessed_on, v.started_at, v.id) < (this.assessed_on, this.started_at, this.id)
    JOIN screen_try t ON t.clinic_id = v.clinic_id AND t.visit_id = v.id
    LEFT JOIN screen_try instead ON instead.clinic_id = t.clinic_id AND instead.corrects = t.id
    WHERE this.clinic_id = ? AND this.id = ? AND instead.id IS NULL AND (t.seen IS NOT NULL OR t.skipped IS NOT NULL)
  ) done WHERE back = 1 ORDER BY assessedOn, startedAt, id`;
/** Tries that stand, by visit, each where the first of it was: what was put right stands in its place, what was taken back is gone. */
async function triesOf(work: UnitOfWork, visitIds: readonly string[]): Promise<ReadonlyMap<string, ScreenTryView[]>> {
  const { manager, clinicId } = work;
  if (visitIds.length === 0) return new Map();
  const rows = await manager.find(ScreenTryRow, { where: { clinicId, visitId: In([...visitIds]) }, order: { heldAt: 'ASC', id: 'ASC' } });
  const names = await work.namesOf(rows.map((row) => row.heldBy));
  const instead = new Map(rows.flatMap((row) => (row.corrects ? [[row.corrects, row] as const] : [])));
  const standing = rows.filter((row) => !row.corrects).map((row) => latest(row, instead));
  const views = new Map<string, ScreenTryView[]>();
  for (const [visitId, own] of grouped(
    standing.filter((row) => row.seen !== null || row.skipped !== null),
    (row) => row.visitId,
  ))
    views.set(
      visitId,
      own.map((row) => tryView(row, names)),
    );
  return views;
}
function latest(row: ScreenTryRow, instead: ReadonlyMap<string, ScreenTryRow>): ScreenTryRow {
  let standing = row;
  for (let next = instead.get(standing.id); next; next = instead.get(standing.id)) standing = next;
  return standing;
}
const tryView = ({ id, screen, item, view, changes, side, seen, skipped, heldBy, heldAt }: ScreenTryRow, names: Names): ScreenTryView => ({
  id,
  screen,
  item,
  ...(view ? { view } : {}),
  ...(changes.length ? { with: changes } : {}),
  ...(side ? { side: side as Side } : {}),
  try: seen as ScreenTryView['try'],
  skipped,
  by: names.get(heldBy) ?? '',
  heldAt: heldAt.toISOString(),
});
