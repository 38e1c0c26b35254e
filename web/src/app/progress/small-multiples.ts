import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { MeasurementKey, ProgressSeries } from '@dial-gauge/core';
import type { Timeline } from './chart-model';
import { TILE, tilesOf } from './tiles';

/** Every motion at a glance; a press shows it large. */
@Component({
  selector: 'dg-small-multiples',
  template: `
    @for (tile of tiles(); track tile.key) {
      <button type="button" [class.here]="isHere(tile.keys)" [attr.aria-pressed]="isHere(tile.keys)" (click)="choose.emit(tile.opens)">
        <span class="name">{{ tile.name }}<span class="visually-hidden">: </span></span>
        <svg [attr.viewBox]="box" aria-hidden="true">
          @if (tile.goalY !== null) {
            <path class="goal" [attr.d]="'M0 ' + tile.goalY + 'H' + width" />
          }
          <path class="ribbon" [attr.d]="tile.ribbon" />
          <path class="twin" [attr.d]="tile.twin" />
          <path class="line" [attr.d]="tile.line" />
          <circle r="3" [attr.cx]="tile.last.x" [attr.cy]="tile.last.y" />
        </svg>
        <strong class="figure">{{ tile.value }}</strong>
        <span class="word" [class]="'word ' + tile.word">{{ tile.word }}</span>
      </button>
    }
  `,
  styleUrl: './small-multiples.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SmallMultiples {
  readonly series = input.required<readonly ProgressSeries[]>();
  readonly timeline = input.required<Timeline>();
  readonly chosen = input<MeasurementKey>();
  readonly choose = output<MeasurementKey>();
  protected readonly box = `0 0 ${TILE.width} ${TILE.height}`;
  protected readonly width = TILE.width;
  protected readonly tiles = computed(() => tilesOf(this.series(), this.timeline()));

  protected isHere(keys: readonly MeasurementKey[]): boolean {
    const chosen = this.chosen();
    return chosen !== undefined && keys.includes(chosen);
  }
}
