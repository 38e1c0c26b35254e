import { ChangeDetectionStrategy, Component, computed, type ElementRef, input, output, signal, viewChild } from '@angular/core';
import { hoursOf, type Hour, type Sector } from '@dial-gauge/core';

const CENTRE = 110;
const RADIUS = 84;
const HOURS: readonly Hour[] = [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];

const point = (hour: number, radius: number): readonly [number, number] => {
  const at = (hour / 6) * Math.PI;
  return [CENTRE + radius * Math.sin(at), CENTRE - radius * Math.cos(at)];
};

/** A joint's circle: the part that is cut off is dragged over, or stepped to with the keys. 12 is forward or up, 3 outward. */
@Component({
  selector: 'dg-circle-ring',
  template: `
    <svg
      #ring
      viewBox="0 0 220 220"
      role="img"
      [attr.aria-label]="label()"
      (pointerdown)="begin($event)"
      (pointermove)="drag($event)"
      (pointerup)="end()"
      (pointercancel)="end()"
    >
      <circle cx="110" cy="110" r="84" class="whole" />
      @if (arc(); as path) {
        <path [attr.d]="path" class="cut" />
      }
      @for (tick of ticks; track tick.hour) {
        <line [attr.x1]="tick.from[0]" [attr.y1]="tick.from[1]" [attr.x2]="tick.to[0]" [attr.y2]="tick.to[1]" class="tick" />
        <text [attr.x]="tick.at[0]" [attr.y]="tick.at[1] + 5" class="hour">{{ tick.hour }}</text>
      }
      <text x="110" y="76" class="way">forward, up</text>
      <text x="110" y="158" class="way">back, down</text>
      <text x="150" y="114" class="way">out</text>
      <text x="70" y="114" class="way">in</text>
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
      max-height: 340px;
      touch-action: none;
      cursor: crosshair;
    }
    .whole {
      fill: none;
      stroke: var(--petrol);
      stroke-width: 12;
    }
    .cut {
      fill: none;
      stroke: var(--ground);
      stroke-width: 14;
    }
    .tick {
      stroke: var(--ink);
      stroke-width: 1.5;
    }
    .hour {
      fill: var(--ink);
      font: 400 13px var(--figures);
      text-anchor: middle;
    }
    .way {
      fill: var(--ink-soft);
      font: 400 12px var(--words);
      text-anchor: middle;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CircleRing {
  readonly sector = input.required<Sector | null>();
  readonly name = input.required<string>();
  readonly sectorDragged = output<Sector>();
  private readonly ring = viewChild.required<ElementRef<SVGSVGElement>>('ring');
  private readonly from = signal<Hour | null>(null);

  protected readonly ticks = HOURS.map((hour) => ({ hour, from: point(hour, 74), to: point(hour, 94), at: point(hour, 102) }));
  protected readonly label = computed(() => {
    const sector = this.sector();
    return `Circle of the ${this.name().toLowerCase()}: ${sector ? `cut off from ${sector.from} to ${sector.to} o’clock` : 'whole'}. 12 is forward or up, 3 outward. Drag over the part that is cut off, or type its hours.`;
  });
  protected readonly arc = computed(() => {
    const sector = this.sector();
    if (!sector) return '';
    const hours = hoursOf(sector.from, sector.to).length;
    const [from, to] = [point(sector.from - 0.35, RADIUS), point(sector.from - 0.35 + hours - 0.3, RADIUS)];
    return `M${from.join(' ')}A${RADIUS} ${RADIUS} 0 ${hours - 0.3 > 6 ? 1 : 0} 1 ${to.join(' ')}`;
  });

  protected begin(event: PointerEvent): void {
    const hour = this.hourAt(event);
    this.ring().nativeElement.setPointerCapture(event.pointerId);
    this.from.set(hour);
    this.sectorDragged.emit({ from: hour, to: hour });
  }

  protected drag(event: PointerEvent): void {
    const from = this.from();
    if (from !== null) this.sectorDragged.emit({ from, to: this.hourAt(event) });
  }

  protected end(): void {
    this.from.set(null);
  }

  private hourAt({ clientX, clientY }: PointerEvent): Hour {
    const { left, top, width, height } = this.ring().nativeElement.getBoundingClientRect();
    const at = Math.atan2(clientX - left - width / 2, top + height / 2 - clientY);
    const hour = Math.round((at / Math.PI) * 6);
    return ((((hour % 12) + 11) % 12) + 1) as Hour;
  }
}
