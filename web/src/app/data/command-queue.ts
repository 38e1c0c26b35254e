import { computed, DestroyRef, effect, inject, Injectable, signal } from '@angular/core';
import type { SavedReading } from '@dial-gauge/contract';
import { firstValueFrom, fromEvent, map, merge, of, race, Subject, take, takeUntil, timeout, timer, type Observable } from 'rxjs';
import { Api } from './api';
import { CommandStore } from './command-store';
import type { Command, WaitingCommand } from './commands';
import { toFailure, type Failure } from './problem';
import { Session } from './session';

/** How the sending of a command went: taken, or refused with a reason. */
export interface Answer {
  readonly command: Command;
  readonly failure: Failure | null;
  /** It came too late for a signed visit and is kept for review: what the server says of that. */
  readonly kept?: string;
  /** By how many seconds the clock of this device is off, where the server put a reading right by it. */
  readonly clockOff?: number;
}

const FIRST_WAIT = 500;
const LONGEST_WAIT = 5_000;
/** After this long a request is given up and sent again. */
const LONGEST_ANSWER = 60_000;
const CHANNEL = 'dial-gauge-outbox';

/**
 * Sends what was entered, one after another and in order, and goes on trying
 * while the trouble is a passing one. What waits is kept by the browser under
 * the name of whoever entered it, so that a reload, a closed lid or another
 * person's sign-in neither loses nor misfiles it. Of several tabs one sends
 * for all; each hears how it went.
 */
@Injectable({ providedIn: 'root' })
export class CommandQueue {
  private readonly api = inject(Api);
  private readonly store = inject(CommandStore);
  private readonly session = inject(Session);
  private readonly commands = signal<readonly WaitingCommand[]>([]);
  /** Entered here and not yet in the box: a matter of milliseconds. */
  private readonly onTheWay = signal(0);
  private readonly trouble = signal('');
  private readonly added = new Subject<void>();
  /** The user changed, or the page ends: what is on the way is let go. It is sent again by its id. */
  private readonly left = new Subject<void>();
  private readonly heard = new Subject<Answer>();
  private readonly channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel(CHANNEL) : null;
  private readonly userId = computed(() => this.session.current()?.user.id ?? null);
  private pumping = false;
  private ended = false;
  private keeping: Promise<void> = Promise.resolve();
  private known: Promise<typeof import('./commands')> | null = null;

