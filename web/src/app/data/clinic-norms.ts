import { inject, Injectable, signal } from '@angular/core';
import { NORMS, type NormsChange, type NormsView, type NormSetSummary } from '@dial-gauge/contract';
import { findNormSet, NORM_SETS, type NormSet } from '@dial-gauge/core';
import { switchMap, tap, type Observable } from 'rxjs';
import { Api } from './api';

/** What the clinic judges by: asked once, kept up to date with what is changed here. */
@Injectable({ providedIn: 'root' })
export class ClinicNorms {
  private readonly api = inject(Api);
  private readonly state = signal<NormsView | null>(null);
  readonly current = this.state.asReadonly();

  load(): Observable<NormsView> {
    return this.api.call(NORMS.norms).pipe(tap((view) => this.state.set(view)));
  }

  change(body: NormsChange): Observable<NormsView> {
    return this.api.call(NORMS.setNorms, { body }).pipe(tap((view) => this.state.set(view)));
  }

  /** Brings in a set and reads the list anew. */
  add(csv: string): Observable<NormSetSummary> {
    return this.api.call(NORMS.addNormSet, { body: { csv } }).pipe(switchMap((summary) => this.load().pipe(switchMap(() => [summary]))));
  }

  remove(id: string): Observable<NormsView> {
    return this.api.call(NORMS.removeNormSet, { id }).pipe(switchMap(() => this.load()));
  }

  /** Every installed set, the clinic's own among them. */
  sets(): readonly NormSet[] {
    return [...NORM_SETS, ...(this.state()?.ownSets ?? [])];
  }

  /** The sets in the order in which the clinic asks them; empty until the server has said so, rather than a guess. */
  order(): readonly NormSet[] {
    const view = this.state();
    return view ? view.normSets.flatMap((id) => findNormSet(id, view.ownSets) ?? []) : [];
  }
}
