import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** One side of one motion, laid out along a line. Values in the motion's unit, from zero. */
export interface StripModel {
  readonly side: 'left' | 'right';
  /** A value as the scale prints it: never with a bare sign. */
  readonly label: (value: number) => string;
  readonly range: { readonly from: number; readonly to: number };
  readonly active: number | null;
  readonly passive: number | null;
  readonly expected: { readonly low: number; readonly high: number } | null;
  /** Edge of the expected band that the value falls short of. */
  readonly gapTo: number | null;
  readonly lastVisit: number | null;
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
  protected x(angle: number): number {
    const { range, side } = this.model();
    const along = INSET + ((angle - range.from) / (range.to - range.from)) * (WIDTH - 2 * INSET);
    return side === 'left' ? WIDTH - along : along;
  }

  protected bar(from: number, to: number): { x: number; width: number } {
    const [a, b] = [this.x(from), this.x(to)];
    return { x: Math.min(a, b), width: Math.abs(b - a) };
  }

  protected readonly marks = computed(() => {
    const { range } = this.model();
    const span = range.to - range.from;
    const fine = span > 400 ? 50 : span > 24 ? 10 : 1;
    const step = fine * (span / fine > 10 ? 5 : span / fine > 5 ? 2 : 1);
    const first = Math.ceil(range.from / fine) * fine;
    return Array.from({ length: Math.floor((range.to - first) / fine) + 1 }, (_, i) => first + i * fine).map((value) => ({
      value,
      x: this.x(value),
      named: value % step === 0,
    }));
  });

  protected readonly end = computed(() => this.model().passive ?? this.model().active);
  protected readonly painAt = computed(() => {
    const end = this.end();
    return this.model().pain > 0 && end !== null ? this.x(end) : null;
  });
}
