import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import type { NotDone } from '@dial-gauge/contract';
import {
  endFigure,
  measurementKey,
  motion,
  rounded,
  stationWords,
  turnWords,
  type RunBlock,
  type RunRow,
  type Side,
} from '@dial-gauge/core';
import { Exam } from './exam';
import { TRIALS_CHOICES } from './exam-course';
import { UNIT_WORDS } from '../ui/words';

/** Short for a narrow column; the label says it in full. */
const NOT_DONE_MARK: Readonly<Record<NotDone, string>> = { 'left-out': 'out', refused: 'ref.', 'not-possible': 'n/p' };

/** Where we are, what is next, and what is left in this position before the patient is turned. */
@Component({
  selector: 'dg-run-sheet',
  imports: [MatButtonModule, MatIconModule],
  templateUrl: './run-sheet.html',
  styleUrl: './run-sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunSheet {
  protected readonly exam = inject(Exam);
  protected readonly choices = TRIALS_CHOICES;
  protected readonly stationOf = (block: RunBlock): string => stationWords(block.station);
  /** Somebody chose a reading by hand. */
  readonly chosen = output<void>();
  /** Somebody wants another way of measuring on the sheet. */
  readonly add = output<void>();

  /** One joint needs no name on every line; several do. */
  private readonly oneRegion = computed(() => new Set(this.exam.record.rows().map((row) => motion(row.motion).joint)).size === 1);

  protected nameOf(row: RunRow): string {
    const { short, name, unit } = motion(row.motion);
    const said = [
      (this.oneRegion() ? short : name).replace('rotation', 'rot.'),
      row.digit ? `finger ${row.digit}` : '',
      this.exam.record.labelOf(row),
    ];
    return [...said, unit === 'deg' ? row.mode : ''].filter(Boolean).join(', ');
  }

  /** The two columns of a row: left and right, or one cell for both where there is no side. */
  protected readonly sidesOf = (row: RunRow): readonly Side[] => (row.sides[0] === 'midline' ? ['midline'] : ['left', 'right']);

  /** "Turn patient prone": what is done before a block. */
  protected turnOf(index: number): string {
    const [before, block] = [this.exam.record.blocks()[index - 1]!, this.exam.record.blocks()[index]!];
    return turnWords(block.station, before.station);
  }

  protected isTurning(block: RunBlock): boolean {
    return this.exam.course.turning()?.to === block.station;
  }

  protected value(row: RunRow, side: Side): string {
    const { notDone } = this.exam.record.cellOfRow(row, side);
    const measured = this.exam.record.measuredAt(measurementKey({ ...row, side }));
    const about = motion(row.motion);
    return measured ? endFigure(rounded(measured.value, about.unit), about) : notDone ? NOT_DONE_MARK[notDone] : '··';
  }

  protected left(block: RunBlock): number {
    return block.rows.reduce(
      (sum, row) =>
        sum +
        row.sides.filter((side) => {
          const cell = this.exam.record.cellOfRow(row, side);
          return cell.readings.length === 0 && cell.notDone === null;
        }).length,
      0,
    );
  }

  protected isHere(row: RunRow, side?: Side): boolean {
    return this.exam.record.row() === row && (side === undefined || this.exam.record.place().side === side);
  }

  protected label(row: RunRow, side: Side): string {
    const value = this.value(row, side);
    const cell = this.exam.record.cellOfRow(row, side);
    if (cell.readings.length === 0 && cell.notDone) return `${this.exam.record.nameOf(row, side)}: ${cell.notDone.replace('-', ' ')}`;
    const hurts = cell.pain ? `, hurts ${cell.pain} of 10` : '';
    return `${this.exam.record.nameOf(row, side)}: ${value === '··' ? 'not measured' : `${value} ${UNIT_WORDS[motion(row.motion).unit]}`}${hurts}`;
  }

  protected choose(row: RunRow, side: Side): void {
    this.exam.course.go(this.exam.record.rows().indexOf(row), side);
    this.chosen.emit();
  }
}
