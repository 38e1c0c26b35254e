import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { formatNumber, planeVerdict } from '@dial-gauge/core';
import type { Instrument } from '../live/instruments';
import { PLANE_WORDS, PlaneRing } from '../ui/plane-ring';
import { Exam } from './exam';

const ZERO_WORDS = { start: 'zero at the start', level: 'zero is level', plumb: 'zero is plumb' } as const;

/** What is connected, how it is held, and its zero: one line under the figures. */
@Component({
  selector: 'dg-live-strip',
  imports: [PlaneRing],
  template: `
    @if (live.trouble(); as why) {
      <p class="trouble" role="status">{{ why }}</p>
    }
    @for (one of live.used(); track one.id; let index = $index) {
      <div class="one" [class.stale]="one.isStale">
        <dg-plane-ring [outOfPlane]="one.isStale || !one.shows ? null : one.shows.outOfPlane" />
        <p>
          <strong>{{ live.used().length > 1 ? (index === 0 ? 'upper: ' : 'lower: ') : '' }}{{ one.name }}</strong>
          <span class="figure">{{ figure(one) }}</span>
          <span>{{ about(one) }}</span>
        </p>
      </div>
    } @empty {
      <p>No instrument is connected yet. <button type="button" class="link" (click)="more.emit()">Connect one</button></p>
    }
    <div class="row">
      @if (live.used().length) {
        <button type="button" class="chip" (click)="live.zero('start'); done.emit()"><kbd>w</kbd> Set zero</button>
        <button type="button" class="chip" (click)="live.flip(); done.emit()"><kbd>t</kbd> Other way</button>
      }
      <button type="button" class="chip" (click)="more.emit()"><kbd>d</kbd> More …</button>
    </div>
  `,
  styleUrl: './live-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LiveStrip {
  private readonly exam = inject(Exam);
  protected readonly live = this.exam.live;
  /** Back to the figures. */
  readonly done = output<void>();
  /** All that is not wanted at every reading. */
  readonly more = output<void>();
  private readonly sense = computed(() => this.live.told() ?? this.live.used()[0]?.shows?.way ?? 1);

  protected figure({ shows }: Instrument): string {
    const degrees = shows?.degrees ?? null;
    return degrees === null ? '' : `${formatNumber(Math.round(degrees * this.sense()) + 0)}°`;
  }

  protected about({ shows, isStale, isHere, battery, quality }: Instrument): string {
    if (!isHere) return 'is gone: what it showed last is not where it is now';
    if (!shows) return 'has said nothing yet';
    if (isStale) return 'is silent: what it showed last is not where it is now';
    const low = battery !== null && battery < 0.2 ? `battery ${Math.round(battery * 100)} %` : '';
    const poor = quality === 'poor' ? 'poor signal' : '';
    const zero = shows.zero === null ? 'no zero yet' : shows.lost ? 'way lost: set zero again' : ZERO_WORDS[shows.zero];
    const out = `${Math.round(shows.outOfPlane)}° off plane: ${PLANE_WORDS[planeVerdict(shows.outOfPlane)]}`;
    return [out, zero, low, poor].filter(Boolean).join(' · ');
  }
}
