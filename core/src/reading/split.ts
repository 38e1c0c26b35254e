import { ENTRY_UNITS, type EntryUnit } from '../angle/units.js';

/** The parts of what was typed at the dial, before an instrument gives them a meaning. */
export interface Parts {
  /** A side typed with the figures, to be held against the side in hand. */
  readonly side: 'left' | 'right' | null;
  /** True for a whole arc in SFTR notation. */
  readonly isArc: boolean;
  readonly unit: EntryUnit | null;
  /** What is left: the figures. */
  readonly body: string;
}

const SIDES = { l: 'left', left: 'left', r: 'right', right: 'right' } as const;
const ARC = /^(?:[sft]\s*[:(\d]|r\s*[:(])/i;
const LED = /^(left|right|l|r)\s*(?=[-−\d.,])(.*)$/i;
const TRAILED = /^(.*\d[+]*)\s*(left|right|l|r)$/i;
const UNIT = new RegExp(`^(.*\\d)\\s*(${[...ENTRY_UNITS].filter((unit) => unit !== 'deg').join('|')}|°)$`, 'i');

/**
 * Takes a side and a unit off what was typed: `l45`, `45r`, `12in`, `30 lb`,
 * or leaves an arc as it is: `S:0-15-120`.
 */
export function splitTyped(text: string): Parts {
  let body = text.trim();
  if (ARC.test(body)) return { side: null, isArc: true, unit: null, body };
  let side: Parts['side'] = null;
  const led = LED.exec(body) ?? TRAILED.exec(body);
  if (led) {
    const [word, rest] = /\d$|\+$/.test(led[1]!) ? [led[2]!, led[1]!] : [led[1]!, led[2]!];
    side = SIDES[word.toLowerCase() as keyof typeof SIDES];
    body = rest.trim();
  }
  const measured = UNIT.exec(body);
  if (!measured) return { side, isArc: false, unit: null, body };
  const named = ENTRY_UNITS.find((unit) => unit.toLowerCase() === measured[2]!.toLowerCase());
  return { side, isArc: false, unit: named ?? 'deg', body: measured[1]!.trim() };
}
