import type { RetestView } from '@dial-gauge/contract';
import type { Command } from '../data/commands';
import { overlay, type Shows } from '../data/overlay';

/** Retests of a visit with what was entered since laid over them. */
export function retestsShown(retests: readonly RetestView[], commands: readonly Command[], by: string): RetestView[] {
  return overlay([...retests], commands, shows(by));
}

const changed = (all: RetestView[], id: string, how: (retest: RetestView) => RetestView): RetestView[] =>
  all.map((retest) => (retest.id === id ? how(retest) : retest));

const shows = (by: string): Shows<'retests', RetestView[]> => ({
  startRetest: (all, { body: { id, markers } }) => {
    if (all.some((retest) => retest.id === id)) return all;
    const baseline = { drill: '', values: markers.map(() => null) };
    return [...all, { id, markers, rounds: [baseline], by, startedAt: new Date().toISOString(), finishedAt: null }];
  },
  noteDrill: (all, { target, body: { number, drill } }) =>
    changed(all, target, (retest) =>
      retest.rounds.length > number ? retest : { ...retest, rounds: [...retest.rounds, { drill, values: retest.markers.map(() => null) }] },
    ),
  readMarker: (all, { target, body: { round, marker, value } }) =>
    changed(all, target, (retest) => ({
      ...retest,
      rounds: retest.rounds.map((r, at) =>
        at === round ? { ...r, values: r.values.map((v, index) => (index === marker ? value : v)) } : r,
      ),
    })),
  finishRetest: (all, { target }) =>
    changed(all, target, (retest) => ({ ...retest, finishedAt: retest.finishedAt ?? new Date().toISOString() })),
});
