import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Subject } from 'rxjs';
import { CommandQueue, type Answer } from './command-queue';
import type { Command } from './commands';

/** A command before it is known who sends it. */
export type Unsent = Command extends infer C ? (C extends unknown ? Omit<C, 'userId'> : never) : never;

/**
 * What was entered for one visit since a page was opened, in order: waiting, or
 * taken by the server already. What the server says may be older than either,
 * so it is laid over that until the page is left; what failed is left out.
 */
@Injectable()
export class VisitCommands {
  private readonly queue = inject(CommandQueue);
  private readonly visitId = signal<string | null>(null);
  private readonly entered = signal<readonly Command[]>([]);
  readonly all = computed(() => this.entered().filter((command) => command.visitId === this.visitId()));
  /** What was refused, or kept for review, of this visit. */
  readonly failed = new Subject<Answer>();

  constructor() {
    this.queue.answers.pipe(takeUntilDestroyed()).subscribe((answer) => {
      const { command, failure, kept } = answer;
      if (!failure && !kept) return this.join([command]);
      this.entered.update((all) => all.filter(({ id }) => id !== command.id));
      if (command.visitId === this.visitId()) this.failed.next(answer);
    });
  }

  /** Opens a visit, with what of it still waits. */
  async open(visitId: string): Promise<void> {
    const waiting = await this.queue.waitingOf(visitId);
    this.visitId.set(visitId);
    this.join(waiting);
  }

  send(command: Unsent): void {
    this.join([{ ...command, userId: '' } as Command]);
    this.queue.add(command);
  }

  /** What the server said last has it all, and more: of this kind nothing is laid over it any more. */
  forget(route: Command['route']): void {
    this.entered.update((all) => all.filter((command) => command.route !== route));
  }

  private join(commands: readonly Command[]): void {
    this.entered.update((all) => [...all, ...commands.filter(({ id }) => !all.some((known) => known.id === id))]);
  }
}
