import { ChangeDetectionStrategy, Component, computed, effect, inject, output, signal } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import {
  findProcedure,
  INVOLVED_SIDES,
  JOINTS,
  PROCEDURES,
  regionName,
  TELL_ALWAYS,
  weeksBetween,
  type InvolvedSide,
  type Joint,
} from '@dial-gauge/core';
import { today } from '../caseload/words';
import { Preparing } from './preparing';

export interface IntakeFields {
  readonly complaint: string;
  readonly involvedSide: InvolvedSide | null;
  readonly complaintAt: Joint | null;
  readonly procedureId: string | null;
  readonly procedure: string;
  readonly procedureOn: string | null;
  readonly dominantSide: 'left' | 'right' | 'both' | null;
  readonly wanted: string;
  readonly dueOn: string | null;
}

/** Why they came, what was done, and what they want back. Every field is saved when it is left. */
@Component({
  selector: 'dg-intake',
  imports: [MatFormFieldModule, MatInputModule, MatSelectModule, ReactiveFormsModule],
  template: `
    <form [formGroup]="form">
      <mat-form-field appearance="outline" subscriptSizing="dynamic" class="wide">
        <mat-label>Complaint</mat-label>
        <input matInput formControlName="complaint" maxlength="300" autocomplete="off" />
        @if (form.controls.complaint.invalid) {
          <mat-error>Type the complaint in a few words.</mat-error>
        }
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
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Where</mat-label>
        <mat-select formControlName="complaintAt">
          <mat-option [value]="null">not said</mat-option>
          @for (joint of joints; track joint) {
            <mat-option [value]="joint">{{ nameOf(joint) }}</mat-option>
          }
        </mat-select>
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic" class="wide">
        <mat-label>Dominant</mat-label>
        <mat-select formControlName="dominantSide">
          <mat-option [value]="null">not asked</mat-option>
          @for (side of sides; track side) {
            <mat-option [value]="side">{{ side }}</mat-option>
          }
        </mat-select>
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic" class="wide">
        <mat-label>Procedure</mat-label>
        <mat-select formControlName="procedureId">
          <mat-option [value]="null">none, or another one named below</mat-option>
          @for (procedure of procedures; track procedure.id) {
            <mat-option [value]="procedure.id">{{ procedure.name }}</mat-option>
          }
        </mat-select>
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>{{ form.controls.procedureId.value ? 'In detail' : 'Another one' }}</mat-label>
        <input matInput formControlName="procedure" maxlength="160" autocomplete="off" />
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Done on</mat-label>
        <input matInput type="date" formControlName="procedureOn" [max]="latest" />
        @if (weeks(); as words) {
          <mat-hint>{{ words }}</mat-hint>
        }
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic" class="wide">
        <mat-label>Wants back (sport, stairs, instrument)</mat-label>
        <input matInput formControlName="wanted" maxlength="300" autocomplete="off" />
      </mat-form-field>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <mat-label>Measure again on</mat-label>
        <input matInput type="date" formControlName="dueOn" [min]="latest" />
      </mat-form-field>
    </form>
    @if (procedure(); as of) {
      <p class="soft">{{ of.note }}</p>
      <details>
        <summary>Also out in the early phase, and when to tell the surgeon</summary>
        <p class="soft"><strong>Also out:</strong> {{ of.alsoOut }}.</p>
        <p class="soft"><strong>Tell the surgeon:</strong> {{ of.tellSigns }}. {{ tellAlways }}</p>
        <p class="soft">From memory; the surgeon and local rules win.</p>
      </details>
    }
  `,
  styles: `
    form {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px 10px;
      padding-top: 4px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    summary {
      min-height: 32px;
      padding-top: 6px;
      cursor: pointer;
      font-size: 13px;
    }
    p {
      margin-top: 6px;
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Intake {
  private readonly preparing = inject(Preparing);
  private readonly build = inject(NonNullableFormBuilder);
  readonly changed = output<IntakeFields>();
  protected readonly sides = INVOLVED_SIDES;
  protected readonly joints = JOINTS;
  protected readonly nameOf = regionName;
  protected readonly procedures = PROCEDURES;
  protected readonly latest = today();
  private readonly filled = signal('');
  protected readonly form = this.build.group(
    {
      complaint: ['', [Validators.required, Validators.pattern(/\S/)]],
      involvedSide: this.build.control<InvolvedSide | null>(null),
      complaintAt: this.build.control<Joint | null>(null),
      dominantSide: this.build.control<InvolvedSide | null>(null),
      procedureId: this.build.control<string | null>(null),
      procedure: [''],
      procedureOn: [''],
      wanted: [''],
      dueOn: [''],
    },
    { updateOn: 'blur' },
  );
  private readonly value = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  protected readonly weeks = computed(() => {
    const on = this.value().procedureOn;
    if (!on || on > this.latest) return '';
    const weeks = weeksBetween(on, this.latest);
    return weeks === 0 ? 'this week' : `${weeks} week${weeks === 1 ? '' : 's'} ago`;
  });
  protected readonly procedure = computed(() => findProcedure(this.value().procedureId ?? ''));
  protected readonly tellAlways = TELL_ALWAYS;

  constructor() {
    effect(() => {
      const episode = this.preparing.record()?.episode;
      // Filled once: what is being typed is not overwritten by what comes back from the server.
      if (!episode || this.filled() === episode.id) return;
      this.filled.set(episode.id);
      const { complaint, involvedSide, complaintAt, dominantSide, procedureId, procedure, procedureOn, wanted, dueOn } = episode;
      this.form.setValue(
        {
          complaint,
          involvedSide,
          complaintAt,
          dominantSide,
          procedureId,
          procedure,
          procedureOn: procedureOn ?? '',
          wanted,
          dueOn: dueOn ?? '',
        },
        { emitEvent: false },
      );
      this.form.updateValueAndValidity();
    });
    this.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => {
      if (this.form.valid && this.form.dirty) this.changed.emit(this.fields());
    });
  }

  fields(): IntakeFields {
    const value = this.form.getRawValue();
    return { ...value, complaint: value.complaint.trim(), procedureOn: value.procedureOn || null, dueOn: value.dueOn || null };
  }
}
