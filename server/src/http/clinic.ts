import { assessmentOfVisit, ROUTES } from '@dial-gauge/contract';
import { assess, seriesOf } from '@dial-gauge/core';
import { addDays, formatISO } from 'date-fns';
import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { Episode, Visit } from '../store/entities.js';
import { Readings } from '../store/readings.js';
import { JudgingStore } from '../store/judging.js';
import { Records } from '../store/records.js';
import { notFound, refused } from '../problem.js';
import { serve } from './serve.js';

/** Day of the server's clock. A client east of it may already be in tomorrow. */
const day = (date: Date): string => formatISO(date, { representation: 'date' });

/** Patients, visits, readings, findings and progress of the caller's clinic. */
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

  serve(router, ROUTES.judgement, async ({ caller, params }) => {
    const record = await records(caller).visit(params.id);
    const { visit, patient, episode, previous } = record;
    const context = await new JudgingStore(dataSource, caller.clinicId).current();
    const aside = record.measurements.filter((m) => m.notDone !== null || m.note !== '' || m.trials.some((trial) => trial.pastLimit));
    const judgement = assess(assessmentOfVisit(record), context);
    return { visit, patient, episode, previousOn: previous?.assessedOn ?? null, aside, judgement };
  });

  serve(router, ROUTES.progress, async ({ caller, params }) => {
    const { sessions, ...rest } = await records(caller).history(params.id);
    return { ...rest, series: seriesOf(sessions) };
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
