import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';

export interface ConfirmQuestion {
  readonly title: string;
  readonly about: string;
  /** What the button says: what happens. */
  readonly agree: string;
}

/** Asks once more before something is done; closes with true, or with nothing. */
@Component({
  selector: 'dg-confirm',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>{{ ask.title }}</h2>
    <mat-dialog-content>
      <p>{{ ask.about }}</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close cdkFocusInitial>Not now</button>
      <button matButton="filled" [mat-dialog-close]="true">{{ ask.agree }}</button>
    </mat-dialog-actions>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConfirmDialog {
  protected readonly ask = inject<ConfirmQuestion>(MAT_DIALOG_DATA);
}
