import { ChangeDetectionStrategy, Component, computed, type ElementRef, viewChild } from '@angular/core';
import { drawnFor, rightPlace, type Point } from '@dial-gauge/core';
import { ProtocolFigure } from '../ui/figure/figure';
import { nudgeOf } from '../ui/nudge';
import { TaskView } from './task-view';

const PARTS = ['axis', 'still', 'moving'] as const;
type Part = (typeof PARTS)[number];
const LABELS: Readonly<Record<Part, string>> = { axis: 'axis', still: 'still arm', moving: 'moving arm' };

/** Axis and arms, laid on the figure by thumb, mouse or arrow keys. */
@Component({
  selector: 'dg-place-task',
  imports: [ProtocolFigure],
  template: `
    <div class="stage">
      <dg-figure [protocol]="task().protocol" [shown]="drawing()" [bare]="true" label="The limb, moved; nothing is laid on it yet" />
      <svg #over [attr.viewBox]="box()" (pointerdown)="put($event)" [class.done]="answered() !== null">
        @if (truth(); as right) {
          <g class="truth">
            <line [attr.x1]="right.axis[0]" [attr.y1]="right.axis[1]" [attr.x2]="right.still[0]" [attr.y2]="right.still[1]" />
            <line [attr.x1]="right.axis[0]" [attr.y1]="right.axis[1]" [attr.x2]="right.moving[0]" [attr.y2]="right.moving[1]" />
            <circle [attr.cx]="right.axis[0]" [attr.cy]="right.axis[1]" r="7" />
          </g>
        }
        @if (laid().axis; as axis) {
          @if (laid().still; as still) {
            <line [attr.x1]="axis[0]" [attr.y1]="axis[1]" [attr.x2]="still[0]" [attr.y2]="still[1]" class="still" />
          }
          @if (laid().moving; as moving) {
            <line [attr.x1]="axis[0]" [attr.y1]="axis[1]" [attr.x2]="moving[0]" [attr.y2]="moving[1]" class="moving" />
          }
        }
        @for (part of placed(); track part.id) {
          <g
            class="handle"
            [attr.tabindex]="answered() ? null : 0"
            role="button"
            [attr.aria-label]="part.label + ', at ' + part.at[0] + ', ' + part.at[1] + ': arrows move it, Shift ten times as far'"
            [attr.transform]="'translate(' + part.at[0] + ' ' + part.at[1] + ')'"
            (pointerdown)="drag($event, part.id, 'down')"
            (pointermove)="drag($event, part.id, 'move')"
            (pointerup)="drag($event, part.id, 'up')"
            (keydown)="nudge($event, part.id)"
          >
            <circle r="16" class="touch" />
            @if (part.id === 'axis') {
              <circle r="6" class="ring" />
            } @else {
              <rect x="-6" y="-6" width="12" height="12" rx="2" class="ring" />
            }
            <text y="-11">{{ part.label }}</text>
          </g>
        }
      </svg>
    </div>
    @if (answered() === null) {
      <p class="todo" role="status">{{ todo() }}</p>
      @if (next(); as part) {
        <p class="keys">
          <button type="button" class="chip" (click)="lay(part, middle())">
            Lay the {{ labels[part] }} in the middle, then move it by arrow keys
          </button>
        </p>
      }
    }
  `,
  styleUrl: './place-task.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlaceTaskView extends TaskView<'place'> {
  private readonly over = viewChild.required<ElementRef<SVGSVGElement>>('over');
  protected readonly labels = LABELS;
  private held: Part | null = null;
  protected readonly drawing = computed(() => drawnFor(this.task()));
  protected readonly box = computed(() => {
    const { x, y, width, height } = this.drawing().frame;
    return `${x} ${y} ${width} ${height}`;
  });
  protected readonly laid = computed(() => this.answered() ?? this.draft());
  protected readonly truth = computed(() => (this.answered() ? rightPlace(this.task()) : null));
  protected readonly placed = computed(() =>
    PARTS.flatMap((id) => {
      const at = this.laid()[id];
      return at ? [{ id, label: LABELS[id], at }] : [];
    }),
  );
  protected readonly next = computed(() => PARTS.find((part) => !this.laid()[part]) ?? null);
  protected readonly todo = computed(() => {
    const next = this.next();
    if (!next) return 'All laid. Drag them, or move them with the arrow keys.';
    return next === 'axis' ? 'Touch where the axis goes.' : `Touch where the ${LABELS[next]} points.`;
  });
  protected readonly middle = computed((): Point => {
    const { x, y, width, height } = this.drawing().frame;
    return [Math.round(x + width / 2), Math.round(y + height / 2)];
  });

  protected put(event: PointerEvent): void {
    const next = this.next();
    if (next && event.button === 0 && this.answered() === null) this.lay(next, this.pointOf(event));
  }

  protected lay(part: Part, at: Point): void {
    this.change({ [part]: at });
  }

  protected drag(event: PointerEvent, part: Part, phase: 'down' | 'move' | 'up'): void {
    event.stopPropagation();
    if (this.answered()) return;
    if (phase === 'down') (event.currentTarget as Element).setPointerCapture(event.pointerId);
    else if (this.held === part) this.lay(part, this.pointOf(event));
    this.held = phase === 'up' ? null : part;
  }

  protected nudge(event: KeyboardEvent, part: Part): void {
    const by = nudgeOf(event, 1);
    const at = this.laid()[part];
    if (!by || !at) return;
    event.preventDefault();
    this.lay(part, this.within([at[0] + by[0], at[1] + by[1]]));
  }

  private pointOf({ clientX, clientY }: PointerEvent): Point {
    const svg = this.over().nativeElement;
    const at = new DOMPoint(clientX, clientY).matrixTransform(svg.getScreenCTM()!.inverse());
    return this.within([at.x, at.y]);
  }

  private within([px, py]: Point): Point {
    const { x, y, width, height } = this.drawing().frame;
    const whole = (value: number, from: number, to: number): number => Math.round(Math.min(Math.max(value, from), to));
    return [whole(px, x, x + width), whole(py, y, y + height)];
  }
}
