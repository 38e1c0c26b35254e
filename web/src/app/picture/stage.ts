import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import { SVG, type G, type Svg } from '@svgdotjs/svg.js';
import type { Point } from '@dial-gauge/core';
import { nudgeOf } from '../ui/nudge';
import { Marking } from './marking';

/** What lies under the marks: its size, and how to draw a part of it larger. */
export interface Shown {
  readonly width: number;
  readonly height: number;
  readonly draw: (to: CanvasRenderingContext2D, from: { x: number; y: number; size: number }, size: number) => void;
}

type Mark = ReturnType<Marking['marks']>[number];

const LENS = 150;
/** So many pixels of the picture stand in the magnifier. */
const IN_LENS = 50;

/** The marks over a picture: each landmark can be dragged, with a magnifier, or nudged by arrow keys. */
@Component({
  selector: 'dg-picture-stage',
  template: `
    <div class="frame" #frame>
      <ng-content />
      @if (shown()) {
        <svg #drawing (pointerdown)="put($event)"></svg>
      }
      @if (held(); as at) {
        <canvas #lens class="lens" [class.right]="at[0] < (shown()?.width ?? 0) / 2" width="150" height="150" aria-hidden="true"></canvas>
      }
    </div>
  `,
  styleUrl: './stage.scss',
  // What is drawn is made by the drawing library: its elements carry no mark of this component.
  encapsulation: ViewEncapsulation.None,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureStage {
  protected readonly marking = inject(Marking);
  readonly shown = input.required<Shown | null>();
  /** Lines that were marked before, perhaps elsewhere: drawn under those that are being placed. */
  readonly before = input<readonly { readonly from: Point; readonly to: Point }[]>([]);
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly drawing = viewChild<ElementRef<SVGSVGElement>>('drawing');
  private readonly lens = viewChild<ElementRef<HTMLCanvasElement>>('lens');
  protected readonly held = signal<Point | null>(null);
  /** Marks are as large on the screen whatever the size of the picture. */
  protected readonly unit = computed(() => Math.max(this.shown()?.width ?? 0, this.shown()?.height ?? 0) / 900);
  /** As they are drawn, so that the one in hand stays the one in hand. */
  private readonly drawn = new Map<string, G>();

  constructor() {
    effect(() => {
      const [picture, element] = [this.shown(), this.drawing()?.nativeElement];
      if (!picture || !element) return void this.drawn.clear();
      const [lines, marks, { from, to }] = [this.marking.lines(), this.marking.marks(), this.marking.scale()];
      const before = this.before();
      untracked(() => {
        const svg = SVG(element) as Svg;
        svg.viewbox(0, 0, picture.width, picture.height);
        const under = layer(svg, 'lines').clear();
        for (const line of before) draw(under, line.from, line.to, 'before');
        for (const line of lines) for (const name of ['under', 'line']) draw(under, line.from, line.to, name);
        if (from && to) draw(under, from, to, 'known');
        this.drawMarks(layer(svg, 'marks'), marks);
      });
    });
  }

  private drawMarks(on: G, marks: readonly Mark[]): void {
    for (const [id, group] of this.drawn)
      if (!marks.some((mark) => mark.id === id)) {
        group.remove();
        this.drawn.delete(id);
      }
    const unit = this.unit();
    for (const { id, label, at } of marks) {
      const group = this.drawn.get(id) ?? this.newMark(on, id);
      group.attr({
        transform: `translate(${at[0]} ${at[1]})`,
        'aria-label': `${label}, at ${Math.round(at[0])}, ${Math.round(at[1])}: arrows move it, Shift ten times as far`,
      });
      const [touch, ring, dot] = group.children();
      touch!.attr('r', 14 * unit);
      ring!.attr({ r: 7 * unit, 'stroke-width': 3 * unit });
      dot!.attr('r', 1.2 * unit);
    }
  }

  private newMark(on: G, id: string): G {
    const group = on.group().addClass('mark').attr({ tabindex: 0, role: 'button' });
    if (id.startsWith('scale-')) group.addClass('scale');
    for (const part of ['touch', 'ring', 'dot']) group.circle().addClass(part);
    group.on('pointerdown', (event) => this.drag(event as PointerEvent, id, 'down'));
    group.on('pointermove', (event) => this.drag(event as PointerEvent, id, 'move'));
    group.on('pointerup', (event) => this.drag(event as PointerEvent, id, 'up'));
    group.on('keydown', (event) => this.nudge(event as unknown as KeyboardEvent, id));
    this.drawn.set(id, group);
    return group;
  }

  /** A touch of the picture places the landmark that is next. */
  protected put(event: PointerEvent): void {
    const next = this.marking.next();
    if (!next || event.button !== 0) return;
    this.marking.place(next.id, this.pointOf(event));
  }

  private drag(event: PointerEvent, id: string, phase: 'down' | 'move' | 'up'): void {
    event.stopPropagation();
    const mark = event.currentTarget as Element;
    if (phase === 'down') mark.setPointerCapture(event.pointerId);
    else if (!this.held()) return;
    const at = this.pointOf(event);
    if (phase !== 'down') this.marking.place(id, at);
    this.held.set(phase === 'up' ? null : at);
    if (phase !== 'up') setTimeout(() => this.magnify(at));
  }

  private nudge(event: KeyboardEvent, id: string): void {
    const by = nudgeOf(event, this.unit());
    const at = this.marking.marks().find((mark) => mark.id === id)?.at;
    if (!by || !at) return;
    event.preventDefault();
    this.marking.place(id, this.within([at[0] + by[0], at[1] + by[1]]));
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
    context.moveTo(LENS / 2, 0);
    context.lineTo(LENS / 2, LENS);
    context.moveTo(0, LENS / 2);
    context.lineTo(LENS, LENS / 2);
    context.stroke();
  }
}

/** A group of a name, made where it is not there yet. */
function layer(svg: Svg, name: string): G {
  return (svg.findOne(`.${name}`) as G | null) ?? svg.group().addClass(name);
}

function draw(on: G, from: Point, to: Point, name: string): void {
  on.line(from[0], from[1], to[0], to[1]).addClass(name);
}
