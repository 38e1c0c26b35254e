import type { ProgramChoices } from '@dial-gauge/contract';
import type { Dose, NeedWant, ProgramOrder } from '@dial-gauge/core';

export const USUAL: ProgramChoices = {
  equipment: ['chair', 'towel', 'pillow', 'band'],
  minutesADay: 15,
  painTolerated: 3,
  order: 'stages',
};

export const ORDER_WORDS: Readonly<Record<ProgramOrder, string>> = {
  stages: 'free → mobilise → activate → load',
  releaseActivate: 'release → mobilise → lengthen → activate → join',
};

export const WANT: Readonly<Record<NeedWant, string>> = {
  range: 'range by hand',
  length: 'length of the muscle',
  control: 'range that is there and not used',
  strength: 'strength or balance',
};

export const DOSE_FIELDS = [
  { key: 'sets', name: 'sets' },
  { key: 'reps', name: 'times' },
  { key: 'seconds', name: 's' },
  { key: 'timesADay', name: '× a day' },
  { key: 'daysAWeek', name: 'days a week' },
] as const satisfies readonly { readonly key: keyof Dose; readonly name: string }[];

export const DOSE: Readonly<
  Record<keyof Dose, { readonly name: string; readonly least: number; readonly most: number; readonly mayBeNone?: true }>
> = {
  sets: { name: 'sets', least: 1, most: 10 },
  reps: { name: 'repetitions', least: 1, most: 100, mayBeNone: true },
  seconds: { name: 'seconds', least: 1, most: 1800, mayBeNone: true },
  timesADay: { name: 'times a day', least: 1, most: 12 },
  daysAWeek: { name: 'days a week', least: 1, most: 7 },
};
