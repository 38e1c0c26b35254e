/*
 * The words somebody was found by when migration 6 was written: a copy. What
 * the program does today may change, and a migration has to do what it did.
 */
const LONGEST = 40;
const YEAR_FIRST = /(?<!\d)(\d{4})-(\d{1,2})-(\d{1,2})(?!\d)/g;
const DAY_FIRST = /(?<!\d)(\d{1,2})\.(\d{1,2})\.(\d{4})(?!\d)/g;
const asOneWord = (year: string, month: string, day: string): string => ` ${year}${month.padStart(2, '0')}${day.padStart(2, '0')} `;

export function wordsOf(...texts: readonly string[]): string[] {
  const plain = texts
    .join(' ')
    .replace(YEAR_FIRST, (_, year: string, month: string, day: string) => asOneWord(year, month, day))
    .replace(DAY_FIRST, (_, day: string, month: string, year: string) => asOneWord(year, month, day))
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase();
  return [...new Set(plain.split(/[^\p{L}\p{N}]+/u).filter(Boolean))].map((word) => [...word].slice(0, LONGEST).join(''));
}
