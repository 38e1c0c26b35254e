import { readFileSync } from 'node:fs';
import { documentOf, type AssessmentDocument } from '../exchange/document.js';
import { EVERY_KIND } from './every-kind.js';

/** A document with every part: two days, an operation, a limit, a weight in pounds, two screens. The person is made up. */
export const FULL_DOCUMENT = JSON.parse(readFileSync(new URL('full-document.json', import.meta.url), 'utf8')) as AssessmentDocument;

/** That one, and the visits that have every kind of finding. */
export const DOCUMENTS: readonly AssessmentDocument[] = [FULL_DOCUMENT, ...EVERY_KIND.map((one) => documentOf(one))];

/** As a format gives it back: what was not said is not there, nor an end that a limit does not have. */
export function asRead(document: AssessmentDocument): Readonly<Record<string, unknown>> {
  const { precautions, ...rest } = JSON.parse(JSON.stringify(document)) as AssessmentDocument;
  return {
    ...rest,
    ...(precautions && { precautions: precautions.map(({ until, ...limit }) => (until === null ? limit : { ...limit, until })) }),
  };
}
