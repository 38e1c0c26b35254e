import { inject, Injectable } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { AT_HAND, CLINIC, DRILL_LIST, NORMS, PATIENTS, SCREENINGS, VISITS, type AtHandView } from '@dial-gauge/contract';
import { formatISO } from 'date-fns';
import {
  catchError,
  concat,
  concatMap,
  debounceTime,
  defer,
  EMPTY,
  exhaustMap,
  filter,
  from,
  fromEvent,
  ignoreElements,
  interval,
  merge,
} from 'rxjs';
import { addressOf, Api } from './api';
import { AtHand, keyOf } from './at-hand';
import { Session } from './session';

/** So often what is at hand is made new, in milliseconds. */
const EVERY = 30 * 60_000;
const AFTER = 3_000;

/** Takes along what whoever is signed in needs today, so that it is there without a network. */
@Injectable({ providedIn: 'root' })
export class TakeAlong {
  private readonly api = inject(Api);
  private readonly atHand = inject(AtHand);
  private readonly session = inject(Session);
  private readonly who$ = toObservable(this.session.current);

  /** From now on, as long as the program is open. */
  start(): void {
    merge(interval(EVERY), fromEvent(window, 'online'), this.who$)
      .pipe(
        // The page comes first.
        debounceTime(AFTER),
        filter(() => navigator.onLine && this.session.current() !== null),
        exhaustMap(() => from(this.atHand.takenAt())),
        // Another page of the same browser may have done it a moment ago.
        filter((at) => Date.now() - at > EVERY - 2 * AFTER),
        exhaustMap(() => this.take()),
      )
      .subscribe();
  }

  private take() {
    const { api } = this;
    const beside = { quietly: true };
    return concat(
      api
        .call(AT_HAND.today, { ...beside, query: { day: formatISO(new Date(), { representation: 'date' }) } })
        .pipe(concatMap((view) => this.keep(view))),
      // Answers that are kept as they come.
      api.call(NORMS.norms, beside),
      api.call(CLINIC.clinic, beside),
      api.call(SCREENINGS.clinicScreens, beside),
      api.call(DRILL_LIST.drills, beside),
      // As the caseload asks when it is opened.
      api.call(PATIENTS.caseload, { ...beside, query: { order: 'urgent' } }),
      api.call(PATIENTS.queueCounts, beside),
      defer(() => this.atHand.taken()),
    ).pipe(
      ignoreElements(),
      catchError(() => EMPTY),
    );
  }

  private async keep({ visits, screens, patients }: AtHandView): Promise<void> {
    for (const record of visits) await this.atHand.keep(keyOf(addressOf(VISITS.visit, record.visit.id)), record);
    for (const view of screens) await this.atHand.keep(keyOf(addressOf(SCREENINGS.screens, view.visit.id)), view);
    for (const record of patients) await this.atHand.keep(keyOf(addressOf(PATIENTS.patient, record.patient.id)), record);
  }
}
