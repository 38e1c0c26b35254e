import { errorContextOf, screensDoneOf, type ScreensView } from '@dial-gauge/contract';
import { gradedScreens, type GradedItem } from '@dial-gauge/core';
import { screensOf } from './steps';

/** Items of the screens of a visit, graded with the screens as the clinic had them on its day. */
export function gradedOf(view: ScreensView): GradedItem[] {
  return gradedScreens(screensDoneOf(view.tries, view.visit.assessedOn), errorContextOf(view), screensOf(view.settings));
}
