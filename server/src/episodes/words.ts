/** Longest word that is kept; a search looks at beginnings. */
const LONGEST = 40;

/**
 * The words somebody is found by: lower case, without accents, each once.
 *
 * @example wordsOf('Zoë', 'Okonjo-Vale', 'left hip') // ['zoe', 'okonjo', 'vale', 'left', 'hip']
 */
export function wordsOf(...texts: readonly string[]): string[] {
  const plain = texts.join(' ').normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  return [...new Set(plain.split(/[^\p{L}\p{N}]+/u).filter(Boolean))].map((word) => [...word].slice(0, LONGEST).join(''));
}
