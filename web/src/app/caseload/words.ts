import type { EpisodeView, PatientView } from '@dial-gauge/contract';
import { ageOn, dayWords, findProcedure, shortDay } from '@dial-gauge/core';
import { format, formatISO, parseISO } from 'date-fns';

/** Today as this device has it. */
export const today = (): string => formatISO(new Date(), { representation: 'date' });

/** "26 Oct, 14:05": a moment as it was on this device's clock. */
export const momentWords = (at: string): string => `${shortDay(dayOf(at))}, ${format(parseISO(at), 'HH:mm')}`;
/** "26 Oct 2026, 14:05" */
export const fullMoment = (at: string): string => `${dayWords(dayOf(at))}, ${format(parseISO(at), 'HH:mm')}`;
const dayOf = (at: string): string => formatISO(parseISO(at), { representation: 'date' });

export const fullName = ({ givenName, familyName }: PatientView): string => `${givenName} ${familyName}`;

/** "58 · Gardener" */
export function personWords(patient: PatientView): string {
  return [String(ageOn(patient.birthDate, today())), patient.occupation].filter(Boolean).join(' · ');
}

const INVOLVED = { left: 'left side', right: 'right side', both: 'both sides' } as const;

/** "Both hips stiff · both sides" */
export function episodeWords({ complaint, involvedSide }: Pick<EpisodeView, 'complaint' | 'involvedSide'>): string {
  return involvedSide ? `${complaint} · ${INVOLVED[involvedSide]}` : complaint;
}

/** "Knee replacement, 12 Aug 2026"; empty without one. */
export function operationWords({ procedureId, procedure, procedureOn }: EpisodeView): string {
  const name = procedure || (procedureId && findProcedure(procedureId)?.name) || '';
  return [name, procedureOn && dayWords(procedureOn)].filter(Boolean).join(', ');
}
