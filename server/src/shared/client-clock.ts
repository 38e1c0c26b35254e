/** What a request says of its own time. */
export interface ClientClock {
  /** When it was entered, put right by how far the sender's clock is off; null where it does not say. */
  readonly enteredAt: Date | null;
  /** How far the sender's clock is ahead of ours, in milliseconds; null where it does not say, 0 where it is near enough. */
  readonly ahead: number | null;
}

/** When the request was sent, by the sender's clock. */
const CLOCK_HEADER = 'x-dial-gauge-clock';
/** When what it carries was entered, by the sender's clock. */
const ENTERED_HEADER = 'x-dial-gauge-entered';

/** A request takes a moment: less than this says nothing of a clock. */
const NEAR_ENOUGH = 5_000;

/** A clock that is further off says nothing: neither the dates of the database nor arithmetic with it hold for ever. */
const YEARS = 5 * 365.25 * 86_400_000;

/** A moment within a few years of now; null where it is none, or lies further away. */
const moment = (header: string | undefined, now: Date): number | null => {
  const time = header === undefined ? NaN : Date.parse(header);
  return Math.abs(time - now.getTime()) <= YEARS ? time : null;
};

/** @param header reads a header of the request */
export function clientClockOf(header: (name: string) => string | undefined, now: Date): ClientClock {
  const clock = moment(header(CLOCK_HEADER), now);
  const off = clock === null ? null : clock - now.getTime();
  const ahead = off === null ? null : Math.abs(off) < NEAR_ENOUGH ? 0 : off;
  const entered = moment(header(ENTERED_HEADER), now);
  return { ahead, enteredAt: entered === null ? null : new Date(entered - (ahead ?? 0)) };
}
