import { computed, DestroyRef, inject, signal } from '@angular/core';
import type { Observable } from 'rxjs';
import { toFailure, type Failure } from '../data/problem';

/** What a field wants before anything is sent; empty: it is well. */
export type Wants = Readonly<Record<string, () => string>>;

/** Something, an at, something: whether there is such an address only the server knows. */
export const looksLikeAddress = (text: string): boolean => /^\S+@\S+$/.test(text.trim());

/** A form at the door: what is missing is named once it was tried, what the server refuses stands at its field, and nothing typed is lost. */
export class DoorForm {
  readonly tried = signal(false);
  readonly busy = signal(false);
  private readonly failure = signal<Failure | null>(null);

  /** Whoever sent it has left the page: what comes back is nobody's here. */
  private left = false;

  constructor(private readonly wants: Wants) {
    inject(DestroyRef).onDestroy(() => (this.left = true));
  }

  /** What is wrong with a field; empty: nothing. */
  wrong(field: string): string {
    const missing = this.tried() ? (this.wants[field]?.() ?? '') : '';
    return missing || (this.failure()?.fields.find(({ path }) => path === field)?.message ?? '');
  }

  /** What is wrong as a whole, where no field of the form says it. */
  readonly problem = computed(() => {
    const failure = this.failure();
    if (!failure || failure.fields.some(({ path }) => path in this.wants)) return '';
    return failure.message;
  });

  /** @returns whether it was sent */
  send<T>(sent: () => Observable<T>, done: (answer: T) => void, refused?: (failure: Failure) => boolean): boolean {
    this.tried.set(true);
    if (this.busy() || Object.values(this.wants).some((wants) => wants() !== '')) return false;
    this.busy.set(true);
    this.failure.set(null);
    sent().subscribe({
      next: (answer) => {
        this.busy.set(false);
        if (!this.left) done(answer);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        if (this.left) return;
        const failure = toFailure(error);
        if (!refused?.(failure)) this.failure.set(failure);
      },
    });
    return true;
  }
}
