import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import * as english from '@zxcvbn-ts/language-en';

/** How hard a password is to guess, as the library has it: 0 to 4; and what it says of it. */
export interface Strength {
  readonly score: number;
  readonly says: string;
}

/** "Safely unguessable: moderate protection from offline slow-hash scenario", in the library's own words. */
export const STRONG_ENOUGH = 3;

// Its dictionaries take a third of a second to be set up: when they are wanted first.
let made: ZxcvbnFactory | undefined;
const factory = (): ZxcvbnFactory =>
  (made ??= new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
    translations: english.translations,
  }));

/**
 * Judged with and without the words that stand near the person: what is left
 * of it has to be hard to guess by itself.
 *
 * @param words name, address, clinic
 */
export function judgePassword(password: string, words: readonly string[]): Strength {
  const near = words.flatMap((word) => word.toLowerCase().split(/[^\p{L}\p{N}]+/u)).filter((word) => word.length > 2);
  const bare = near.reduce((left, word) => left.replaceAll(word, ''), password.toLowerCase());
  const judged = [password, ...(bare === password.toLowerCase() ? [] : [bare])].map((text) => factory().check(text, near));
  const weakest = judged.reduce((a, b) => (b.score < a.score ? b : a));
  const nearby = weakest === judged[0] ? '' : 'It rests on your name, your address or the clinic’s name.';
  const { warning, suggestions } = weakest.feedback;
  return { score: weakest.score, says: [nearby, warning, ...suggestions].filter(Boolean).join(' ') };
}
