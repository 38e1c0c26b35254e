/** What a column of an old list holds. `reading`: values of what its heading names; `value`: of what the row names. */
export const PAST_ROLES = [
  'ignore',
  'day',
  'motion',
  'side',
  'mode',
  'position',
  'instrument',
  'value',
  'unit',
  'pain',
  'reading',
] as const;
export type PastRole = (typeof PAST_ROLES)[number];

/** In which order the figures of a day stand. */
export const DATE_ORDERS = ['day-month-year', 'month-day-year', 'year-month-day'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

/** What a minus means in the sheet: short of zero, or past it. Books differ, so it is never guessed. */
export const MINUS_MEANS = ['lacks', 'past'] as const;
export type MinusMeans = (typeof MINUS_MEANS)[number];
