import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { CLINIC, explain, HandWidths } from '@dial-gauge/contract';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';

/** Fist and finger of whoever gauges distances by hand here, measured once with a tape. */
@Component({
  selector: 'dg-hand',
  imports: [MatButtonModule, MatFormFieldModule, MatInputModule],
  template: `
    <h2>Fists and fingers</h2>
    <p class="soft">Where a distance is gauged by hand. Measure across the knuckles of the fist and across one finger.</p>
    @if (practice.hasValue()) {
      @let hand = practice.value().hand;
      <div class="fields">
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Fist, cm</mat-label>
          <input #fist matInput inputmode="decimal" maxlength="5" [value]="hand.fist" />
        </mat-form-field>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Finger, cm</mat-label>
          <input #finger matInput inputmode="decimal" maxlength="5" [value]="hand.finger" />
        </mat-form-field>
        <button matButton="outlined" type="button" (click)="save(fist.value, finger.value)">Save widths</button>
      </div>
      <p [class.problem]="problem()" role="status">{{ problem() || done() }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding-top: 20px;
    }
    h2 {
      font-size: 17px;
    }
    .soft {
      font-size: 13px;
    }
    .fields {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
      padding-top: 8px;
    }
    mat-form-field {
      width: 108px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HandForm {
  private readonly api = inject(Api);
  protected readonly practice = rxResource({ stream: () => this.api.call(CLINIC.clinic) });
  protected readonly problem = signal('');
  protected readonly done = signal('');

  protected save(fist: string, finger: string): void {
    const number = (text: string) => Number(text.replace(',', '.') || NaN);
    const parsed = HandWidths.safeParse({ fist: number(fist), finger: number(finger) });
    this.done.set('');
    if (!parsed.success) {
      const [first] = explain(parsed.error);
      return this.problem.set(`${first?.path}: ${first?.message}`);
    }
    this.problem.set('');
    this.api.call(CLINIC.setHand, { body: parsed.data }).subscribe({
      next: () => this.done.set('Saved. Readings held before keep the widths they were taken for.'),
      error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
    });
  }
}
