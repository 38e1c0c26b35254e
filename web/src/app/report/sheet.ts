import { ChangeDetectionStrategy, Component, input } from '@angular/core';
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
}
