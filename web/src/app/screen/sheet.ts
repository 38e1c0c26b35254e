import { ChangeDetectionStrategy, Component, computed, inject, model, signal } from '@angular/core';
import { faultWords, amountWords, hurts, MODIFICATION_WORDS, VIEW_WORDS, type GradedItem } from '@dial-gauge/core';
import { Screening } from './screening';
import { screenMinutes, type ScreenStep } from './steps';

interface Line {
  readonly step: ScreenStep;
  readonly name: string;
  readonly mark: 'done' | 'open';
  readonly result: string;
  readonly isShort: boolean;
  readonly isPainful: boolean;
  readonly isHere: boolean;
}

/** The sheet of the chosen screens: what was done and how it went, where one is, what is left. */
@Component({
  selector: 'dg-screen-sheet',
  template: `
    <div class="head">
      <h2>Screens</h2>
      <button type="button" class="link narrow" [attr.aria-expanded]="unfolded()" (click)="unfolded.set(!unfolded())">
        {{ unfolded() ? 'fold the items' : 'all items' }}
      </button>
      <button type="button" class="link" [attr.aria-pressed]="results()" (click)="results.set(!results())">
        {{ results() ? 'back to the items' : 'results' }}
      </button>
    </div>
    <div class="lists" [class.unfolded]="unfolded()">
      @for (group of groups(); track group.id) {
        <h3>
          {{ group.name }} <span class="soft">{{ group.position }}</span>
        </h3>
        <ol>
          @for (line of group.lines; track line.step.key) {
            <li [class.here]="line.isHere">
              <button type="button" [attr.aria-current]="line.isHere ? 'step' : null" (click)="open(line.step)">
                <span class="mark" aria-hidden="true">{{ line.isHere ? '▸' : line.mark === 'done' ? '✓' : '··' }}</span>
                <span class="text">
                  <span>{{ line.name }}</span>
                  @if (line.result) {
                    <span class="result" [class.short]="line.isShort" [class.hurts]="line.isPainful">{{ line.result }}</span>
                  }
                </span>
              </button>
            </li>
          }
        </ol>
      }
      <p class="soft">What is not asked stays “not judged”.</p>
      <h3 id="add-screens">Run also</h3>
      <div class="more" role="group" aria-labelledby="add-screens">
        @for (screen of others(); track screen.id) {
          <button type="button" class="add" (click)="add(screen.id)">
            {{ screen.name }} <span class="soft">{{ screen.minutes }} min</span>
          </button>
        }
      </div>
    </div>
  `,
  styleUrl: './sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScreenSheet {
  protected readonly screening = inject(Screening);
  readonly results = model.required<boolean>();
  /** On a narrow screen the items are folded away until they are asked for. */
  protected readonly unfolded = signal(false);

  protected readonly groups = computed(() =>
    this.screening.shown().flatMap((id) => {
      const screen = this.screening.screens().find((s) => s.id === id)!;
      const steps = this.screening.steps().filter((step) => step.screen.id === id);
      return [
        {
          id,
          name: screen.name,
          position: this.screening.chosen().includes(id) ? `${screenMinutes(screen)} min` : 'items asked for',
          lines: steps.map((step) => this.lineOf(step)),
        },
      ];
    }),
  );
  protected readonly others = computed(() =>
    this.screening
      .screens()
      .filter(({ id }) => !this.screening.chosen().includes(id))
      .map((screen) => ({ id: screen.id, name: screen.name, minutes: screenMinutes(screen) })),
  );

  private lineOf(step: ScreenStep): Line {
    const grades = this.screening.gradesOf(step);
    const { item, view, with: changes, askedBy } = step;
    const name = [
      item.name,
      view ? VIEW_WORDS[view].replace('from the ', '').replace('from ', '') : '',
      ...changes.map((c) => MODIFICATION_WORDS[c]),
    ]
      .filter(Boolean)
      .join(', ');
    return {
      step,
      name,
      mark: grades.length > 0 ? 'done' : 'open',
      result: grades.length > 0 ? grades.map(resultOf).join(' · ') : askedBy ? `asked by: ${faultWords(askedBy as never)}` : '',
      isShort: grades.some(({ quality }) => quality === 'short'),
      isPainful: grades.some(hurts),
      isHere: !this.results() && this.screening.step()?.key === step.key,
    };
  }

  protected open(step: ScreenStep): void {
    this.results.set(false);
    this.unfolded.set(false);
    this.screening.goTo(step);
  }

  protected add(id: string): void {
    this.results.set(false);
    this.screening.choose(id, true);
  }
}

/** "left 4 cm", "knee rolls in, left", "meets · hurts 2" */
function resultOf(grade: GradedItem): string {
  const side = grade.side === 'midline' ? '' : `${grade.side} `;
  const figure = grade.value !== null && grade.unit !== null ? amountWords(grade.value, grade.unit) : '';
  const said =
    figure || (grade.faults.length > 0 ? grade.faults.map(faultWords).join(', ') : grade.done.skipped ? 'left out' : grade.quality);
  return `${side}${said}${hurts(grade) ? ` · hurts ${grade.pain}` : ''}`;
}
