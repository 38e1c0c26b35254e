import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { drawFigure, GIVES, mostMoved, protocolName, shownIn } from '@dial-gauge/core';
import { ProtocolFigure } from '../ui/figure/figure';
import { PLANE_WORDS } from '../ui/plane-ring';
import { TaskView } from './task-view';

/** A limb and an inclinometer on it, both in hand: nothing runs by itself, it goes as fast as whoever moves it. */
@Component({
  selector: 'dg-plane-task',
  imports: [ProtocolFigure],
  template: `
    <p class="told">{{ name() }}. Take the limb to its honest end, keep the bubble in the middle, then answer: that is the hold.</p>
    <div class="beside">
      <dg-figure [protocol]="task().protocol" [shown]="drawing()" [bare]="true" [label]="name() + ', the limb as far as it was taken'" />
      <div class="face">
        <p class="figure" aria-live="off">{{ now().degrees }}°</p>
        <svg viewBox="-100 -22 200 44" aria-hidden="true">
          <rect x="-96" y="-18" width="192" height="36" rx="18" class="tube" />
          <path d="M-24-18v36M24-18v36" class="rim" />
          <circle [attr.cx]="bubble()" r="15" class="bubble" [class.off]="now().verdict !== 'good'" />
        </svg>
        <p role="status">
          {{ words[now().verdict] }}
          @if (gives()) {
            · {{ task().substitution!.label }}
          }
        </p>
      </div>
    </div>
    <label class="slide"
      >The limb
      <input
        type="range"
        min="0"
        [max]="most"
        step="0.01"
        [value]="moved()"
        [disabled]="answered() !== null"
        [attr.aria-valuetext]="limbWords()"
        (input)="move(+$any($event.target).value, $any($event.target))"
      />
    </label>
    <label class="slide"
      >The inclinometer, turned in the hand
      <input
        type="range"
        min="-60"
        max="60"
        step="1"
        [value]="by()"
        [disabled]="answered() !== null"
        [attr.aria-valuetext]="by() + '°, ' + words[now().verdict]"
        (input)="change({ by: +$any($event.target).value })"
      />
    </label>
  `,
  styleUrl: './choices.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlaneTaskView extends TaskView<'plane'> {
  protected readonly words = PLANE_WORDS;
  /** The slide is as long for a limb that stops as for one that lets go on: its end tells nothing. */
  protected readonly most = GIVES;
  protected readonly name = computed(() => protocolName(this.task().protocol));
  protected readonly moved = computed(() => this.answered()?.moved ?? this.draft().moved ?? 0);
  protected readonly by = computed(() => this.answered()?.by ?? this.draft().by ?? 0);
  protected readonly now = computed(() => shownIn(this.task(), { moved: this.moved(), by: this.by() }));
  protected readonly bubble = computed(() => Math.max(-78, Math.min(78, this.now().sideways * 2.4)));
  /** What gives is seen a little after it begins. */
  protected readonly gives = computed(() => this.task().substitution !== null && this.moved() > 1.02);
  protected readonly drawing = computed(() => {
    const { protocol, truth } = this.task();
    const way = protocol.figure.kind === 'turn' && protocol.figure.end < 0 ? -1 : 1;
    return drawFigure(protocol, way * truth * Math.min(this.moved(), 1));
  });
  protected readonly limbWords = computed(() =>
    this.gives() ? 'further, and a neighbour gives' : `at ${this.now().degrees}° by the inclinometer`,
  );

  /** At its end a limb stops, whatever the hand wants. */
  protected move(wanted: number, slide: HTMLInputElement): void {
    const moved = Math.min(wanted, mostMoved(this.task()));
    if (moved !== wanted) slide.value = String(moved);
    this.change({ moved });
  }
}
