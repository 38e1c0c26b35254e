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
import { formatSigned, type LimitsOfAgreement, type WithInterval, formatFixed } from '@dial-gauge/core';
import { Chart, LinearScale, PointElement, ScatterController } from 'chart.js';
import Annotation, { type AnnotationOptions } from 'chartjs-plugin-annotation';
import { ThemeChoice } from '../shell/theme';
import { faint, inkOf, type Ink } from '../ui/chart-ink';

Chart.register(Annotation, LinearScale, PointElement, ScatterController);

export interface PlotModel {
  readonly limits: LimitsOfAgreement;
  /** "first reading", "examiner B" */
  readonly first: string;
  readonly second: string;
  readonly suffix: string;
}

/** Bland and Altman's plot: difference against mean, with the bias, the limits of agreement and the intervals of all three. */
@Component({
  selector: 'dg-agreement-plot',
  template: `<div class="canvas"><canvas #canvas role="img" [attr.aria-label]="text()"></canvas></div>`,
  styles: `
    :host,
    .canvas {
      display: block;
      position: relative;
      height: 300px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AgreementPlot {
  readonly model = input.required<PlotModel>();
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private chart: Chart | undefined;

  protected readonly text = computed(() => {
    const { limits, first, second, suffix } = this.model();
    const { bias, lower, upper, points } = limits;
    return `Difference of ${first} less ${second} against their mean, ${points.length} points: bias ${formatSigned(bias.value)}${suffix}, limits of agreement ${formatSigned(lower.value)} to ${formatSigned(upper.value)}${suffix}.`;
  });

  constructor() {
    afterRenderEffect(() => {
      this.theme.theme();
      this.draw(this.model());
    });
    inject(DestroyRef).onDestroy(() => this.chart?.destroy());
  }

  private draw({ limits, first, second, suffix }: PlotModel): void {
    const canvas = this.canvas().nativeElement;
    const ink = inkOf(canvas);
    const font = (family: string) => ({ family, size: 13 });
    const title = (text: string) => ({ display: true, text, color: ink.soft, font: font(ink.words) });
    this.chart?.destroy();
    this.chart = new Chart(canvas, {
      type: 'scatter',
      data: {
        datasets: [
          {
            data: limits.points.map(({ mean, difference }) => ({ x: mean, y: difference })),
            pointRadius: 5,
            backgroundColor: faint(ink.petrol, 0.75),
            borderColor: ink.petrol,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        events: [],
        layout: { padding: { right: 122, top: 6 } },
        clip: false,
        plugins: { annotation: { clip: false, annotations: annotations(limits, ink, suffix) } },
        scales: {
          x: {
            grace: '6%',
            title: title(`mean of both,${suffix === '°' ? ' degrees' : suffix}`),
            grid: { display: false },
            ticks: { color: ink.soft, font: font(ink.figures) },
          },
          y: {
            suggestedMin: limits.lower.low,
            suggestedMax: limits.upper.high,
            title: title(`${first} − ${second}`),
            grid: { color: ink.line },
            ticks: { color: ink.soft, font: font(ink.figures), callback: (value) => formatSigned(Number(value)) },
          },
        },
      },
    });
  }
}

function annotations({ bias, lower, upper }: LimitsOfAgreement, ink: Ink, suffix: string): Record<string, AnnotationOptions> {
  const line = (name: string, words: string, { value, low, high }: WithInterval, dashed: boolean): Record<string, AnnotationOptions> => ({
    [`${name}Interval`]: {
      type: 'box',
      yMin: low,
      yMax: high,
      backgroundColor: faint(dashed ? ink.brass : ink.petrol, 0.16),
      borderWidth: 0,
      drawTime: 'beforeDatasetsDraw',
    },
    [name]: {
      type: 'line',
      yMin: value,
      yMax: value,
      borderColor: dashed ? ink.ochre : ink.petrol,
      borderWidth: 2,
      ...(dashed ? { borderDash: [6, 4] } : {}),
      label: {
        display: true,
        content: `${words} ${formatSigned(value)}${suffix}`,
        position: 'end',
        xAdjust: 120,
        textAlign: 'left',
        backgroundColor: 'transparent',
        color: ink.ink,
        font: { family: ink.words, size: 13, weight: 'normal' },
      },
    },
  });
  return {
    ...line('bias', 'bias', bias, false),
    ...line('upper', 'upper limit', upper, true),
    ...line('lower', 'lower limit', lower, true),
  };
}

/** "−2.1° (−22 to 17.8)" */
export function withInterval({ value, low, high }: WithInterval, suffix: string): string {
  return `${value > 0 ? '+' : ''}${tenths(value)}${suffix} (${tenths(low)} to ${tenths(high)})`;
}

/** One decimal always, so that figures of one line can be compared. */
const tenths = (value: number): string => formatFixed(Math.abs(value) < 0.05 ? 0 : value, 1);
