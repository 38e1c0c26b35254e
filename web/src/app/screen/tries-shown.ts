import type { ScreenTryView } from '@dial-gauge/contract';
import type { Command } from '../data/commands';
import { overlay, type Shows } from '../data/overlay';

/** Tries of a visit with what was entered since laid over them. */
export function triesShown(tries: readonly ScreenTryView[], commands: readonly Command[], by: string): ScreenTryView[] {
  return overlay([...tries], commands, shows(by));
}

const shows = (by: string): Shows<'tries', ScreenTryView[]> => ({
  holdScreenTry: (all, { body: { id, try: one, skipped, ...way } }) => {
    if (all.some((t) => t.id === id)) return all;
    return [
      ...all,
      { ...way, id, try: (one as ScreenTryView['try']) ?? null, skipped: skipped ?? null, by, heldAt: new Date().toISOString() },
    ];
  },
  correctScreenTry: (all, { target, body: { id, try: one } }) =>
    all.some((t) => t.id === id)
      ? all
      : all.flatMap((t) => (t.id !== target ? [t] : one === null ? [] : [{ ...t, id, try: one as ScreenTryView['try'], skipped: null }])),
});
