import { STAFF } from '@dial-gauge/contract';
import { budgetsOf } from '../../records/identity/attempts.js';
import { signedIn } from './account.js';
import { factorProven, mustBeStrong, trierOf } from '../proof.js';
import { secondFactorOf } from '../../records/identity/second-factor.js';
import { hashOf } from '../../shared/hash.js';
import { refused } from '../../shared/problems.js';
import { serve, type Resource } from '../endpoint.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import {
  found,
  invite,
  isFoundingCode,
  linkToPassword,
  mailPasswordLink,
  openLink,
  useLink,
  userOfLink,
  withdrawLink,
} from '../../use-cases/accounts/links.js';
import { askSecondFactor, dropSecondFactor, endAccount, reopenAccount, setRole, staffView } from '../../use-cases/accounts/staff.js';

// What they change is whole by itself, and the session after it wants it to be there.
const loose = { unit: 'pooled' } as const;

/** The view of everybody after a change. */
const then = (after: UnitOfWork) => staffView(after);

/** Who works in a clinic: founding it, inviting, what each may do, closing accounts. */
export const staff: Resource = {
  entities: [],
  routes: [
    serve(
      STAFF.found,
      async (work, { body }, { request, response }) => {
        request.services.sessions.mustBeOverTls(request);
        const budgets = budgetsOf('founding', hashOf(body.code), trierOf(request, null));
        const right = await request.services.limiter.attempt(budgets, () => isFoundingCode(work.manager, body.code));
        if (!right)
          throw refused(
            'code',
            'is not the code that the server printed when it started; allowed: the one at the end of its output',
            'Nothing was founded.',
          );
        await mustBeStrong(request, 'password', body.password, [body.name, body.email, body.clinicName]);
        const lead = await found(work.manager, body, work.now);
        return signedIn(work, { user: lead, factor: null }, { request, response });
      },
      loose,
    ),

    serve(STAFF.openLink, (work, { body }) => openLink(work.manager, body.token, work.now), loose),

    serve(
      STAFF.join,
      async (work, { body }, { request, response }) => {
        request.services.sessions.mustBeOverTls(request);
        const link = await openLink(work.manager, body.token, work.now);
        await mustBeStrong(request, 'password', body.password, [body.name, link.email, link.clinic]);
        const of = link.needsFactor ? await userOfLink(work.manager, body.token, work.now) : null;
        const factor = of && (await factorProven(work.manager, request, of, body.code));
        const user = await useLink(work.manager, body, work.now);
        if (factor) return { session: await signedIn(work, { user, factor }, { request, response }) };
        // Another password is no second factor: with one, it is the sign-in that asks for it.
        if (await secondFactorOf(work.manager, user.id)) return { session: null };
        return { session: await signedIn(work, { user, factor: null }, { request, response }) };
      },
      loose,
    ),

    serve(STAFF.staff, then),
    serve(STAFF.invite, async (work, { body }) => {
      const token = await invite(work, body);
      return async (after) => ({ token, mailedTo: null, staff: await staffView(after) });
    }),
    serve(STAFF.withdrawLink, async (work, { params }) => {
      await withdrawLink(work, params.id);
      return then;
    }),
    serve(STAFF.setRole, async (work, { params, body }) => {
      await setRole(work, params.id, body.role);
      return then;
    }),
    serve(STAFF.endAccount, async (work, { params }) => {
      await endAccount(work, params.id);
      return then;
    }),
    serve(STAFF.reopenAccount, async (work, { params }) => {
      await reopenAccount(work, params.id);
      return then;
    }),
    serve(STAFF.resetPassword, async (work, { params, body }, { request }) => {
      const { mailer } = request.services;
      const made = await linkToPassword(work, params.id, body.id, mailer ? 'the person' : 'a lead');
      return async (after) => {
        const mailedTo = mailer && (await mailPasswordLink(after, mailer, made));
        return { token: mailer ? null : made.token, mailedTo, staff: await staffView(after) };
      };
    }),
    serve(STAFF.askSecondFactor, async (work, { body }) => {
      await askSecondFactor(work, body.asked);
      return then;
    }),
    serve(STAFF.dropSecondFactor, async (work, { params }) => {
      await dropSecondFactor(work, params.id);
      return then;
    }),
  ],
};
