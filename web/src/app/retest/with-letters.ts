import type { RetestView } from '@dial-gauge/contract';
import type { Letter } from '../data/letters';

/** Retests of a visit with what was entered since laid over them, in the order it was entered. */
export function withLetters(retests: readonly RetestView[], letters: readonly Letter[], by: string): RetestView[] {
  return letters.reduce<RetestView[]>((all, letter) => lay(all, letter, by), [...retests]);
}

function lay(all: RetestView[], letter: Letter, by: string): RetestView[] {
  const change = (how: (retest: RetestView) => RetestView) => all.map((retest) => (retest.id === letter.target ? how(retest) : retest));
  switch (letter.route) {
    case 'startRetest': {
      const { id, markers } = letter.body;
      if (all.some((retest) => retest.id === id)) return all;
      const baseline = { drill: '', values: markers.map(() => null) };
      return [...all, { id, markers, rounds: [baseline], by, startedAt: new Date().toISOString(), finishedAt: null }];
    }
    case 'noteDrill': {
      const { number, drill } = letter.body;
      return change((retest) =>
        retest.rounds.length > number
          ? retest
          : { ...retest, rounds: [...retest.rounds, { drill, values: retest.markers.map(() => null) }] },
      );
    }
    case 'readMarker': {
      const { round, marker, value } = letter.body;
      return change((retest) => ({
        ...retest,
        rounds: retest.rounds.map((r, at) =>
          at === round ? { ...r, values: r.values.map((v, index) => (index === marker ? value : v)) } : r,
        ),
      }));
    }
    case 'finishRetest':
      return change((retest) => ({ ...retest, finishedAt: retest.finishedAt ?? new Date().toISOString() }));
    default:
      return all;
  }
}
