import type { ScreenPlanChange, ScreenPlanView } from '@dial-gauge/contract';
import { wayOfItem } from '@dial-gauge/core';
import type { Command } from '../data/commands';
import { overlay, type Shows } from '../data/overlay';
import type { Unsent } from '../data/visit-commands';

export const NOTHING_CHOSEN: ScreenPlanView = { screens: [], asked: [] };

const SHOWN: Shows<'screen-plan', ScreenPlanView> = {
  planScreens: ({ screens, asked }, { body: { choose = [], leave = [], ask = [], drop = [] } }) => ({
    screens: [...new Set([...screens, ...choose])].filter((id) => !leave.includes(id)),
    asked: [...new Map([...asked, ...ask].map((way) => [wayOfItem(way), way])).values()].filter(
      (way) => !drop.some((one) => wayOfItem(one) === wayOfItem(way)),
    ),
  }),
};

/** What is chosen for a visit, with what was chosen since laid over it. */
export const planShown = (plan: ScreenPlanView, commands: readonly Command[]): ScreenPlanView => overlay(plan, commands, SHOWN);

/** A choice on its way to the server: kept on this device until it is there. */
export function planCommand(visitId: string, body: ScreenPlanChange): Unsent {
  return { id: crypto.randomUUID(), visitId, target: visitId, route: 'planScreens', words: 'the screens of the visit', body };
}
