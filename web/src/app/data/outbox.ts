import { computed, Injectable, signal } from '@angular/core';
import { concatMap, defer, EMPTY, retry, Subject, tap, timer, catchError, throwError, type Observable } from 'rxjs';
import { toFailure, type Failure } from './problem';

/** One thing to be sent: what to send, and who wants to know how it went. */
export interface Sending {
  readonly id: string;
  readonly send: () => Observable<unknown>;
  readonly saved: () => void;
  readonly refused: (failure: Failure) => void;
}

const FIRST_WAIT = 500;
const LONGEST_WAIT = 5_000;

/**
 * Sends what was entered, one after another and in order, and goes on trying
 * while the trouble is a passing one. A refusal goes back to whoever sent it.
 * What is waiting lives in this page: leaving it is warned against while
 * anything is unsent.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly queue = new Subject<Sending>();
  private readonly waitingIds = signal<readonly string[]>([]);
  private readonly trouble = signal('');

  /** How many entries are not acknowledged yet. */
  readonly waiting = computed(() => this.waitingIds().length);
  /** Why the first of them waits; empty while all is well. */
  readonly problem = this.trouble.asReadonly();

  constructor() {
    // Subscribed for the life of the page: the queue has one consumer, so the order holds.
    this.queue.pipe(concatMap((sending) => this.deliver(sending))).subscribe();
    addEventListener('beforeunload', (event) => {
      if (this.waiting() > 0) event.preventDefault();
    });
  }

  add(sending: Sending): void {
    this.waitingIds.update((ids) => [...ids, sending.id]);
    this.queue.next(sending);
  }

  private deliver(sending: Sending): Observable<unknown> {
    return defer(sending.send).pipe(
      retry({
        delay: (error: unknown, attempt) => {
          const failure = toFailure(error);
          if (!failure.passing) return throwError(() => error);
          this.trouble.set(failure.message);
          return timer(Math.min(FIRST_WAIT * 2 ** (attempt - 1), LONGEST_WAIT));
        },
      }),
      tap(() => {
        this.done(sending);
        sending.saved();
      }),
      catchError((error: unknown) => {
        this.done(sending);
        sending.refused(toFailure(error));
        return EMPTY;
      }),
    );
  }

  private done(sending: Sending): void {
    this.trouble.set('');
    this.waitingIds.update((ids) => ids.filter((id) => id !== sending.id));
  }
}
