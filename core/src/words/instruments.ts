import type { Instrument } from '../terms.js';
import { say } from './say.js';

/** Instruments as they are spoken of at the dial. */
export const INSTRUMENT_WORDS: Readonly<Record<Instrument, string>> = {
  goniometer: 'goniometer',
  inclinometer: 'inclinometer',
  dualInclinometer: 'two inclinometers',
  phone: 'phone',
  picture: 'picture',
  tape: 'tape',
  visual: 'by eye',
  dynamometer: 'dynamometer',
  stopwatch: 'stopwatch',
};

/** The same in the language that is spoken. */
export const instrumentWord = (instrument: Instrument): string => say(INSTRUMENT_WORDS[instrument]);
