import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { JudgementView } from '@dial-gauge/contract';
import { ageOn, measuredMobility, MOBILITY_ITEMS, mobilityScore, type MobilityAnswers } from '@dial-gauge/core';
import { SummaryText } from './summary-text';

/** The nine-point score of general mobility: what was measured is filled in, the rest is asked. */
@Component({
  selector: 'dg-mobility-score',
  template: `
    <details>
      <summary>
        Nine-point mobility score <span class="soft">· {{ score().words }}</span>
      </summary>
      <ul>
        @for (item of items; track item.id) {
          <li>
            <label
              ><input
                type="checkbox"
                [checked]="answers()[item.id] === true"
                [disabled]="measured()[item.id] !== undefined"
                (change)="answer(item.id, $event)"
              />{{ item.words }}
              @if (measured()[item.id] !== undefined) {
                <span class="soft">measured</span>
              }
            </label>
          </li>
        }
      </ul>
      @if (!view().visit.signed) {
        <button type="button" (click)="note()">Put it into the summary</button>
      }
      <p class="soft">Beighton et al. 1973, counted after the criteria of 2017 (from memory). A description, not a diagnosis.</p>
    </details>
  `,
  styles: `
    details {
      margin-top: 10px;
      padding: 6px 0;
      border-top: 1px solid var(--line);
      font-size: 14px;
    }
    summary {
      font-weight: 700;
      cursor: pointer;
    }
    .soft {
      font-weight: 400;
    }
    label {
      display: flex;
      gap: 8px;
      padding: 4px 0;
    }
    button {
      padding: 4px 0;
      border: 0;
      background: none;
      color: var(--petrol);
      font: inherit;
      text-decoration: underline;
      cursor: pointer;
    }
    p {
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MobilityScore {
  private readonly summary = inject(SummaryText, { optional: true });
  readonly view = input.required<JudgementView>();
  protected readonly items = MOBILITY_ITEMS;
  /** Answered by hand. Without a tick, what was not measured counts as no once anything was ticked. */
  private readonly asked = signal<MobilityAnswers>({});
  protected readonly measured = computed(() => measuredMobility(this.view().judgement.measurements));
  protected readonly answers = computed((): MobilityAnswers => {
    const asked = this.asked();
    const rest = Object.keys(asked).length ? Object.fromEntries(MOBILITY_ITEMS.map(({ id }) => [id, false])) : {};
    return { ...rest, ...asked, ...this.measured() };
  });
  protected readonly score = computed(() =>
    mobilityScore(this.answers(), ageOn(this.view().patient.birthDate, this.view().visit.assessedOn)),
  );

  protected answer(id: string, event: Event): void {
    this.asked.update((asked) => ({ ...asked, [id]: (event.target as HTMLInputElement).checked }));
  }

  protected note(): void {
    const words = this.score().words;
    this.summary?.append(`${words.charAt(0).toUpperCase()}${words.slice(1)}.`);
  }
}
