import { inject, Injectable, signal } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import { LazyDialog } from '../ui/lazy-dialog';

/** Opens the evidence of a number of the visit that is judged. */
@Injectable()
export class EvidenceOpener {
  private readonly dialogs = inject(LazyDialog);
  readonly view = signal<JudgementView | null>(null);

  /** @param key of a measurement; what is not there opens nothing */
  open(key: string): void {
    const view = this.view();
    const judged = view?.judgement.measurements.find((m) => m.key === key);
    if (!view || !judged) return;
    this.dialogs
      .open(() => import('./evidence.dialog').then((m) => m.EvidenceDialog), {
        data: { view, judged },
        width: '760px',
        maxWidth: '96vw',
        maxHeight: '94vh',
      })
      .subscribe();
  }
}
