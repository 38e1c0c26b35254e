import { Injectable, signal } from '@angular/core';

/**
 * Parts of the program that are fetched when they are wanted. One that cannot
 * be, since the server is away, is told in the head of the page: a press that
 * nothing follows looks like a broken program.
 */
@Injectable({ providedIn: 'root' })
export class Parts {
  private readonly missed = signal(false);
  /** The last part that was wanted did not come. */
  readonly missing = this.missed.asReadonly();

  /** @returns null where it cannot be fetched now */
  async fetch<T>(part: () => Promise<T>): Promise<T | null> {
    try {
      const fetched = await part();
      this.missed.set(false);
      return fetched;
    } catch {
      this.missed.set(true);
      return null;
    }
  }

  /** A page that could not be opened. */
  miss(): void {
    this.missed.set(true);
  }

  /** It was seen. */
  dismiss(): void {
    this.missed.set(false);
  }
}