  /** How each command went, in whichever tab it was sent. */
  readonly answers: Observable<Answer> = this.heard.asObservable();
  /** How many entries are not acknowledged yet. */
  readonly waiting = computed(() => this.commands().filter((command) => !command.refused).length + this.onTheWay());
  /** What the server would not take, until somebody has looked. */
  readonly refused = computed(() => this.commands().filter((command) => command.refused));
  /** Why the first of them waits; empty while all is well. */
  readonly problem = this.trouble.asReadonly();
  private readonly keeps = signal<CommandStore['why']>('');
  /** False where what waits would not outlive this page. */
  get lasts(): boolean {
    return this.keeps() === '';
  }
  /** What is wrong with keeping, in words; empty while all is well. */
  readonly keepingProblem = computed(() => KEEPING[this.keeps()]);

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.ended = true;
      this.channel?.close();
      this.left.next();
    });
    this.channel?.addEventListener('message', (event: MessageEvent<Answer | null>) => {
      if (event.data) this.heard.next(event.data);
      void this.refresh().then(() => this.pump());
    });
    addEventListener('beforeunload', (event) => {
      // What is kept by the browser may be left; what is not yet, or cannot be, may not.
      if (this.onTheWay() > 0 || (!this.store.lasts && this.waiting() > 0)) event.preventDefault();
    });
    effect(() => {
      if (this.userId()) void this.kinds().catch(() => {});
      // Whoever was here has left: nothing of theirs stays on the way, and nobody waits for the next try.
      this.left.next();
      void this.refresh().then(() => this.pump());
    });
  }

  /** Keeps a command and sends it as soon as it can be. */
  add(command: Omit<Command, 'userId'>): void {
    const userId = this.userId() ?? '';
    this.onTheWay.update((n) => n + 1);
    // One after another, so that the box holds them in the order they were entered.
    const whole = { ...command, userId, enteredAt: new Date().toISOString() } as Command;
    this.keeping = this.keeping.then(() => this.store.put(whole));
    // Told afterwards: what is entered next is not kept any later for it.
    void this.keeping.then(async () => {
      await this.refresh();
      this.onTheWay.update((n) => n - 1);
      this.channel?.postMessage(null);
      this.added.next();
      void this.pump();
    });
  }

  /** What of a visit waits, oldest first: laid over what the server says when the visit is opened. */
  async waitingOf(visitId: string): Promise<readonly Command[]> {
    await this.keeping;
    await this.refresh();
    return this.commands().filter((command) => command.visitId === visitId && !command.refused);
  }

  /** Forgets a refused command that has been looked at. */
  async dismiss(id: string): Promise<void> {
    const command = this.commands().find((l) => l.id === id);
    if (command) await this.store.remove(command.seq);
    await this.refresh();
  }

  /** Empties the box of whoever is signed in: only by explicit choice. */
  async discardAll(): Promise<void> {
    for (const { seq } of this.commands()) await this.store.remove(seq);
    await this.refresh();
  }

  private async refresh(): Promise<void> {
    const userId = this.userId();
    const waiting = userId ? await this.store.of(userId) : [];
    this.commands.set(waiting);
    this.keeps.set(this.store.why);
  }

  /** Sends what waits. Only one tab does at a time; the others wait for their turn and then find nothing left. */
  private async pump(): Promise<void> {
    if (this.pumping || this.ended || !this.next()) return;
    this.pumping = true;
    try {
      if (navigator.locks) await navigator.locks.request(CHANNEL, () => this.drain());
      else await this.drain();
    } finally {
      this.pumping = false;
    }
    if (this.next()) void this.pump();
  }

  private next(): WaitingCommand | undefined {
    return this.commands().find((command) => !command.refused);
  }

  private async drain(): Promise<void> {
    await this.refresh();
    let wait = FIRST_WAIT;
    for (let command = this.next(); command && !this.ended; command = this.next()) {
      const answer = await this.send(command);
      if (answer.failure?.passing) {
        this.trouble.set(answer.failure.message);
        // Nobody signed in any more: whoever signs in next starts again.
        if (this.ended || this.userId() !== command.userId) return;
        await firstValueFrom(race(timer(wait), merge(fromEvent(window, 'online'), this.added, this.left).pipe(take(1))));
        wait = Math.min(wait * 2, LONGEST_WAIT);
      } else {
        wait = FIRST_WAIT;
        this.trouble.set('');
        if (answer.failure) await this.store.refuse(command, answer.failure.message);
        else await this.store.remove(command.seq);
        await this.refresh();
        this.heard.next(answer);
        this.channel?.postMessage(answer);
      }
      await this.refresh();
    }
  }

  /**
   * How each kind of command is sent. Not wanted at the door; fetched as soon as
   * somebody is in, since a page whose server is away cannot fetch it any more.
   */
  private kinds(): Promise<typeof import('./commands')> {
    this.known ??= import('./commands');
    this.known.catch(() => (this.known = null));
    return this.known;
  }

  private async send(command: WaitingCommand): Promise<Answer> {
    const failed = (failure: Failure): Answer => ({ command, failure });
    if (this.userId() !== command.userId) return failed(later('Signed out.'));
    const kinds = await this.kinds().catch(() => null);
    if (!kinds)
      return failed(
        later('A part of the program cannot be fetched. What you entered is kept here; reload the page once the server answers.'),
      );
    const read = kinds.readCommand(command);
    if ('why' in read) return failed({ status: 0, message: read.why, fields: [], passing: false });
    const { target: id, userId: as, enteredAt } = command;
    // An answer that never comes must not keep the others waiting for ever.
    const sending = this.api.send(kinds.COMMANDS[command.route].route, { id, body: read.body, as, enteredAt }).pipe(
      map(({ status, body }): Answer => {
        if (status === 202) return { command, failure: null, kept: (body as { detail?: string }).detail ?? 'kept for review' };
        const { reading } = body as Partial<SavedReading>;
        return { command, failure: null, ...(reading?.clockOff ? { clockOff: reading.clockOff } : {}) };
      }),
      timeout({
        first: LONGEST_ANSWER,
        with: () => of(failed(later('The server does not answer. What you entered is kept here and sent again.'))),
      }),
      takeUntil(this.left),
    );
    try {
      return await firstValueFrom(sending, { defaultValue: failed(later('Signed out.')) });
    } catch (error) {
      return failed(toFailure(error));
    }
  }
}

const KEEPING: Readonly<Record<CommandStore['why'], string>> = {
  '': '',
  'nothing-kept': 'This browser keeps nothing beyond the page (a private window?): do not close it before all is saved.',
  full: 'This device cannot keep what you enter (its storage is full or locked): do not close the page before all is saved.',
};

/** To be tried again. */
const later = (message: string): Failure => ({ status: 0, message, fields: [], passing: true });
