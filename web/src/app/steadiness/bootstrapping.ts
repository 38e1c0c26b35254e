import { Injectable } from '@angular/core';
import { Observable } from 'rxjs';
import type { BootstrapMessage, BootstrapRequest } from '../../workers/bootstrap-messages';

/** Resamples a study in a worker, so that the page stays at hand. */
@Injectable({ providedIn: 'root' })
export class Bootstrapping {
  /**
   * @returns progress, then the result; leaving it ends the worker at once
   */
  run(request: BootstrapRequest): Observable<BootstrapMessage> {
    return new Observable((subscriber) => {
      const worker = new Worker(new URL('../../workers/bootstrap.worker', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<BootstrapMessage>) => {
        subscriber.next(data);
        if (!('done' in data)) subscriber.complete();
      };
      worker.onerror = () => subscriber.error(new Error('the worker could not be started'));
      worker.postMessage(request);
      return () => worker.terminate();
    });
  }
}
