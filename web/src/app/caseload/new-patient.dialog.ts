import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { PATIENTS, TAKEOVERS, type NewPatient } from '@dial-gauge/contract';
import { INVOLVED_SIDES, type InvolvedSide } from '@dial-gauge/core';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { describeFailure, toFailure } from '../data/problem';
import { base64Of } from '../ui/hand-over';
import { DRAFT, isHalfEntered, type HalfEntered } from './half-entered';
import { notOnlySpaces, PersonForm, personControls, text } from './person-form';

@Component({
  selector: 'dg-new-patient',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatSelectModule, PersonForm, ReactiveFormsModule],
  templateUrl: './new-patient.dialog.html',
  styles: `
    form {
      display: grid;
      grid-template-columns: 1fr 1fr;
      align-items: start;
      gap: 14px;
      padding-top: 6px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    .from {
      margin-top: 14px;
      font-size: 14px;
    }
    .from label {
      display: grid;
      gap: 4px;
    }
    li {
      font-size: 14px;
    }
    @media (max-width: 600px) {
      form {
        grid-template-columns: 1fr;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewPatientDialog {
  private readonly api = inject(Api);
  private readonly dialog = inject<MatDialogRef<NewPatientDialog, string>>(MatDialogRef);
  private readonly drafts = inject(Drafts);
  private readonly left = this.drafts.read(DRAFT, isHalfEntered);
  /** Made once: sending the form again after a lost answer adds nobody twice. */
  private readonly ids = this.left?.ids ?? { patient: crypto.randomUUID(), episode: crypto.randomUUID() };
  protected readonly sides = INVOLVED_SIDES;
  protected readonly problem = signal('');
  protected readonly busy = signal(false);
  private readonly visits = { now: crypto.randomUUID(), before: crypto.randomUUID() };
  protected readonly file = signal<{ readonly fileName: string; readonly base64: string } | null>(null);
  protected readonly problems = signal<readonly { readonly path: string; readonly message: string }[]>([]);
  protected readonly form = new FormGroup({
    ...personControls(),
    complaint: text(notOnlySpaces),
    involvedSide: new FormControl<InvolvedSide | null>(null),
  });

  constructor() {
    this.form.patchValue((this.left?.typed ?? {}) as Partial<ReturnType<typeof this.form.getRawValue>>);
    this.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => {
      this.drafts.keep(DRAFT, { ids: this.ids, typed: this.form.getRawValue() } satisfies HalfEntered);
    });
  }

  protected discard(): void {
    this.drafts.drop(DRAFT);
    this.dialog.close();
  }

  /** A file of another clinic says birth date, sex and side itself, and brings its visit with it. */
  protected async choose(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    if (!file) return;
    this.problems.set([]);
    const base64 = await base64Of(file);
    field.value = '';
    this.file.set({ fileName: file.name, base64 });
    for (const name of ['birthDate', 'sex', 'involvedSide'] as const) this.form.controls[name].disable();
  }

  protected withoutFile(): void {
    this.file.set(null);
    this.problems.set([]);
    this.form.enable();
  }

  protected save(): void {
    this.form.markAllAsTouched();
    if (this.form.invalid || this.busy()) return;
    const file = this.file();
    if (file) return this.takeOver(file);
    const { complaint, involvedSide, ...patient } = this.form.getRawValue();
    const body: NewPatient = { id: this.ids.patient, ...patient, episode: { id: this.ids.episode, complaint, involvedSide } };
    this.busy.set(true);
    this.problem.set('');
    this.api.call(PATIENTS.addPatient, { body }).subscribe({
      next: (record) => {
        this.drafts.drop(DRAFT);
        this.dialog.close(record.patient.id);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.problem.set(describeFailure(toFailure(error)));
      },
    });
  }

  private takeOver(file: { readonly fileName: string; readonly base64: string }): void {
    const { givenName, familyName, occupation, complaint } = this.form.getRawValue();
    const ids = { ...this.ids, visit: this.visits.now, before: this.visits.before };
    this.busy.set(true);
    this.problem.set('');
    this.api.call(TAKEOVERS.takeOver, { body: { ids, givenName, familyName, occupation, complaint, ...file } }).subscribe({
      next: (record) => {
        this.drafts.drop(DRAFT);
        this.dialog.close(record.patient.id);
      },
      error: (error: unknown) => {
        const failure = toFailure(error);
        this.busy.set(false);
        this.problem.set(failure.message);
        this.problems.set(failure.fields.slice(0, MOST_SHOWN));
      },
    });
  }
}

/** Of what is wrong with a file so much is shown. */
const MOST_SHOWN = 20;
