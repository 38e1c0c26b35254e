import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { endFigure, measurementKey, motion, type RunBlock, type RunRow } from '@dial-gauge/core';
import { Exam, type LimbSide, TRIALS_CHOICES } from './exam';

/** Where we are, what is next, and what is left in this position before the patient is turned. */
@Component({
  selector: 'dg-run-sheet',
  imports: [MatButtonModule],
  templateUrl: './run-sheet.html',
  styleUrl: './run-sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunSheet {
  protected readonly exam = inject(Exam);
  protected readonly choices = TRIALS_CHOICES;
  protected readonly sides: readonly LimbSide[] = ['left', 'right'];
  /** Somebody chose a reading by hand. */
  readonly chosen = output<void>();

  protected readonly nameOf = (row: RunRow) => `${motion(row.motion).short.replace('rotation', 'rot.')}, ${row.mode}`;
  protected readonly indexOf = (row: RunRow) => this.exam.rows().indexOf(row);

  protected value(row: RunRow, side: LimbSide): string {
    const measured = this.exam.measuredAt(measurementKey({ ...row, side }));
    return measured ? endFigure(Math.round(measured.value)) : '··';
  }

  protected left(block: RunBlock): number {
    return block.rows.reduce(
      (sum, row) => sum + row.sides.filter((side) => this.exam.cellOfRow(row, side).readings.length === 0).length,
      0,
    );
  }

  protected isHere(row: RunRow, side?: LimbSide): boolean {
    return this.exam.row() === row && (side === undefined || this.exam.place().side === side);
  }

  protected label(row: RunRow, side: LimbSide): string {
    const value = this.value(row, side);
    const cell = this.exam.cellOfRow(row, side);
    const hurts = cell.pain ? `, hurts ${cell.pain} of 10` : '';
    return `${side} ${motion(row.motion).name.toLowerCase()}, ${row.mode}: ${value === '··' ? 'not measured' : `${value} degrees`}${hurts}`;
  }

  protected choose(row: RunRow, side: LimbSide): void {
    this.exam.go(this.indexOf(row), side);
    this.chosen.emit();
  }
}
