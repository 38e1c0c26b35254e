import { DIGITS, END_FEELS, INSTRUMENTS, INVOLVED_SIDES, JOINTS, MODES, POSITIONS, SEXES, SIDES } from '@dial-gauge/core/terms';
import * as z from 'zod';

export const Side = z.enum(SIDES);
export const LimbSide = z.enum(['left', 'right']);
export const InvolvedSide = z.enum(INVOLVED_SIDES);
export const Mode = z.enum(MODES);
export const Position = z.enum(POSITIONS);
export const Instrument = z.enum(INSTRUMENTS);
export const Sex = z.enum(SEXES);
export const EndFeel = z.enum(END_FEELS);
export const Joint = z.enum(JOINTS);
export const Digit = z.literal(DIGITS);

/** The first and the last day that anybody can mean here. */
const DAYS = { first: '1850-01-01', last: '2199-12-31' };

/** A calendar day that exists, as it may be entered. */
export const Day = z.iso
  .date({ abort: true })
  .refine((day) => day >= DAYS.first && day <= DAYS.last, `lies outside what can be meant; allowed: ${DAYS.first} to ${DAYS.last}`);

/** A day as it is stored. */
export const AnyDay = z.string();

/** An identifier made by whoever creates the record, so that a repeated request is harmless. */
export const Id = z.uuid();
