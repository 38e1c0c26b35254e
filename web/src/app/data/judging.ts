import { inject, Injectable, signal } from '@angular/core';
import type { JudgingChange, JudgingView, NormSetSummary } from '@dial-gauge/contract';
import { findNormSet, NORM_SETS, type NormSet } from '@dial-gauge/core';
import { switchMap, tap, type Observable } from 'rxjs';
import { Api } from './api';

/** What the clinic judges by: asked once, kept up to date with what is changed here. */
@Injectable({ providedIn: 'root' })
export class Judging {
  private readonly api = inject(Api);
  private readonly state = signal<JudgingView | null>(null);
  readonly current = this.state.asReadonly();

  load(): Observable<JudgingView> {
    return this.api.call('judging').pipe(tap((view) => this.state.set(view)));
  }

  change(body: JudgingChange): Observable<JudgingView> {
    return this.api.call('setJudging', { body }).pipe(tap((view) => this.state.set(view)));
  }

  /** Brings in a set and reads the list anew. */
  add(csv: string): Observable<NormSetSummary> {
    return this.api.call('addNormSet', { body: { csv } }).pipe(switchMap((summary) => this.load().pipe(switchMap(() => [summary]))));
  }

  remove(id: string): Observable<JudgingView> {
    return this.api.call('removeNormSet', { id }).pipe(switchMap(() => this.load()));
  }

  /** Every installed set, the clinic's own among them. */
  sets(): readonly NormSet[] {
    return [...NORM_SETS, ...(this.state()?.ownSets ?? [])];
  }

  /** The set the clinic judges by; null until the server has said so, rather than a guess. */
  chosen(): NormSet | null {
    const view = this.state();
    return (view && findNormSet(view.normSet, view.ownSets)) ?? null;
  }
}
