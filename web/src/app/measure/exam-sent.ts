import type { RunRow, Side, StoredReading } from '@dial-gauge/core';
import type { Command } from '../data/commands';

/** A clock that is off is told: the reading was filed at the right moment, and the device wants setting. */
export const clockWords = (seconds: number): string =>
  `The clock of this device is ${Math.max(1, Math.round(Math.abs(seconds) / 60))} min ${seconds > 0 ? 'ahead' : 'behind'}: the reading was filed at the right time. Set the clock.`;

export type Sent = Command extends infer L ? (L extends Command ? Pick<L, 'route' | 'target' | 'body'> : never) : never;

/** What a reading or a remark belongs to, as it travels. */
export function wayOf({ motion: id, digit, mode, position, protocol }: RunRow, side: Side) {
  return { motion: id, ...(digit ? { digit } : {}), side, mode, position, protocol };
}

/** What was read, as it travels: nothing where there is nothing. */
export function figuresOf({ start, end, lower, scale, sense, entered }: StoredReading) {
  return {
    start,
    end,
    ...(lower ? { lower } : {}),
    ...(scale ? { scale } : {}),
    ...(sense ? { sense } : {}),
    ...(entered ? { entered } : {}),
  };
}

/** A figure that is typed and not held yet, at its measurement. */
export interface HalfTyped {
  readonly key: string;
  readonly typed: string;
}

export const isHalfTyped = (value: unknown): value is HalfTyped =>
  typeof value === 'object' && value !== null && 'key' in value && 'typed' in value;
