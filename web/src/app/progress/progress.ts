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
  formatWhole,
  motion,
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
    return `${series.side === 'left' ? 'Left' : 'Right'} ${motion(series.motion).name.toLowerCase()}`;
  });

  protected readonly sentence = computed(() => {
    const series = this.chosen();
    const change = series?.sinceLast;
    if (series && !series.isCurrent) return 'Not measured at this visit: the chart ends where it was measured last.';
    if (!series || !change) return 'One visit so far: a second one, measured the same way, shows whether anything changed.';
    const now = describeEnd(motion(series.motion), Math.round(change.now));
    const size = `${formatWhole(Math.abs(change.change))}°`;
    const limit = `a change counts from ${formatWhole(Math.ceil(change.mdc))}°`;
    const caveats = change.caveats.length ? ` (${change.caveats.join('; ')})` : '';
    if (change.verdict === 'within-error')
      return `${series.mode} ${now}: ${formatSigned(Math.round(change.change))}° since the visit before, within measuring error; ${limit}${caveats}.`;
    return `${series.mode} ${now}: ${size} ${change.verdict} than at the visit before, past measuring error; ${limit}${caveats}.`;
  });

  protected readonly chart = computed((): ChartModel | null => {
    const series = this.chosen();
    const view = this.loaded();
    if (!series || !view) return null;
    const twin = this.rows().find(
      (s) => s.motion === series.motion && s.side === series.side && s.position === series.position && s.mode !== series.mode,
    );
    const set = findNormSet(view.normSet);
    const last = series.points[series.points.length - 1]!;
    const expected = set && expectedBand(set, { ...series, sex: view.patient.sex, age: ageOn(view.patient.birthDate, last.on) });
    return { main: series, twin, expected: expected ?? null, normName: set?.short ?? '' };
  });

  protected name(series: Series): string {
    return `${motion(series.motion).short}, ${series.mode}`;
  }

  /** The readings a row compares; a motion left out of this visit has nothing new. */
  protected before({ points, isCurrent }: Series): string {
    const point = isCurrent ? points[points.length - 2] : points[points.length - 1];
    return point ? endFigure(Math.round(point.value)) : '··';
  }

  protected now({ points, isCurrent }: Series): string {
    return isCurrent ? endFigure(Math.round(points[points.length - 1]!.value)) : '··';
  }
}

function weight({ sinceLast, mode, isCurrent }: Series): number {
  if (!isCurrent) return -3;
  if (!sinceLast) return mode === 'passive' ? -1 : -2;
  return Math.abs(sinceLast.change) / sinceLast.mdc;
}
