import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import {
  ageOn,
  expectedBand,
  describeEnd,
  endFigure,
  findNormSet,
  formatSigned,
  formatSize,
  motion,
  normQuery,
  rounded,
  sidedName,
  suffixOf,
  type ChangeVerdict,
  type Series,
} from '@dial-gauge/core';
import { dayWords, episodeWords, fullName, personWords, shortDay } from '../caseload/words';
import { Api } from '../data/api';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { SeriesChart, type ChartModel } from './series-chart';

const VERDICTS: Readonly<Record<ChangeVerdict, string>> = { more: 'more, real', less: 'less, real', 'within-error': 'within error' };

/** Last visit against this one, motion by motion, with the measuring error always in view. */
@Component({
  selector: 'dg-progress',
  imports: [Frame, Pending, RouterLink, SeriesChart],
  templateUrl: './progress.html',
  styleUrl: './progress.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProgressPage {
  private readonly api = inject(Api);
  readonly id = input.required<string>();
  protected readonly view = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call('progress', { id: params }),
  });
  /** Reading the value of a resource that failed would throw. */
  private readonly loaded = computed(() => (this.view.hasValue() ? this.view.value() : undefined));
  protected readonly words = { dayWords, shortDay, episodeWords, fullName, personWords };
  protected readonly signed = (change: number) => formatSigned(Math.round(change));
  protected readonly verdicts = VERDICTS;

  protected readonly rows = computed(() => this.loaded()?.series ?? []);
  /** The series on the chart; by itself the one that changed most, in multiples of its error. */
  protected readonly chosen = linkedSignal<readonly Series[], Series | undefined>({
    source: this.rows,
    computation: (rows) => [...rows].sort((a, b) => weight(b) - weight(a))[0],
  });

  protected readonly title = computed(() => {
    const series = this.chosen();
    if (!series) return '';
    return sidedName(series.motion, series.side, series.digit);
  });

  protected readonly sentence = computed(() => {
    const series = this.chosen();
    const change = series?.sinceLast;
    if (series && !series.isCurrent) return 'Not measured at this visit: the chart ends where it was measured last.';
    if (!series || !change) return 'One visit so far: a second one, measured the same way, shows whether anything changed.';
    const about = motion(series.motion);
    const now = describeEnd(about, rounded(change.now, about.unit));
    const size = formatSize(Math.abs(change.change), about.unit);
    const limit = `a change counts from ${formatSize(about.unit === 'deg' ? Math.ceil(change.mdc) : change.mdc, about.unit)}`;
    const caveats = change.caveats.length ? ` (${change.caveats.join('; ')})` : '';
    if (change.verdict === 'within-error')
      return `${series.mode} ${now}: ${formatSigned(rounded(change.change, about.unit))}${suffixOf(about.unit)} since the visit before, within measuring error; ${limit}${caveats}.`;
    return `${series.mode} ${now}: ${size} ${change.verdict} than at the visit before, past measuring error; ${limit}${caveats}.`;
  });

  protected readonly chart = computed((): ChartModel | null => {
    const series = this.chosen();
    const view = this.loaded();
    if (!series || !view) return null;
    const twin = this.rows().find(
      (s) =>
        s.motion === series.motion &&
        s.side === series.side &&
        s.protocol === series.protocol &&
        s.digit === series.digit &&
        s.mode !== series.mode,
    );
    const set = findNormSet(view.normSet, view.ownNormSet ? [view.ownNormSet] : []);
    const last = series.points[series.points.length - 1]!;
    const expected = set && expectedBand(set, normQuery(series, view.patient.sex, ageOn(view.patient.birthDate, last.on)));
    return { main: series, twin, expected: expected ?? null, normName: set?.short ?? '' };
  });

  protected name(series: Series): string {
    const { short, unit } = motion(series.motion);
    return unit === 'deg' ? `${short}, ${series.mode}` : short;
  }

  /** The readings a row compares; a motion left out of this visit has nothing new. */
  protected before(series: Series): string {
    const { points, isCurrent } = series;
    const point = isCurrent ? points[points.length - 2] : points[points.length - 1];
    return point ? this.figure(series, point.value) : '··';
  }

  protected now(series: Series): string {
    return series.isCurrent ? this.figure(series, series.points[series.points.length - 1]!.value) : '··';
  }

  private figure(series: Series, value: number): string {
    const about = motion(series.motion);
    return endFigure(rounded(value, about.unit), about);
  }
}

function weight({ sinceLast, mode, isCurrent }: Series): number {
  if (!isCurrent) return -3;
  if (!sinceLast) return mode === 'passive' ? -1 : -2;
  return Math.abs(sinceLast.change) / sinceLast.mdc;
}
