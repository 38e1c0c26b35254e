import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Degrees } from '@dial-gauge/core';
import { angleOn, arcPath, around, onDial, ringPath, sectorBox, ticks, type Box, type Facing, type Point } from './geometry';

/** Everything a dial shows. Angles in degrees from zero, in the motion's own direction. */
export interface DialModel {
  readonly facing: Facing;
  readonly scale: { readonly on: Degrees; readonly back: Degrees };
  /** What lies at either end of the scale: "internal", "external". */
  readonly ends: { readonly on: string; readonly back: string };
  /** Where the needle stands; null when nothing has been read or typed. */
  readonly needle: Degrees | null;
  /** Half-width of the 95 % error band round the needle. */
  readonly error: Degrees;
  readonly active: Degrees | null;
  readonly passive: Degrees | null;
  readonly expected: { readonly low: Degrees; readonly high: Degrees } | null;
  /** The edge the needle falls short of, and how to say it. */
  readonly gap: { readonly to: Degrees; readonly words: string } | null;
  readonly otherSide: { readonly at: Degrees; readonly words: string } | null;
  readonly lastVisit: { readonly at: Degrees; readonly words: string } | null;
  /** Where a precaution stops the motion, and how to say it. */
  readonly stop: { readonly at: Degrees; readonly words: string } | null;
  /** The whole dial in words, for those who do not see it. */
  readonly text: string;
}

interface Label {
  readonly words: string;
  readonly at: Point;
  readonly anchor: 'start' | 'middle' | 'end';
}

const RIM = 100;
const NEEDLE = 90;
const ACTIVE = 62;
const PASSIVE = 72;
const LABEL = RIM + 17;
/** Height of a label, in the dial's own units. */
const LETTER = 9;

/**
 * One motion as the examiner sees it: zero where the limb points at zero, the
 * needle where it points now. State is told by shape first: a hatched band is
 * expected, a bracket is a gap, a hollow ring the last visit, a hollow
 * triangle the other side, a post across the rim where a precaution stops
 * the motion, the needle's soft edge the measuring error.
 */
