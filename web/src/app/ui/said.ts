import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Failure } from '../data/problem';

/** What was just done, or what was refused and each field of it: for the screen, and for who does not see it. */
@Component({
  selector: 'dg-said',
  template: `
    <div aria-live="polite">
      @if (done(); as text) {
        <p class="done">{{ text }}</p>
      }
      @if (refusal(); as failure) {
        <div class="problem" role="alert">
          <p>{{ failure.message }}</p>
          @if (failure.fields.length) {
            <ul aria-label="What was refused">
              @for (field of failure.fields; track $index) {
                <li>
                  <strong>{{ field.path }}</strong> {{ field.message }}
                </li>
              }
            </ul>
          }
        </div>
      }
    </div>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  styles: `
    :host {
      display: block;
    }
    p,
    .problem {
      margin-bottom: 12px;
    }
    .problem p {
      margin-bottom: 6px;
    }
    li {
      padding: 2px 0;
      overflow-wrap: anywhere;
    }
    .done {
      padding: 10px 14px;
      border-left: 3px solid var(--petrol);
      background: var(--raised);
    }
  `,
})
export class Said {
  readonly done = input.required<string>();
  readonly refusal = input.required<Failure | null>();
}
