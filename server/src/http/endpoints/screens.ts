import { SCREENINGS } from '@dial-gauge/contract';
import type { Side } from '@dial-gauge/core';
import { serve, type Resource } from '../endpoint.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { ScreenSettingsRow, ScreenTryRow } from '../../records/screens/entities.js';
import { planScreens } from '../../use-cases/screening/plan.js';
import { correctScreenTry, holdScreenTry, setScreens } from '../../use-cases/screening/tries.js';
import { clinicScreensView, screensView, tryWords } from '../../read-models/screens/screens.js';

const thenView = (visitId: string) => (after: UnitOfWork) => screensView(after, visitId);

/** Movement screens of a visit, and how the clinic has them. */
export const screens: Resource = {
  entities: [ScreenTryRow, ScreenSettingsRow],
  routes: [
    serve(SCREENINGS.screens, (work, { params }) => screensView(work, params.id)),
    serve(SCREENINGS.planScreens, async (work, { params, body }) => {
      await planScreens(work, params.id, body);
      return thenView(params.id);
    }),
    serve(SCREENINGS.holdScreenTry, async (work, { params, body }) => thenView(await holdScreenTry(work, params.id, body)), {
      late: { name: 'holdScreenTry', words: (_work, { body }) => tryWords(body) },
    }),
    serve(SCREENINGS.correctScreenTry, async (work, { params, body }) => thenView(await correctScreenTry(work, params.id, body)), {
      late: {
        name: 'correctScreenTry',
        words: async (work, { params, body }) => {
          const { screen, item, view, side } = await work.one(ScreenTryRow, params.id, 'try');
          const name = tryWords({ screen, item, view: view || undefined, side: (side || undefined) as Side | undefined });
          return `${name}: ${body.try === null ? 'taken back' : 'put right'}`;
        },
      },
    }),
    serve(SCREENINGS.clinicScreens, (work) => clinicScreensView(work)),
    serve(SCREENINGS.setScreens, async (work, { body }) => {
      await setScreens(work, body);
      return (after) => clinicScreensView(after);
    }),
  ],
};
