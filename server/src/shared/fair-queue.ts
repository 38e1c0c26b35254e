import { busy, HttpProblem } from './problems.js';

/** Who waits for a turn: somebody signed in, somebody who is not, or work that nobody waits for. */
export type TurnKind = 'person' | 'guest' | 'background';

export interface Turn {
  readonly kind: TurnKind;
  /** Whose turn: each has a fair share, however much they ask for. */
  readonly who: string;
}

/** In this order, where more than one kind waits. */
const KINDS: readonly TurnKind[] = ['person', 'guest', 'background'];

/** How many of one may wait; who asks for more is told to wait. */
const MOST_WAITING: Readonly<Record<TurnKind, number>> = { person: 60, guest: 16, background: Infinity };
const MOST_WAITING_ALTOGETHER = 600;

interface Waiting {
  readonly turn: Turn;
  readonly start: () => void;
}

/**
 * Shares a few places among those who want one. Persons come before guests,
 * guests before background work; within a kind each gets one turn after the
 * other. One place is kept free of anything that one alone, guests, or
 * background work can fill, so that a person never waits for all of it.
 */
export class FairQueue {
  private readonly waiting: Readonly<Record<TurnKind, Map<string, Waiting[]>>> = {
    person: new Map(),
    guest: new Map(),
    background: new Map(),
  };
  private readonly running = new Map<string, number>();
  private readonly runningOf: Record<TurnKind, number> = { person: 0, guest: 0, background: 0 };
  private runningAltogether = 0;
  private waitingAltogether = 0;

  /** @param mostWaiting how many of one may wait, where it is not the usual */
  constructor(
    private readonly places: number,
    private readonly mostWaiting: Readonly<Record<TurnKind, number>> = MOST_WAITING,
  ) {}

  /** @throws a problem where too many wait already */
  async run<T>(turn: Turn, job: () => Promise<T>): Promise<T> {
    await this.place(turn);
    try {
      return await job();
    } finally {
      this.leave(turn);
    }
  }

  private place(turn: Turn): Promise<void> {
    if (this.mayRun(turn)) {
      this.enter(turn);
      return Promise.resolve();
    }
    const queues = this.waiting[turn.kind];
    const own = queues.get(turn.who) ?? [];
    if (own.length >= this.mostWaiting[turn.kind]) throw tooMuchAtOnce();
    if (turn.kind !== 'background' && this.waitingAltogether >= MOST_WAITING_ALTOGETHER) throw busy();
    this.waitingAltogether += 1;
    return new Promise((resolve) => {
      own.push({ turn, start: resolve });
      queues.set(turn.who, own);
    });
  }

  private mayRun({ kind, who }: Turn): boolean {
    if (this.runningAltogether >= this.places) return false;
    const share = Math.max(1, this.places - 1);
    if ((this.running.get(keyOf(kind, who)) ?? 0) >= share) return false;
    return kind === 'person' || this.runningOf.guest + this.runningOf.background < share;
  }

  private enter({ kind, who }: Turn): void {
    const key = keyOf(kind, who);
    this.running.set(key, (this.running.get(key) ?? 0) + 1);
    this.runningOf[kind] += 1;
    this.runningAltogether += 1;
  }

  private leave({ kind, who }: Turn): void {
    const key = keyOf(kind, who);
    const left = (this.running.get(key) ?? 1) - 1;
    if (left > 0) this.running.set(key, left);
    else this.running.delete(key);
    this.runningOf[kind] -= 1;
    this.runningAltogether -= 1;
    this.next();
  }

  private next(): void {
    for (const kind of KINDS)
      for (const [who, own] of this.waiting[kind]) {
        if (!this.mayRun({ kind, who })) continue;
        const { turn, start } = own.shift()!;
        this.waitingAltogether -= 1;
        // At the end of the line with the rest: the others come first.
        this.waiting[kind].delete(who);
        if (own.length > 0) this.waiting[kind].set(who, own);
        this.enter(turn);
        start();
        return this.next();
      }
  }
}

const keyOf = (kind: TurnKind, who: string): string => `${kind} ${who}`;

const tooMuchAtOnce = (): HttpProblem =>
  new HttpProblem(429, 'Too much at once', 'Too many requests came from here at once. Nothing was done; wait a moment, then try again.', {
    retryAfter: 2,
  });
