import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { END_FEELS, protocolName } from '@dial-gauge/core';
import { DegreesField } from './degrees-field';
import { TaskView } from './task-view';

/** A movement told as it is felt and seen. */
@Component({
  selector: 'dg-feel-task',
  imports: [DegreesField],
  template: `
    <p class="told">
      <strong>{{ name() }}.</strong> From zero the limb moves by itself.
      @if (task().substitutionTold; as what) {
        From {{ task().truth }}° on {{ what }}.
      }
      At {{ task().comesTo }}° it goes no further. {{ task().feelTold }}
    </p>
    <fieldset>
      <legend>What was the end?</legend>
      @for (feel of feels; track feel) {
        <button
          type="button"
          class="chip"
          [attr.aria-pressed]="now().feel === feel"
          [disabled]="answered() !== null"
          (click)="change({ feel })"
        >
          {{ feel }}
        </button>
      }
    </fieldset>
    <fieldset>
      <legend>Is that usual for this motion?</legend>
      <button
        type="button"
        class="chip"
        [attr.aria-pressed]="now().isUsual === true"
        [disabled]="answered() !== null"
        (click)="change({ isUsual: true })"
      >
        usual
      </button>
      <button
        type="button"
        class="chip"
        [attr.aria-pressed]="now().isUsual === false"
        [disabled]="answered() !== null"
        (click)="change({ isUsual: false })"
      >
        not usual
      </button>
    </fieldset>
    <fieldset>
      <legend>Which substitution?</legend>
      <button
        type="button"
        class="chip"
        [attr.aria-pressed]="now().substitution === null"
        [disabled]="answered() !== null"
        (click)="change({ substitution: null })"
      >
        none
      </button>
      @for (one of task().protocol.substitutions; track one.id) {
        <button
          type="button"
          class="chip"
          [attr.aria-pressed]="now().substitution === one.id"
          [disabled]="answered() !== null"
          (click)="change({ substitution: one.id })"
        >
          {{ one.label }}
        </button>
      }
    </fieldset>
    <dg-degrees-field
      label="The honest reading"
      [value]="now().degrees"
      [fixed]="answered() !== null"
      (read)="change({ degrees: $event })"
    />
  `,
  styleUrl: './choices.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FeelTaskView extends TaskView<'feel'> {
  protected readonly feels = END_FEELS;
  protected readonly name = computed(() => protocolName(this.task().protocol));
  protected readonly now = computed(() => this.answered() ?? this.draft());
}
