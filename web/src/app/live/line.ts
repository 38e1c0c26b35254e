import { Injectable, signal, type Signal } from '@angular/core';
import { LIVE_CLOSED, LIVE_PATH, type Hello } from '@dial-gauge/contract';
import { filter, map, Observable, retry, share, timer } from 'rxjs';
import { webSocket, type WebSocketSubject } from 'rxjs/webSocket';

/** How long until a line that was cut is tried again, in milliseconds. */
const AGAIN_MS = 800;
const LONGEST_MS = 8_000;

/** A connection to where instruments and screens meet. It comes back by itself, unless it was refused. */
export interface Line<In> {
  /** What comes in, checked; what is not understood is left out. Connects when it is subscribed to. */
  readonly heard: Observable<In>;
  readonly isOpen: Signal<boolean>;
  /** Why it was refused for good: a code of LIVE_CLOSED. */
  readonly refused: Signal<number | null>;
  /** What is said while the line is cut is not said later: it would be too late. */
  say(said: object): void;
}

interface Understands<T> {
  safeParse(value: unknown): { readonly success: boolean; readonly data?: T };
}

const FOR_GOOD: readonly number[] = Object.values(LIVE_CLOSED);

/** Opens lines; a test hands in its own. */
@Injectable({ providedIn: 'root' })
export class Lines {
  open<In>(hello: () => Hello, understands: Understands<In>): Line<In> {
    const isOpen = signal(false);
    const refused = signal<number | null>(null);
    let socket: WebSocketSubject<unknown> | null = null;
    const connected = new Observable<unknown>((subscriber) => {
      const made = webSocket<unknown>({
        url: `${location.origin.replace(/^http/, 'ws')}${LIVE_PATH}`,
        openObserver: { next: () => isOpen.set(true) },
        closeObserver: {
          next: ({ code }) => {
            isOpen.set(false);
            if (FOR_GOOD.includes(code)) refused.set(code);
            // Closed in order is cut as well: the server was started anew.
            subscriber.error(new Error(`closed ${code}`));
          },
        },
      });
      socket = made;
      const heard = made.subscribe({ next: (said) => subscriber.next(said), error: (error: unknown) => subscriber.error(error) });
      made.next(hello());
      return () => {
        socket = null;
        isOpen.set(false);
        heard.unsubscribe();
      };
    });
    const heard = connected.pipe(
      retry({
        delay: (error: Error, tries) => {
          if (refused() !== null) throw error;
          return timer(Math.min(LONGEST_MS, AGAIN_MS * tries));
        },
        resetOnSuccess: true,
      }),
      map((said) => understands.safeParse(said).data),
      filter((said): said is In => said !== undefined),
      share(),
    );
    return {
      heard,
      isOpen: isOpen.asReadonly(),
      refused: refused.asReadonly(),
      say: (said) => {
        if (isOpen()) socket?.next(said);
      },
    };
  }
}
