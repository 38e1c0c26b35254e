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
import { endFigure, formatWhole, type Degrees, type Series, type SeriesPoint } from '@dial-gauge/core';
import { Chart, Filler, LinearScale, LineController, LineElement, PointElement, type ChartDataset } from 'chart.js';
import { differenceInCalendarDays, parseISO } from 'date-fns';
import { shortDay } from '../caseload/words';
import { ThemeChoice } from '../shell/theme';

Chart.register(Filler, LinearScale, LineController, LineElement, PointElement);

export interface ChartModel {
  readonly main: Series;
  /** The same motion and side in the other mode. */
  readonly twin: Series | undefined;
  readonly expected: { readonly low: Degrees; readonly high: Degrees } | null;
  readonly normName: string;
}

/** One motion over the visits: readings, the ribbon of their measuring error, and the expected band. */
@Component({
  selector: 'dg-series-chart',
  template: `
    <div class="canvas"><canvas #canvas role="img" [attr.aria-label]="text()"></canvas></div>
    <ul class="legend soft" aria-hidden="true">
      <li><span class="main"></span>{{ model().main.mode }}, 95 % error shaded</li>
      @if (model().twin; as twin) {
        <li><span class="twin"></span>{{ twin.mode }}</li>
      }
      @if (model().expected) {
        <li><span class="band"></span>expected, {{ model().normName }}</li>
      }
    </ul>
  `,
  styleUrl: './series-chart.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SeriesChart {
  readonly model = input.required<ChartModel>();
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private chart: Chart | undefined;

  protected readonly text = computed(() => {
    const { main, expected } = this.model();
    const points = main.points.map((p) => `${shortDay(p.on)} ${endFigure(Math.round(p.value))}`).join(', ');
    const band = expected ? `; expected ${formatWhole(expected.low)} to ${formatWhole(expected.high)}` : '';
    return `${main.mode} readings, degrees: ${points}; error plus or minus ${formatWhole(main.points[0]?.error ?? 0)}${band}.`;
  });

  constructor() {
    afterRenderEffect(() => {
      this.theme.theme();
      this.draw(this.model());
    });
    inject(DestroyRef).onDestroy(() => this.chart?.destroy());
  }

  private draw({ main, twin, expected }: ChartModel): void {
    const ink = inkOf(this.canvas().nativeElement);
    const first = main.points[0]!.on;
    const at = (point: SeriesPoint) => differenceInCalendarDays(parseISO(point.on), parseISO(first));
    const xy = (points: readonly SeriesPoint[], shift = (_: SeriesPoint) => 0) => points.map((p) => ({ x: at(p), y: p.value + shift(p) }));
    const last = at(main.points[main.points.length - 1]!);
    const margin = Math.max(last * 0.06, 2);
    const span = { min: -margin, max: last + margin };
    const hidden = { pointRadius: 0, borderWidth: 0 } as const;
    const datasets: ChartDataset<'line', { x: number; y: number }[]>[] = [
      { ...line(main, xy(main.points)), borderColor: ink.petrol, backgroundColor: ink.petrol, pointRadius: 5, borderWidth: 2.5 },
      { ...hidden, data: xy(main.points, (p) => -p.error), fill: false },
      { ...hidden, data: xy(main.points, (p) => p.error), fill: '-1', backgroundColor: ink.brassWash },
      ...(twin
        ? [
            {
              ...line(twin, xy(twin.points)),
              borderColor: ink.petrol,
              backgroundColor: ink.ground,
              pointRadius: 4,
              borderWidth: 1.5,
              borderDash: [6, 4],
            },
          ]
        : []),
      ...(expected
        ? [
            {
              ...hidden,
              data: [
                { x: span.min, y: expected.low },
                { x: span.max, y: expected.low },
              ],
              fill: false as const,
              borderWidth: 1,
              borderColor: ink.petrol,
            },
            {
              ...hidden,
              data: [
                { x: span.min, y: expected.high },
                { x: span.max, y: expected.high },
              ],
              fill: '-1',
              backgroundColor: hatch(ink.petrol),
              borderWidth: 1,
              borderColor: ink.petrol,
            },
          ]
        : []),
    ];
    const days = new Map(main.points.map((p) => [at(p), shortDay(p.on)]));
    this.chart?.destroy();
    this.chart = new Chart(this.canvas().nativeElement, {
      type: 'line',
      data: { datasets },
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        scales: {
          x: {
            type: 'linear',
            ...span,
            grid: { display: false },
            afterBuildTicks: (axis) => (axis.ticks = [...days.keys()].map((value) => ({ value }))),
            ticks: {
              callback: (value) => days.get(Number(value)) ?? '',
              color: ink.soft,
              font: { family: ink.words, size: 13 },
              autoSkip: false,
            },
            border: { color: ink.line },
          },
          y: {
            grace: '8%',
            title: { display: true, text: 'degrees', color: ink.soft, font: { family: ink.words, size: 13 } },
            grid: { color: ink.line },
            ticks: { color: ink.soft, font: { family: ink.figures, size: 12 }, callback: (value) => endFigure(Number(value)) },
            border: { display: false },
          },
        },
      },
    });
  }
}

const line = (series: Series, data: { x: number; y: number }[]) => ({ label: series.mode, data, fill: false as const });

/** The colours of the page, for a canvas that knows no style sheets. */
function inkOf(element: HTMLElement) {
  const style = getComputedStyle(element);
  // A custom property comes back as written, light-dark() and all; a real property comes back resolved.
  const probe = document.createElement('span');
  element.parentElement!.append(probe);
  const colour = (name: string): string => {
    probe.style.color = `var(--${name})`;
    return getComputedStyle(probe).color;
  };
  const ink = {
    petrol: colour('petrol'),
    ground: colour('ground'),
    soft: colour('ink-soft'),
    line: colour('line'),
    brassWash: colour('brass').replace('rgb(', 'rgba(').replace(')', ', 0.26)'),
    words: style.getPropertyValue('--words'),
    figures: style.getPropertyValue('--figures'),
  };
  probe.remove();
  return ink;
}

/** The hatched fill of an expected band, as on the dial. */
function hatch(colour: string): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = tile.height = 8;
  const context = tile.getContext('2d');
  if (!context) return 'transparent';
  context.strokeStyle = colour;
  context.globalAlpha = 0.4;
  context.beginPath();
  context.moveTo(-2, 10);
  context.lineTo(10, -2);
  context.moveTo(-2, 2);
  context.lineTo(2, -2);
  context.moveTo(6, 10);
  context.lineTo(10, 6);
  context.stroke();
  return context.createPattern(tile, 'repeat') ?? 'transparent';
}
