import { Directive, input, model, output } from '@angular/core';
import type { AnswerOf, ExerciseId, TaskOf } from '@dial-gauge/core';

/** An answer that is being made. */
export type Draft<K extends ExerciseId> = { readonly [F in keyof AnswerOf<K>]?: AnswerOf<K>[F] | undefined };

/** How a task is shown and answered: one component an exercise. What is not answered yet is a draft. */
@Directive()
export abstract class TaskView<K extends ExerciseId> {
  readonly task = input.required<TaskOf<K>>();
  readonly draft = model.required<Draft<K>>();
  /** Once it is answered, nothing of it changes. */
  readonly answered = input.required<AnswerOf<K> | null>();
  /** Answered by one touch, where nothing else is to be chosen. */
  readonly give = output<AnswerOf<K>>();

  protected change(change: Draft<K>): void {
    if (this.answered() === null) this.draft.update((draft) => ({ ...draft, ...change }));
  }
}
