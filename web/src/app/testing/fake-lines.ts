import { signal } from '@angular/core';
import type { Hello } from '@dial-gauge/contract';
import { Observable, Subject } from 'rxjs';
import type { Line } from '../live/line';

/** Lines that lead nowhere: the test says what comes in, and sees what went out. */
export class FakeLines {
  readonly opened: FakeLine[] = [];

  open(hello: () => Hello): Line<unknown> {
    const line = new FakeLine(hello());
    this.opened.push(line);
    return line;
  }

  get last(): FakeLine {
    return this.opened.at(-1)!;
  }
}

export class FakeLine implements Line<unknown> {
  readonly in = new Subject<unknown>();
  readonly isOpen = signal(true);
  readonly refused = signal<number | null>(null);
  readonly out: (Record<string, unknown> & { readonly k: string })[] = [];
  /** How many listen: a line that nobody listens to is closed. */
  listeners = 0;
  readonly heard = new Observable<unknown>((subscriber) => {
    this.listeners += 1;
    const sub = this.in.subscribe(subscriber);
    return () => {
      this.listeners -= 1;
      sub.unsubscribe();
    };
  });

  constructor(readonly hello: Hello) {}

  say(said: object): void {
    this.out.push(said as FakeLine['out'][number]);
  }

  /** What was said last of a kind. */
  saidLast(k: string): Record<string, unknown> | undefined {
    return this.out.filter((said) => said.k === k).at(-1);
  }
}
