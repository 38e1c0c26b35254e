/** Longest word that is kept; a search looks at beginnings. */
const LONGEST = 40;

/** A day as it is written: year first, or day first with dots. Whoever asks writes theirs so. */
const YEAR_FIRST = /(?<!\d)(\d{4})-(\d{1,2})-(\d{1,2})(?!\d)/g;
const DAY_FIRST = /(?<!\d)(\d{1,2})\.(\d{1,2})\.(\d{4})(?!\d)/g;

/** A day is one word: its parts would find half the caseload. */
const asOneWord = (year: string, month: string, day: string): string => ` ${year}${month.padStart(2, '0')}${day.padStart(2, '0')} `;

/**
 * The words somebody is found by: lower case, without accents, each once; a day
 * as one word.
 *
 * @example wordsOf('Zoë', 'Okonjo-Vale', 'left hip') // ['zoe', 'okonjo', 'vale', 'left', 'hip']
 * @example wordsOf('born 3.9.1958') // ['born', '19580903']
 */
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
