import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { FormControl, ReactiveFormsModule, Validators, type AbstractControl, type FormGroup, type ValidationErrors } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { SEXES, type Sex } from '@dial-gauge/core';
import { today } from './words';

export const text = (...validators: ((control: AbstractControl) => ValidationErrors | null)[]) =>
  new FormControl('', { nonNullable: true, validators });
const pastDay = ({ value }: AbstractControl<string>): ValidationErrors | null => (value && value > today() ? { future: true } : null);
export const notOnlySpaces = ({ value }: AbstractControl<string>): ValidationErrors | null => (value.trim() ? null : { required: true });

/** The fields of who somebody is. */
export const personControls = () => ({
  givenName: text(notOnlySpaces),
  familyName: text(notOnlySpaces),
  birthDate: text(Validators.required, pastDay),
  sex: new FormControl<Sex>('unknown', { nonNullable: true }),
  gender: text(),
  fileNumber: text(),
  occupation: text(),
});

/** Who somebody is, as it is entered and put right. */
@Component({
  selector: 'dg-person-form',
  imports: [MatFormFieldModule, MatInputModule, MatSelectModule, ReactiveFormsModule],
  template: `
    <ng-container [formGroup]="form()">
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Given name</mat-label>
        <input matInput formControlName="givenName" maxlength="100" autocomplete="off" />
        <mat-error>Type the given name</mat-error>
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Family name</mat-label>
        <input matInput formControlName="familyName" maxlength="100" autocomplete="off" />
        <mat-error>Type the family name</mat-error>
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Birth date</mat-label>
        <input matInput type="date" formControlName="birthDate" [max]="latest" />
        <mat-error>Choose a day, today at the latest: norms go by age</mat-error>
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Sex, for the norms</mat-label>
        <mat-select formControlName="sex">
          @for (sex of sexes; track sex) {
            <mat-option [value]="sex">{{ sex }}</mat-option>
          }
        </mat-select>
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Gender, in their words</mat-label>
        <input matInput formControlName="gender" maxlength="60" autocomplete="off" />
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>File number</mat-label>
        <input matInput formControlName="fileNumber" maxlength="40" autocomplete="off" />
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic" class="wide">
        <mat-label>Occupation or sport</mat-label>
        <input matInput formControlName="occupation" maxlength="120" autocomplete="off" />
      </mat-form-field>
    </ng-container>
  `,
  styles: `
    :host {
      display: contents;
    }
    .wide {
      grid-column: 1 / -1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PersonForm {
  readonly form = input.required<FormGroup>();
  protected readonly sexes = SEXES;
  protected readonly latest = today();
}
