import * as z from 'zod';

/** Characters that turn the direction of the text after them: a name with one reads as another name on a page or in a list. */
const TURNS_TEXT = /[\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069]/;

/** A name of somebody or something, up to so many characters. */
export const nameOf = (most: number) =>
  z
    .string()
    .trim()
    .min(1)
    .max(most)
    .refine((name) => !TURNS_TEXT.test(name), {
      error: 'holds an invisible character that turns the direction of text; allowed: a name typed by hand, without such characters',
    });
