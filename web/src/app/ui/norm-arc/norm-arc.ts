import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { bandOf, endFigure, type DialView, type Motion, type TaskNeed } from '@dial-gauge/core';
import { arcPath, onDial, sectorBox, type Facing } from '../dial/geometry';
import { scaleOf, valueWords, type NormLane } from './lanes';

const INNER = 84;
const LANE = 13;
/** A tick of this length stands for a single figure. */
const TICK = 4.5;
const STRAIGHT = 300;

interface Mark {
  readonly lane: NormLane;
  /** Thick line where individuals are expected; empty for a single figure. */
  readonly band: string;
  /** The figure itself, across the lane. */
  readonly figure: string;
  readonly label: { readonly x: number; readonly y: number };
}

/** The values of all sets side by side on one arc; on one straight scale where no angle is measured. */
@Component({
  selector: 'dg-norm-arc',
  templateUrl: './norm-arc.html',
  styleUrl: './norm-arc.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NormArc {
  readonly motion = input.required<Motion>();
  readonly dial = input<DialView>();
  readonly lanes = input.required<readonly NormLane[]>();
  readonly needs = input<readonly TaskNeed[]>([]);

  private readonly facing = computed((): Facing | null => {
    const dial = this.dial();
    return dial && this.motion().unit === 'deg' ? { zeroAt: dial.zeroAt, sense: dial.sense } : null;
  });
  private readonly scale = computed(() => scaleOf(this.motion(), this.lanes(), this.needs()));
  private readonly rim = computed(() => INNER + LANE * Math.max(1, this.lanes().length) + 4);

  /** Place of a value at a distance from the middle (or the top) of the drawing. */
  private place(value: number, across: number): { x: number; y: number } {
    const facing = this.facing();
    if (facing) return onDial(facing, value, across);
    const { from, to } = this.scale();
    return { x: ((value - from) / (to - from)) * STRAIGHT, y: across - INNER };
  }

  private along(from: number, to: number, across: number): string {
    const facing = this.facing();
    if (facing) return arcPath(facing, from, to, across);
    const [a, b] = [this.place(from, across), this.place(to, across)];
    return `M${a.x} ${a.y}L${b.x} ${b.y}`;
  }

  private across(value: number, from: number, to: number): string {
    const [a, b] = [this.place(value, from), this.place(value, to)];
    return `M${a.x} ${a.y}L${b.x} ${b.y}`;
  }

  protected readonly box = computed(() => {
    const { from, to } = this.scale();
    const facing = this.facing();
    if (!facing) return `-34 -8 ${STRAIGHT + 62} ${this.rim() - INNER + 44}`;
    const box = sectorBox(facing, from, to, this.rim(), 34);
    return `${box.x} ${box.y} ${box.width} ${box.height}`;
  });

  protected readonly marks = computed((): Mark[] =>
    this.lanes().map((lane, index) => {
      const across = INNER + LANE * index + LANE / 2;
      const { value } = lane.choice.entry;
      const { low, high } = bandOf(value);
      const figures = 'mean' in value ? [value.mean] : low === high ? [low] : [];
      return {
        lane,
        band: low < high ? this.along(low, high, across) : '',
        figure: figures.map((figure) => this.across(figure, across - TICK, across + TICK)).join(''),
        label: this.place(high, across),
      };
    }),
  );

  /** Where the number of a lane stands: just past the end of its band. */
  protected numberAt(mark: Mark): { x: number; y: number } {
    const { from, to } = this.scale();
    const past = (to - from) * (this.facing() ? 0.025 : 0.02);
    const { high } = bandOf(mark.lane.choice.entry.value);
    const across = INNER + LANE * this.marks().indexOf(mark) + LANE / 2;
    return this.place(high + Math.max(past, this.facing() ? 4 : 0), across);
  }

  /** Where zero lies, through all lanes; and a hair line under every lane, so that the eye can follow it. */
  protected readonly zeroPath = computed(() => this.across(0, this.facing() ? 14 : INNER, this.rim()));
  protected readonly lanePaths = computed(() =>
    this.lanes().map((_, index) => this.along(this.scale().from, this.scale().to, INNER + LANE * index + LANE / 2)),
  );

  protected readonly rimPath = computed(() => this.along(this.scale().from, this.scale().to, this.rim()));

  protected readonly ticks = computed(() => {
    const { from, to } = this.scale();
    const fine = this.motion().unit === 'deg' ? 10 : to > 100 ? 50 : 1;
    const named = fine * ((to - from) / fine > 12 ? 3 : (to - from) / fine > 7 ? 2 : 1);
    return Array.from({ length: Math.floor((to - from) / fine) + 1 }, (_, i) => from + i * fine).map((value) => ({
      value,
      path: this.across(value, this.rim(), this.rim() + 5),
      label: value % named === 0 ? endFigure(value, this.motion()) : '',
      at: this.place(value, this.rim() + (this.facing() ? 17 : 20)),
    }));
  });

  /** What tasks ask for, as small diamonds on the rim. */
  protected readonly tasks = computed(() =>
    [...new Set(this.needs().map((need) => need.atLeast))].map((value) => {
      const { x, y } = this.place(value, this.rim() - 1);
      return `M${x} ${y - 4}L${x + 4} ${y}L${x} ${y + 4}L${x - 4} ${y}Z`;
    }),
  );

  protected readonly words = computed(() => {
    const said = this.lanes().map((lane) => `${lane.set.short} ${valueWords(this.motion(), lane.choice)}`);
    return said.length
      ? `Norms of ${this.motion().name.toLowerCase()}: ${said.join('; ')}.`
      : 'No installed set has a norm for this motion.';
  });
}
