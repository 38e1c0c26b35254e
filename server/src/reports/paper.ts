import type { PatientView, VisitView } from '@dial-gauge/contract';
import { localeOf, say } from '@dial-gauge/core';
import type { Paper, PdfOptions } from '@dial-gauge/files';
import type { UnitOfWork } from '../platform/unit-of-work.js';

export const onPaper = ({ now }: UnitOfWork, { paper, locale }: { readonly paper: Paper; readonly locale: string }): PdfOptions => ({
  paper,
  language: localeOf(locale).tag,
  madeAt: now,
  words: {
    draft: say('DRAFT, not signed'),
    page: (number, of) => say('page {number} of {of}', { number, of }),
  },
});

/** Letters and digits of the name alone: "hathersage-2026-11-20-referrer.pdf". */
export function fileNameOf(
  { patient, visit }: { readonly patient: Pick<PatientView, 'familyName'>; readonly visit: Pick<VisitView, 'assessedOn'> },
  what: string,
  extension: string,
): string {
  const name = patient.familyName
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '');
  return `${name || 'visit'}-${visit.assessedOn}-${what}.${extension}`;
}
