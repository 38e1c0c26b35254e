import { inject, Injectable } from '@angular/core';
import { VISITS, type VisitRecord } from '@dial-gauge/contract';
import { defer, shareReplay, tap, type Observable } from 'rxjs';
import { Api } from './api';
import { Session } from './session';

/** What others enter meanwhile is looked for so often, in milliseconds. */
export const OTHERS_EVERY = 20_000;

interface Kept {
  readonly of: string;
  readonly at: number;
  readonly writes: number;
  readonly record: Observable<VisitRecord>;
}

/**
 * The visit in hand, one for all its steps: asked for once, and again only when
 * something was written since, or others may have. It is forgotten with another
 * visit and with whoever is signed in.
 */
@Injectable({ providedIn: 'root' })
export class VisitStore {
  private readonly api = inject(Api);
  private readonly session = inject(Session);
  private kept: Kept | null = null;

  /** The visit as it is known; asked for where that is too old. */
  visit(id: string): Observable<VisitRecord> {
    return defer(() => {
      const { kept } = this;
      const isFresh = kept?.of === this.keyOf(id) && kept.writes === this.api.writes && Date.now() - kept.at < OTHERS_EVERY;
      return isFresh ? kept.record : this.refresh(id);
    });
  }

  /** The visit as the server has it now. @param quietly where nobody waits for it */
  refresh(id: string, quietly = false): Observable<VisitRecord> {
    return defer(() => {
      const record = this.api
        .call(VISITS.visit, { id, quietly })
        .pipe(tap({ error: () => (this.kept = this.kept?.record === record ? null : this.kept) }), shareReplay(1));
      this.kept = { of: this.keyOf(id), at: Date.now(), writes: this.api.writes, record };
      return record;
    });
  }

  private keyOf(id: string): string {
    return `${this.session.current()?.user.id ?? ''} ${id}`;
  }
}
