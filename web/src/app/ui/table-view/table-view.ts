import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { planView, planWords, stationWords, type Side, type Standpoint, type Station } from '@dial-gauge/core';

/**
 * The patient on the table from above, as the examiner sees them, with THEIR
 * left and right: it changes over when they turn. The side in hand is the
 * dark one, and is named.
 */
@Component({
  selector: 'dg-table-view',
  templateUrl: './table-view.html',
  styleUrl: './table-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TableView {
  readonly station = input.required<Station>();
  readonly side = input.required<Side>();
  readonly standpoint = input<Standpoint>('foot');
  /** False where the side is to be told by whoever looks: neither drawing nor words say it. */
  readonly named = input(true);

  protected readonly view = computed(() => planView(this.station(), this.standpoint()));
  protected readonly text = computed(() =>
    this.named()
      ? planWords(this.station(), this.standpoint(), this.side())
      : `Patient ${stationWords(this.station())}, ${this.view().from}: one side is marked.`,
  );
  protected readonly position = computed(() => stationWords(this.station()));
  protected readonly sideLying = computed(() => this.station().startsWith('sidelying'));
  /** The patient's side that is drawn on the examiner's left and right. */
  protected readonly onLeft = computed((): Side => (this.view().leftIsLeft ? 'left' : 'right'));
  protected readonly onRight = computed((): Side => (this.view().leftIsLeft ? 'right' : 'left'));
  /** The same before the drawing is turned round. */
  protected readonly drawnLeft = computed(() => (this.view().turned ? this.onRight() : this.onLeft()));
  protected readonly drawnRight = computed(() => (this.view().turned ? this.onLeft() : this.onRight()));
  protected readonly upper = computed((): Side => (this.station() === 'sidelying-on-left' ? 'right' : 'left'));
  protected readonly lower = computed((): Side => (this.upper() === 'left' ? 'right' : 'left'));
  protected isInHand(side: Side): boolean {
    return this.side() === side;
  }
  /** The drawing is made head up; at the head end it is turned round, and a face to the right looks left. */
  protected readonly turn = computed(() => (this.view().turned ? 'rotate(180 110 84)' : null));
  protected readonly mirror = computed(() => {
    const looksRight = this.view().face === 'right';
    // Turned round, the drawing changes sides once more.
    return looksRight !== this.view().turned ? null : 'matrix(-1 0 0 1 220 0)';
  });
}
