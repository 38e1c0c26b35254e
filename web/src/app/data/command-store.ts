import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Command, WaitingCommand } from './commands';

interface Schema extends DBSchema {
  letters: { key: number; value: WaitingCommand; indexes: { user: string } };
}

const NAME = 'dial-gauge-outbox';
const STORE = 'letters';
/** How often a write that failed is tried again before the page keeps it instead, and how long after. */
const TRIES = [0, 40, 160];

/** Numbers given by the page lie behind all that the browser's own database gives. */
const PAGE_NUMBERS = 2 ** 40;

/**
 * Where commands wait: the browser's own database, which a reload, a closed
 * lid and a crashed tab leave as it was. Every write stands alone: one that
 * fails is tried again, and then waits in the page, and touches no other.
 */
@Injectable({ providedIn: 'root' })
export class CommandStore {
  /** What only the page keeps: in a private window all of it, otherwise what the browser would not take. */
  private readonly inPage = new Map<number, WaitingCommand>();
  private next = PAGE_NUMBERS;
  private none = false;

  private readonly opened: Promise<IDBPDatabase<Schema> | null> = openDB<Schema>(NAME, 1, {
    upgrade: (database) => {
      database.createObjectStore(STORE, { keyPath: 'seq', autoIncrement: true }).createIndex('user', 'userId');
    },
  }).catch(() => {
    this.none = true;
    return null;
  });

  /** False where some of what waits, or all that will, would not outlive the page. */
  get lasts(): boolean {
    return !this.none && this.inPage.size === 0;
  }

  /** Why not: the browser keeps nothing at all here, or it would not take some of it. */
  get why(): '' | 'nothing-kept' | 'full' {
    return this.none ? 'nothing-kept' : this.inPage.size > 0 ? 'full' : '';
  }

  /** Puts a command behind all others; resolves once it is kept, by the browser or by the page. */
  async put(command: Command & Pick<WaitingCommand, 'version' | 'enteredAt'>): Promise<void> {
    // The number is given by the database, so that two tabs never give the same.
    const kept = await this.tried((database) => database.add(STORE, command as WaitingCommand));
    if (kept) return;
    this.inPage.set(this.next, { ...command, seq: this.next });
    this.next += 1;
  }

  /** Commands of one user, oldest first. */
  async of(userId: string): Promise<WaitingCommand[]> {
    const database = await this.opened;
    const stored = database ? await database.getAllFromIndex(STORE, 'user', userId).catch(() => []) : [];
    const own = [...this.inPage.values()].filter((command) => command.userId === userId);
    return [...stored, ...own].sort((a, b) => a.seq - b.seq);
  }

  async remove(seq: number): Promise<void> {
    if (this.inPage.delete(seq)) return;
    // Sent again it is harmless: the server knows it by its id.
    await this.tried((database) => database.delete(STORE, seq));
  }

  /** Keeps a refused command until somebody has looked at it. */
  async refuse(command: WaitingCommand, why: string): Promise<void> {
    const refused = { ...command, refused: why };
    if (!this.inPage.has(command.seq) && (await this.tried((database) => database.put(STORE, refused)))) return;
    this.inPage.set(command.seq, refused);
    await this.tried((database) => database.delete(STORE, command.seq));
  }

  /** @returns whether the browser has done it, at one of a few tries */
  private async tried(write: (database: IDBPDatabase<Schema>) => Promise<unknown>): Promise<boolean> {
    const database = await this.opened;
    if (!database) return false;
    for (const wait of TRIES) {
      if (wait) await new Promise((resolve) => setTimeout(resolve, wait));
      try {
        await write(database);
        return true;
      } catch {
        // A full disk, a database that was closed: the next try, then the page.
      }
    }
    return false;
  }
}
