import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { OUT_OF_PLANE, planeVerdict } from '@dial-gauge/core';

/**
 * How far an instrument is out of plane: a bubble that reaches the ring where
 * nothing is read any more. By shape first: broken as soon as it reads low.
 */
@Component({
  selector: 'dg-plane-ring',
  template: `
    <svg viewBox="-100 -100 200 200" aria-hidden="true" [class]="verdict()">
      <g [attr.transform]="'rotate(' + -turn() + ')'"><line x1="-98" x2="98" y1="0" y2="0" class="level" /></g>
      <circle r="92" class="ring" />
      @if (outOfPlane() !== null) {
        <circle r="30" [attr.cy]="bubble()" class="bubble" />
      }
    </svg>
  `,
  styles: `
    :host,
    svg {
      display: block;
      width: 100%;
      height: 100%;
    }
    .level,
    .ring {
      fill: none;
      stroke: var(--line-strong);
      stroke-width: 4;
    }
    .bubble {
      fill: var(--petrol-wash);
      stroke: var(--petrol);
      stroke-width: 6;
    }
    .warn .bubble,
    .refused .bubble {
      fill: none;
      stroke: var(--ochre);
      stroke-dasharray: 14 9;
    }
    .refused .ring {
      stroke: var(--ochre);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlaneRing {
  /** Degrees; null where that is not known. */
  readonly outOfPlane = input.required<number | null>();
  /** How far the level line is turned, in degrees. */
  readonly turn = input(0);
  protected readonly verdict = computed(() => planeVerdict(this.outOfPlane() ?? 0));
  protected readonly bubble = computed(() => Math.min(1, (this.outOfPlane() ?? 0) / OUT_OF_PLANE.refuse) * 62);
}

/** What a verdict on the plane means for what is read. */
export const PLANE_WORDS = { good: 'good', warn: 'reads low', refused: 'too far: not read' } as const;
