import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';

export interface SignQuestion {
  readonly name: string;
  readonly findings: number;
  readonly readings: number;
  /** Why it was opened again; empty for the first signature. */
  readonly amending: string;
}

/** Asks once more before a visit is signed. */
@Component({
  selector: 'dg-sign-dialog',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Sign as {{ ask.name }}</h2>
    <mat-dialog-content>
      <p>
        The summary and all {{ ask.findings }} findings from {{ ask.readings }} readings are kept as they stand now, with the norms, the
        errors and the thresholds of today. Later changes of rules do not touch them.
      </p>
      <p>{{ ask.amending ? 'Amended because: ' + ask.amending : 'A signed visit is changed by amending it, with a reason.' }}</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close>Not yet</button>
      <button matButton="filled" [mat-dialog-close]="true" cdkFocusInitial>Sign</button>
    </mat-dialog-actions>
  `,
  styles: `
    p {
      padding-bottom: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignDialog {
  protected readonly ask = inject<SignQuestion>(MAT_DIALOG_DATA);
}
