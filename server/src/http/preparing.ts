import { ROUTES } from '@dial-gauge/contract';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import type { Caller } from '../caller.js';
import { Preparing } from '../store/preparing.js';
import { Records } from '../store/records.js';
import { serve } from './serve.js';

/** Intake, caution answers, run sheets, and how the caller's clinic works. */
export function preparingRouter(dataSource: DataSource): Router {
  const router = Router();
  const preparing = (caller: Caller) => new Preparing(dataSource, caller);
  const visit = (caller: Caller, id: string) => new Records(dataSource, caller.clinicId).visit(id);

  serve(router, ROUTES.setIntake, ({ caller, params, body }) => preparing(caller).setIntake(params.id, body));

  serve(router, ROUTES.setCautions, async ({ caller, params, body }) => {
    await preparing(caller).setCautions(params.id, body);
    return visit(caller, params.id);
  });

  serve(router, ROUTES.setPlan, async ({ caller, params, body }) => {
    await preparing(caller).setPlan(params.id, body);
    return visit(caller, params.id);
  });

  serve(router, ROUTES.practice, ({ caller }) => preparing(caller).practice());

  serve(router, ROUTES.setHand, async ({ caller, body }) => {
    await preparing(caller).setHand(body);
    return preparing(caller).practice();
  });

  serve(router, ROUTES.addExamSet, async ({ caller, body }) => {
    await preparing(caller).addExamSet(body);
    return preparing(caller).practice();
  });

  serve(router, ROUTES.removeExamSet, async ({ caller, params }) => {
    await preparing(caller).removeExamSet(params.id);
    return preparing(caller).practice();
  });
  return router;
}
