/** What a request says of its own time. */
export interface Sent {
  /** When it was entered, put right by how far the sender's clock is off; null where it does not say. */
  readonly enteredAt: Date | null;
  /** How far the sender's clock is ahead of ours, in milliseconds; null where it does not say, 0 where it is near enough. */
  readonly ahead: number | null;
}

/** When the request was sent, by the sender's clock. */
export const CLOCK_HEADER = 'x-dial-gauge-clock';
/** When what it carries was entered, by the sender's clock. */
export const ENTERED_HEADER = 'x-dial-gauge-entered';

/** A request takes a moment: less than this says nothing of a clock. */
const NEAR_ENOUGH = 5_000;

const moment = (header: string | undefined): number | null => {
  const time = header === undefined ? NaN : Date.parse(header);
  return Number.isNaN(time) ? null : time;
};

/** @param header reads a header of the request */
export function sentOf(header: (name: string) => string | undefined, now: Date): Sent {
  const clock = moment(header(CLOCK_HEADER));
  const off = clock === null ? null : clock - now.getTime();
  const ahead = off === null ? null : Math.abs(off) < NEAR_ENOUGH ? 0 : off;
  const entered = moment(header(ENTERED_HEADER));
  return { ahead, enteredAt: entered === null ? null : new Date(entered - (ahead ?? 0)) };
}
