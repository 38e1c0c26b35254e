import type { Unit } from '@dial-gauge/core';

/** Units as they are spoken. */
export const UNIT_WORDS: Readonly<Record<Unit, string>> = {
  deg: 'degrees',
  cm: 'centimetres',
  N: 'newtons',
  s: 'seconds',
  yesNo: 'yes or no',
};

export { INSTRUMENT_WORDS } from '@dial-gauge/core';
