import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { OUTCOMES, type Discharge, type Outcome } from '@dial-gauge/contract';
import { text } from './person-form';
import { OUTCOME_WORDS, today } from './words';

/** Ends an episode of care with its outcome. Closes with it, or with nothing. */
@Component({
  selector: 'dg-discharge-dialog',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatSelectModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>Discharge: {{ complaint }}</h2>
    <mat-dialog-content>
      <p class="soft">The record stays as it is. The episode leaves the queue, takes no new visit, and can be taken up again.</p>
      <form [formGroup]="form" (ngSubmit)="save()" id="discharge">
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Outcome</mat-label>
          <mat-select formControlName="outcome">
            @for (outcome of outcomes; track outcome) {
              <mat-option [value]="outcome">{{ words[outcome] }}</mat-option>
            }
          </mat-select>
          <mat-error>Choose how it came to an end</mat-error>
        </mat-form-field>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>On</mat-label>
          <input matInput type="date" formControlName="on" [max]="latest" />
          <mat-error>Choose the day</mat-error>
        </mat-form-field>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Note</mat-label>
          <input matInput formControlName="note" maxlength="300" autocomplete="off" />
        </mat-form-field>
      </form>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton type="button" mat-dialog-close>Not now</button>
      <button matButton="filled" type="submit" form="discharge">Discharge</button>
    </mat-dialog-actions>
  `,
  styles: `
    form {
      display: grid;
      gap: 14px;
      padding-top: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DischargeDialog {
  private readonly dialog = inject<MatDialogRef<DischargeDialog, Discharge>>(MatDialogRef);
  protected readonly complaint = inject<string>(MAT_DIALOG_DATA);
  protected readonly outcomes = OUTCOMES;
  protected readonly words = OUTCOME_WORDS;
  protected readonly latest = today();
  protected readonly form = new FormGroup({
    outcome: new FormControl<Outcome | null>(null, Validators.required),
    on: new FormControl(today(), { nonNullable: true, validators: Validators.required }),
    note: text(),
  });

  protected save(): void {
    this.form.markAllAsTouched();
    const { outcome, ...rest } = this.form.getRawValue();
    if (this.form.valid && outcome) this.dialog.close({ outcome, ...rest });
  }
}
