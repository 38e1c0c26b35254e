import { checkOf, ERRORS_OF, lookedUpOf, type ValueCheck } from '../looked-up.js';
import { PUBLISHED_ERRORS, type PublishedError } from './published.js';

/** What a published error is a figure of. */
export const errorKey = ({ motions, instruments, examiners, figure, protocol, population, cite }: PublishedError): string =>
  [motions.join('+'), instruments.join('+'), examiners, figure, protocol ?? '', population, cite].join('|');

const NONE: readonly ValueCheck[] = [];

const errorsOf = new WeakMap<readonly ValueCheck[], readonly PublishedError[]>();

/** The published errors as the clinic found them in the sources. */
export function checkedErrors(checks: readonly ValueCheck[] = NONE): readonly PublishedError[] {
  if (!checks.some(({ kind }) => kind === 'errors')) return PUBLISHED_ERRORS;
  let made = errorsOf.get(checks);
  if (!made) {
    made = PUBLISHED_ERRORS.map((row) => {
      const check = checkOf(checks, { kind: 'errors', of: ERRORS_OF, key: errorKey(row), figures: { amount: row.amount } });
      return check ? { ...row, ...check.corrected, lookedUp: lookedUpOf(check) } : row;
    });
    errorsOf.set(checks, made);
  }
  return made;
}
