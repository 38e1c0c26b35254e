import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { drawScene } from '@dial-gauge/core';

/** Lines drawn over a squat seen from the side, degrees forward of upright. */
export interface SquatLines {
  readonly shin: number;
  readonly trunk: number;
}

/** A body in the middle of a movement, drawn from data. */
@Component({
  selector: 'dg-scene',
  template: `
    @let d = drawing();
    <svg [attr.viewBox]="box()" role="img" [attr.aria-label]="label() + ', seen ' + d.seenFrom">
      @for (piece of d.furniture; track $index) {
        <line [attr.x1]="piece[0][0]" [attr.y1]="piece[0][1]" [attr.x2]="piece[1][0]" [attr.y2]="piece[1][1]" class="furniture" />
      }
      @for (limb of d.limbs; track $index) {
        <line
          [attr.x1]="limb.from[0]"
          [attr.y1]="limb.from[1]"
          [attr.x2]="limb.to[0]"
          [attr.y2]="limb.to[1]"
          [attr.stroke-width]="limb.width"
          class="limb"
        />
      }
      @if (d.head; as head) {
        <circle [attr.cx]="head.at[0]" [attr.cy]="head.at[1]" [attr.r]="head.radius" class="head" />
      }
      @for (line of drawnLines(); track line.name) {
        <line [attr.x1]="line.x1" [attr.y1]="line.y1" [attr.x2]="line.x2" [attr.y2]="line.y2" class="line" />
        <text [attr.x]="line.x2 - 4" [attr.y]="line.y2 - 6" class="name" text-anchor="end">{{ line.name }}</text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    .furniture {
      stroke: var(--line-strong);
      stroke-width: 2.5;
    }
    .limb {
      stroke: var(--body);
      stroke-linecap: round;
    }
    .head {
      fill: var(--body);
    }
    .line {
      stroke: var(--petrol);
      stroke-width: 3;
      stroke-dasharray: 1 6;
      stroke-linecap: round;
    }
    .name {
      fill: var(--petrol);
      font: 700 13px var(--figures);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SceneFigure {
  readonly scene = input.required<string>();
  readonly label = input.required<string>();
  readonly lines = input<SquatLines | null>(null);
  protected readonly drawing = computed(() => drawScene(this.scene()));
  protected readonly box = computed(() => {
    const { x, y, width, height } = this.drawing().frame;
    return `${x} ${y} ${width} ${height}`;
  });
  /** From ankle and hip up, leaning forward (to the left) by so many degrees. */
  protected readonly drawnLines = computed(() => {
    const lines = this.lines();
    const [hip, knee] = [this.drawing().limbs[2], this.drawing().limbs[3]];
    if (!lines || !hip || !knee) return [];
    const line = (name: string, [x1, y1]: readonly [number, number], degrees: number, length: number) => {
      const at = (degrees * Math.PI) / 180;
      return { name: `${name} ${degrees}°`, x1, y1, x2: x1 - length * Math.sin(at), y2: y1 - length * Math.cos(at) };
    };
    return [line('shin', knee.to, lines.shin, 120), line('trunk', hip.from, lines.trunk, 120)];
  });
}
