import { median } from 'simple-statistics';
import { protocolOfId, type Protocol } from '../catalogue/index.js';
import type { Instrument, Position, Side } from '../terms.js';
import { assumedTurn, stationFor, type Station, type TurnSeconds } from './station.js';

/** A reading with the moment it was held, for learning how long things take here. */
export interface HeldAt {
  readonly visit: string;
  readonly protocol: string;
  readonly position: Position;
  readonly side: Side;
  readonly mode: string;
  /** Milliseconds since any fixed moment. */
  readonly at: number;
}

/** What a clinic's own visits say about how long things take, in seconds. */
export interface RecordedTimes {
  /** From the reading before to the first of a measurement, by protocol. */
  readonly first: Readonly<Record<string, number>>;
  /** From one trial to the next, by protocol. */
  readonly repeat: Readonly<Record<string, number>>;
  /** From the last reading before a turn to the first after it, less that first reading's own time: by "from>to". */
  readonly turn: Readonly<Record<string, number>>;
}

export const NO_TIMES: RecordedTimes = { first: {}, repeat: {}, turn: {} };

/** Fewer than this say nothing. */
const ENOUGH = 5;
/** A longer gap was a talk, not a measurement. */
const LONGEST_GAP = 240;

interface Assumed {
  readonly place: number;
  readonly read: number;
}

/** Seconds to place an instrument and to read it once, where the clinic has not timed its own. @see common practice, no source: assumed */
const ASSUMED: Readonly<Record<Instrument, Assumed>> = {
  goniometer: { place: 14, read: 8 },
  inclinometer: { place: 10, read: 8 },
  dualInclinometer: { place: 16, read: 12 },
  phone: { place: 8, read: 6 },
  picture: { place: 15, read: 20 },
  tape: { place: 10, read: 6 },
  visual: { place: 4, read: 5 },
  dynamometer: { place: 14, read: 10 },
  stopwatch: { place: 10, read: 30 },
};

/**
 * Seconds one measurement takes: the clinic's own median where it has timed
 * enough of them, otherwise what is assumed for the instrument.
 */
export function secondsFor(protocol: Protocol, trials: number, times: RecordedTimes = NO_TIMES): number {
  const { place, read } = ASSUMED[protocol.instruments[0]!];
  const first = times.first[protocol.id] ?? place + read;
  const repeat = times.repeat[protocol.id] ?? Math.min(first, read);
  return first + Math.max(0, trials - 1) * repeat;
}

/** Seconds of a turn: the clinic's own where it has timed enough, otherwise assumed. */
export function turnSecondsOf(times: RecordedTimes = NO_TIMES): TurnSeconds {
  return (from: Station, to: Station) => (from === to ? 0 : (times.turn[`${from}>${to}`] ?? assumedTurn(from, to)));
}

/**
 * How long measuring takes in a clinic, from the moments its readings were
 * held. Medians, so that a telephone call does not count; nothing is said of
 * what was timed fewer than five times.
 */
export function recordedTimes(readings: readonly HeldAt[]): RecordedTimes {
  const first = new Map<string, number[]>();
  const repeat = new Map<string, number[]>();
  const turns: { key: string; protocol: string; gap: number }[] = [];
  const put = (map: Map<string, number[]>, key: string, gap: number) => map.set(key, [...(map.get(key) ?? []), gap]);
  const inOrder = [...readings].sort((a, b) => a.visit.localeCompare(b.visit) || a.at - b.at);
  inOrder.forEach((reading, i) => {
    const before = inOrder[i - 1];
    if (before?.visit !== reading.visit) return;
    const gap = (reading.at - before.at) / 1000;
    if (gap <= 0 || gap > LONGEST_GAP || !protocolOfId(reading.protocol)) return;
    const from = stationFor(before.position, before.side);
    const to = stationFor(reading.position, reading.side);
    if (from !== to) turns.push({ key: `${from}>${to}`, protocol: reading.protocol, gap });
    else if (before.protocol === reading.protocol && before.side === reading.side && before.mode === reading.mode)
      put(repeat, reading.protocol, gap);
    else put(first, reading.protocol, gap);
  });
  const own = medians(first);
  const byTurn = new Map<string, number[]>();
  for (const { key, protocol, gap } of turns) {
    const reading = own[protocol] ?? secondsFor(protocolOfId(protocol)!, 1);
    put(byTurn, key, Math.max(1, gap - reading));
  }
  return { first: own, repeat: medians(repeat), turn: medians(byTurn) };
}

function medians(map: ReadonlyMap<string, readonly number[]>): Record<string, number> {
  return Object.fromEntries(
    [...map].filter(([, gaps]) => gaps.length >= ENOUGH).map(([key, gaps]) => [key, Math.round(median([...gaps]) * 10) / 10]),
  );
}
