import * as z from 'zod';
import { Id } from './ids.js';
import { none, nothing, route } from './route.js';

/** What was done, in a word. */
export const AUDIT_DEEDS = [
  'looked',
  'took-along',
  'entered',
  'changed',
  'signed',
  'wrote-out',
  'signed-in',
  'new-password',
  'erased',
] as const;
export type AuditDeed = (typeof AUDIT_DEEDS)[number];

export const AUDIT_PAGE = 50;

export const AuditQuery = z.strictObject({
  /** Whose record. */
  patient: Id.optional(),
  /** Who did it. */
  user: Id.optional(),
  /** `next` of the page before. */
  after: z.string().max(300).optional(),
});
export type AuditQuery = z.input<typeof AuditQuery>;

export const AuditEntry = z.object({
  id: Id,
  at: z.iso.datetime(),
  by: z.string(),
  did: z.enum(AUDIT_DEEDS),
  /** Which part of a record: the name of the route it was read or entered by, or the field that was changed. */
  about: z.string(),
  patient: z.object({ id: Id, name: z.string() }).nullable(),
});
export type AuditEntry = z.infer<typeof AuditEntry>;

export const AuditPage = z.object({
  rows: z.array(AuditEntry),
  next: z.string().nullable(),
  people: z.array(z.object({ id: Id, name: z.string() })),
});
export type AuditPage = z.infer<typeof AuditPage>;

/** Who looked at and changed whose record. */
export const AUDIT = {
  audit: route({
    method: 'get',
    path: '/audit',
    summary: 'Who looked at and changed whose record, the latest first',
    params: none,
    query: AuditQuery,
    body: nothing,
    answer: AuditPage,
  }),
} as const;
