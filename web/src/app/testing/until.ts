import { ApplicationRef } from '@angular/core';
import { TestBed } from '@angular/core/testing';

/** Ends what hangs; a loaded machine is given its time. */
const LONGEST_MS = 60_000;

/** Waits for something that comes in its own time: a dialog that is fetched when it is wanted, a request, a file. */
export async function until<T>(look: () => T | Promise<T>): Promise<NonNullable<T>> {
  for (const begun = Date.now(); Date.now() - begun < LONGEST_MS;) {
    const seen = await look();
    if (seen) return seen;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error('it never came');
}

/** Lets everything run that is ready to: turns of the event loop, no time. */
export async function turns(count = 20): Promise<void> {
  const { port1, port2 } = new MessageChannel();
  for (let turn = 0; turn < count; turn += 1)
    await new Promise((resolve) => {
      port1.onmessage = resolve;
      port2.postMessage(null);
    });
  port1.close();
}

/** A dialog that was asked for, once it has been drawn: it is there a moment before what it says. */
export async function shownDialog(): Promise<Element> {
  const dialog = await until(() => document.querySelector('mat-dialog-container'));
  await TestBed.inject(ApplicationRef).whenStable();
  return dialog;
}
