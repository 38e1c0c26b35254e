import type { Instrument, IsoDate, LookedUp } from '../terms.js';
import { lookedUpWords } from '../words/looked-up.js';
import { formatNumber } from '../words/figures.js';
import { instrumentWord } from '../words/instruments.js';
import { dayWords, say } from '../words/say.js';

/** Whether readings of one examiner are compared, or of several. */
export type Examiners = 'same' | 'other';

/** Where a measuring error comes from. */
export type ErrorSource =
  /** The clinic's own study. */
  | {
      readonly kind: 'own';
      readonly examiners: Examiners;
      readonly subjects: number;
      readonly raters: number;
      readonly adoptedOn: IsoDate;
    }
  /** A figure as it is printed; of whom, where it is of people after a procedure. */
  | {
      readonly kind: 'published';
      readonly cite: string;
      readonly population: string | null;
      readonly instrument: Instrument;
      readonly examiners: Examiners;
      readonly figure: string;
      readonly amount: number;
      readonly lookedUp?: LookedUp;
    }
  /** A rule of thumb; `share`: of the reading, in percent. */
  | { readonly kind: 'default'; readonly what: string; readonly examiners: Examiners; readonly share?: number }
  /** Of two examiners no less than of one, of a coarser instrument no less than of a finer one. */
  | { readonly kind: 'no-less'; readonly why: 'two-examiners' | 'coarser'; readonly than: ErrorSource }
  /** Seen or not: there is nothing to count. */
  | { readonly kind: 'none' }
  /** Of a copy that was signed before this was data. */
  | { readonly kind: 'signed'; readonly said: string };

const whoRead = (examiners: Examiners): string => say(examiners === 'same' ? 'one examiner' : 'two examiners');

/** Where an error comes from, in a line. */
export function errorSourceWords(source: ErrorSource): string {
  switch (source.kind) {
    case 'own': {
      const parts = { subjects: source.subjects, raters: source.raters, day: dayWords(source.adoptedOn) };
      return source.examiners === 'same'
        ? say('this clinic’s own study, {subjects} people × {raters} repeats of one examiner, adopted {day}', parts)
        : say('this clinic’s own study, {subjects} people × {raters} examiners, adopted {day}', parts);
    }
    case 'published':
      return [
        say(source.cite),
        ...(source.population ? [say(source.population)] : []),
        instrumentWord(source.instrument),
        whoRead(source.examiners),
        ...(source.lookedUp
          ? [say('printed as {figure}', { figure: `${say(source.figure)} ${formatNumber(source.amount)}` }), lookedUpWords(source.lookedUp)]
          : [say('printed as {figure} (from memory)', { figure: `${say(source.figure)} ${formatNumber(source.amount)}` })]),
      ].join(', ');
    case 'default': {
      const share = source.share === undefined ? [] : [say('{share} % of the reading', { share: formatNumber(source.share) })];
      return [say('default'), say(source.what), ...share, whoRead(source.examiners)].join(', ');
    }
    case 'no-less':
      return source.why === 'two-examiners'
        ? say('two examiners, no less than one alone: {source}', { source: errorSourceWords(source.than) })
        : say('no less than with a finer instrument: {source}', { source: errorSourceWords(source.than) });
    case 'none':
      return say('seen or not: no error is counted');
    case 'signed':
      return source.said;
  }
}
