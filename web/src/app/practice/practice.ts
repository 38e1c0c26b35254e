import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { PRACTICE, type PracticeRoundLine } from '@dial-gauge/contract';
import { cardWords, dayWords, EXERCISE_WORDS, READ_IN_DEGREES, type ExerciseId } from '@dial-gauge/core';
import { Api } from '../data/api';
import { Drafts, isText } from '../data/drafts';
import { toFailure, type Failure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { Said } from '../ui/said';
import { newRound } from './new-round';
import { scoreWords, slipWords } from './words';

const CLASS_NAME = 'practice.class';
const CLASS_EXERCISE = 'practice.class.exercise';

/** A patient made of numbers: what there is to train, what is due, what goes wrong; rounds of one's own and of the class. */
@Component({
  selector: 'dg-practice',
  imports: [Frame, MatButtonModule, Pending, RouterLink, Said],
  templateUrl: './practice.html',
  styleUrl: './practice.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PracticePage {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);
  protected readonly loaded = rxResource({ stream: () => this.api.call(PRACTICE.practice) });
  protected readonly view = computed(() => (this.loaded.hasValue() ? this.loaded.value() : null));
  protected readonly words = EXERCISE_WORDS;
  protected readonly say = { cardWords, scoreWords, slipWords, on: (at: string) => dayWords(at.slice(0, 10)) };
  protected readonly inDegrees = READ_IN_DEGREES;
  protected readonly className = signal(this.drafts.read(CLASS_NAME, isText) ?? '');
  protected readonly classExercise = signal<ExerciseId>((this.drafts.read(CLASS_EXERCISE, isText) as ExerciseId | null) ?? 'read');
  protected readonly busy = signal(false);
  protected readonly refusal = signal<Failure | null>(null);

  protected dueWords({ due, fresh, nextAt }: { due: number; fresh: number; nextAt: string | null }): string {
    if (due > 0) return `${due} due again`;
    if (fresh > 0) return `${fresh} not tried yet`;
    return nextAt ? `comes back ${dayWords(nextAt.slice(0, 10))}` : '';
  }

  protected roundWords(round: PracticeRoundLine): string {
    if (round.answered === 0) return `${round.tasks} tasks`;
    const score = scoreWords({ answers: round.answered, right: round.right, near: 0, meanOff: round.meanOff });
    return round.answered < round.tasks ? `${round.answered} of ${round.tasks} answered` : score;
  }

  protected nameClass(name: string): void {
    this.className.set(name);
    this.drafts.keep(CLASS_NAME, name);
  }

  protected chooseClass(exercise: string): void {
    this.classExercise.set(exercise as ExerciseId);
    this.drafts.keep(CLASS_EXERCISE, exercise);
  }

  protected start(exercise: ExerciseId, isShared = false): void {
    if (this.busy()) return;
    this.busy.set(true);
    this.refusal.set(null);
    const body = newRound(exercise, isShared ? this.className().trim() : null);
    this.api.call(PRACTICE.startRound, { body }).subscribe({
      next: ({ id }) => {
        if (isShared) this.drafts.drop(CLASS_NAME);
        void this.router.navigate(['/practice', id]);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.refusal.set(toFailure(error));
      },
    });
  }
}
