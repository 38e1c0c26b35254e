import { signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Command } from '../data/commands';
import type { Answer } from '../data/command-queue';

/** An queue that sends nothing: the test says how each command went. */
export class FakeQueue {
  readonly commands: Command[] = [];
  readonly answers = new Subject<Answer>();
  readonly waiting = signal(0);
  readonly refused = signal<readonly Command[]>([]);
  readonly problem = signal('');
  readonly dismissed: string[] = [];
  readonly keepingProblem = signal('');
  lasts = true;
  /** What a page before this one had left waiting. */
  left: readonly Command[] = [];

  add(command: Command): void {
    this.commands.push(command);
    this.waiting.set(this.commands.length);
  }

  waitingOf(visitId: string): Promise<readonly Command[]> {
    return Promise.resolve(this.left.filter((command) => command.visitId === visitId));
  }

  dismiss(id: string): Promise<void> {
    this.dismissed.push(id);
    return Promise.resolve();
  }

  /** Takes the oldest command and answers it. */
  next(failure: Answer['failure'] = null, more: Partial<Answer> = {}): Command {
    const command = this.commands.shift()!;
    this.waiting.set(this.commands.length);
    this.answers.next({ command, failure, ...more });
    return command;
  }
}

/** A refusal, as the server words it. */
export const refusal = (message: string, path?: string): NonNullable<Answer['failure']> => ({
  status: 422,
  message,
  fields: path ? [{ path, message }] : [],
  passing: false,
});
