import { ChangeDetectionStrategy, Component, computed, input, model, output } from '@angular/core';
import type { VisitView } from '@dial-gauge/contract';
import {
  type Change,
  changeAt,
  changeWord,
  endFigure,
  formatSigned,
  type MeasurementKey,
  motion,
  type ProgressSeries,
  rounded,
  shortDay,
  caveatWords,
} from '@dial-gauge/core';

/** What the last reading is held against: the first one, the one before, or that of a visit. */
export type Against = 'first' | 'last' | (string & {});

interface Row {
  readonly key: MeasurementKey;
  readonly name: string;
  readonly side: string;
  readonly before: string;
  readonly now: string;
  readonly change: string;
  readonly verdict: string;
  /** Why the error is larger than usual. */
  readonly caveats: string;
}

/** Change of every motion since a visit that is chosen: really better, really worse, or within measuring error. */
@Component({
  selector: 'dg-change-table',
  templateUrl: './change-table.html',
  styleUrl: './change-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChangeTable {
  readonly series = input.required<readonly ProgressSeries[]>();
  /** Oldest first, the last is the one that is compared. */
  readonly visits = input.required<readonly VisitView[]>();
  readonly chosen = input<MeasurementKey>();
  readonly choose = output<MeasurementKey>();
  readonly against = model<Against>('first');

  /** Visits between the first and the one before the last. */
  protected readonly between = computed(() => this.visits().slice(1, -2));
  protected readonly rows = computed(() => this.series().map((series) => rowOf(series, this.against())));
  protected readonly day = shortDay;

  protected pick(event: Event): void {
    this.against.set((event.target as HTMLSelectElement).value);
  }
}

/** The change against a visit; null where it was not measured then, or has nothing new to say. */
function changeAgainst(series: ProgressSeries, against: Against): Omit<Change, 'errorSource'> | null {
  if (!series.isCurrent) return null;
  if (against === 'first') return series.sinceFirst;
  if (against === 'last') return series.sinceLast;
  return changeAt(
    series,
    series.points.findIndex((point) => point.on === against),
  );
}

function rowOf(series: ProgressSeries, against: Against): Row {
  const about = motion(series.motion);
  const change = changeAgainst(series, against);
  const figure = (value: number) => endFigure(rounded(value, about.unit), about);
  const last = series.points[series.points.length - 1]!;
  const verdict = !series.isCurrent
    ? 'not this time'
    : change
      ? changeWord(change)
      : series.points.length === 1
        ? 'first reading'
        : 'not measured then';
  return {
    key: series.key,
    name: about.unit === 'deg' ? `${about.short}, ${series.mode}` : about.short,
    side: series.side === 'midline' ? '' : series.side,
    before: change ? figure(change.before) : series.isCurrent ? '··' : figure(last.value),
    now: series.isCurrent ? figure(last.value) : '··',
    change: change ? formatSigned(rounded(change.change, about.unit)) : '··',
    verdict,
    caveats: change?.caveats.map(caveatWords).join('; ') ?? '',
  };
}
