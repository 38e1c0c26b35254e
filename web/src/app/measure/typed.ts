import {
  checkValue,
  endPosition,
  motion,
  parseDualEntry,
  parseEntry,
  storedTrial,
  suffixOf,
  type Instrument,
  type Protocol,
  type StoredReading,
} from '@dial-gauge/core';

/** What was typed, as a reading; or what is wrong with it and what is allowed. */
export type Typed = { readonly ok: true; readonly reading: StoredReading } | { readonly ok: false; readonly message: string };

/** What a protocol is read with here: its usual instrument. */
export function instrumentOf(protocol: Protocol): Instrument {
  return protocol.instruments[0]!;
}

/** Text as a reading of the protocol's instrument: two sites, start and end of an angle, or one figure. */
export function readTyped(protocol: Protocol, text: string): Typed {
  if (instrumentOf(protocol) === 'dualInclinometer') {
    const dual = parseDualEntry(text);
    return dual.ok ? { ok: true, reading: { start: dual.upper.zero, end: dual.upper.end, lower: dual.lower } } : dual;
  }
  const entry = parseEntry(text);
  if (!entry.ok) return entry;
  const { unit } = motion(protocol.motion);
  if (unit !== 'deg' && entry.start !== 0) {
    return { ok: false, message: `"${text}" has a start; allowed: one figure in ${suffixOf(unit).trim()}.` };
  }
  return { ok: true, reading: { start: entry.start, end: entry.end } };
}

/** What a reading comes to, in the motion's unit. */
export function valueOf({ motion: id }: Protocol, reading: StoredReading): number {
  return endPosition(storedTrial(id, reading));
}

/** What does not fit the motion and the instrument; two sites are held to what is left when they are subtracted. */
export function checkTyped(protocol: Protocol, reading: StoredReading): string | undefined {
  const instrument = instrumentOf(protocol);
  if (reading.lower) return checkValue(protocol.motion, instrument, Math.round(valueOf(protocol, reading) * 10) / 10);
  const end = checkValue(protocol.motion, instrument, reading.end);
  return end ?? (reading.start === 0 ? undefined : checkValue(protocol.motion, instrument, reading.start));
}
