import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { formatNumber, type CourseBand, type GroupSpread } from '@dial-gauge/core';

const [WIDTH, EDGE] = [240, 8] as const;

/** Where the people of a group lie, on an engraved rule: thin from a tenth to nine tenths, thick the middle half, a needle at the middle; hatched what is usual. Its figures stand beside it. */
@Component({
  selector: 'dg-spread-rule',
  template: `
    <svg viewBox="0 0 240 44" aria-hidden="true">
      <line class="rule" x1="8" x2="232" y1="29" y2="29" />
      @for (tick of ticks(); track tick.at) {
        <line class="rule" [attr.x1]="tick.at" [attr.x2]="tick.at" [attr.y1]="tick.long ? 22 : 26" y2="29" />
      }
      <text x="8" y="41">{{ figure(from()) }}</text>
      <text x="232" y="41" text-anchor="end">{{ figure(to()) }}</text>
      @if (usualAt(); as u) {
        <rect class="usual" [attr.x]="u.from" y="3" [attr.width]="u.width" height="16" />
      }
      <line class="most" [attr.x1]="at().p10" [attr.x2]="at().p90" y1="11" y2="11" />
      <rect class="half" [attr.x]="at().q1" y="7" [attr.width]="at().q3 - at().q1" height="8" />
      <line class="middle" [attr.x1]="at().median" [attr.x2]="at().median" y1="3" y2="19" />
    </svg>
  `,
  styles: `
    svg {
      display: block;
      width: 240px;
      max-width: 100%;
    }
    .rule {
      stroke: var(--line-strong);
    }
    text {
      fill: var(--ink-soft);
      font-size: 10px;
    }
    .most {
      stroke: var(--petrol);
      stroke-width: 2;
    }
    .half {
      fill: var(--petrol);
    }
    .middle {
      stroke: var(--brass);
      stroke-width: 3;
    }
    .usual {
      fill: none;
      stroke: var(--ink-soft);
      stroke-dasharray: 2 3;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpreadRule {
  readonly spread = input.required<GroupSpread>();
  readonly usual = input<CourseBand | null>(null);
  /** From where to where the rule goes; the same for all that are compared. */
  readonly from = input.required<number>();
  readonly to = input.required<number>();

  protected readonly figure = formatNumber;

  private readonly x = computed(() => {
    const [from, to] = [this.from(), this.to()];
    return (value: number) => EDGE + ((Math.min(Math.max(value, from), to) - from) / (to - from || 1)) * (WIDTH - 2 * EDGE);
  });
  protected readonly at = computed(() => {
    const [{ p10, q1, median, q3, p90 }, x] = [this.spread(), this.x()];
    return { p10: x(p10), q1: x(q1), median: x(median), q3: x(q3), p90: x(p90) };
  });
  protected readonly usualAt = computed(() => {
    const usual = this.usual();
    if (!usual) return null;
    const from = this.x()(usual.low);
    return { from, width: Math.max((usual.high === null ? WIDTH - EDGE : this.x()(usual.high)) - from, 2) };
  });
  protected readonly ticks = computed(() => {
    const [from, to] = [this.from(), this.to()];
    const step = to - from > 20 ? 5 : to - from > 4 ? 1 : 0.5;
    const count = Math.min(Math.floor((to - from) / step), 80);
    return Array.from({ length: count + 1 }, (_, n) => ({ at: this.x()(from + n * step), long: Math.round(from / step + n) % 2 === 0 }));
  });
}
