import { ChangeDetectionStrategy, Component } from '@angular/core';
import { arcPath, onDial, ticks } from '../ui/dial/geometry';

/** The engraved half-dial of the door: decoration only. */
@Component({
  selector: 'dg-sign-in-dial',
  template: `
    <svg viewBox="-130 -126 260 142" aria-hidden="true">
      <path [attr.d]="rim" class="rim" />
      @for (tick of ticks; track tick.angle) {
        <line [attr.x1]="tick.from.x" [attr.y1]="tick.from.y" [attr.x2]="tick.to.x" [attr.y2]="tick.to.y" class="tick" />
      }
      @for (mark of numbers; track mark.angle) {
        <text [attr.x]="mark.at.x" [attr.y]="mark.at.y">{{ mark.angle }}</text>
      }
      <line x1="0" y1="0" [attr.x2]="tip.x" [attr.y2]="tip.y" class="needle" />
      <circle r="4" class="pivot" />
    </svg>
  `,
  styles: `
    :host {
      display: grid;
      place-items: center;
      overflow: hidden;
    }
    svg {
      width: 88%;
      max-height: 84%;
    }
    .rim,
    .tick {
      fill: none;
      stroke: var(--ink);
      stroke-width: 0.5;
    }
    text {
      fill: var(--ink-soft);
      /* The face that is here already: decoration fetches none of its own. */
      font:
        400 5.5px 'Atkinson Hyperlegible',
        system-ui,
        sans-serif;
      text-anchor: middle;
      dominant-baseline: middle;
    }
    .needle {
      stroke: var(--brass);
      stroke-width: 2.4;
      stroke-linecap: round;
    }
    .pivot {
      fill: var(--ground);
      stroke: var(--ink);
      stroke-width: 1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInDial {
  private readonly view = { zeroAt: 270, sense: 1 } as const;
  protected readonly rim = arcPath(this.view, 0, 180, 112);
  protected readonly ticks = ticks(this.view, 0, 180, 112);
  protected readonly numbers = Array.from({ length: 19 }, (_, i) => ({ angle: i * 10, at: onDial(this.view, i * 10, 95) }));
  protected readonly tip = onDial(this.view, 125, 106);
}
