import type { StudyView } from '@dial-gauge/contract';
import { motion, protocolName, protocolOfId } from '@dial-gauge/core';
import { INSTRUMENT_WORDS } from '../ui/words';

/** "Wrist extension, sitting, passive, goniometer" */
export function studyWay({
  motion: id,
  protocol,
  mode,
  instrument,
}: Pick<StudyView, 'motion' | 'protocol' | 'mode' | 'instrument'>): string {
  const known = protocolOfId(protocol);
  return [known ? protocolName(known) : motion(id).name, motion(id).unit === 'deg' ? mode : '', INSTRUMENT_WORDS[instrument]]
    .filter(Boolean)
    .join(', ');
}

/** "12 people, one examiner twice"; "8 people, 3 examiners" */
export function studySize({ subjects, raters, kind }: Pick<StudyView, 'subjects' | 'raters' | 'kind'>): string {
  const times = raters === 2 ? 'twice' : `${raters} times`;
  return `${subjects} people or limbs, ${kind === 'repeats' ? `one examiner ${times}` : `${raters} examiners`}`;
}

/** "examiner B", "second reading" */
export function raterWords(kind: StudyView['kind'], rater: number): string {
  const ORDER = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth'];
  return kind === 'raters' ? `examiner ${String.fromCharCode(65 + rater)}` : `${ORDER[rater] ?? `${rater + 1}th`} reading`;
}

/** "4 of 24 read", "read to the end", "in use since 3 Nov 2026" */
export function studyState({ read, turns, adopted, isPractice }: StudyView, day: (on: string) => string): string {
  if (isPractice) return 'practice, never judged by';
  if (adopted) return `in use since ${day(adopted.on)}`;
  return read.length < turns.length ? `${read.length} of ${turns.length} read` : 'read to the end, not in use';
}

/** Where in the order of reading a person and an examiner meet. */
export function placeOf({ turns }: Pick<StudyView, 'turns'>, { subject, rater }: StudyView['turns'][number]): number {
  return turns.findIndex((turn) => turn.subject === subject && turn.rater === rater);
}
