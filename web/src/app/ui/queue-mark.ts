import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { QueueGroup } from '@dial-gauge/core';

/** Where somebody stands in the queue, as a shape; the words stand beside it. */
@Component({
  selector: 'dg-queue-mark',
  template: `
    <svg viewBox="0 0 24 24" aria-hidden="true" [attr.class]="group()">
      @switch (group()) {
        @case ('today') {
          <path d="M2 13h5l3-9 4 16 3-7h5" />
        }
        @case ('due') {
          <circle cx="12" cy="12" r="9" />
          <path d="M12 6v6l4 3" />
        }
        @case ('met') {
          <path d="M4 13l5 6L20 5" />
        }
        @default {
          <circle class="dot" cx="12" cy="12" r="3" />
        }
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 22px;
      fill: none;
      stroke: var(--slate);
      stroke-width: 2.4;
      stroke-linecap: round;
      stroke-linejoin: round;
    }
    .today {
      stroke: var(--ochre);
    }
    .due {
      stroke: var(--brass);
    }
    .met {
      stroke: var(--petrol);
    }
    .dot {
      fill: var(--slate);
      stroke: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QueueMark {
  readonly group = input.required<QueueGroup>();
}
