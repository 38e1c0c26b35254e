import { JUDGEMENT } from '@dial-gauge/contract';
import { LateEntryRow } from '../../records/late-entries/entities.js';
import { dismissLate, takeLate } from '../../use-cases/late-entries/decide.js';
import { serve, type Resource } from '../endpoint.js';
import { replayLate } from './late.js';
import { Countersignature, Signature } from '../../records/signatures/entities.js';
import { judgementView } from '../../read-models/judgement/judgement.js';
import { amend, countersign, setSummary, sign, signedCopy } from '../../use-cases/signing/signing.js';

const inThread = { thread: true };

/** Judging a visit, summing it up, signing and amending it; and what arrives after it was signed. */
export const signing: Resource = {
  entities: [Signature, Countersignature, LateEntryRow],
  routes: [
    serve(JUDGEMENT.judgement, (work, { params }) => judgementView(work, params.id), inThread),
    serve(
      JUDGEMENT.setSummary,
      async (work, { params, body }) => {
        await setSummary(work, params.id, body);
        return (after) => judgementView(after, params.id);
      },
      inThread,
    ),
    serve(
      JUDGEMENT.sign,
      async (work, { params, body }) => {
        await sign(work, params.id, body);
        return (after) => judgementView(after, params.id);
      },
      inThread,
    ),
    serve(
      JUDGEMENT.amend,
      async (work, { params, body }) => {
        await amend(work, params.id, body);
        return (after) => judgementView(after, params.id);
      },
      inThread,
    ),
    serve(
      JUDGEMENT.countersign,
      async (work, { params, body }) => {
        const visitId = await countersign(work, params.id, body.id);
        return (after) => judgementView(after, visitId);
      },
      inThread,
    ),
    serve(JUDGEMENT.signedCopy, (work, { params }) => signedCopy(work, params.id)),
    serve(
      JUDGEMENT.takeLate,
      async (work, { params }) => {
        const visitId = await takeLate(work, params.id, replayLate);
        return (after) => judgementView(after, visitId);
      },
      inThread,
    ),
    serve(
      JUDGEMENT.dismissLate,
      async (work, { params, body }) => {
        const visitId = await dismissLate(work, params.id, body.why);
        return (after) => judgementView(after, visitId);
      },
      inThread,
    ),
  ],
};
