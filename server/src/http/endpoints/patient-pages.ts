import { PATIENT_PAGES } from '@dial-gauge/contract';
import { budgetsOf } from '../../records/identity/attempts.js';
import { trierOf } from '../proof.js';
import { hashOf } from '../../shared/hash.js';
import { serve, type Resource } from '../endpoint.js';
import { PatientDayRow, PatientPageKeyRow, PatientPageRow } from '../../records/patient-pages/entities.js';
import { logDay, ownPage } from '../../use-cases/portal/own.js';
import { makePage, newKey, notOpened, pageByCode, patientPagesView, revokePage } from '../../use-cases/portal/pages.js';

/** A page of the person's own: made and closed by the clinic, reached by link and code, and no other record by it. */
export const patientPages: Resource = {
  entities: [PatientPageRow, PatientPageKeyRow, PatientDayRow],
  routes: [
    serve(PATIENT_PAGES.patientPages, (work, { params }) => patientPagesView(work, params.id), { thread: true }),
    serve(PATIENT_PAGES.makePage, (work, { params, body }) => makePage(work, params.id, body)),
    serve(PATIENT_PAGES.revokePage, async (work, { params }) => {
      await revokePage(work, params.id);
      return {};
    }),
    serve(
      PATIENT_PAGES.openPage,
      async (work, { body: { token, code } }, { request, response }) => {
        const { limiter, devices } = request.services;
        const link = hashOf(token);
        const budgets = budgetsOf('page', link, trierOf(request, `page ${link}`));
        const page = await limiter.attempt(budgets, () => pageByCode(work, token, code));
        if (!page) {
          request.log.warn({ id: request.id, address: request.ip }, 'page not opened');
          throw notOpened();
        }
        devices.remember(request, response, `page ${link}`);
        return { key: await newKey(work, page) };
      },
      // It waits for the code to be checked, and for others who try the same link.
      { unit: 'pooled' },
    ),
    serve(PATIENT_PAGES.ownPage, (work, { body }) => ownPage(work, body.key, body.locale), { thread: true, unit: 'connection' }),
    serve(PATIENT_PAGES.logDay, async (work, { body }) => {
      await logDay(work, body.key, body.day);
      return {};
    }),
  ],
};
