import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { drawPoses, type Pose } from '@dial-gauge/core';

/** A body as it stands at the start and at the end of a drill, from the drill's own data: the end in front, the start behind it. */
@Component({
  selector: 'dg-pose-figure',
  template: `
    <svg [attr.viewBox]="box()" role="img" [attr.aria-label]="label()">
      @for (body of bodies(); track $index) {
        <g [class.start]="body.isStart">
          @for (limb of body.drawing.limbs; track $index) {
            <line
              [attr.x1]="limb.from[0]"
              [attr.y1]="limb.from[1]"
              [attr.x2]="limb.to[0]"
              [attr.y2]="limb.to[1]"
              [attr.stroke-width]="limb.width"
              [class.moves]="limb.moves"
            />
          }
          @if (body.drawing.head; as head) {
            <circle [attr.cx]="head.at[0]" [attr.cy]="head.at[1]" [attr.r]="head.radius" [class.moves]="head.moves" />
          }
        </g>
      }
      @for (piece of end().furniture; track $index) {
        <line [attr.x1]="piece[0][0]" [attr.y1]="piece[0][1]" [attr.x2]="piece[1][0]" [attr.y2]="piece[1][1]" class="furniture" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    line,
    circle {
      stroke: var(--body);
      stroke-linecap: round;
      fill: var(--body);
    }
    circle {
      stroke: none;
    }
    .moves {
      stroke: var(--petrol);
      fill: var(--petrol);
    }
    circle.moves {
      stroke: none;
    }
    .start {
      opacity: 0.35;
    }
    .furniture {
      stroke: var(--line-strong);
      stroke-width: 2.5;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PoseFigure {
  readonly from = input.required<Pose>();
  readonly to = input.required<Pose>();
  readonly label = input.required<string>();
  private readonly drawn = computed(() => drawPoses(this.from(), this.to()));
  protected readonly end = computed(() => this.drawn().end);
  protected readonly bodies = computed(() => this.drawn().bodies);
  protected readonly box = computed(() => {
    const { x, y, width, height } = this.end().frame;
    return `${x} ${y} ${width} ${height}`;
  });
}
