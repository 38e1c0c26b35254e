import { ChangeDetectionStrategy, Component, inject, input, signal, type Type } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { Router, RouterLink } from '@angular/router';
import {
  PATIENTS,
  PERSONS,
  VISITS,
  type Discharge,
  type EpisodeView,
  type Erased,
  type LikelyDouble,
  type MergeView,
  type NewEpisode,
  type Outcome,
  type PatientRecord,
  type VisitView,
} from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { Api } from '../data/api';
import { May } from '../data/may';
import { describeFailure, toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { handOverFile } from '../ui/hand-over';
import type { ConfirmQuestion } from '../ui/confirm.dialog';
import { LazyDialog } from '../ui/lazy-dialog';
import type { ReasonQuestion } from '../ui/reason.dialog';
import { Story } from './story';
import { episodeWords, fullMoment, fullName, OUTCOME_WORDS, personWords, today } from './words';
import { filter, type Observable } from 'rxjs';
import { IfMay } from '../ui/may.directive';

/** One patient: episodes of care, their visits, and the button that starts the next one. */
@Component({
  selector: 'dg-patient',
  imports: [Frame, IfMay, MatButtonModule, MatMenuModule, Pending, RouterLink, Story],
  templateUrl: './patient.html',
  styleUrl: './patient.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatientPage {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly may = inject(May);
  private readonly dialogs = inject(LazyDialog);
  readonly id = input.required<string>();
  protected readonly record = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(PATIENTS.patient, { id: params }),
  });
  protected readonly words = { dayWords, episodeWords, fullName, personWords };
  protected readonly problem = signal('');

  protected readonly moment = fullMoment;

  protected latestFirst(visits: readonly VisitView[]): readonly VisitView[] {
    return [...visits].reverse();
  }

  protected outcome(outcome: string): string {
    return OUTCOME_WORDS[outcome as Outcome] ?? outcome;
  }

  protected edit({ patient }: PatientRecord): void {
    this.ask<PatientRecord>(() => import('./person.dialog').then((m) => m.PersonDialog), patient, '600px').subscribe((record) =>
      this.record.set(record),
    );
  }

  protected openEpisode(): void {
    this.ask<NewEpisode>(() => import('./episode.dialog').then((m) => m.EpisodeDialog), null).subscribe((body) =>
      this.send(this.api.call(PATIENTS.openEpisode, { id: this.id(), body })),
    );
  }

  protected discharge(episode: EpisodeView): void {
    this.ask<Discharge>(() => import('./discharge.dialog').then((m) => m.DischargeDialog), episode.complaint).subscribe((body) =>
      this.send(this.api.call(PATIENTS.discharge, { id: episode.id, body })),
    );
  }

  protected reopen(episode: EpisodeView): void {
    const data: ReasonQuestion = {
      title: 'Take it up again',
      about: 'The episode comes back into the queue. That it was ended, and why it is taken up again, stays on record.',
      label: 'Why it is taken up again',
      least: 3,
      missing: 'Type the reason, three letters or more: it goes into the record.',
      agree: 'Take it up',
      leave: 'Leave it ended',
    };
    this.ask<string>(() => import('../ui/reason.dialog').then((m) => m.ReasonDialog), data).subscribe((why) =>
      this.send(this.api.call(PATIENTS.reopen, { id: episode.id, body: { why } })),
    );
  }

  protected merge(double: LikelyDouble): void {
    const data: ConfirmQuestion = {
      title: `Make ${fullName(double)} and this record one`,
      about: `The ${double.episodes === 1 ? 'episode' : `${double.episodes} episodes`} of the other record come here, with all visits. Look first whether it is the same person. It can be undone.`,
      agree: 'Make them one',
    };
    this.ask<boolean>(() => import('../ui/confirm.dialog').then((m) => m.ConfirmDialog), data).subscribe(() =>
      this.send(this.api.call(PATIENTS.merge, { id: this.id(), body: { id: crypto.randomUUID(), other: double.id } })),
    );
  }

  protected undoMerge(merged: MergeView): void {
    this.send(this.api.call(PATIENTS.undoMerge, { id: merged.id, body: {} }));
  }

  /** What a dialog closes with; nothing where it was left. */
  private ask<T>(dialog: () => Promise<Type<unknown>>, data: unknown, width = '520px'): Observable<T> {
    return this.dialogs.open<T>(dialog, { data, width, maxHeight: '92vh' }).pipe(filter((answer): answer is T & {} => Boolean(answer)));
  }

  private send(asked: Observable<PatientRecord>): void {
    this.problem.set('');
    asked.subscribe({
      next: (record) => this.record.set(record),
      error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
    });
  }

  /** All that is kept of them, as one file. */
  protected writeOut(): void {
    this.problem.set('');
    this.api.call(PERSONS.wholeRecord, { id: this.id(), query: { locale: navigator.language } }).subscribe({
      next: handOverFile,
      error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
    });
  }

  protected erase({ patient }: PatientRecord): void {
    this.ask<Erased>(() => import('./erase.dialog').then((m) => m.EraseDialog), patient, '600px').subscribe(
      () => void this.router.navigateByUrl('/caseload'),
    );
  }

  protected startVisit(episode: EpisodeView): void {
    const id = crypto.randomUUID();
    this.api
      .call(VISITS.startVisit, {
        id: episode.id,
        body: { id, assessedOn: today() },
      })
      .subscribe({
        // Whoever plans begins with the plan; whoever runs screens with those.
        next: () => void this.router.navigate(['/visits', id, this.may.do('measure') ? 'prepare' : 'screen']),
        error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
      });
  }
}
