import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { PERSONS, type ErasureView, type PatientRecord } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import { fullName } from './words';

const WHY_LEAST = 3;

/** Erasing the record of a person: what goes, what stays, and that it is for good. Closes with what was done. */
@Component({
  selector: 'dg-erase',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <h2 mat-dialog-title>Erase the record of {{ name }}</h2>
    <mat-dialog-content>
      @if (view.hasValue()) {
        @let v = view.value();
        @for (reason of v.against; track reason) {
          <p class="problem" role="alert">{{ reason }}</p>
        }
        @if (v.from && v.against.length > 0) {
          <p>It may be erased from {{ day(v.from) }} on. Local rules come first.</p>
        }
        <p>For good, and nobody can undo it: {{ rows(v) }} entries go. Write the whole record first where somebody may ask for it.</p>
        <p>What stays:</p>
        <ul>
          @for (one of v.stays; track one) {
            <li>{{ one }}</li>
          }
        </ul>
        @if (v.against.length === 0) {
          <mat-form-field appearance="outline" subscriptSizing="dynamic">
            <mat-label>Their whole name, as it stands here</mat-label>
            <input matInput name="name" maxlength="210" autocomplete="off" [(ngModel)]="typed" />
          </mat-form-field>
          <mat-form-field appearance="outline" subscriptSizing="dynamic">
            <mat-label>Why it is erased</mat-label>
            <input matInput name="why" maxlength="300" autocomplete="off" [(ngModel)]="why" />
          </mat-form-field>
        }
      } @else if (view.error()) {
        <p class="problem" role="alert">{{ words(view.error()) }}</p>
      } @else {
        <p class="soft" role="status">Looking what there is …</p>
      }
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton mat-dialog-close>Leave it as it is</button>
      @if (view.hasValue() && view.value().against.length === 0) {
        <button matButton="filled" type="button" [disabled]="busy()" (click)="erase()">Erase for good</button>
      }
    </mat-dialog-actions>
  `,
  styles: `
    mat-form-field {
      width: 100%;
      padding-top: 10px;
    }
    p {
      margin-bottom: 8px;
    }
    ul {
      padding-left: 20px;
      list-style: disc;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EraseDialog {
  private readonly api = inject(Api);
  private readonly patient = inject<PatientRecord['patient']>(MAT_DIALOG_DATA);
  private readonly opened = inject(MatDialogRef);
  /** One sending, however often it is pressed. */
  private readonly erasureId = crypto.randomUUID();
  protected readonly name = fullName(this.patient);
  protected readonly view = rxResource({ stream: () => this.api.call(PERSONS.erasure, { id: this.patient.id }) });
  protected readonly problem = signal('');
  protected readonly busy = signal(false);
  protected typed = '';
  protected why = '';
  protected readonly day = dayWords;

  protected rows({ goes }: ErasureView): number {
    return goes.reduce((sum, { rows }) => sum + rows, 0);
  }

  protected words(error: unknown): string {
    return describeFailure(toFailure(error));
  }

  protected erase(): void {
    const [name, why] = [this.typed.trim(), this.why.trim()];
    if (name !== this.name) return this.problem.set(`Type the whole name, ${this.name}: so that nobody else’s record goes.`);
    if (why.length < WHY_LEAST) return this.problem.set('Type why it is erased, three letters or more: that stays.');
    this.problem.set('');
    this.busy.set(true);
    this.api.call(PERSONS.erase, { id: this.patient.id, body: { id: this.erasureId, why, name } }).subscribe({
      next: (erased) => this.opened.close(erased),
      error: (error: unknown) => {
        this.busy.set(false);
        this.problem.set(this.words(error));
      },
    });
  }
}
