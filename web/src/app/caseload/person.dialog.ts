import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormGroup, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { PATIENTS, type PatientRecord, type PersonChanges } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import { PersonForm, personControls } from './person-form';
import { fullMoment } from './words';

const FIELD_WORDS: Readonly<Record<string, string>> = {
  givenName: 'given name',
  familyName: 'family name',
  birthDate: 'birth date',
  fileNumber: 'file number',
  merged: 'records made one',
};

/** Puts right who somebody is, and shows what stood before. Closes with the record as it stands then. */
@Component({
  selector: 'dg-person-dialog',
  imports: [MatButtonModule, MatDialogModule, PersonForm, ReactiveFormsModule],
  template: `
    <h2 mat-dialog-title>Who they are</h2>
    <mat-dialog-content>
      <form [formGroup]="form" (ngSubmit)="save()" id="person">
        <dg-person-form [form]="form" />
      </form>
      <p class="soft note">What was signed keeps the name and the day it was signed with. An open visit is judged by what stands here.</p>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      @if (changes().length) {
        <details>
          <summary>{{ changes().length }} changed before</summary>
          <ul>
            @for (change of changes(); track $index) {
              <li>
                {{ words(change.field) }} was {{ said(change.before) }}, now {{ said(change.after) }}
                <span class="soft">{{ change.by }}, {{ moment(change.at) }}</span>
              </li>
            }
          </ul>
        </details>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton type="button" mat-dialog-close>Leave it as it was</button>
      <button matButton="filled" type="submit" form="person" [disabled]="busy()">{{ busy() ? 'Sending …' : 'Put it right' }}</button>
    </mat-dialog-actions>
  `,
  styles: `
    form {
      display: grid;
      grid-template-columns: 1fr 1fr;
      align-items: start;
      gap: 14px;
      padding-top: 6px;
    }
    .note {
      margin: 12px 0;
      font-size: 14px;
    }
    li {
      padding: 3px 0;
      font-size: 14px;
      overflow-wrap: anywhere;
    }
    @media (max-width: 600px) {
      form {
        grid-template-columns: 1fr;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PersonDialog {
  private readonly api = inject(Api);
  private readonly dialog = inject<MatDialogRef<PersonDialog, PatientRecord>>(MatDialogRef);
  private readonly patient = inject<PatientRecord['patient']>(MAT_DIALOG_DATA);
  protected readonly form = new FormGroup(personControls());
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly changes = signal<PersonChanges>([]);
  protected readonly moment = fullMoment;

  constructor() {
    this.form.patchValue(this.patient);
    this.api
      .call(PATIENTS.personChanges, { id: this.patient.id })
      .subscribe({ next: (changes) => this.changes.set(changes), error: () => {} });
  }

  protected words(field: string): string {
    return FIELD_WORDS[field] ?? field;
  }

  protected said(value: unknown): string {
    if (value === null || value === undefined || value === '') return 'nothing';
    if (typeof value === 'object') return 'set';
    return /^\d{4}-\d\d-\d\d$/.test(String(value)) ? dayWords(String(value)) : String(value);
  }

  protected save(): void {
    this.form.markAllAsTouched();
    if (this.form.invalid || this.busy()) return;
    this.busy.set(true);
    this.problem.set('');
    const body = { ...this.form.getRawValue(), revision: this.patient.revision };
    this.api.call(PATIENTS.changePatient, { id: this.patient.id, body }).subscribe({
      next: (record) => this.dialog.close(record),
      error: (error: unknown) => {
        this.busy.set(false);
        this.problem.set(describeFailure(toFailure(error)));
      },
    });
  }
}
