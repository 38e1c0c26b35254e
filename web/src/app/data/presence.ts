import { DOCUMENT, inject, Injectable } from '@angular/core';
import { fromEvent, merge } from 'rxjs';

/** What is sent so soon after an act was caused by it. */
const CAUSED_WITHIN_MS = 15_000;

/** Sent with what this page asks by itself: it does not show that anybody is here. */
export const BACKGROUND_HEADER = 'x-dial-gauge-background';

/**
 * When the person at this device last did something: a key, a touch, a click.
 * Requests that no act precedes say so, and the server does not count them as
 * presence. It is laid over every request, so that no poll can be forgotten.
 */
@Injectable({ providedIn: 'root' })
export class Presence {
  private lastAct = -Infinity;

  constructor() {
    const document = inject(DOCUMENT);
    merge(
      ...['pointerdown', 'keydown', 'touchstart', 'wheel'].map((act) => fromEvent(document, act, { capture: true, passive: true })),
    ).subscribe(() => (this.lastAct = Date.now()));
  }

  /** @param enteredAt when a person entered what is sent, where they did: a reading held with an instrument is an act too */
  isAct(enteredAt?: string): boolean {
    const last = Math.max(this.lastAct, enteredAt === undefined ? -Infinity : Date.parse(enteredAt));
    return Date.now() - last <= CAUSED_WITHIN_MS;
  }
}
