import { ROUTES } from '@dial-gauge/contract';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import type { Caller } from '../caller.js';
import { Goals } from '../store/goals.js';
import { Retests } from '../store/retests.js';
import { Studies } from '../store/studies.js';
import { serve } from './serve.js';

/** Goals, retests within a visit, and studies of the clinic's own error. */
export function followingRouter(dataSource: DataSource): Router {
  const router = Router();
  const retests = (caller: Caller) => new Retests(dataSource, caller);
  const studies = (caller: Caller) => new Studies(dataSource, caller);

  serve(router, ROUTES.setGoal, async ({ caller, params, body }) => {
    await new Goals(dataSource, caller.clinicId).set(caller, params.id, body);
    return {};
  });

  serve(router, ROUTES.retests, ({ caller, params }) => retests(caller).view(params.id));
  serve(router, ROUTES.startRetest, async ({ caller, params, body }) => {
    await retests(caller).start(params.id, body);
    return retests(caller).view(params.id);
  });
  serve(router, ROUTES.noteDrill, async ({ caller, params, body }) =>
    retests(caller).view(await retests(caller).noteDrill(params.id, body)),
  );
  serve(router, ROUTES.readMarker, async ({ caller, params, body }) => retests(caller).view(await retests(caller).read(params.id, body)));
  serve(router, ROUTES.finishRetest, async ({ caller, params }) => retests(caller).view(await retests(caller).finish(params.id)));

  serve(router, ROUTES.studies, ({ caller }) => studies(caller).list());
  serve(router, ROUTES.startStudy, ({ caller, body }) => studies(caller).start(body));
  serve(router, ROUTES.readStudy, ({ caller, params, body }) => studies(caller).read(params.id, body));
  serve(router, ROUTES.adoptError, ({ caller, params, body }) => studies(caller).adopt(params.id, body));
  serve(router, ROUTES.dropError, ({ caller, params }) => studies(caller).drop(params.id));
  return router;
}
