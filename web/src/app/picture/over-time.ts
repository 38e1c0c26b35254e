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
import { formatFixed } from '@dial-gauge/core';
import { Chart, LinearScale, LineController, LineElement, PointElement } from 'chart.js';
import { ThemeChoice } from '../shell/theme';
import { inkOf } from '../ui/chart-ink';

Chart.register(LinearScale, LineController, LineElement, PointElement);

export interface OverTime {
  readonly label: string;
  readonly points: readonly { readonly t: number; readonly degrees: number }[];
  readonly peak: { readonly t: number; readonly degrees: number } | null;
}

/** One angle over the marked moments of a clip. */
@Component({
  selector: 'dg-over-time',
  template: `<div class="canvas"><canvas #canvas role="img" [attr.aria-label]="text()"></canvas></div>`,
  styles: `
    :host,
    .canvas {
      display: block;
      position: relative;
      height: 150px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OverTimeChart {
  readonly model = input.required<OverTime>();
  private readonly theme = inject(ThemeChoice);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private chart: Chart | undefined;

  protected readonly text = computed(() => {
    const { label, points, peak } = this.model();
    const said = points.map(({ t, degrees }) => `${formatFixed(t, 2)} s: ${formatFixed(degrees, 0)}°`).join(', ');
    return `${label} over time: ${said}${peak ? `; most ${formatFixed(peak.degrees, 0)}° at ${formatFixed(peak.t, 2)} s` : ''}.`;
  });

  constructor() {
    afterRenderEffect(() => {
      this.theme.theme();
      this.draw(this.model());
    });
    inject(DestroyRef).onDestroy(() => this.chart?.destroy());
  }

  private draw({ points, peak }: OverTime): void {
    const ink = inkOf(this.canvas().nativeElement);
    this.chart?.destroy();
    this.chart = new Chart(this.canvas().nativeElement, {
      type: 'line',
      data: {
        datasets: [
          {
            data: points.map(({ t, degrees }) => ({ x: t, y: degrees })),
            borderColor: ink.petrol,
            backgroundColor: ink.petrol,
            pointRadius: points.map(({ t }) => (t === peak?.t ? 7 : 4)),
            pointStyle: points.map(({ t }) => (t === peak?.t ? 'triangle' : 'circle')),
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        plugins: { tooltip: { enabled: false } },
        scales: {
          x: { type: 'linear', ticks: { color: ink.soft, callback: (value) => `${value} s` }, grid: { color: ink.line } },
          y: { type: 'linear', ticks: { color: ink.soft, callback: (value) => `${value}°` }, grid: { color: ink.line } },
        },
      },
    });
  }
}
