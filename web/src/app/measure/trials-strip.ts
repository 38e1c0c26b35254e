import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { endFigure, formatNumber } from '@dial-gauge/core';
import { Exam, type HeldReading } from './exam';

/** The readings of this motion one by one, what they come to, and whether they agree. */
@Component({
  selector: 'dg-trials-strip',
  imports: [MatButtonModule, MatIconModule],
  template: `
    <ol aria-label="Readings of this motion">
      @for (slot of slots(); track $index) {
        <li [class.empty]="!slot" [class.unsaved]="slot && !slot.saved">
          <span class="soft">{{ $index + 1 }}</span>
          <span class="figure value">{{ slot ? words(slot) : '' }}</span>
          @if (slot && !slot.saved) {
            <span class="soft">waiting</span>
          }
        </li>
      }
    </ol>
    <p class="sum" [class.off]="verdict() === 'not consistent'">
      <span>{{ verdict() }}</span>
      <strong class="figure">{{ mean() }}</strong>
    </p>
    <div class="do">
      <button matButton="filled" type="button" [disabled]="!exam.typed()" (click)="exam.hold(); done.emit()">Hold reading</button>
      <button matButton="outlined" type="button" [disabled]="!exam.canUndo()" (click)="exam.undo(); done.emit()">
        <mat-icon svgIcon="undo" />Undo
      </button>
    </div>
  `,
  styleUrl: './trials-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TrialsStrip {
  protected readonly exam = inject(Exam);
  readonly done = output<void>();

  protected readonly slots = computed((): (HeldReading | null)[] => {
    const { readings } = this.exam.cell();
    return Array.from({ length: Math.max(3, readings.length) }, (_, i) => readings[i] ?? null);
  });

  protected readonly mean = computed(() => {
    const measured = this.exam.measured();
    return measured ? `${endFigure(Math.round(measured.value * 10) / 10, this.exam.motion())}${this.exam.unit()}` : '–';
  });

  protected readonly verdict = computed(() => {
    const measured = this.exam.measured();
    if (!measured) return 'not measured';
    if (measured.ends.length === 1) return 'one reading';
    if (measured.consistent === null) return measured.summary;
    return measured.consistent ? `${measured.summary}, consistent` : 'not consistent';
  });

  protected words({ start, end, lower }: HeldReading): string {
    if (lower)
      return start === 0 && lower.zero === 0
        ? `${formatNumber(end)}/${formatNumber(lower.end)}`
        : `${formatNumber(end - start)}/${formatNumber(lower.end - lower.zero)}`;
    return start === 0 ? endFigure(end, this.exam.motion()) : `${formatNumber(start)}/${formatNumber(end)}`;
  }
}
