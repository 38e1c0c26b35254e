import { assessmentOfVisit, ROUTES, type JudgementView } from '@dial-gauge/contract';
import { assess, type Judgement } from '@dial-gauge/core';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import type { Caller } from '../caller.js';
import { JudgingStore } from '../store/judging.js';
import { Records } from '../store/records.js';
import { Signing } from '../store/signing.js';
import { serve } from './serve.js';

/** Judging a visit, summing it up, signing and amending it. */
export function signingRouter(dataSource: DataSource): Router {
  const router = Router();
  const signing = (caller: Caller) => new Signing(dataSource, caller.clinicId);

  const judge = async (caller: Caller, id: string): Promise<{ live: Judgement; view: JudgementView }> => {
    const record = await new Records(dataSource, caller.clinicId).visit(id);
    const { visit, patient, episode, previous } = record;
    const context = await new JudgingStore(dataSource, caller.clinicId).current();
    const aside = record.measurements.filter((m) => m.notDone !== null || m.note !== '' || m.trials.some((trial) => trial.pastLimit));
    const live = assess(assessmentOfVisit(record), context);
    const { summary, copy, ...rest } = await signing(caller).view(id);
    return {
      live,
      view: { visit, patient, episode, previousOn: previous?.assessedOn ?? null, aside, judgement: copy ?? live, summary, signing: rest },
    };
  };

  serve(router, ROUTES.judgement, async ({ caller, params }) => (await judge(caller, params.id)).view);

  serve(router, ROUTES.setSummary, async ({ caller, params, body }) => {
    await signing(caller).setSummary(caller, params.id, body.summary);
    return (await judge(caller, params.id)).view;
  });

  serve(router, ROUTES.sign, async ({ caller, params, body }) => {
    await signing(caller).sign(caller, params.id, body, async () => (await judge(caller, params.id)).live);
    return (await judge(caller, params.id)).view;
  });

  serve(router, ROUTES.amend, async ({ caller, params, body }) => {
    await signing(caller).amend(caller, params.id, body);
    return (await judge(caller, params.id)).view;
  });

  serve(router, ROUTES.signedCopy, ({ caller, params }) => signing(caller).copy(params.id));
  return router;
}
