import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, viewChild } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatChipListbox, MatChipOption } from '@angular/material/chips';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { Router } from '@angular/router';
import { CLINIC, type Precaution, type VisitRecord } from '@dial-gauge/contract';
import type { SheetItem } from '@dial-gauge/core';
import { concatMap, forkJoin, Subject, tap, catchError, EMPTY, type Observable } from 'rxjs';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { VisitStore } from '../data/visit-store';
import { describeFailure, toFailure } from '../data/problem';
import { Logged } from '../own/logged';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { LazyDialog } from '../ui/lazy-dialog';
import { OddRecords } from '../ui/odd-records';
import { Cautions } from './cautions';
import { Intake, type IntakeFields } from './intake';
import { PlanList } from './plan-list';
import { Precautions } from './precautions';
import { Preparing } from './preparing';
import { ScreenChoice } from './screen-choice';

/** Before the patient is touched: why they came, what stands against measuring, what is measured and in which order. */
@Component({
  selector: 'dg-prepare',
  imports: [
    Cautions,
    Frame,
    Intake,
    Logged,
    MatButtonModule,
    MatChipListbox,
    MatChipOption,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    OddRecords,
    Pending,
    PlanList,
    Precautions,
    ScreenChoice,
  ],
  providers: [Preparing],
  templateUrl: './prepare.html',
  styleUrl: './prepare.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PreparePage {
  private readonly api = inject(Api);
  private readonly visits = inject(VisitStore);
  private readonly dialogs = inject(LazyDialog);
  private readonly router = inject(Router);
  protected readonly preparing = inject(Preparing);
  readonly id = input.required<string>();
  private readonly cautions = viewChild(Cautions);
  protected readonly loaded = rxResource({
    params: () => this.id(),
    stream: ({ params }) => forkJoin({ record: this.visits.visit(params), practice: this.api.call(CLINIC.clinic) }),
  });
  protected readonly problem = signal('');
  protected readonly status = signal('');
  protected readonly choicesOfTrials = [1, 2, 3, 4, 5, 6];
  private intake: IntakeFields | null = null;

  protected readonly name = computed(() => fullName(this.preparing.record()!.patient));
  protected readonly about = computed(() => {
    const record = this.preparing.record();
    return record ? `${personWords(record.patient)} · ${episodeWords(record.episode)} · visit ${record.visit.number}` : '';
  });
  protected readonly sums = computed(() => {
    const { steps, leftOut, seconds, turns } = this.preparing.plan();
    const turned = turns === 0 ? 'no turn' : `${turns} turn${turns === 1 ? '' : 's'}`;
    const out = leftOut.length ? `, ${leftOut.length} left out` : '';
    return steps.length === 0 ? '' : `${steps.length} measurements, ${Math.ceil(seconds / 60)} min, ${turned}${out}`;
  });
  /** What still keeps from measuring. */
  protected readonly waitsFor = computed(() => {
    if (this.preparing.refer()) return 'A caution question ended this visit: refer.';
    if (this.preparing.plan().steps.length === 0) return 'Choose what to measure.';
    return this.preparing.cautions() ? '' : 'Ask the caution questions first.';
  });

  /** Changes go one after another, so that none meets its predecessor's revision. */
  private readonly changes = new Subject<() => Observable<unknown>>();

  constructor() {
    effect(() => {
      if (!this.loaded.hasValue()) return;
      const { record, practice } = this.loaded.value();
      if (this.preparing.record()?.visit.id !== record.visit.id) this.preparing.open(record, practice);
    });
    this.changes
      .pipe(
        concatMap((change) =>
          change().pipe(
            tap(() => {
              this.problem.set('');
              this.status.set('saved');
            }),
            catchError((error: unknown) => {
              this.problem.set(describeFailure(toFailure(error)));
              this.status.set('');
              return EMPTY;
            }),
          ),
        ),
      )
      .subscribe();
  }

  protected intakeChanged(fields: IntakeFields): void {
    this.intake = fields;
    this.saveEpisode(() => this.preparing.record()!.episode.precautions);
  }

  protected precautionsChanged(precautions: readonly Precaution[]): void {
    this.saveEpisode(() => precautions);
  }

  private saveEpisode(precautions: () => readonly Precaution[]): void {
    this.changes.next(() => {
      const { id, openedOn, revision, ...stored } = this.preparing.record()!.episode;
      void [id, openedOn, revision];
      return this.preparing
        .saveIntake({ ...stored, ...this.intake, precautions: [...precautions()] })
        .pipe(tap((episode) => this.preparing.record.update((record) => record && { ...record, episode })));
    });
  }

  protected answered(answers: Parameters<Preparing['saveCautions']>[0]): void {
    this.changes.next(() => this.preparing.saveCautions(answers).pipe(tap((record) => this.take(record))));
  }

  private take({ cautions, revision, plan, visit }: VisitRecord): void {
    this.preparing.record.update(
      (record) => record && { ...record, cautions, revision, plan, visit: { ...record.visit, answers: visit.answers } },
    );
  }

  protected setMinutes(text: string): void {
    const minutes = Number(text);
    if (text.trim() === '') this.preparing.minutes.set(null);
    else if (Number.isInteger(minutes) && minutes >= 1 && minutes <= 240) this.preparing.minutes.set(minutes);
    else return this.problem.set(`Minutes: "${text}" does not fit; allowed: whole minutes from 1 to 240, or nothing.`);
    this.problem.set('');
  }

  protected addFromLibrary(): void {
    const config = { data: this.preparing.sheet(), width: '560px', maxHeight: '94vh' };
    this.dialogs
      .open<SheetItem>(() => import('../library/add.dialog').then((m) => m.AddDialog), config)
      .subscribe((item) => {
        if (item) this.preparing.add(item);
      });
  }

  protected saveSet(field: HTMLInputElement): void {
    const name = field.value.trim();
    if (name === '') return this.problem.set('Name of the set: type one, as "Our knee".');
    this.changes.next(() =>
      this.preparing.saveSet(name).pipe(
        tap((practice) => {
          this.preparing.practice.set(practice);
          field.value = '';
        }),
      ),
    );
  }

  protected removeSet(id: string): void {
    this.changes.next(() => this.preparing.removeSet(id).pipe(tap((practice) => this.preparing.practice.set(practice))));
  }

  /** In its turn: an answer that is still on its way counts. */
  protected start(step: 'measure' | 'screen'): void {
    this.problem.set('');
    this.changes.next(() => this.begin(step));
  }

  private begin(step: 'measure' | 'screen'): Observable<unknown> {
    if (step === 'screen' && this.preparing.plan().steps.length === 0 && this.preparing.cautions()) {
      // A screen can be all of a visit: there is no run sheet to keep.
      void this.router.navigate(['/visits', this.id(), step]);
      return EMPTY;
    }
    if (this.waitsFor()) {
      // What stops is led to: the first question that is open.
      if (!this.preparing.cautions() && this.preparing.plan().steps.length > 0) this.cautions()?.lead();
      // Where an answer could not be saved, that is what is told.
      this.problem.update((problem) => problem || this.waitsFor());
      return EMPTY;
    }
    return this.preparing.savePlan().pipe(
      tap((record) => {
        this.take(record);
        this.preparing.saved();
        void this.router.navigate(['/visits', this.id(), step]);
      }),
    );
  }
}
