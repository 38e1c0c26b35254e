import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { PRACTICE, type PracticeAnswer, type PracticeRoundView } from '@dial-gauge/contract';
import { cardWords, EXERCISE_WORDS, sumOf, taskOf, toldAfter, type AnswerOf, type ExerciseId, type TaskOf } from '@dial-gauge/core';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { toFailure, type Failure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Said } from '../ui/said';
import { newRound } from './new-round';
import { missingIn, wholeAnswer } from './answers';
import { ExaminersTaskView } from './examiners-task';
import { FeelTaskView } from './feel-task';
import { NameTaskView } from './name-task';
import { PlaceTaskView } from './place-task';
import { PlaneTaskView } from './plane-task';
import { ReadTaskView } from './read-task';
import { SideTaskView } from './side-task';
import { SpreadTable } from './spread-table';
import type { Draft } from './task-view';
import { markShape, offWords, scoreWords, slipWords } from './words';

type Any = Draft<ExerciseId>;
const isDraft = (value: unknown): value is Any => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A round: its tasks one after another, each with what it came to; at the end what they come to together. */
@Component({
  selector: 'dg-practice-round',
  imports: [
    ExaminersTaskView,
    FeelTaskView,
    Frame,
    MatButtonModule,
    NameTaskView,
    Pending,
    PlaceTaskView,
    PlaneTaskView,
    ReadTaskView,
    RouterLink,
    Said,
    SideTaskView,
    SpreadTable,
  ],
  templateUrl: './round.html',
  styleUrl: './round.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PracticeRoundPage {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);
  readonly id = input.required<string>();

  protected readonly loaded = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(PRACTICE.round, { id: params }),
  });
  protected readonly round = linkedSignal<PracticeRoundView | null>(() => (this.loaded.hasValue() ? this.loaded.value() : null));
  protected readonly exercise = computed((): ExerciseId => this.round()?.exercise ?? 'read');
  protected readonly about = computed(() => {
    const round = this.round();
    return round?.isShared
      ? `${round.name} · a round of the class, started by ${round.isOwn ? 'you' : round.by}`
      : EXERCISE_WORDS[this.exercise()].trains;
  });
  protected readonly words = EXERCISE_WORDS;
  protected readonly isDone = computed(() => this.round()?.tasks.every(({ answered }) => answered) ?? false);
  protected readonly firstOpen = computed(() => this.round()?.tasks.findIndex(({ answered }) => !answered) ?? 0);
  /** The task that is looked at; −1: what the round comes to. Where it begins follows from what is answered. */
  protected readonly at = linkedSignal<string, number>({ source: this.id, computation: () => NaN });
  protected readonly shown = computed(() => (Number.isNaN(this.at()) ? this.firstOpen() : this.at()));
  private readonly drawn = computed(() => this.round()?.tasks[this.shown()]);
  protected readonly task = computed((): TaskOf<ExerciseId> | null => {
    const drawn = this.drawn();
    return drawn ? taskOf(this.exercise(), drawn) : null;
  });
  protected readonly answered = computed(() => (this.drawn()?.answered?.answer ?? null) as AnswerOf<ExerciseId> | null);
  protected readonly scored = computed(() => this.drawn()?.answered?.scored ?? null);
  private readonly draftName = computed(() => `practice.${this.id()}.${this.shown()}`);
  protected readonly draft = linkedSignal<string, Any>({
    source: this.draftName,
    computation: (name) => this.drafts.read(name, isDraft) ?? {},
  });
  /** By task, so that what is sent again is none the second time. */
  private readonly ids = new Map<string, string>();
  protected readonly busy = signal(false);
  protected readonly missing = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  private readonly onward = viewChild<string, ElementRef<HTMLElement>>('onward', { read: ElementRef });

  protected readonly told = computed(() => {
    const [task, answer] = [this.task(), this.answered()];
    return task && answer ? toldAfter(this.exercise(), task as never, answer as never) : '';
  });
  protected readonly sum = computed(() => {
    const scored = this.round()?.tasks.flatMap(({ answered }) => answered?.scored ?? []) ?? [];
    return sumOf(scored);
  });
  protected readonly say = { cardWords, markShape, offWords, scoreWords, slipWords };

  constructor() {
    effect(() => {
      const [name, draft] = [this.draftName(), this.draft()];
      untracked(() => {
        this.missing.set('');
        if (Object.keys(draft).length > 0 && !this.answered()) this.drafts.keep(name, draft);
      });
    });
  }

  /** The task as one exercise has it: the template asks for the exercise first. */
  protected of<K extends ExerciseId>(_: K): { task: TaskOf<K>; answered: AnswerOf<K> | null; draft: Draft<K> } {
    return { task: this.task() as TaskOf<K>, answered: this.answered() as AnswerOf<K> | null, draft: this.draft() as Draft<K> };
  }

  protected submit(event: Event): void {
    event.preventDefault();
    if (this.answered()) return this.next();
    const task = this.task();
    if (!task) return;
    const missing = missingIn(this.exercise(), this.draft() as never, task as never);
    if (missing) return this.missing.set(missing);
    this.send(wholeAnswer(this.exercise(), this.draft() as never, task as never));
  }

  protected send(answer: AnswerOf<ExerciseId>): void {
    if (this.busy() || this.answered()) return;
    this.busy.set(true);
    this.refusal.set(null);
    const [task, name] = [this.shown(), this.draftName()];
    const id = this.ids.get(name) ?? crypto.randomUUID();
    this.ids.set(name, id);
    const body = { id, task, exercise: this.exercise(), answer } as PracticeAnswer;
    this.api.call(PRACTICE.answerTask, { id: this.id(), body }).subscribe({
      next: (round) => {
        this.at.set(task);
        this.round.set(round);
        this.drafts.drop(name);
        this.busy.set(false);
        // Enter goes on.
        setTimeout(() => this.onward()?.nativeElement.focus());
      },
      error: (error: unknown) => {
        const failure = toFailure(error);
        this.busy.set(false);
        this.refusal.set(failure);
        // Answered in another window: what stands there is shown.
        if (failure.status === 409) this.loaded.reload();
      },
    });
  }

  protected next(): void {
    this.refusal.set(null);
    const open = this.firstOpen();
    this.at.set(open);
  }

  protected look(task: number): void {
    this.refusal.set(null);
    this.at.set(task);
  }

  protected again(): void {
    this.busy.set(true);
    this.api.call(PRACTICE.startRound, { body: newRound(this.exercise()) }).subscribe({
      next: ({ id }) => {
        this.busy.set(false);
        void this.router.navigate(['/practice', id]);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.refusal.set(toFailure(error));
      },
    });
  }
}
