import { Injectable } from '@angular/core';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Letter, WaitingLetter } from './letters';

interface Schema extends DBSchema {
  letters: { key: number; value: WaitingLetter; indexes: { user: string } };
}

const NAME = 'dial-gauge-outbox';

/**
 * Where letters wait: the browser's own database, which a reload, a closed lid
 * and a crashed tab leave as it was. Where the browser has none (a private
 * window), they wait in the page, and `lasts` says so.
 */
@Injectable({ providedIn: 'root' })
export class LetterBox {
  private readonly memory = new Map<number, WaitingLetter>();
  private next = 1;
  /** False where what waits would not outlive the page. */
  lasts = true;

  private readonly opened: Promise<IDBPDatabase<Schema> | null> = openDB<Schema>(NAME, 1, {
    upgrade: (database) => {
      database.createObjectStore('letters', { keyPath: 'seq', autoIncrement: true }).createIndex('user', 'userId');
    },
  }).catch(() => {
    this.lasts = false;
    return null;
  });

  /** Puts a letter behind all others; resolves once it is kept. */
  async put(letter: Letter): Promise<void> {
    const database = await this.opened;
    // The number is given by the database, so that two tabs never give the same.
    if (database) await database.add('letters', letter as WaitingLetter);
    else this.memory.set(this.next, { ...letter, seq: this.next++ });
  }

  /** Letters of one user, oldest first. */
  async of(userId: string): Promise<WaitingLetter[]> {
    const database = await this.opened;
    const letters = database ? await database.getAllFromIndex('letters', 'user', userId) : [...this.memory.values()];
    return letters.filter((letter) => letter.userId === userId).sort((a, b) => a.seq - b.seq);
  }

  async remove(seq: number): Promise<void> {
    const database = await this.opened;
    if (database) await database.delete('letters', seq);
    else this.memory.delete(seq);
  }

  /** Keeps a refused letter until somebody has looked at it. */
  async refuse(letter: WaitingLetter, why: string): Promise<void> {
    const database = await this.opened;
    const refused = { ...letter, refused: why };
    if (database) await database.put('letters', refused);
    else this.memory.set(letter.seq, refused);
  }
}
