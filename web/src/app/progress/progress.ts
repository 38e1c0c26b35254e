import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { GOALS, PROGRESS } from '@dial-gauge/contract';
import {
  byChange,
  courseWords,
  dayWords,
  describeEnd,
  formatNumber,
  formatSize,
  headline,
  type MeasurementKey,
  modedName,
  motion,
  type ProgressSeries,
  projectionWords,
  rateWords,
  rounded,
  suffixOf,
  valueNow,
  worseningOf,
  errorSourceWords,
  apartWords,
  goalWords,
  notJoinedWords,
} from '@dial-gauge/core';
import { filter, switchMap } from 'rxjs';
import { episodeWords, fullName, operationWords, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import { Logged } from '../own/logged';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { LazyDialog } from '../ui/lazy-dialog';
import { INSTRUMENT_WORDS } from '../ui/words';
import { chartModel, timelineOf } from './chart-model';
import { ChangeTable, type Against } from './change-table';
import type { GoalAnswer, GoalQuestion } from './goal.dialog';
import { MotionChart } from './motion-chart';
import { ScreenSeries } from './screen-series';
import { SmallMultiples } from './small-multiples';

/** Whether the weeks changed anything: motion by motion, with measuring error, goal and usual course in view. */
@Component({
  selector: 'dg-progress',
  imports: [ChangeTable, Frame, Logged, MatButtonModule, MotionChart, Pending, RouterLink, ScreenSeries, SmallMultiples],
  templateUrl: './progress.html',
  styleUrl: './progress.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProgressPage {
  private readonly api = inject(Api);
  private readonly dialogs = inject(LazyDialog);
  readonly id = input.required<string>();
  protected readonly view = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(PROGRESS.progress, { id: params }),
  });
  /** Reading the value of a resource that failed would throw. */
  private readonly loaded = computed(() => (this.view.hasValue() ? this.view.value() : undefined));
  protected readonly words = { dayWords, episodeWords, fullName, personWords };
  protected readonly problem = signal('');

  /** What got worse comes first. */
  protected readonly rows = computed((): readonly ProgressSeries[] => byChange(this.loaded()?.series ?? []));
  /** The visit that change is told against: by itself one that something got worse since, or else the first. */
  protected readonly against = linkedSignal<readonly ProgressSeries[], Against>({
    source: this.rows,
    computation: ([first], before) => (before && before.source.length > 0 ? before.value : againstWorse(first)),
  });
  protected readonly screens = computed(() => this.loaded()?.screens ?? []);
  /** What is shown large. */
  private readonly key = linkedSignal<readonly ProgressSeries[], MeasurementKey | undefined>({
    source: this.rows,
    computation: (rows, before) => (rows.some((row) => row.key === before?.value) ? before?.value : opensOn(rows)?.key),
  });
  protected readonly chosen = computed(() => this.rows().find((row) => row.key === this.key()));
  protected readonly timeline = computed(() => {
    const view = this.loaded();
    return view ? timelineOf(view.episode, view.series) : null;
  });
  protected readonly chart = computed(() => {
    const [series, view, timeline] = [this.chosen(), this.loaded(), this.timeline()];
    return series && view && timeline ? chartModel(series, view, timeline) : null;
  });

  protected readonly title = computed(() => {
    const series = this.chosen();
    return series ? modedName(series.motion, series.side, series.mode, series.digit) : '';
  });
  protected readonly headline = computed(() => {
    const [series, timeline] = [this.chosen(), this.timeline()];
    return series && timeline ? headline(series, timeline) : '';
  });

  /** Now, goal and the error a change has to beat. */
  protected readonly facts = computed(() => {
    const series = this.chosen();
    if (!series) return '';
    const { unit } = motion(series.motion);
    const change = series.sinceLast;
    const mdc = change && `a change counts from ${formatSize(unit === 'deg' ? Math.ceil(change.mdc) : change.mdc, unit)}`;
    const now = series.isCurrent ? `${valueNow(series)} now` : `${valueNow(series)} at the last reading; not measured at this visit`;
    return [now, mdc].filter(Boolean).join(' · ');
  });
  protected readonly goal = computed(() => {
    const series = this.chosen();
    if (!series) return '';
    if (series.goal) return `Goal: ${goalWords(series.goal, series.motion)}.`;
    return series.noGoal ? `The goal cannot be had: ${series.noGoal}.` : 'No goal is set.';
  });

  /** What there is to know about the readings on the chart. */
  protected readonly notes = computed((): readonly { readonly head: string; readonly text: string }[] => {
    const [series, timeline] = [this.chosen(), this.timeline()];
    if (!series || !timeline) return [];
    const { words: day } = timeline;
    const outside = series.points.flatMap((p) => (p.apart ? [`${day(p.on)}: ${apartWords(p)}`] : []));
    const { recent, course } = series;
    return [
      { head: '', text: projectionWords(series, timeline) },
      ...(course ? [{ head: 'Usual course', text: `${courseWords(series, timeline)} ${course.source}` }] : []),
      ...(recent && !series.projection
        ? [{ head: 'Trend', text: `${rateWords(recent, series.motion)}, over the last ${recent.visits} visits measured the same way.` }]
        : []),
      ...(outside.length
        ? [
            {
              head: 'Measured otherwise',
              text: `${outside.join('; ')}. Its error is wider on the chart, and it takes no part in the trend.`,
            },
          ]
        : []),
      ...series.notJoined.map((of) => ({ head: 'Not compared', text: `${of.on.map(day).join(', ')}: ${notJoinedWords(of)}.` })),
      { head: 'Error', text: `${errorSourceWords(series.errorSource)}.` },
    ].filter(({ text }) => text !== '');
  });

  /** Every reading of the chart as a figure. */
  protected readonly readings = computed(() => {
    const series = this.chosen();
    const timeline = this.timeline();
    if (!series || !timeline) return [];
    const about = motion(series.motion);
    return series.points.map((point, at) => ({
      at,
      day: dayWords(point.on),
      when: timeline.unit === 'weeks' ? timeline.words(point.on) : '',
      value: describeEnd(about, rounded(point.value, about.unit)),
      error: `± ${formatNumber(rounded(point.error, about.unit))}${suffixOf(about.unit)}`,
      how: [INSTRUMENT_WORDS[point.instrument], point.broughtIn ? 'brought in' : point.examiner].filter(Boolean).join(', '),
      pain: point.pain ? `hurt ${point.pain} of 10` : '',
    }));
  });

  protected readonly operation = computed(() => {
    const episode = this.loaded()?.episode;
    return episode ? operationWords(episode) : '';
  });

  protected choose(key: MeasurementKey): void {
    this.key.set(key);
  }

  protected setGoal(): void {
    const [series, view] = [this.chosen(), this.loaded()];
    if (!series || !view) return;
    const { protocol, digit, side, mode } = series;
    const own = view.goals.find((g) => g.protocol === protocol && g.digit === digit && g.side === side && g.mode === mode);
    const data: GoalQuestion = { series, chosen: own?.goal ?? null };
    this.dialogs
      .open<GoalAnswer>(() => import('./goal.dialog').then((m) => m.GoalDialog), { data, width: '540px' })
      .pipe(
        filter((answer) => answer !== undefined),
        switchMap(({ goal }) => this.api.call(GOALS.setGoal, { id: view.episode.id, body: { protocol, digit, side, mode, goal } })),
      )
      .subscribe({
        next: () => {
          this.problem.set('');
          this.view.reload();
        },
        error: (error: unknown) => this.problem.set(`The goal was not saved. ${describeFailure(toFailure(error))}`),
      });
  }
}

function againstWorse(series: ProgressSeries | undefined): Against {
  const worse = series && worseningOf(series);
  if (!worse) return 'first';
  if (worse.since === 'last') return 'last';
  return worse.on === series.points[0]!.on ? 'first' : worse.on;
}

/** What got worse most; or else what changed most since the first visit: each in multiples of its error. */
function opensOn(rows: readonly ProgressSeries[]): ProgressSeries | undefined {
  const times = (one: ProgressSeries): number => worseningOf(one)?.timesError ?? 0;
  const [worst] = [...rows].sort((a, b) => times(b) - times(a));
  return worst && times(worst) > 0 ? worst : [...rows].sort((a, b) => weight(b) - weight(a))[0];
}

function weight({ sinceFirst, mode, isCurrent }: ProgressSeries): number {
  if (!isCurrent) return -3;
  if (!sinceFirst) return mode === 'passive' ? -1 : -2;
  return Math.abs(sinceFirst.change) / sinceFirst.mdc + (mode === 'passive' ? 1e-6 : 0);
}
