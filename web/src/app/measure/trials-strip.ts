import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { endFigure, formatNumber } from '@dial-gauge/core';
import { Session } from '../data/session';
import type { HeldReading } from './record/cells';
import { Exam } from './exam';
import { holdWords, shownReading } from './reading-words';

/** The readings of this motion one by one, what they come to, and whether they agree. */
@Component({
  selector: 'dg-trials-strip',
  imports: [MatButtonModule, MatIconModule],
  template: `
    <ol aria-label="Readings of this motion">
      @for (slot of slots(); track $index) {
        <li [class.empty]="!slot" [class.unsaved]="slot && !slot.saved">
          <span class="soft">{{ $index + 1 }}</span>
          @if (slot) {
            <button
              type="button"
              class="figure value"
              [attr.aria-label]="'Correct reading ' + ($index + 1) + ', ' + words(slot)"
              (click)="correct.emit(slot)"
            >
              {{ words(slot) }}
            </button>
            <span class="soft">{{ about(slot) }}</span>
          }
        </li>
      }
    </ol>
    <p class="sum" [class.off]="verdict() === 'not consistent'">
      <span>{{ verdict() }}</span>
      <strong class="figure">{{ mean() }}</strong>
    </p>
    @if (hasButtons()) {
      <div class="do">
        <button matButton="filled" type="button" [disabled]="!exam.sources.holds()" (click)="exam.commands.hold(); done.emit()">
          {{ holdWords() }}
        </button>
        <button matButton="outlined" type="button" [disabled]="!exam.commands.canUndo()" (click)="exam.commands.undo(); done.emit()">
          <mat-icon svgIcon="undo" />Undo
        </button>
      </div>
    }
  `,
  styleUrl: './trials-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TrialsStrip {
  protected readonly exam = inject(Exam);
  private readonly session = inject(Session);
  readonly hasButtons = input(true);
  readonly done = output<void>();
  /** A reading that is to be put right. */
  readonly correct = output<HeldReading>();

  protected readonly slots = computed((): (HeldReading | null)[] => {
    const { readings } = this.exam.record.cell();
    return Array.from({ length: Math.max(this.exam.course.trials(), readings.length, 3) }, (_, i) => readings[i] ?? null);
  });

  protected readonly holdWords = computed(() => holdWords(this.exam, 'Hold reading'));

  protected readonly mean = computed(() => {
    const measured = this.exam.record.measured();
    return measured ? `${endFigure(Math.round(measured.value * 10) / 10, this.exam.record.motion())}${this.exam.record.unit()}` : '–';
  });

  protected readonly verdict = computed(() => {
    const measured = this.exam.record.measured();
    if (!measured) return 'not measured';
    if (measured.ends.length === 1) return 'one reading';
    if (measured.consistent === null) return measured.summary;
    return measured.consistent ? `${measured.summary}, consistent` : 'not consistent';
  });

  protected words(reading: HeldReading): string {
    return shownReading(reading, this.exam.record.motion());
  }

  /** What has to be known of a reading beside its figure. */
  protected about(reading: HeldReading): string {
    const who = reading.examiner && reading.examiner !== this.session.current()?.user.name ? reading.examiner : '';
    const was = reading.corrected.at(-1);
    return [
      reading.saved ? '' : 'waiting',
      who && `by ${who}`,
      was ? `was ${formatNumber(was.value)}` : '',
      reading.simulated ? 'simulated' : '',
      reading.pastLimit ? 'past limit' : '',
      !reading.scale && reading.entered && !reading.entered.includes(':') ? reading.entered : '',
    ]
      .filter(Boolean)
      .join(', ');
  }
}
