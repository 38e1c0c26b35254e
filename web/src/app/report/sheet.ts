import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { ReportView } from '@dial-gauge/contract';
import type { Report } from '@dial-gauge/core';
import { PoseFigure } from '../ui/pose-figure';

/** A page as it prints: black on white, as wide as the paper. */
@Component({
  selector: 'dg-sheet',
  imports: [PoseFigure],
  templateUrl: './sheet.html',
  styleUrl: './sheet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.large]': 'report().large', '[class.letter]': "paper() === 'letter'" },
})
export class Sheet {
  readonly report = input.required<Report>();
  readonly paper = input.required<'a4' | 'letter'>();
  readonly pages = input.required<number>();
  readonly breaks = input.required<ReportView['breaks']>();

  /** The page that begins with an item of a block; 0 where none does. */
  protected pageAt(block: number, item = 0): number {
    return this.breaks().find((one) => one.block === block && one.item === item)?.page ?? 0;
  }
}
