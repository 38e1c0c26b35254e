import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { rxResource, takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { RELIABILITY, type Adoption, type NewStudy, type StudyView } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { switchMap, type Observable } from 'rxjs';

import { Api } from '../data/api';
import { ClinicNorms } from '../data/clinic-norms';
import { CommandQueue } from '../data/command-queue';
import type { Command } from '../data/commands';
import { describeFailure, toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { PlanStudy } from './plan-study';
import { StudyEntry } from './study-entry';
import { StudyResult } from './study-result';
import { placeOf, studySize, studyState, studyWay } from './words';

/** How steady this clinic measures: studies of its own error, planned, read blind, counted, and judged by. */
@Component({
  selector: 'dg-steadiness',
  imports: [Frame, MatButtonModule, Pending, PlanStudy, RouterLink, StudyEntry, StudyResult],
  templateUrl: './steadiness.html',
  styleUrl: './steadiness.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SteadinessPage {
  private readonly api = inject(Api);
  private readonly judging = inject(ClinicNorms);
  private readonly queue = inject(CommandQueue);
  private readonly router = inject(Router);
  /** Id of the study that is looked at; the newest where none is named. */
  readonly study = input<string>();
  protected readonly loaded = rxResource({ stream: () => this.api.call(RELIABILITY.studies) });
  private readonly served = linkedSignal<readonly StudyView[]>(() => (this.loaded.hasValue() ? this.loaded.value() : []));
  /** Turns the server has taken since this page was opened, by study. */
  private readonly since = signal<ReadonlyMap<string, readonly StudyView['turns'][number][]>>(new Map());
  protected readonly studies = computed(() =>
    this.served().map((study): StudyView => {
      const places = (this.since().get(study.id) ?? []).map((turn) => placeOf(study, turn));
      return { ...study, read: [...new Set([...study.read, ...places])] };
    }),
  );
  protected readonly shown = computed(() => {
    const id = this.study();
    return id ? this.studies().find((study) => study.id === id) : this.studies()[0];
  });
  /** What waits in the browser, by study; null until it is known. */
  protected readonly waiting = signal<{ readonly of: string; readonly commands: readonly Command[] } | null>(null);
  private readonly shownId = computed(() => this.shown()?.id);
  protected readonly planning = signal(false);
  protected readonly problem = signal('');
  protected readonly done = signal('');
  protected readonly ownErrors = computed(() => this.judging.current()?.ownErrors ?? []);
  protected readonly words = { size: studySize, way: studyWay, state: (study: StudyView) => studyState(study, dayWords) };

  constructor() {
    this.judging.load().subscribe({ error: () => undefined });
    effect(() => {
      const study = this.served().find(({ id }) => id === this.shownId());
      if (study) untracked(() => void this.findWaiting(study));
    });
    this.queue.answers.pipe(takeUntilDestroyed(inject(DestroyRef))).subscribe(({ command, failure }) => {
      if (command.route !== 'readStudy') return;
      const study = this.served().find(({ id }) => id === command.target);
      if (!failure) this.taken(command.target, command.body);
      else if (study) void this.findWaiting(study);
    });
  }

  protected start(body: NewStudy): void {
    this.send(this.api.call(RELIABILITY.startStudy, { body }), (study) => {
      this.planning.set(false);
      this.served.update((studies) => [study, ...studies]);
      void this.router.navigate(['/steadiness'], { queryParams: { study: study.id } });
    });
  }

  protected adopt(basis: Adoption['basis']): void {
    const id = this.shown()?.id;
    if (id) this.change(this.api.call(RELIABILITY.adoptError, { id, body: { basis } }), 'From now on every judgement uses this error.');
  }

  protected drop(): void {
    const id = this.shown()?.id;
    if (id) this.change(this.api.call(RELIABILITY.dropError, { id }), 'This error is no longer used. The study stays on record.');
  }

  /** One more reading is with the server; the last one uncovers the study. */
  private taken(id: string, { subject, rater }: StudyView['turns'][number]): void {
    this.since.update((since) => new Map(since).set(id, [...(since.get(id) ?? []), { subject, rater }]));
    const study = this.studies().find((known) => known.id === id);
    if (study && study.read.length === study.turns.length) this.loaded.reload();
  }

  private async findWaiting(study: StudyView): Promise<void> {
    this.waiting.set({ of: study.id, commands: await this.queue.waitingOf(study.id) });
  }

  private change(answer: Observable<StudyView>, done: string): void {
    this.send(answer.pipe(switchMap((study) => this.judging.load().pipe(switchMap(() => [study])))), (changed) => {
      // One error is in use for one way of measuring: another study may have lost its place.
      this.loaded.reload();
      this.served.update((studies) => studies.map((study) => (study.id === changed.id ? changed : study)));
      this.done.set(done);
    });
  }

  private send(answer: Observable<StudyView>, then: (study: StudyView) => void): void {
    this.problem.set('');
    this.done.set('');
    answer.subscribe({ next: then, error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))) });
  }
}
