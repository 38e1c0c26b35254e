import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';
import { CommandQueue } from '../data/command-queue';

/** What becomes of entries that are not sent yet. */
export type SignOutChoice = 'keep' | 'discard';

/** Signing out with entries still waiting: nothing is thrown away unless somebody says so. */
@Component({
  selector: 'dg-sign-out',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>
      @if (queue.waiting()) {
        {{ queue.waiting() }} {{ queue.waiting() === 1 ? 'entry is' : 'entries are' }} not saved yet
      } @else {
        Everything is saved
      }
    </h2>
    <mat-dialog-content>
      @if (queue.waiting()) {
        <p>{{ queue.problem() || 'They are being sent.' }}</p>
        @if (queue.lasts) {
          <p>
            Kept, they stay in this browser under your name, and are sent when you sign in here again. Nobody else’s sign-in sends or shows
            them.
          </p>
        } @else {
          <p>This browser keeps nothing beyond the page: signing out now loses them.</p>
        }
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close>Stay</button>
      @if (queue.waiting()) {
        <button matButton="outlined" mat-dialog-close="discard">Discard them and sign out</button>
      }
      @if (queue.lasts || !queue.waiting()) {
        <button matButton="filled" mat-dialog-close="keep" cdkFocusInitial>
          {{ queue.waiting() ? 'Keep them and sign out' : 'Sign out' }}
        </button>
      }
    </mat-dialog-actions>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignOutDialog {
  protected readonly queue = inject(CommandQueue);
}
