import { inject, Injectable, signal } from '@angular/core';
import { Session } from './session';

const PREFIX = 'dial-gauge.draft.';
/** What nobody came back to for so long is forgotten. */
const LASTS = 14 * 86_400_000;

interface Kept {
  readonly at: number;
  readonly value: unknown;
}

/**
 * What is chosen or typed on a screen and not saved yet, under the name of
 * whoever typed it: it is there again after a reload, a cut or another page.
 */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private readonly session = inject(Session);
  /** True once this device has refused to keep one. */
  readonly failed = signal(false);

  private keyOf(name: string): string {
    return `${PREFIX}${this.session.current()?.user.id ?? ''}.${name}`;
  }

  /** What was kept under a name, where it still is of the shape that is asked for. */
  read<T>(name: string, fits: (value: unknown) => value is T): T | null {
    try {
      const kept = JSON.parse(localStorage.getItem(this.keyOf(name)) ?? 'null') as Kept | null;
      return kept && Date.now() - kept.at < LASTS && fits(kept.value) ? kept.value : null;
    } catch {
      return null;
    }
  }

  keep(name: string, value: unknown): void {
    try {
      localStorage.setItem(this.keyOf(name), JSON.stringify({ at: Date.now(), value } satisfies Kept));
    } catch {
      this.failed.set(true);
    }
  }

  /** Saved, or taken back: nothing is kept of it here. */
  drop(name: string): void {
    localStorage.removeItem(this.keyOf(name));
  }

  /** Forgets all drafts of whoever is signed in, and what is too old of anybody. */
  forget(own: boolean): void {
    for (const key of Object.keys(localStorage).filter((name) => name.startsWith(PREFIX))) {
      const isOwn = key.startsWith(`${PREFIX}${this.session.current()?.user.id ?? ''}.`);
      const { at = 0 } = JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<Kept>;
      if ((own && isOwn) || Date.now() - at > LASTS) localStorage.removeItem(key);
    }
  }
}

export const isText = (value: unknown): value is string => typeof value === 'string';
export const isTexts = (value: unknown): value is string[] => Array.isArray(value) && value.every(isText);
