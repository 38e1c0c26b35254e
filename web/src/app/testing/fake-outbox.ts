import { signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Letter } from '../data/letters';
import type { Answer } from '../data/outbox';

/** An outbox that sends nothing: the test says how each letter went. */
export class FakeOutbox {
  readonly letters: Letter[] = [];
  readonly answers = new Subject<Answer>();
  readonly waiting = signal(0);
  readonly refused = signal<readonly Letter[]>([]);
  readonly problem = signal('');
  readonly dismissed: string[] = [];
  lasts = true;
  /** What a page before this one had left waiting. */
  left: readonly Letter[] = [];

  add(letter: Letter): void {
    this.letters.push(letter);
    this.waiting.set(this.letters.length);
  }

  waitingOf(visitId: string): Promise<readonly Letter[]> {
    return Promise.resolve(this.left.filter((letter) => letter.visitId === visitId));
  }

  dismiss(id: string): Promise<void> {
    this.dismissed.push(id);
    return Promise.resolve();
  }

  /** Takes the oldest letter and answers it. */
  next(failure: Answer['failure'] = null): Letter {
    const letter = this.letters.shift()!;
    this.waiting.set(this.letters.length);
    this.answers.next({ letter, failure });
    return letter;
  }
}

/** A refusal, as the server words it. */
export const refusal = (message: string, path?: string): NonNullable<Answer['failure']> => ({
  status: 422,
  message,
  fields: path ? [{ path, message }] : [],
  passing: false,
});