@Component({
  selector: 'dg-dial',
  templateUrl: './dial.html',
  styleUrl: './dial.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Dial {
  readonly model = input.required<DialModel>();
  /** Whether the needle can be taken and dragged. */
  readonly canDrag = input(false);
  /** Where the needle was dragged to, in whole degrees. */
  readonly dragged = output<Degrees>();
  private isDragging = false;

  private readonly range = computed(() => {
    const { scale, needle, otherSide, lastVisit, active, passive, stop } = this.model();
    const shown = [needle, otherSide?.at, lastVisit?.at, active, passive, stop?.at].filter((v): v is number => typeof v === 'number');
    const toTen = (value: number) => Math.ceil(value / 10) * 10;
    return { from: -toTen(Math.max(scale.back, ...shown.map((v) => -v))), to: toTen(Math.max(scale.on, ...shown)) };
  });

  protected readonly viewBox = computed(() => {
    const { from, to } = this.range();
    const box = around([sectorBox(this.model().facing, from, to, RIM, 10), ...this.labels().map(boxOf), ...this.ends().map(boxOf)]);
    return `${box.x} ${box.y} ${box.width} ${box.height}`;
  });

  protected readonly rim = computed(() => arcPath(this.model().facing, this.range().from, this.range().to, RIM));
  protected readonly ticks = computed(() => ticks(this.model().facing, this.range().from, this.range().to, RIM));
  protected readonly numbers = computed(() => {
    const { from, to } = this.range();
    const step = to - from > 150 ? 20 : 10;
    const first = Math.ceil(from / step) * step;
    return Array.from({ length: Math.floor((to - first) / step) + 1 }, (_, i) => first + i * step).map((angle) => ({
      angle: Math.abs(angle),
      at: onDial(this.model().facing, angle, RIM - 15),
    }));
  });

  protected readonly ends = computed((): Label[] => {
    const { facing, ends } = this.model();
    const { from, to } = this.range();
    return [this.label(ends.on, onDial(facing, to + 4, RIM + 4)), this.label(ends.back, onDial(facing, from - 4, RIM + 4))].filter(
      (l) => l.words,
    );
  });

  /** While it is held down the needle follows; beside the scale it stays at its end. */
  protected drag(event: PointerEvent, phase: 'down' | 'move' | 'up'): void {
    const grip = event.currentTarget as SVGGraphicsElement;
    if (phase === 'down') {
      this.isDragging = true;
      grip.setPointerCapture(event.pointerId);
    }
    if (!this.isDragging) return;
    if (phase === 'up') this.isDragging = false;
    const toDial = grip.getScreenCTM()?.inverse();
    if (!toDial) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(toDial);
    this.dragged.emit(this.onScale(angleOn(this.model().facing, at)));
  }

  /** Of the turns that lie at one place the one on the scale. */
  private onScale(angle: Degrees): Degrees {
    const { from, to } = this.range();
    const middle = (from + to) / 2;
    const nearest = angle + 360 * Math.round((middle - angle) / 360);
    return Math.round(Math.max(from, Math.min(to, nearest))) + 0;
  }

  protected readonly zero = computed(() => onDial(this.model().facing, 0, RIM + 5));
  protected readonly needle = computed(() => {
    const { needle, error, facing } = this.model();
    return needle === null
      ? null
      : { tip: onDial(facing, needle, NEEDLE), soft: ringPath(facing, needle - error, needle + error, 0.01, NEEDLE) };
  });

  protected readonly active = computed(() => this.fromZero(this.model().active, ACTIVE));
  protected readonly passive = computed(() => this.fromZero(this.model().passive, PASSIVE));
  protected readonly expected = computed(() => {
    const { expected, facing } = this.model();
    return expected && ringPath(facing, expected.low, Math.max(expected.high, expected.low + 1.5), RIM + 1.5, RIM + 9);
  });

  protected readonly gap = computed(() => {
    const { gap, needle, facing } = this.model();
    if (!gap || needle === null) return null;
    const ends = [needle, gap.to].map((angle) => ({ from: onDial(facing, angle, RIM + 2), to: onDial(facing, angle, RIM + 8) }));
    return { path: arcPath(facing, needle, gap.to, RIM + 5), ends };
  });

  /** A post across the rim, and beyond it what is closed. */
  protected readonly stop = computed(() => {
    const { stop, facing } = this.model();
    if (!stop) return null;
    const closed = Math.min(this.range().to, stop.at + 60);
    return {
      from: onDial(facing, stop.at, 30),
      to: onDial(facing, stop.at, RIM + 10),
      closed: closed > stop.at ? ringPath(facing, stop.at, closed, RIM - 6, RIM) : null,
    };
  });

  protected readonly lastVisit = computed(() => {
    const { lastVisit, facing } = this.model();
    return lastVisit && onDial(facing, lastVisit.at, RIM);
  });

  protected readonly otherSide = computed(() => {
    const { otherSide, facing } = this.model();
    if (!otherSide) return null;
    return [onDial(facing, otherSide.at, RIM - 1), onDial(facing, otherSide.at - 2.4, RIM + 8), onDial(facing, otherSide.at + 2.4, RIM + 8)]
      .map((p) => `${p.x.toFixed(2)},${p.y.toFixed(2)}`)
      .join(' ');
  });

  /** Gap, last visit and other side in words beside their marks; one that would lie on another moves outward. */
  protected readonly labels = computed((): (Label & { kind: string })[] => {
    const { gap, needle, otherSide, lastVisit, stop, facing } = this.model();
    const wanted = [
      ...(stop ? [{ kind: 'stop', words: stop.words, angle: stop.at }] : []),
      ...(gap && needle !== null ? [{ kind: 'gap', words: gap.words, angle: (needle + gap.to) / 2 }] : []),
      ...(lastVisit ? [{ kind: 'last', words: lastVisit.words, angle: lastVisit.at }] : []),
      ...(otherSide ? [{ kind: 'other', words: otherSide.words, angle: otherSide.at }] : []),
    ];
    const placed: { kind: string; label: Label; box: Box }[] = [];
    for (const { kind, words, angle } of wanted) {
      for (let radius = LABEL; ; radius += LETTER) {
        const label = this.label(words, onDial(facing, angle, radius));
        const box = boxOf(label);
        if (radius < LABEL + 6 * LETTER && placed.some((other) => overlap(other.box, box))) continue;
        placed.push({ kind, label, box });
        break;
      }
    }
    return placed.map(({ kind, label }) => ({ kind, ...label }));
  });

  private fromZero(value: Degrees | null, radius: number): string | null {
    return value === null || Math.abs(value) < 0.5 ? null : arcPath(this.model().facing, 0, value, radius);
  }

  private label(words: string, at: Point): Label {
    return { words, at, anchor: at.x < -12 ? 'end' : at.x > 12 ? 'start' : 'middle' };
  }
}

/** Room a label takes: about half its height for every letter. */
function boxOf({ words, at, anchor }: Label): Box {
  const width = words.length * LETTER * 0.52;
  const left = anchor === 'end' ? at.x - width : anchor === 'start' ? at.x : at.x - width / 2;
  return { x: left, y: at.y - LETTER / 2, width, height: LETTER };
}

function overlap(a: Box, b: Box): boolean {
  return a.x < b.x + b.width + 3 && b.x < a.x + a.width + 3 && a.y < b.y + b.height && b.y < a.y + a.height;
}
