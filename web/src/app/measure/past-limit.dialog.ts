import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';

export interface PastLimitQuestion {
  /** "left knee flexion, passive" */
  readonly name: string;
  /** "95°" */
  readonly value: string;
  /** "90°", or empty where it was not to be measured at all. */
  readonly limit: string;
  readonly source: string;
}

/** A reading past a precaution: asks why, so that it stands in the record. */
@Component({
  selector: 'dg-past-limit',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <h2 mat-dialog-title>{{ ask.value }} is past the limit</h2>
    <mat-dialog-content>
      <p>
        {{ ask.name }}: {{ ask.limit ? 'not past ' + ask.limit : 'not to be measured' }} ({{ ask.source }}). The surgeon’s limit wins: if
        the joint went there by mistake, say so, and tell whoever has to know.
      </p>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Why it was passed</mat-label>
        <input
          matInput
          maxlength="300"
          cdkFocusInitial
          autocomplete="off"
          [(ngModel)]="why"
          (keydown.enter)="$event.preventDefault(); hold()"
        />
        @if (missing()) {
          <mat-hint class="problem">Type the reason: it goes into the record with the reading.</mat-hint>
        }
      </mat-form-field>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close>Do not hold it</button>
      <button matButton="filled" type="button" (click)="hold()">Hold with this reason</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-form-field {
      width: 100%;
      padding-top: 6px;
    }
    p {
      margin-bottom: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PastLimitDialog {
  private readonly dialog = inject<MatDialogRef<PastLimitDialog, string>>(MatDialogRef);
  protected readonly ask = inject<PastLimitQuestion>(MAT_DIALOG_DATA);
  protected readonly why = signal('');
  protected readonly missing = signal(false);

  protected hold(): void {
    const why = this.why().trim();
    if (why === '') this.missing.set(true);
    else this.dialog.close(why);
  }
}
