import { operationOf, ROUTES } from '@dial-gauge/contract';
import { findNormSet, progressOf } from '@dial-gauge/core';
import { addDays, formatISO } from 'date-fns';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { Episode, Visit } from '../store/entities/index.js';
import { Readings } from '../store/readings.js';
import { goalsByKey } from '../store/goals.js';
import { Records } from '../store/records.js';
import { notFound, refused } from '../problem.js';
import { serve } from './serve.js';

/** Day of the server's clock. A client east of it may already be in tomorrow. */
const day = (date: Date): string => formatISO(date, { representation: 'date' });

/** Patients, visits, readings and progress of the caller's clinic. */
export function clinicRouter(dataSource: DataSource): Router {
  const router = Router();
  const records = (caller: { clinicId: string }) => new Records(dataSource, caller.clinicId);

  serve(router, ROUTES.caseload, ({ caller }) => records(caller).caseload());
  serve(router, ROUTES.patient, ({ caller, params }) => records(caller).patient(params.id));

  serve(router, ROUTES.addPatient, async ({ caller, body }) => {
    const today = day(new Date());
    notInTheFuture('birthDate', body.birthDate);
    return records(caller).addPatient(body, today);
  });

  serve(router, ROUTES.startVisit, async ({ caller, params, body }) => {
    const { clinicId, userId } = caller;
    notInTheFuture('assessedOn', body.assessedOn);
    const visits = dataSource.getRepository(Visit);
    if (!(await dataSource.getRepository(Episode).existsBy({ id: params.id, clinicId }))) throw notFound('episode of care');
    if (!(await visits.existsBy({ id: body.id, clinicId }))) {
      await visits.insert({
        ...body,
        sheet: body.sheet ?? null,
        clinicId,
        episodeId: params.id,
        examinerId: userId,
        startedAt: new Date(),
      });
    }
    return records(caller).visit(body.id);
  });

  serve(router, ROUTES.setSheet, async ({ caller, params, body }) => {
    const { affected } = await dataSource.getRepository(Visit).update({ id: params.id, clinicId: caller.clinicId }, { sheet: body.items });
    if (!affected) throw notFound('visit');
    return records(caller).visit(params.id);
  });

  serve(router, ROUTES.visit, ({ caller, params }) => records(caller).visit(params.id));
  serve(router, ROUTES.holdReading, ({ caller, params, body }) => new Readings(dataSource, caller).hold(params.id, body));
  serve(router, ROUTES.remark, ({ caller, params, body }) => new Readings(dataSource, caller).remark(params.id, body));

  serve(router, ROUTES.correctReading, ({ caller, params, body }) => new Readings(dataSource, caller).correct(params.id, body));

  serve(router, ROUTES.withdrawReading, async ({ caller, params }) => {
    await new Readings(dataSource, caller).withdraw(params.id);
    return {};
  });

  serve(router, ROUTES.progress, async ({ caller, params }) => {
    const { sessions, ownErrors, ...rest } = await records(caller).history(params.id);
    const { patient, episode, normSet, ownNormSet, goals } = rest;
    const series = progressOf(sessions, {
      own: ownErrors,
      person: patient,
      normSet: findNormSet(normSet, ownNormSet ? [ownNormSet] : []),
      involvedSide: episode.involvedSide ?? undefined,
      operation: operationOf(episode),
      goals: goalsByKey(goals),
    });
    return { ...rest, series };
  });
  return router;
}

function notInTheFuture(path: string, date: string): void {
  const latest = day(addDays(new Date(), 1));
  if (date > latest) {
    const message = `lies in the future; allowed: ${latest} or earlier`;
    throw refused(path, message, 'Nothing was saved. Correct the fields named and send again.');
  }
}
