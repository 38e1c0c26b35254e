import type { Sense } from '../angle/excursion.js';
import type { Shown } from '../angle/follow.js';
import { OUT_OF_PLANE, planeVerdict } from '../angle/gravity.js';
import type { StoredReading } from '../assessment.js';
import { motion, type Protocol } from '../catalogue/index.js';
import type { Instrument } from '../terms.js';
import { listed } from '../words/say.js';
import { INSTRUMENT_WORDS } from '../words/instruments.js';
import { checkReading, type ReadAtDial } from './read.js';

/** An instrument that is connected, and what it shows. */
export interface LiveSite {
  readonly name: string;
  readonly kind: 'device' | 'phone' | 'simulated';
  /** null before it said anything. */
  readonly shows: Shown | null;
  /** It has not been heard for too long. */
  readonly isStale: boolean;
}

/** What is chosen beside the instrument. */
export interface LiveChoice {
  /** Which way counts up, where somebody said so; otherwise the way it went. */
  readonly told: Sense | null;
  /** The furthest since zero in place of where it is now. */
  readonly peak: boolean;
  /** Where on the body this is: a zero that was set elsewhere is none here, but against level or plumb. */
  readonly place: string;
}

const refuse = (message: string): ReadAtDial => ({ ok: false, message });

/**
 * With what the connected instruments read a protocol: two of them at two sites
 * where it is read so, the first one elsewhere.
 *
 * @returns a message where they cannot
 */
export function liveInstrument({ instruments, motion: id, swing }: Protocol, sites: readonly LiveSite[]): Instrument | { why: string } {
  const [first, second] = sites;
  if (!first) return { why: 'No instrument is connected. Type the reading, or connect one.' };
  if (motion(id).unit !== 'deg') return { why: `${motion(id).name} is no angle: type it.` };
  if (second && instruments.includes('dualInclinometer')) return 'dualInclinometer';
  const single = first.kind === 'phone' ? 'phone' : 'inclinometer';
  if (instruments.includes(single)) return single;
  const allowed = listed(instruments.map((instrument) => INSTRUMENT_WORDS[instrument]));
  if (instruments.includes('dualInclinometer'))
    return { why: `This is read at two sites: connect a second inclinometer. Allowed: ${allowed}.` };
  return {
    why: `${swing === 'vertical' ? 'An inclinometer does not read this way of measuring' : 'Gravity does not tell a turn about an upright axis'}; allowed: ${allowed}. Type the reading.`,
  };
}

/** Why nothing can be held of what an instrument shows; null where it can. */
function whyNot(protocol: Protocol, { name, shows, isStale }: LiveSite, { place }: LiveChoice): string | null {
  if (!shows) return `Nothing came from ${name} yet.`;
  if (isStale) return `No signal from ${name}: wait for it, or type the reading.`;
  if (shows.lost) return `${name} was turned so far out of plane that its way is lost: set zero again.`;
  if (shows.zero === null) return `${name} has no zero: set it at the start, level or plumb.`;
  if (shows.zero === 'start' && protocol.reads === 'position')
    return 'This is read as a position against plumb or level, not from a start: set zero level or plumb.';
  if (shows.zero === 'start' && shows.zeroedAt !== place) return 'Zero was set for another measurement: set it for this one.';
  if (planeVerdict(shows.outOfPlane) === 'refused')
    return `${name} is ${Math.round(shows.outOfPlane)}° out of plane: it reads too little; allowed: under ${OUT_OF_PLANE.refuse}°.`;
  return null;
}

/**
 * What the connected instruments offer to be held this moment, in whole degrees,
 * which is as fine as anybody holds a limb; or why there is nothing to hold.
 */
export function readLive(protocol: Protocol, sites: readonly LiveSite[], choice: LiveChoice): ReadAtDial {
  const instrument = liveInstrument(protocol, sites);
  if (typeof instrument !== 'string') return refuse(instrument.why);
  const used = sites.slice(0, instrument === 'dualInclinometer' ? 2 : 1);
  const values: number[] = [];
  const sense = choice.told ?? used[0]!.shows?.way ?? 1;
  for (const site of used) {
    const why = whyNot(protocol, site, choice);
    if (why !== null) return refuse(why);
    const { peak, held } = site.shows!;
    values.push(Math.round((choice.peak ? peak! : held!) * sense) + 0);
  }
  const out = Math.max(...used.map(({ shows }) => shows!.outOfPlane));
  const [end, lower] = values as [number, number | undefined];
  const reading: StoredReading = {
    ...{ start: 0, end },
    ...(lower === undefined ? {} : { lower: { zero: 0, end: lower } }),
    // From where a warning stands it stays with the reading.
    ...(planeVerdict(out) === 'good' ? {} : { entered: `${Math.round(out)}° out of plane` }),
    // Numbers of a joint that is not there stay marked as such wherever they go.
    ...(used.some(({ kind }) => kind === 'simulated') ? { simulated: true } : {}),
  };
  const wrong = checkReading(protocol, { instrument }, reading);
  return wrong ? refuse(wrong) : { ok: true, reading, side: null, other: null };
}
