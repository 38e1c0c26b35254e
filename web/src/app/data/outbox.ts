import { computed, DestroyRef, effect, inject, Injectable, signal } from '@angular/core';
import type { RouteName } from '@dial-gauge/contract';
import { firstValueFrom, fromEvent, map, merge, of, race, Subject, take, takeUntil, timeout, timer, type Observable } from 'rxjs';
import { Api } from './api';
import { LetterBox } from './letter-box';
import type { Letter, WaitingLetter } from './letters';
import { toFailure, type Failure } from './problem';
import { Session } from './session';

/** How the sending of a letter went: taken, or refused with a reason. */
export interface Answer {
  readonly letter: Letter;
  readonly failure: Failure | null;
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
export class Outbox {
  private readonly api = inject(Api);
  private readonly box = inject(LetterBox);
  private readonly session = inject(Session);
  private readonly letters = signal<readonly WaitingLetter[]>([]);
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

  /** How each letter went, in whichever tab it was sent. */
  readonly answers: Observable<Answer> = this.heard.asObservable();
  /** How many entries are not acknowledged yet. */
  readonly waiting = computed(() => this.letters().filter((letter) => !letter.refused).length + this.onTheWay());
  /** What the server would not take, until somebody has looked. */
  readonly refused = computed(() => this.letters().filter((letter) => letter.refused));
  /** Why the first of them waits; empty while all is well. */
  readonly problem = this.trouble.asReadonly();
  /** False where what waits would not outlive this page. */
  get lasts(): boolean {
    return this.box.lasts;
  }

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
      if (this.onTheWay() > 0 || (!this.box.lasts && this.waiting() > 0)) event.preventDefault();
    });
    effect(() => {
      this.userId();
      // Whoever was here has left: nothing of theirs stays on the way, and nobody waits for the next try.
      this.left.next();
      void this.refresh().then(() => this.pump());
    });
  }

  /** Keeps a letter and sends it as soon as it can be. */
  add(letter: Omit<Letter, 'userId'>): void {
    const userId = this.userId() ?? '';
    this.onTheWay.update((n) => n + 1);
    // One after another, so that the box holds them in the order they were entered.
    this.keeping = this.keeping.then(async () => {
      await this.box.put({ ...letter, userId } as Letter);
      await this.refresh();
      this.onTheWay.update((n) => n - 1);
      this.channel?.postMessage(null);
      this.added.next();
      void this.pump();
    });
  }

  /** What of a visit waits, oldest first: laid over what the server says when the visit is opened. */
  async waitingOf(visitId: string): Promise<readonly Letter[]> {
    await this.keeping;
    await this.refresh();
    return this.letters().filter((letter) => letter.visitId === visitId && !letter.refused);
  }

  /** Forgets a refused letter that has been looked at. */
  async dismiss(id: string): Promise<void> {
    const letter = this.letters().find((l) => l.id === id);
    if (letter) await this.box.remove(letter.seq);
    await this.refresh();
  }

  /** Empties the box of whoever is signed in: only by explicit choice. */
  async discardAll(): Promise<void> {
    for (const { seq } of this.letters()) await this.box.remove(seq);
    await this.refresh();
  }

  private async refresh(): Promise<void> {
    const userId = this.userId();
    this.letters.set(userId ? await this.box.of(userId) : []);
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

  private next(): WaitingLetter | undefined {
    return this.letters().find((letter) => !letter.refused);
  }

  private async drain(): Promise<void> {
    await this.refresh();
    let wait = FIRST_WAIT;
    for (let letter = this.next(); letter && !this.ended; letter = this.next()) {
      const failure = await this.send(letter);
      if (failure?.passing) {
        this.trouble.set(failure.message);
        // Nobody signed in any more: whoever signs in next starts again.
        if (this.ended || this.userId() !== letter.userId) return;
        await firstValueFrom(race(timer(wait), merge(fromEvent(window, 'online'), this.added, this.left).pipe(take(1))));
        wait = Math.min(wait * 2, LONGEST_WAIT);
      } else {
        wait = FIRST_WAIT;
        this.trouble.set('');
        if (failure) await this.box.refuse(letter, failure.message);
        else await this.box.remove(letter.seq);
        const answer: Answer = { letter, failure };
        await this.refresh();
        this.heard.next(answer);
        this.channel?.postMessage(answer);
      }
      await this.refresh();
    }
  }

  private async send({ route, target, body, userId }: WaitingLetter): Promise<Failure | null> {
    if (this.userId() !== userId) return later('Signed out.');
    // An answer that never comes must not keep the others waiting for ever.
    const sending = this.api.call(route as RouteName, { id: target, body, as: userId } as never).pipe(
      map(() => null),
      timeout({
        first: LONGEST_ANSWER,
        with: () => of(later('The server does not answer. What you entered is kept here and sent again.')),
      }),
      takeUntil(this.left),
    );
    try {
      return await firstValueFrom(sending, { defaultValue: later('Signed out.') });
    } catch (error) {
      return toFailure(error);
    }
  }
}

/** To be tried again. */
const later = (message: string): Failure => ({ status: 0, message, fields: [], passing: true });
