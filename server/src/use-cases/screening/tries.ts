import { limitsAt } from '../../read-models/visit-record/limits.js';
import { type NewScreenSettings, type NewScreenTry, type ScreenCorrection } from '@dial-gauge/contract';
import {
  allowedDoing,
  checkItem,
  everyItem,
  findItem,
  findScreen,
  forbiddenWords,
  itemId,
  SCREENS,
  type ItemTry,
  type ScreenSettings,
  type Side,
} from '@dial-gauge/core';
import { Episode } from '../../records/episodes/entities.js';
import { HttpProblem, refused } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { type Visit } from '../../records/visits/entities.js';
import { openVisit } from '../../records/visits/open.js';
import { ScreenSettingsRow, ScreenTryRow } from '../../records/screens/entities.js';
import { screensOn, settingsOf } from '../../read-models/screens/screens.js';

/** @returns the visit it belongs to */
export async function holdScreenTry(work: UnitOfWork, visitId: string, entered: NewScreenTry): Promise<string> {
  const { clinicId, caller, now, manager } = work;
  const row: ScreenTryRow = {
    id: entered.id,
    clinicId,
    visitId,
    screen: entered.screen,
    item: entered.item,
    view: entered.view ?? '',
    changes: [...(entered.with ?? [])].sort(),
    side: entered.side ?? '',
    seen: (entered.try as ItemTry | undefined) ?? null,
    skipped: entered.skipped ?? null,
    corrects: null,
    heldBy: caller.userId,
    heldAt: now,
  };
  if (!(await manager.existsBy(ScreenTryRow, { id: entered.id }))) {
    const visit = await openVisit(work, visitId);
    await mustFit(work, visit, row);
  }
  await work.insertFact(ScreenTryRow, row, 'try', ['visitId', 'screen', 'item', 'view', 'changes', 'side', 'seen', 'skipped', 'corrects']);
  return visitId;
}
/** @returns the visit it belongs to */
export async function correctScreenTry(work: UnitOfWork, tryId: string, { id, try: instead }: ScreenCorrection): Promise<string> {
  const { caller, now, manager } = work;
  const old = await work.one(ScreenTryRow, tryId, 'try', 'pessimistic_read');
  const row: ScreenTryRow = {
    ...old,
    id,
    seen: instead as ItemTry | null,
    skipped: null,
    corrects: tryId,
    heldBy: caller.userId,
    heldAt: now,
  };
  if (!(await manager.existsBy(ScreenTryRow, { id }))) {
    const visit = await openVisit(work, old.visitId);
    if (instead) await mustFit(work, visit, row);
  }
  try {
    await work.insertFact(ScreenTryRow, row, 'try', ['visitId', 'seen', 'corrects']);
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw new HttpProblem(
      409,
      'Changed meanwhile',
      'Nothing was saved: this try was put right or taken back meanwhile. Look at what stands there now.',
    );
  }
  return old.visitId;
}
/** What does not fit the screen, or may not be done, is told with its field. */
async function mustFit(work: UnitOfWork, visit: Visit, row: ScreenTryRow): Promise<void> {
  const screens = await screensOn(work, visit.assessedOn);
  const { screen, item, view, changes, side, seen, skipped } = row;
  const [wrong] = checkItem(
    screen,
    {
      item,
      tries: seen ? [seen] : [],
      ...(view ? { view } : {}),
      ...(changes.length ? { with: changes } : {}),
      ...(side ? { side } : {}),
      ...(skipped === null ? {} : { skipped }),
    },
    screens,
  );
  if (wrong) throw refused(pathOf(wrong.path), wrong.message);
  if (!seen) return;
  const about = findItem(findScreen(screen, screens)!, item)!;
  const episode = await work.manager.findOneByOrFail(Episode, { id: visit.episodeId, clinicId: work.clinicId });
  const allowed = allowedDoing(about, (side || 'midline') as Side, limitsAt(episode, visit));
  if (allowed.kind === 'forbidden')
    throw refused('item', `${about.name.toLowerCase()} is forbidden: ${forbiddenWords(allowed)}; allowed: leave it out, with the reason`);
}
/** The first try of the core's list is this one. */
const pathOf = (path: readonly PropertyKey[]): string =>
  path
    .map(String)
    .join('.')
    .replace(/^tries\.0/, 'try')
    .replace(/^tries$/, 'try');
/** Keeps how the clinic has the screens from today on. Every change is another row. */
export async function setScreens(work: UnitOfWork, { id, ...settings }: NewScreenSettings): Promise<void> {
  const { clinicId, caller, now } = work;
  const known = new Set(SCREENS.flatMap((screen) => everyItem(screen).map((item) => itemId(screen.id, item.id))));
  const named: readonly (readonly [string, readonly string[]])[] = [
    ['thresholds', Object.keys(settings.thresholds)],
    ['hidden', settings.hidden],
    ...settings.own.map((own, at) => [`own.${at}.items`, own.items] as const),
  ];
  for (const [path, ids] of named)
    for (const one of ids)
      if (!known.has(one as never))
        throw refused(path, `"${one}" is no item; allowed: ${[...known].slice(0, 6).join(', ')} and the other items of the screens`);
  for (const [one, value] of Object.entries(settings.thresholds)) {
    const [screen, name] = one.split('.') as [string, string];
    const item = findItem(findScreen(screen)!, name)!;
    if (!item.threshold || item.answered.by !== 'amount')
      throw refused(`thresholds.${one}`, 'has no threshold; allowed: items that are told by a number');
    const { min, max } = item.answered;
    if (value < min || value > max)
      throw refused(`thresholds.${one}`, `${value} is more than the item can hold; allowed: ${min} to ${max}`);
  }
  const ids = settings.own.map((own) => own.id);
  const twice = ids.find((one, at) => ids.indexOf(one) !== at);
  if (twice !== undefined) throw refused('own', `"${twice}" is given twice; allowed: each own screen once`);
  const row: ScreenSettingsRow = {
    id,
    clinicId,
    since: now.toISOString().slice(0, 10),
    settings: settings as Omit<ScreenSettings, 'since'>,
    setBy: caller.userId,
    setAt: now,
  };
  const before = (await settingsOf(work)).at(-1) ?? null;
  if (await work.insertFact(ScreenSettingsRow, row, 'change of the screens', ['settings']))
    await work.log.write('clinic', clinicId, [['screens', before && { ...before, since: undefined }, settings]]);
}
