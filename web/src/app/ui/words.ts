import type { Instrument, Unit } from '@dial-gauge/core';

/** Units as they are spoken. */
export const UNIT_WORDS: Readonly<Record<Unit, string>> = {
  deg: 'degrees',
  cm: 'centimetres',
  N: 'newtons',
  s: 'seconds',
  yesNo: 'yes or no',
};

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
