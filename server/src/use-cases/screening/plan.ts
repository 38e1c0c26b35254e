import type { ScreenPlanChange, ScreenPlanView, ScreenWay } from '@dial-gauge/contract';
import { findItem, findScreen, screensFor, SCREENS, settingsOn, wayOfItem, type Screen } from '@dial-gauge/core';
import { same } from '../../database/change-log.js';
import { refused } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from '../../records/visits/entities.js';
import { openVisit } from '../../records/visits/open.js';
import { settingsOf } from '../../read-models/screens/screens.js';

const NOTHING_CHOSEN: ScreenPlanView = { screens: [], asked: [] };
/** More than anybody runs at a visit. */
const MOST_ASKED = 200;

/** Chooses screens for a visit, leaves them again, or asks for single items. What does not fit is told with its field. */
export async function planScreens(work: UnitOfWork, visitId: string, change: ScreenPlanChange): Promise<void> {
  const visit = await openVisit(work, visitId, 'pessimistic_write');
  const screens = screensFor(SCREENS, settingsOn(await settingsOf(work), visit.assessedOn));
  mustBeThere(change, screens);
  const before = visit.screenPlan ?? NOTHING_CHOSEN;
  const plan = planned(before, change);
  if (plan.asked.length > MOST_ASKED) throw refused('ask', `asks for ${plan.asked.length} items; allowed: ${MOST_ASKED} or less`);
  if (same(before, plan)) return;
  await work.log.write('visit', visit.id, [['screenPlan', visit.screenPlan, plan]]);
  await work.manager.update(Visit, { id: visit.id, clinicId: work.clinicId }, { screenPlan: plan });
}

/** Sets of names: done twice, or in another order, it comes to the same. */
function planned({ screens, asked }: ScreenPlanView, { choose = [], leave = [], ask = [], drop = [] }: ScreenPlanChange): ScreenPlanView {
  const ways = new Map([...asked, ...ask.map(sorted)].map((way) => [wayOfItem(way), way]));
  for (const way of drop) ways.delete(wayOfItem(sorted(way)));
  return { screens: [...new Set([...screens, ...choose])].filter((id) => !leave.includes(id)), asked: [...ways.values()] };
}

const sorted = ({ with: changes = [], ...way }: ScreenWay): ScreenWay =>
  changes.length > 0 ? { ...way, with: [...new Set(changes)].sort() } : way;

function mustBeThere({ choose = [], ask = [] }: ScreenPlanChange, screens: readonly Screen[]): void {
  const ids = screens.map(({ id }) => id).join(', ');
  for (const [at, id] of choose.entries())
    if (!findScreen(id, screens)) throw refused(`choose.${at}`, `"${id}" is no screen here; allowed: ${ids}`);
  for (const [at, { screen: id, item, view, with: changes = [] }] of ask.entries()) {
    const screen = findScreen(id, screens);
    if (!screen) throw refused(`ask.${at}.screen`, `"${id}" is no screen here; allowed: ${ids}`);
    const found = findItem(screen, item);
    if (!found) throw refused(`ask.${at}.item`, `"${item}" is no item of it; allowed: ${screen.items.map((one) => one.id).join(', ')}`);
    if (view !== undefined && !found.views.some((known) => known === view))
      throw refused(`ask.${at}.view`, `it is not looked at from "${view}"; allowed: ${found.views.join(', ') || 'no view'}`);
    const odd = changes.find((change) => !found.modifications.some((known) => known === change));
    if (odd !== undefined)
      throw refused(`ask.${at}.with`, `"${odd}" is nothing to change about it; allowed: ${found.modifications.join(', ') || 'nothing'}`);
  }
}
