import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  type ElementRef,
  inject,
  input,
  viewChild,
} from '@angular/core';
import { describeEnd, endFigure, formatNumber, motion, rounded, shortDay, suffixOf, apartWords } from '@dial-gauge/core';
import { Chart, Filler, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import Annotation from 'chartjs-plugin-annotation';

import { ThemeChoice } from '../shell/theme';
import type { ChartModel } from './chart-model';
import { inkOf } from '../ui/chart-ink';
import { annotationsOf, linesOf, marksOf } from './chart-parts';

Chart.register(Annotation, Filler, LinearScale, LineController, LineElement, PointElement);

/** Room to the right for the words at the ends of the lines. */
const FOR_WORDS = 96;
/** Days of visits closer than this on the axis are not both named. */
const DAY_WIDTH = 52;

/** One motion over the visits: readings with the ribbon of their error, held against norm, goal, limits and the usual course. */
@Component({
  selector: 'dg-motion-chart',
  template: `
    <div class="canvas"><canvas #canvas role="img" [attr.aria-label]="text()"></canvas></div>
    <ul class="legend soft" aria-hidden="true">
      <li><span class="main"></span>{{ isAngle() ? model().main.mode : 'readings' }}, 95 % error shaded</li>
      @if (model().twin; as twin) {
        <li><span class="twin"></span>{{ twin.mode }}</li>
      }
      @if (model().norm; as norm) {
        <li><span class="band"></span>expected, {{ norm.name }}</li>
      }
      @if (model().main.course) {
        <li><span class="course"></span>usual course</li>
      }
    </ul>
  `,
  styleUrl: './motion-chart.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MotionChart {
  readonly model = input.required<ChartModel>();
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private chart: Chart | undefined;

  protected readonly isAngle = computed(() => motion(this.model().main.motion).unit === 'deg');

  /** The chart for those who do not see it. */
  protected readonly text = computed(() => {
    const { main, norm, timeline, windows } = this.model();
    const about = motion(main.motion);
    const when = (on: string) => (timeline.unit === 'weeks' ? timeline.words(on) : shortDay(on));
    const points = main.points.map(
      (p) => `${when(p.on)} ${endFigure(rounded(p.value, about.unit), about)}${p.apart ? ` (${apartWords(p)})` : ''}`,
    );
    const parts = [
      `${this.isAngle() ? `${main.mode} readings, degrees` : `readings,${suffixOf(about.unit)}`}: ${points.join(', ')}`,
      `error plus or minus ${formatNumber(rounded(main.points[0]?.error ?? 0, about.unit))}`,
      norm && `expected ${formatNumber(rounded(norm.low, about.unit))} to ${formatNumber(rounded(norm.high, about.unit))}`,
      main.goal && `goal ${describeEnd(about, rounded(main.goal.value, about.unit))}`,
      ...windows.map((w) => `limit ${w.limit === null ? '' : describeEnd(about, w.limit)} ${w.words}`),
      main.plateau && `no real change since ${when(main.plateau.from)}`,
    ];
    return `${parts.filter(Boolean).join('; ')}.`;
  });

  constructor() {
    afterRenderEffect(() => {
      this.theme.theme();
      this.draw(this.model());
    });
    inject(DestroyRef).onDestroy(() => this.chart?.destroy());
  }

  private draw(model: ChartModel): void {
    const canvas = this.canvas().nativeElement;
    const ink = inkOf(canvas);
    const { main, timeline } = model;
    const about = motion(main.motion);
    const span = spanOf(model);
    const days = new Map(main.points.map((p) => [timeline.at(p.on), shortDay(p.on)]));
    const font = (family: string) => ({ family, size: 13 });
    this.chart?.destroy();
    this.chart = new Chart(canvas, {
      type: 'line',
      data: { datasets: linesOf(model, ink, span) },
      plugins: [marksOf(model, ink)],
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        layout: { padding: { right: FOR_WORDS, top: 8 } },
        plugins: { annotation: { annotations: annotationsOf(model, ink) } },
        scales: {
          x: {
            type: 'linear',
            ...span,
            grid: { display: false },
            border: { color: ink.line },
            title: {
              display: timeline.unit === 'weeks',
              text: 'weeks since the operation',
              color: ink.soft,
              font: font(ink.words),
              align: 'end',
            },
            ...(timeline.unit === 'weeks'
              ? { ticks: { color: ink.soft, font: font(ink.figures), precision: 0, includeBounds: false } }
              : {
                  afterBuildTicks: (axis) => (axis.ticks = spaced([...days.keys()], span, axis.width).map((value) => ({ value }))),
                  ticks: { callback: (value) => days.get(Number(value)) ?? '', color: ink.soft, font: font(ink.words), autoSkip: false },
                }),
          },
          y: {
            grace: '8%',
            ...(main.goal ? { suggestedMin: main.goal.value, suggestedMax: main.goal.value } : {}),
            grid: { color: ink.line },
            border: { display: false },
            ticks: { callback: (value) => endFigure(rounded(Number(value), about.unit), about), color: ink.soft, font: font(ink.figures) },
          },
        },
      },
    });
  }
}

/** From the operation where the visits came soon after it, otherwise from the first visit; a little air at both ends. */
function spanOf({ main, twin, across, timeline, operatedOn }: ChartModel): { min: number; max: number } {
  const xs = [main, ...(twin ? [twin] : []), ...across].flatMap((series) => series.points.map((p) => timeline.at(p.on)));
  const [first, last] = [Math.min(...xs), Math.max(...xs)];
  const margin = Math.max((last - first) * 0.06, timeline.unit === 'weeks' ? 0.4 : 2);
  const fromOperation = operatedOn !== null && first <= Math.max(last - first, 6);
  return { min: fromOperation ? 0 : first - margin, max: last + margin };
}

/** Days that have room to be named: the first, the last, and what fits between. */
function spaced(days: readonly number[], { min, max }: { min: number; max: number }, width: number): number[] {
  const apart = (DAY_WIDTH / Math.max(width - FOR_WORDS, 1)) * (max - min);
  const last = days[days.length - 1];
  return days.reduce<number[]>((kept, day) => {
    const before = kept[kept.length - 1];
    const fits = (before === undefined || day - before >= apart) && (day === last || last === undefined || last - day >= apart);
    return fits ? [...kept, day] : kept;
  }, []);
}
