import type { NewProgram, ProgramsView, ProgramView } from '@dial-gauge/contract';
import type { Command } from '../data/commands';
import { overlay, type Shows } from '../data/overlay';

type Given = readonly Pick<ProgramView, 'id' | 'choices' | 'drills' | 'recheckOn' | 'note' | 'by' | 'at'>[];

const SHOWN: Shows<'programs', Given> = {
  giveProgram: (given, { body }) => (given.some(({ id }) => id === body.id) ? given : [...given, { ...body, by: '', at: '' }]),
};

/** What was given at a visit, with what waits laid over it. */
export const programsShown = ({ given }: Pick<ProgramsView, 'given'>, commands: readonly Command[]): Given =>
  overlay(given, commands, SHOWN);

/** A programme while it is put together: kept on this device until it is given. */
export interface Work extends Omit<NewProgram, 'id'> {
  /** Changed by hand: what is at hand and how long a day no longer proposes anew by itself. */
  readonly byHand: boolean;
}

export const isWork = (value: unknown): value is Work => {
  const { choices, drills, recheckOn, note, byHand } = (value ?? {}) as Partial<Work>;
  return (
    !!choices &&
    Array.isArray(choices.equipment) &&
    Array.isArray(drills) &&
    typeof recheckOn === 'string' &&
    typeof note === 'string' &&
    typeof byHand === 'boolean'
  );
};
