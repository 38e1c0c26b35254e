import type { EpisodeView, Outcome, PatientView } from '@dial-gauge/contract';
import { ageOn, dayWords, findProcedure, localeOf, shortDay } from '@dial-gauge/core';
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

export const OUTCOME_WORDS: Readonly<Record<Outcome, string>> = {
  'goal-met': 'goals met',
  better: 'better, as far as it goes',
  unchanged: 'no real change',
  'passed-on': 'passed on to somebody else',
  'stayed-away': 'did not come back',
  other: 'another outcome',
};

/** What is looked for, with a day in slashes put year first: which figure is the month the reader's region says. */
export function asFound(text: string, language: string = navigator.language): string {
  const monthFirst = localeOf(language).dateOrder === 'month-day-year';
  return text.replace(/(?<!\d)(\d{1,2})\/(\d{1,2})\/(\d{4})(?!\d)/g, (_, one: string, two: string, year: string) => {
    const [month, day] = monthFirst ? [one, two] : [two, one];
    return `${year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  });
}
