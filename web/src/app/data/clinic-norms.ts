import { inject, Injectable, signal } from '@angular/core';
import { NORMS, VALUE_CHECKS, type NewValueCheck, type NormsChange, type NormsView, type NormSetSummary } from '@dial-gauge/contract';
import { checkedSet, findNormSet, NORM_SETS, type NormSet } from '@dial-gauge/core';
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
    const view = this.state();
    return [...NORM_SETS.map((set) => checkedSet(set, view?.valueChecks)), ...(view?.ownSets ?? [])];
  }

  /** Writes down what was looked up, or takes it back. */
  lookUp(checks: readonly NewValueCheck[]): Observable<unknown> {
    return this.api.call(VALUE_CHECKS.addValueChecks, { body: { checks: [...checks] } }).pipe(
      tap(({ checks: stand }) => {
        const key = ({ kind, of, key: name }: Pick<NewValueCheck, 'kind' | 'of' | 'key'>) => `${kind} ${of} ${name}`;
        const sent = new Set(checks.map(key));
        this.state.update((view) => view && { ...view, valueChecks: [...view.valueChecks.filter((one) => !sent.has(key(one))), ...stand] });
      }),
    );
  }

  /** Brings in what another clinic looked up. @returns how many values that were */
  bringInLookedUp(csv: string): Observable<number> {
    return this.api
      .call(VALUE_CHECKS.importValueChecks, { body: { csv } })
      .pipe(switchMap(({ values }) => this.load().pipe(switchMap(() => [values]))));
  }

  /** The sets in the order in which the clinic asks them; empty until the server has said so, rather than a guess. */
  order(): readonly NormSet[] {
    const view = this.state();
    return view
      ? view.normSets.flatMap((id) => {
          const set = findNormSet(id, view.ownSets);
          return set ? [checkedSet(set, view.valueChecks)] : [];
        })
      : [];
  }
}
