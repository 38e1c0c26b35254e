import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';

export interface WorseQuestion {
  readonly why: string;
  /** The drill that helped; null where none did. */
  readonly goBackTo: string | null;
}
export type WorseAnswer = 'again' | 'finish';

/** Asks before a retest ends on worse. */
@Component({
  selector: 'dg-worse',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Finish on worse?</h2>
    <mat-dialog-content>
      <p>{{ ask.why }}. The patient would leave worse than they could.</p>
      @if (ask.goBackTo; as drill) {
        <p>
          “<strong>{{ drill }}</strong
          >” helped: do it once more and read the markers again.
        </p>
      } @else {
        <p>No drill has helped this patient yet. Let it settle and read the markers again, or finish and note what made it worse.</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton [mat-dialog-close]="'finish'">Finish all the same</button>
      @if (ask.goBackTo) {
        <button matButton="filled" [mat-dialog-close]="'again'" cdkFocusInitial>Go back to what helped</button>
      } @else {
        <button matButton="filled" mat-dialog-close cdkFocusInitial>Stay here</button>
      }
    </mat-dialog-actions>
  `,
  styles: `
    p {
      padding-bottom: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorseDialog {
  protected readonly ask = inject<WorseQuestion>(MAT_DIALOG_DATA);
}
