import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import type { NewEpisode } from '@dial-gauge/contract';
import { INVOLVED_SIDES, type InvolvedSide } from '@dial-gauge/core';
import { notOnlySpaces, text } from './person-form';

/** Another episode of care: what brings them this time. Closes with it, or with nothing. */
@Component({
  selector: 'dg-episode-dialog',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatSelectModule, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>Another episode of care</h2>
    <mat-dialog-content>
      <form [formGroup]="form" (ngSubmit)="save()" id="episode">
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Complaint</mat-label>
          <input matInput formControlName="complaint" maxlength="300" autocomplete="off" />
          <mat-error>Type what brings them, as “left hip stiff on stairs”</mat-error>
        </mat-form-field>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Involved side</mat-label>
          <mat-select formControlName="involvedSide">
            <mat-option [value]="null">none</mat-option>
            @for (side of sides; track side) {
              <mat-option [value]="side">{{ side }}</mat-option>
            }
          </mat-select>
        </mat-form-field>
      </form>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton type="button" mat-dialog-close>Not now</button>
      <button matButton="filled" type="submit" form="episode">Begin the episode</button>
    </mat-dialog-actions>
  `,
  styles: `
    form {
      display: grid;
      gap: 14px;
      padding-top: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EpisodeDialog {
  private readonly dialog = inject<MatDialogRef<EpisodeDialog, NewEpisode>>(MatDialogRef);
  private readonly id = crypto.randomUUID();
  protected readonly sides = INVOLVED_SIDES;
  protected readonly form = new FormGroup({
    complaint: text(notOnlySpaces),
    involvedSide: new FormControl<InvolvedSide | null>(null),
  });

  protected save(): void {
    this.form.markAllAsTouched();
    if (this.form.valid) this.dialog.close({ id: this.id, ...this.form.getRawValue() });
  }
}
