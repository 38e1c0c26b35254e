import * as z from 'zod';
import { Id } from './ids.js';
import { nameOf } from './names.js';
import { PatientRecord } from './patients.js';
import { none, route } from './route.js';

const Name = nameOf(100);
const FILE_BYTES = 12_000_000;

/** A person out of a file of another clinic. What the file says of them is taken from it, their name is not in it. */
export const NewTakeover = z.strictObject({
  /** Made once, so that a file that is sent twice is taken over once. */
  ids: z.strictObject({ patient: Id, episode: Id, visit: Id, before: Id }),
  givenName: Name,
  familyName: Name,
  occupation: z.string().trim().max(120).default(''),
  complaint: z.string().trim().min(1).max(300),
  fileName: z.string().trim().min(1).max(200),
  /** A FHIR bundle, an assessment file as JSON or as CSV. */
  base64: z.base64().max(FILE_BYTES),
});
export type NewTakeover = z.infer<typeof NewTakeover>;

/** Visits that come from elsewhere. */
export const TAKEOVERS = {
  takeOver: route({
    method: 'post',
    path: '/takeovers',
    summary: 'Take a visit over from a file: FHIR R4, or an assessment file as JSON or CSV; all of it or nothing',
    params: none,
    body: NewTakeover,
    answer: PatientRecord,
    largest: FILE_BYTES + 10_000,
  }),
} as const;
