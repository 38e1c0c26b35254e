import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';

const LEAST = 3;

/** Opens a signed visit to be changed, with the reason for the record. */
@Component({
  selector: 'dg-amend-dialog',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <h2 mat-dialog-title>Amend this visit</h2>
    <mat-dialog-content>
      <p>What was signed stays as it is. Changes are listed with who and when, and the visit is signed again.</p>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Why it has to be changed</mat-label>
        <input
          matInput
          maxlength="300"
          cdkFocusInitial
          autocomplete="off"
          [(ngModel)]="why"
          (keydown.enter)="$event.preventDefault(); amend()"
        />
        @if (missing()) {
          <mat-hint class="problem">Type the reason, three letters or more: it goes into the record.</mat-hint>
        }
      </mat-form-field>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close>Leave it signed</button>
      <button matButton="filled" type="button" (click)="amend()">Open it</button>
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
export class AmendDialog {
  private readonly dialog = inject<MatDialogRef<AmendDialog, string>>(MatDialogRef);
  protected readonly why = signal('');
  protected readonly missing = signal(false);

  protected amend(): void {
    const why = this.why().trim();
    if (why.length < LEAST) this.missing.set(true);
    else this.dialog.close(why);
  }
}
