import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { QueueLine } from '@dial-gauge/core';

const [WIDTH, HEIGHT, EDGE] = [72, 30, 4] as const;

/** The last readings of one motion, and the goal they are to reach: a line, its words stand beside it. */
@Component({
  selector: 'dg-spark',
  template: `
    <svg viewBox="0 0 72 30" aria-hidden="true">
      @if (goal(); as y) {
        <line class="goal" x1="0" x2="72" [attr.y1]="y" [attr.y2]="y" />
      }
      <polyline [attr.points]="path()" />
      @for (dot of dots(); track $index) {
        <circle [attr.cx]="dot.x" [attr.cy]="dot.y" r="2.4" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      width: 72px;
    }
    svg {
      display: block;
      width: 100%;
    }
    polyline {
      fill: none;
      stroke: var(--petrol);
      stroke-width: 1.6;
    }
    circle {
      fill: var(--petrol);
    }
    .goal {
      stroke: var(--brass);
      stroke-width: 1.6;
      stroke-dasharray: 3 3;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Spark {
  readonly line = input.required<QueueLine>();

  private readonly scale = computed(() => {
    const { points, goal } = this.line();
    const values = [...points.map(({ value }) => value), ...(goal === null ? [] : [goal])];
    const days = points.map(({ on }) => Date.parse(on));
    const [low, high, first, last] = [Math.min(...values), Math.max(...values), Math.min(...days), Math.max(...days)];
    return {
      x: (at: number) => (last === first ? WIDTH / 2 : EDGE + ((at - first) / (last - first)) * (WIDTH - 2 * EDGE)),
      y: (value: number) => (high === low ? HEIGHT / 2 : HEIGHT - EDGE - ((value - low) / (high - low)) * (HEIGHT - 2 * EDGE)),
    };
  });
  protected readonly dots = computed(() => {
    const { x, y } = this.scale();
    return this.line().points.map(({ on, value }) => ({ x: x(Date.parse(on)), y: y(value) }));
  });
  protected readonly path = computed(() =>
    this.dots()
      .map(({ x, y }) => `${x},${y}`)
      .join(' '),
  );
  protected readonly goal = computed(() => {
    const { goal } = this.line();
    return goal === null ? null : this.scale().y(goal);
  });
}
