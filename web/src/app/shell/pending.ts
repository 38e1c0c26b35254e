import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { toFailure } from '../data/problem';
import { Frame } from './frame';

/** Stands in for a page whose record is not here yet, or could not be had. */
@Component({
  selector: 'dg-pending',
  imports: [Frame, RouterLink],
  template: `
    <dg-frame [heading]="heading()">
      <div class="page">
        @if (failure(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
          <a routerLink="/caseload">Open the caseload</a>
        } @else {
          <p class="soft" role="status">{{ doing() }}</p>
        }
      </div>
    </dg-frame>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Pending {
  readonly heading = input.required<string>();
  /** What is being done meanwhile. */
  readonly doing = input.required<string>();
  readonly error = input<unknown>();
  protected readonly failure = computed(() => (this.error() ? toFailure(this.error()).message : ''));
}
