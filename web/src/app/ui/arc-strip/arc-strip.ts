import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Degrees } from '@dial-gauge/core';

/** One side of one motion, laid out along a line. Angles in degrees from zero. */
export interface StripModel {
  readonly side: 'left' | 'right';
  readonly range: { readonly from: Degrees; readonly to: Degrees };
  readonly active: Degrees | null;
  readonly passive: Degrees | null;
  readonly expected: { readonly low: Degrees; readonly high: Degrees } | null;
  /** Edge of the expected band that the value falls short of. */
  readonly gapTo: Degrees | null;
  readonly lastVisit: Degrees | null;
  readonly pain: number;
  /** The value as printed beside the strip. */
  readonly value: string;
  /** The strip in words. */
  readonly text: string;
}

const WIDTH = 240;
const INSET = 8;

/** A scale from zero outward, mirrored for the left side: the two sides of a row face each other. */
@Component({
  selector: 'dg-arc-strip',
  templateUrl: './arc-strip.html',
  styleUrl: './arc-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ArcStrip {
  readonly model = input.required<StripModel>();
  protected readonly hatches = Array.from({ length: 34 }, (_, i) => i);

  /** Position of an angle along the strip. */
  protected x(angle: Degrees): number {
    const { range, side } = this.model();
    const along = INSET + ((angle - range.from) / (range.to - range.from)) * (WIDTH - 2 * INSET);
    return side === 'left' ? WIDTH - along : along;
  }

  protected bar(from: Degrees, to: Degrees): { x: number; width: number } {
    const [a, b] = [this.x(from), this.x(to)];
    return { x: Math.min(a, b), width: Math.abs(b - a) };
  }

  protected readonly marks = computed(() => {
    const { range } = this.model();
    const span = range.to - range.from;
    const step = span > 100 ? 50 : span > 50 ? 20 : 10;
    const first = Math.ceil(range.from / 10) * 10;
    return Array.from({ length: Math.floor((range.to - first) / 10) + 1 }, (_, i) => first + i * 10).map((angle) => ({
      angle,
      x: this.x(angle),
      named: angle % step === 0,
    }));
  });

  protected readonly end = computed(() => this.model().passive ?? this.model().active);
  protected readonly painAt = computed(() => {
    const end = this.end();
    return this.model().pain > 0 && end !== null ? this.x(end) : null;
  });
}
