import { computed, Injectable, signal } from '@angular/core';
import type { SessionView } from '@dial-gauge/contract';
import { ASK_SESSION } from '@dial-gauge/contract/ask-session';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** An answer as it was kept. */
export interface Kept {
  readonly key: string;
  readonly at: number;
  readonly body: unknown;
}

interface Owner {
  readonly userId: string;
  /** When the server last answered them. */
  readonly seenAt: number;
  /** When what they need today was taken along last. */
  readonly takenAt?: number;
}

interface Schema extends DBSchema {
  answers: { key: string; value: Kept; indexes: { at: number } };
  owner: { key: 'owner'; value: Owner };
}

const NAME = 'dial-gauge-at-hand';
/** So long after the server has answered last nothing is shown any more: a session rests no longer either. */
const LASTS_MS = 12 * 3_600_000;
const MOST = 400;

/** Under which an answer is kept: what was asked for. */
export const keyOf = (path: string, query: Readonly<Record<string, string>> = {}): string =>
  `/api${path}?${new URLSearchParams(query).toString()}`;
const SESSION = keyOf(ASK_SESSION.path);

/**
 * What whoever is signed in was answered, kept by the browser so that it is
 * there without a network: until they sign out, their session ends, somebody
 * else signs in, or the server was not heard for half a day.
 */
@Injectable({ providedIn: 'root' })
export class AtHand {
  private readonly opened: Promise<IDBPDatabase<Schema> | null> = openDB<Schema>(NAME, 1, {
    upgrade: (database) => {
      database.createObjectStore('answers', { keyPath: 'key' }).createIndex('at', 'at');
      database.createObjectStore('owner');
    },
  }).catch(() => null);
  private userId: string | null = null;
  /** What of the page came from here, and from when. */
  private readonly shown = signal<ReadonlyMap<string, number>>(new Map());

  /** The moment of the oldest answer on the page that came from here; null: all is from the server. */
  readonly shownFrom = computed(() => (this.shown().size > 0 ? Math.min(...this.shown().values()) : null));

  /** From now on what is kept is this person's, and nobody else's. */
  async own(session: SessionView): Promise<void> {
    const userId = session.user.id;
    this.userId = userId;
    const database = await this.opened;
    if (!database) return;
    const change = database.transaction(['owner', 'answers'], 'readwrite');
    const owner = await change.objectStore('owner').get('owner');
    if (owner && owner.userId !== userId) await change.objectStore('answers').clear();
    // Opened without a network it is no word of the server: that stays as late as it was.
    if (owner?.userId !== userId || isOver(owner)) await change.objectStore('owner').put({ userId, seenAt: Date.now() }, 'owner');
    await change.objectStore('answers').put({ key: SESSION, at: Date.now(), body: session });
    await change.done.catch(() => {});
  }

  /** Keeps an answer, where whoever asked is still the one whose things are kept. */
  async keep(key: string, body: unknown): Promise<void> {
    this.answered(key);
    const { userId } = this;
    const database = await this.opened;
    if (!database || !userId) return;
    try {
      const change = database.transaction(['owner', 'answers'], 'readwrite');
      const answers = change.objectStore('answers');
      const owner = await change.objectStore('owner').get('owner');
      if (owner?.userId === userId) {
        const at = Date.now();
        await change.objectStore('owner').put({ ...owner, seenAt: at }, 'owner');
        await answers.put({ key, at, body });
        // The oldest go first.
        const tooMany = (await answers.count()) - MOST;
        const oldest = tooMany > 0 ? await answers.index('at').getAllKeys(null, tooMany) : [];
        for (const old of oldest) await answers.delete(old);
      }
      await change.done;
    } catch {
      // A full disk: then it is not there without a network.
    }
  }

  /** Whether there can be anything under a key: before it is known who somebody is, only that. */
  mayHave(key: string): boolean {
    return this.userId !== null || key === SESSION;
  }

  /** What was kept under a key, while it may still be shown. */
  async read(key: string): Promise<Kept | null> {
    const database = await this.opened;
    const owner = await database?.get('owner', 'owner').catch(() => undefined);
    if (!database || !owner || (this.userId !== null && owner.userId !== this.userId)) return null;
    if (isOver(owner)) {
      await this.forget();
      return null;
    }
    const kept = (await database.get('answers', key).catch(() => undefined)) ?? null;
    // Who is signed in is no part of a page.
    if (kept && key !== SESSION) this.shown.update((all) => new Map([...all, [key, kept.at]]));
    return kept;
  }

  /** When what is needed today was taken along last; 0: not yet. */
  async takenAt(): Promise<number> {
    const owner = await (await this.opened)?.get('owner', 'owner').catch(() => undefined);
    return (owner?.userId === this.userId ? owner?.takenAt : undefined) ?? 0;
  }

  /** It was now. */
  async taken(): Promise<void> {
    const change = (await this.opened)?.transaction('owner', 'readwrite');
    const owner = await change?.store.get('owner');
    if (owner && owner.userId === this.userId) await change?.store.put({ ...owner, takenAt: Date.now() }, 'owner');
    await change?.done.catch(() => {});
  }

  /** Another page begins: what was shown on this one is shown no more. */
  turnPage(): void {
    this.shown.set(new Map());
  }

  private answered(key: string): void {
    if (this.shown().has(key)) this.shown.update((all) => new Map([...all].filter(([shown]) => shown !== key)));
  }

  /** Nothing is kept any more, of anybody. */
  async forget(): Promise<void> {
    this.userId = null;
    this.turnPage();
    const database = await this.opened;
    if (!database) return;
    const change = database.transaction(['owner', 'answers'], 'readwrite');
    await change.objectStore('answers').clear();
    await change.objectStore('owner').delete('owner');
    await change.done.catch(() => {});
  }
}

const isOver = ({ seenAt }: Owner): boolean => Date.now() - seenAt > LASTS_MS;
