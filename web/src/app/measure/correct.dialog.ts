import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { bothWaysWords, formatNumber, readAtDial, suffixOf, motion, type Protocol, type StoredReading, type Tool } from '@dial-gauge/core';
import type { HeldReading } from './record/cells';
import { fullMoment } from '../caseload/words';

export interface CorrectQuestion {
  readonly name: string;
  readonly shown: string;
  readonly reading: HeldReading;
  readonly protocol: Protocol;
  readonly tool: Tool;
}

export interface Corrected {
  readonly reading: StoredReading;
  readonly why: string;
}

/** A reading put right: the new figure and why; the old one stays on record. */
@Component({
  selector: 'dg-correct',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <h2 mat-dialog-title>Correct a reading</h2>
    <mat-dialog-content>
      <p>
        {{ ask.name }}: <strong class="figure">{{ ask.shown }}</strong>{{ ask.reading.examiner ? ', held by ' + ask.reading.examiner : '' }}
      </p>
      @for (old of ask.reading.corrected; track old.at) {
        <p class="soft">
          was {{ figure(old.value) }}{{ old.entered ? ' (' + old.entered + ')' : '' }}, corrected by {{ old.by }} on {{ moment(old.at) }}:
          {{ old.why }}
        </p>
      }
      @if (ask.reading.pastLimit; as past) {
        <p class="soft">past the limit{{ past.limit === null ? '' : ' of ' + figure(past.limit) }}: {{ past.why }}</p>
      }
      <div class="fields">
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Should read</mat-label>
          <input
            matInput
            maxlength="24"
            cdkFocusInitial
            autocomplete="off"
            [(ngModel)]="text"
            (keydown.enter)="$event.preventDefault(); save()"
          />
        </mat-form-field>
        <mat-form-field appearance="outline" subscriptSizing="dynamic" class="why">
          <mat-label>Why</mat-label>
          <input matInput maxlength="300" autocomplete="off" [(ngModel)]="why" (keydown.enter)="$event.preventDefault(); save()" />
        </mat-form-field>
      </div>
      <p class="problem" role="alert" [hidden]="!problem()">{{ problem() }}</p>
      <p class="soft">The old value stays on record with who held it, who corrected it, when and why.</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close>Leave it</button>
      <button matButton="filled" type="button" (click)="save()">Correct reading</button>
    </mat-dialog-actions>
  `,
  styles: `
    .fields {
      display: flex;
      gap: 12px;
      padding: 8px 0;
    }
    .fields mat-form-field {
      width: 150px;
    }
    .fields .why {
      flex: 1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CorrectDialog {
  private readonly dialog = inject<MatDialogRef<CorrectDialog, Corrected>>(MatDialogRef);
  protected readonly ask = inject<CorrectQuestion>(MAT_DIALOG_DATA);
  protected readonly moment = fullMoment;
  protected readonly text = signal('');
  protected readonly why = signal('');
  protected readonly problem = signal('');

  protected figure(value: number): string {
    return `${formatNumber(value)}${suffixOf(motion(this.ask.protocol.motion).unit)}`;
  }

  protected save(): void {
    const read = readAtDial(this.text(), this.ask.protocol, this.ask.tool);
    if (!read.ok) return this.problem.set(read.message);
    if ('arc' in read) return this.problem.set('One reading is corrected at a time; allowed: one figure.');
    if (read.other) return this.problem.set(`${bothWaysWords(this.ask.protocol, read.reading, read.other)}.`);
    const why = this.why().trim();
    if (why === '') return this.problem.set('Type why it is corrected: it stays on record.');
    this.dialog.close({ reading: read.reading, why });
  }
}
