import type { PatientView, VisitView } from '@dial-gauge/contract';
import { localeOf, say, type Report } from '@dial-gauge/core';
import { reportPages, reportPdf, UnprintableText, type Paper, type PdfOptions } from '@dial-gauge/files';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';

const onPaper = ({ now }: UnitOfWork, { paper, locale }: { readonly paper: Paper; readonly locale: string }): PdfOptions => ({
  paper,
  language: localeOf(locale).tag,
  madeAt: now,
  words: {
    draft: say('DRAFT, not signed'),
    page: (number, of) => say('page {number} of {of}', { number, of }),
  },
});

interface Asked {
  readonly paper: Paper;
  readonly locale: string;
}

/** The page as PDF. @throws a problem that names the letters, where no typeface here has them: nothing is printed with gaps */
export async function printed(work: UnitOfWork, report: Report, asked: Asked): Promise<Uint8Array> {
  try {
    return await reportPdf(report, onPaper(work, asked));
  } catch (error) {
    if (!(error instanceof UnprintableText)) throw error;
    const letters = error.letters.map((letter) => `“${letter}” (${codeOfLetter(letter)})`).join(', ');
    throw new HttpProblem(
      422,
      'Cannot be printed',
      `No typeface here has ${letters}. Nothing was printed. Write the name or the note in other letters, then download the page again.`,
    );
  }
}

/** How the page falls onto paper; letters that cannot be printed count as their codes. */
export const pagesOf = (work: UnitOfWork, report: Report, asked: Asked): ReturnType<typeof reportPages> =>
  withCodes(report, (printable) => reportPages(printable, onPaper(work, asked)));

/** The page as PDF, with letters that cannot be printed as their codes: for what has to be complete. */
export async function printedInFull(work: UnitOfWork, report: Report, asked: Asked): Promise<Uint8Array> {
  // Measured first: what cannot be printed is found while it is set.
  const printable = withCodes(report, (tried) => (reportPages(tried, onPaper(work, asked)), tried));
  return reportPdf(printable, onPaper(work, asked));
}

const codeOfLetter = (letter: string): string => `U+${letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`;

function withCodes<T>(report: Report, make: (report: Report) => T): T {
  try {
    return make(report);
  } catch (error) {
    if (!(error instanceof UnprintableText)) throw error;
    const without = error.letters.reduce((json, letter) => json.replaceAll(letter, `[${codeOfLetter(letter)}]`), JSON.stringify(report));
    return withCodes(JSON.parse(without) as Report, make);
  }
}

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
