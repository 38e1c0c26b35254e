import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { APART, APART_WORDS, examinerName, type Apart } from '@dial-gauge/core';
import { DegreesField } from './degrees-field';
import { TaskView } from './task-view';

const HEIGHT = 40;

/** One limb, read five times by each of three. */
@Component({
  selector: 'dg-examiners-task',
  imports: [DegreesField],
  template: `
    <p class="told">One limb, read five times by each of three examiners who did not see each other’s figures.</p>
    <div class="scroll">
      <table class="plain">
        <caption class="visually-hidden">
          Readings by examiner
        </caption>
        <tbody>
          @for (own of task().readings; track $index; let who = $index) {
            <tr>
              <th scope="row">{{ examiner(who) }}</th>
              @for (value of own; track $index) {
                <td class="figure">{{ value }}°</td>
              }
              <td class="dots">
                <svg [attr.viewBox]="'0 0 240 ' + height" aria-hidden="true">
                  <line x1="0" x2="240" [attr.y1]="height / 2" [attr.y2]="height / 2" />
                  @for (value of own; track $index) {
                    <circle [attr.cx]="x(value)" [attr.cy]="height / 2" r="5" />
                  }
                </svg>
              </td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    <fieldset>
      <legend>Does one of them stand apart?</legend>
      <button
        type="button"
        class="chip"
        [attr.aria-pressed]="now().apart === null"
        [disabled]="answered() !== null"
        (click)="change({ apart: null })"
      >
        nobody: chance
      </button>
      @for (who of [0, 1, 2]; track who) {
        <button
          type="button"
          class="chip"
          [attr.aria-pressed]="now().apart?.who === who"
          [disabled]="answered() !== null"
          (click)="choose(who)"
        >
          {{ examiner(who) }}
        </button>
      }
    </fieldset>
    @if (now().apart; as apart) {
      <fieldset>
        <legend>How?</legend>
        @for (how of ways; track how) {
          <button
            type="button"
            class="chip"
            [attr.aria-pressed]="apart.how === how"
            [disabled]="answered() !== null"
            (click)="choose(apart.who, how)"
          >
            {{ words[how] }}
          </button>
        }
      </fieldset>
    }
    <dg-degrees-field
      label="The best figure for this limb"
      [step]="0.5"
      [value]="now().degrees"
      [fixed]="answered() !== null"
      (read)="change({ degrees: $event })"
    />
  `,
  styleUrl: './choices.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ExaminersTaskView extends TaskView<'examiners'> {
  protected readonly examiner = examinerName;
  protected readonly ways = APART;
  protected readonly words = APART_WORDS;
  protected readonly height = HEIGHT;
  protected readonly now = computed(() => this.answered() ?? this.draft());
  private readonly span = computed(() => {
    const all = this.task().readings.flat();
    return { from: Math.min(...all) - 2, to: Math.max(...all) + 2 };
  });
  protected x(value: number): number {
    const { from, to } = this.span();
    return ((value - from) / (to - from)) * 240;
  }

  protected choose(who: number, how: Apart = this.now().apart?.how ?? 'higher'): void {
    this.change({ apart: { who, how } });
  }
}
