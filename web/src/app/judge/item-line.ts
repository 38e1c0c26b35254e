import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { breakdownOf, saidOfItem, type ItemFinding } from '@dial-gauge/core';

/** What one item of a screen has to say, as a sentence that opens what it rests on. */
@Component({
  selector: 'dg-item-line',
  imports: [RouterLink],
  template: `
    @let said = words();
    <details [class]="finding().mark">
      <summary>
        <span class="mark" aria-hidden="true"></span>
        <span>
          @if (number(); as n) {
            <span class="number figure">{{ n }}</span>
          }
          <strong>{{ said.subject }}</strong>: <span class="verdict">{{ said.verdict }}</span><span class="soft"
            >&nbsp;· on the screen</span
          >
        </span>
      </summary>
      <div class="because">
        <ul aria-label="Because">
          @for (line of said.because; track $index) {
            <li>{{ line }}</li>
          }
        </ul>
        <p class="soft">Stands here: {{ said.place }}.</p>
        @for (open of opens(); track open.pattern) {
          <p>
            <a [routerLink]="['/visits', visitId(), 'limits']" [queryParams]="{ pattern: open.pattern, side: open.side }"
              >What could limit it: {{ open.name }}</a
            >
          </p>
        }
      </div>
    </details>
  `,
  styleUrl: './finding-line.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ItemLine {
  readonly finding = input.required<ItemFinding>();
  readonly visitId = input.required<string>();
  /** Place in the order; none where it stands outside of it. */
  readonly number = input<number>();
  protected readonly words = computed(() => saidOfItem(this.finding()));
  protected readonly opens = computed(() =>
    this.finding().outcomes.flatMap(({ opens, side }) => opens.map((pattern) => ({ pattern, side, name: breakdownOf(pattern).name }))),
  );
}
