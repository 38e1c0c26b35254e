import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, input, signal, viewChild } from '@angular/core';
import type { Point } from '@dial-gauge/core';
import { Marking } from './marking';

/** What lies under the marks: its size, and how to draw a part of it larger. */
export interface Shown {
  readonly width: number;
  readonly height: number;
  readonly draw: (to: CanvasRenderingContext2D, from: { x: number; y: number; size: number }, size: number) => void;
}

const NUDGE = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as const;
const LENS = 150;
/** So many pixels of the picture stand in the magnifier. */
const IN_LENS = 50;

/** The marks over a picture: each landmark can be dragged, with a magnifier, or nudged by arrow keys. */
@Component({
  selector: 'dg-picture-stage',
  template: `
    <div class="frame" #frame>
      <ng-content />
      @if (shown(); as picture) {
        <svg [attr.viewBox]="'0 0 ' + picture.width + ' ' + picture.height" (pointerdown)="put($event)">
          @for (line of marking.lines(); track $index) {
            <line [attr.x1]="line.from[0]" [attr.y1]="line.from[1]" [attr.x2]="line.to[0]" [attr.y2]="line.to[1]" class="under" />
            <line [attr.x1]="line.from[0]" [attr.y1]="line.from[1]" [attr.x2]="line.to[0]" [attr.y2]="line.to[1]" class="line" />
          }
          @if (marking.scale().from; as from) {
            @if (marking.scale().to; as to) {
              <line [attr.x1]="from[0]" [attr.y1]="from[1]" [attr.x2]="to[0]" [attr.y2]="to[1]" class="known" />
            }
          }
          @for (mark of marking.marks(); track mark.id) {
            <g
              class="mark"
              [class.scale]="mark.id.startsWith('scale-')"
              tabindex="0"
              role="button"
              [attr.aria-label]="
                mark.label + ', at ' + round(mark.at[0]) + ', ' + round(mark.at[1]) + ': arrows move it, Shift ten times as far'
              "
              [attr.transform]="'translate(' + mark.at[0] + ' ' + mark.at[1] + ')'"
              (pointerdown)="drag($event, mark.id, 'down')"
              (pointermove)="drag($event, mark.id, 'move')"
              (pointerup)="drag($event, mark.id, 'up')"
              (keydown)="nudge($event, mark.id)"
            >
              <circle [attr.r]="14 * unit()" class="touch" />
              <circle [attr.r]="7 * unit()" class="ring" [attr.stroke-width]="3 * unit()" />
              <circle [attr.r]="1.2 * unit()" class="dot" />
            </g>
          }
        </svg>
      }
      @if (held(); as at) {
        <canvas #lens class="lens" [class.right]="at[0] < (shown()?.width ?? 0) / 2" width="150" height="150" aria-hidden="true"></canvas>
      }
    </div>
  `,
  styleUrl: './stage.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureStage {
  protected readonly marking = inject(Marking);
  readonly shown = input.required<Shown | null>();
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly lens = viewChild<ElementRef<HTMLCanvasElement>>('lens');
  protected readonly held = signal<Point | null>(null);
  protected readonly round = Math.round;
  /** Marks are as large on the screen whatever the size of the picture. */
  protected readonly unit = computed(() => Math.max(this.shown()?.width ?? 0, this.shown()?.height ?? 0) / 900);

  /** A touch of the picture places the landmark that is next. */
  protected put(event: PointerEvent): void {
    const next = this.marking.next();
    if (!next || event.button !== 0) return;
    this.marking.place(next.id, this.pointOf(event));
  }

  protected drag(event: PointerEvent, id: string, phase: 'down' | 'move' | 'up'): void {
    event.stopPropagation();
    const mark = event.currentTarget as Element;
    if (phase === 'down') mark.setPointerCapture(event.pointerId);
    else if (!this.held()) return;
    const at = this.pointOf(event);
    if (phase !== 'down') this.marking.place(id, at);
    this.held.set(phase === 'up' ? null : at);
    if (phase !== 'up') setTimeout(() => this.magnify(at));
  }

  protected nudge(event: KeyboardEvent, id: string): void {
    const way = NUDGE[event.key as keyof typeof NUDGE] as readonly [number, number] | undefined;
    const at = this.marking.marks().find((mark) => mark.id === id)?.at;
    if (!way || !at) return;
    event.preventDefault();
    const far = (event.shiftKey ? 10 : 1) * this.unit();
    this.marking.place(id, this.within([at[0] + way[0] * far, at[1] + way[1] * far]));
  }

  private pointOf({ clientX, clientY }: PointerEvent): Point {
    const box = this.frame().nativeElement.getBoundingClientRect();
    const { width, height } = this.shown()!;
    return this.within([((clientX - box.left) / box.width) * width, ((clientY - box.top) / box.height) * height]);
  }

  private within([x, y]: Point): Point {
    const { width, height } = this.shown()!;
    const tenth = (value: number, most: number): number => Math.round(Math.min(Math.max(value, 0), most) * 10) / 10;
    return [tenth(x, width), tenth(y, height)];
  }

  private magnify([x, y]: Point): void {
    const context = this.lens()?.nativeElement.getContext('2d');
    if (!context) return;
    const size = IN_LENS * this.unit();
    context.clearRect(0, 0, LENS, LENS);
    this.shown()?.draw(context, { x: x - size / 2, y: y - size / 2, size }, LENS);
    context.strokeStyle = '#a8741a';
    context.lineWidth = 1.5;
    context.beginPath();
    for (const [from, to] of [
      [
        [LENS / 2, 0],
        [LENS / 2, LENS],
      ],
      [
        [0, LENS / 2],
        [LENS, LENS / 2],
      ],
    ] as const) {
      context.moveTo(from[0], from[1]);
      context.lineTo(to[0], to[1]);
    }
    context.stroke();
  }
}
