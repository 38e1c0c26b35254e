import { setTimeout as wait } from 'node:timers/promises';
import type { Request } from 'express';
import { networkOf } from '../shared/address.js';
import { FairQueue } from '../shared/fair-queue.js';
import { HttpProblem } from '../shared/problems.js';
import type { KnownDevices } from './known-devices.js';

/** What people who are not signed in ask for is done by so many at once: the other connections are for those who work. */
const PLACES = 4;
/** A class behind one address that sends its day at the same moment. */
const MOST_WAITING = { person: 20, guest: 60, background: 0 };
/** Whoever was refused for asking too much hears it after so long: asking again at once brings nothing. */
const USUAL_DELAY_MS = 250;
const TOO_MANY = 429;

/**
 * Where people come in who are not signed in: sign-in, codes, links, patient
 * pages. A device on which somebody was signed in before has its own turn;
 * everybody else shares those of their address.
 */
export class Door {
  private readonly queue = new FairQueue(PLACES, MOST_WAITING);

  constructor(
    private readonly devices: KnownDevices,
    private readonly delayMs: number = USUAL_DELAY_MS,
  ) {}

  async run<T>(request: Request, work: () => Promise<T>): Promise<T> {
    const device = this.devices.deviceOf(request);
    const turn = device === null ? { kind: 'guest' as const, who: networkOf(request.ip) } : { kind: 'person' as const, who: device };
    try {
      return await this.queue.run(turn, work);
    } catch (error) {
      if (error instanceof HttpProblem && error.status === TOO_MANY) await wait(this.delayMs);
      throw error;
    }
  }
}
