import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { StillView } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { toFailure } from '../data/problem';
import { Review } from './review';

/** Stills that are kept with the visit: looked at, and taken away for good. */
@Component({
  selector: 'dg-stills',
  imports: [MatButtonModule],
  template: `
    <h2>Stills kept with this visit</h2>
    <p class="soft">
      A picture leaves this browser only when you attach it. It is kept without the place it was taken at, for your clinic alone.
    </p>
    <p><button matButton="outlined" type="button" [disabled]="review.busy()" (click)="attach.emit()">Attach what is shown</button></p>
    <ul>
      @for (still of review.stills(); track still.id) {
        <li>
          <span
            >{{ still.words }} <span class="soft">{{ still.by }}, {{ dayWords(still.at.slice(0, 10)) }}</span></span
          >
          <button matButton type="button" [attr.aria-label]="'Show the still ' + still.words" (click)="show(still)">
            {{ shown()?.id === still.id ? 'Hide' : 'Show' }}
          </button>
          @if (asked() === still.id) {
            <button matButton="outlined" type="button" (click)="asked.set(''); review.remove(still.id)">Yes, take it away for good</button>
            <button matButton type="button" (click)="asked.set('')">Keep it</button>
          } @else {
            <button matButton type="button" [attr.aria-label]="'Take the still ' + still.words + ' away'" (click)="asked.set(still.id)">
              Take away
            </button>
          }
          @if (shown(); as open) {
            @if (open.id === still.id) {
              <img [src]="'data:image/jpeg;base64,' + open.base64" [alt]="still.words" />
            }
          }
        </li>
      }
    </ul>
    @if (problem()) {
      <p class="problem" role="alert">{{ problem() }}</p>
    }
  `,
  styles: `
    h2 {
      margin: 18px 0 4px;
      font-size: 15px;
    }
    .soft {
      font-size: 13px;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 2px 8px;
      padding: 4px 0;
      border-bottom: 1px solid var(--line);
    }
    li > span:first-child {
      flex: 1 1 160px;
      overflow-wrap: anywhere;
    }
    img {
      width: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Stills {
  protected readonly review = inject(Review);
  readonly attach = output();
  protected readonly dayWords = dayWords;
  protected readonly shown = signal<{ readonly id: string; readonly base64: string } | null>(null);
  /** The one that is asked about before it is gone. */
  protected readonly asked = signal('');
  protected readonly problem = signal('');

  protected show({ id }: StillView): void {
    this.problem.set('');
    if (this.shown()?.id === id) return this.shown.set(null);
    this.review.still(id).subscribe({
      next: ({ base64 }) => this.shown.set({ id, base64 }),
      error: (error: unknown) => this.problem.set(toFailure(error).message),
    });
  }
}
