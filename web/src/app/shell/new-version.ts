import { inject, Injectable, signal } from '@angular/core';
import { SwUpdate, type VersionReadyEvent } from '@angular/service-worker';
import { filter, fromEvent, interval, merge } from 'rxjs';

/** A page may stay open for days: so often a new version is asked for. */
const ASK_EVERY = 30 * 60_000;
const WORKER = '/worker.js';

/**
 * Keeps the program on the device, and tells of a new version. It is taken up
 * by whoever says so, or with the next page that is opened; never by itself.
 */
@Injectable()
export class NewVersion {
  private readonly updates = inject(SwUpdate);
  private readonly there = signal(false);
  /** A new version lies ready. */
  readonly ready = this.there.asReadonly();

  constructor() {
    if (!this.updates.isEnabled) return;
    this.updates.versionUpdates
      .pipe(filter((event): event is VersionReadyEvent => event.type === 'VERSION_READY'))
      .subscribe(() => this.there.set(true));
    // What is kept was taken away by the browser: the next page is fetched anew.
    this.updates.unrecoverable.subscribe(() => this.there.set(true));
    merge(interval(ASK_EVERY), fromEvent(window, 'online')).subscribe(() => void this.updates.checkForUpdate().catch(() => {}));
    void navigator.serviceWorker.register(WORKER, { updateViaCache: 'none' }).catch(() => {
      // A private window, a browser that keeps nothing: it works all the same with a network.
    });
  }

  /** Takes up the new version: the page is opened again, and what waits to be sent is still there. */
  async takeUp(): Promise<void> {
    await this.updates.activateUpdate().catch(() => false);
    location.reload();
  }
}
