import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatRadioModule } from '@angular/material/radio';
import { MatSelectModule } from '@angular/material/select';
import {
  checkValue,
  describeEnd,
  motion,
  protocolOfId,
  sidedName,
  suffixOf,
  TASK_NEEDS,
  type GoalChoice,
  type GoalSource,
  type ProgressSeries,
} from '@dial-gauge/core';

export interface GoalQuestion {
  readonly series: ProgressSeries;
  /** What was chosen before; null: it follows from the sides, or there is none. */
  readonly chosen: GoalChoice | null;
}

/** `null` takes a chosen goal back. */
export interface GoalAnswer {
  readonly goal: GoalChoice | null;
}

/** Where the goal of one measurement comes from. */
@Component({
  selector: 'dg-goal',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatRadioModule, MatSelectModule],
  templateUrl: './goal.dialog.html',
  styles: `
    mat-radio-group {
      display: grid;
    }
    .fields {
      display: grid;
      grid-template-columns: 1fr 1.6fr;
      gap: 12px;
      padding-top: 8px;
    }
    .wide {
      grid-column: 1 / -1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GoalDialog {
  private readonly dialog = inject<MatDialogRef<GoalDialog, GoalAnswer>>(MatDialogRef);
  protected readonly ask = inject<GoalQuestion>(MAT_DIALOG_DATA);
  private readonly about = motion(this.ask.series.motion);
  protected readonly name = `${sidedName(this.ask.series.motion, this.ask.series.side, this.ask.series.digit)}, ${this.ask.series.mode}`;
  protected readonly unit = suffixOf(this.about.unit).trim();
  protected readonly tasks = TASK_NEEDS.filter((need) => need.motion === this.ask.series.motion).map(({ task, atLeast }) => ({
    task,
    words: `${task}: ${describeEnd(this.about, atLeast)}`,
  }));
  protected readonly hasOtherSide = this.ask.series.side !== 'midline';

  protected readonly source = signal<GoalSource>(this.ask.chosen?.source ?? (this.hasOtherSide ? 'other-side' : 'hand'));
  protected readonly value = signal(text(this.ask.chosen?.value));
  protected readonly less = signal(text(this.ask.chosen?.less));
  protected readonly task = signal(this.ask.chosen?.task ?? this.tasks[0]?.task ?? '');
  protected readonly note = signal(this.ask.chosen?.note ?? '');
  protected readonly tried = signal(false);

  /** What is wrong with what was typed, and what is allowed. */
  protected readonly problem = computed(() => {
    const instrument = protocolOfId(this.ask.series.protocol)?.instruments[0];
    if (this.source() === 'hand') {
      const value = number(this.value());
      if (value === null) return `Goal: type a number in ${this.unit || 'the unit of the motion'}; short of zero as −5.`;
      const wrong = instrument && checkValue(this.ask.series.motion, instrument, value);
      return wrong ? `Goal: ${this.value()} ${wrong}.` : '';
    }
    const less = number(this.less() || '0');
    if (this.source() === 'other-side' && (less === null || less < 0 || less > 90))
      return 'Less than the other side: a number from 0 to 90.';
    return '';
  });

  protected save(): void {
    this.tried.set(true);
    if (this.problem()) return;
    const note = this.note().trim();
    const less = number(this.less() || '0') ?? 0;
    const source = this.source();
    const goal: GoalChoice = {
      source,
      ...(source === 'hand' ? { value: number(this.value())! } : {}),
      ...(source === 'task' ? { task: this.task() } : {}),
      ...(source === 'other-side' && less > 0 ? { less } : {}),
      ...(note ? { note } : {}),
    };
    this.dialog.close({ goal });
  }

  protected takeBack(): void {
    this.dialog.close({ goal: null });
  }
}

const text = (value: number | undefined): string => (value === undefined ? '' : String(value));

function number(typed: string): number | null {
  const plain = typed.trim().replace(',', '.').replace('−', '-');
  return plain !== '' && Number.isFinite(Number(plain)) ? Number(plain) : null;
}
