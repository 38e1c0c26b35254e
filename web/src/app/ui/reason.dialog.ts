import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';

export interface ReasonQuestion {
  readonly title: string;
  readonly about: string;
  /** What the field asks: "Why it was passed" */
  readonly label: string;
  /** Letters the record asks for at least. */
  readonly least: number;
  /** Said when it is left too short. */
  readonly missing: string;
  readonly agree: string;
  readonly leave: string;
}

/** Asks for the reason of something that stands in the record with it; closes with that reason, or with nothing. */
@Component({
  selector: 'dg-reason',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <h2 mat-dialog-title>{{ ask.title }}</h2>
    <mat-dialog-content>
      <p>{{ ask.about }}</p>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>{{ ask.label }}</mat-label>
        <input
          matInput
          maxlength="300"
          cdkFocusInitial
          autocomplete="off"
          [(ngModel)]="why"
          (keydown.enter)="$event.preventDefault(); agree()"
        />
        @if (missing()) {
          <mat-hint class="problem">{{ ask.missing }}</mat-hint>
        }
      </mat-form-field>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close>{{ ask.leave }}</button>
      <button matButton="filled" type="button" (click)="agree()">{{ ask.agree }}</button>
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
export class ReasonDialog {
  private readonly dialog = inject<MatDialogRef<ReasonDialog, string>>(MatDialogRef);
  protected readonly ask = inject<ReasonQuestion>(MAT_DIALOG_DATA);
  protected readonly why = signal('');
  protected readonly missing = signal(false);

  protected agree(): void {
    const why = this.why().trim();
    if (why.length < this.ask.least) this.missing.set(true);
    else this.dialog.close(why);
  }
}
