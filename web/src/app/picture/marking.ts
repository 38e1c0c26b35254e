import { computed, inject, Injectable, signal } from '@angular/core';
import {
  PICTURE_SETS,
  pictureSet,
  valuesIn,
  type OFF_SQUARE,
  type Landmark,
  type PictureSet,
  type PictureValue,
  type Placing,
  type Point,
} from '@dial-gauge/core';
import { Drafts } from '../data/drafts';

/** One moment of a clip, or the still itself: where the landmarks were placed, once or several times. */
export interface Moment {
  /** Seconds; 0 for a still. */
  readonly t: number;
  readonly placings: readonly Placing[];
}

/** What was marked: kept on this device for the visit, so that it is there after a reload. The picture itself is not kept. */
interface Marked {
  readonly file: string;
  readonly set: string;
  readonly view: (typeof OFF_SQUARE)[number];
  readonly moments: readonly Moment[];
}

const NOTHING: Marked = { file: '', set: 'squatSide', view: 5, moments: [] };
const isMarked = (value: unknown): value is Marked => typeof value === 'object' && value !== null && 'moments' in value && 'set' in value;
/** Two moments that lie nearer are one. */
const ONE_MOMENT = 0.001;

/** Where landmarks are placed in a picture, and what they come to. */
@Injectable()
export class Marking {
  private readonly drafts = inject(Drafts);
  private visit = '';
  private readonly state = signal<Marked>(NOTHING);
  readonly at = signal(0);

  readonly file = computed(() => this.state().file);
  readonly view = computed(() => this.state().view);
  readonly set = computed((): PictureSet => pictureSet(this.state().set) ?? PICTURE_SETS[0]!);
  readonly moments = computed(() => this.state().moments);
  readonly moment = computed(() => this.momentAt(this.at()));
  /** Being placed now: the last of several. */
  readonly placing = computed((): Placing => this.moment()?.placings.at(-1) ?? {});
  /** The landmark that is placed next. */
  readonly next = computed((): Landmark | undefined => this.set().landmarks.find(({ id }) => !this.placing()[id]));
  readonly values = computed((): readonly PictureValue[] => this.valuesAt(this.moment()));
  /** By moments: what an angle came to, in the order of time. */
  readonly course = computed(() =>
    this.set().angles.map((angle) => {
      const points = this.moments().flatMap((moment) => {
        const found = this.valuesAt(moment).find((one) => one.angle.id === angle.id);
        return found ? { t: moment.t, degrees: found.degrees } : [];
      });
      const peak = points.reduce<{ t: number; degrees: number } | null>(
        (most, one) => (most && most.degrees >= one.degrees ? most : one),
        null,
      );
      return { angle, points, peak };
    }),
  );

  open(visit: string): void {
    this.visit = visit;
    this.state.set(this.drafts.read(this.draft(), isMarked) ?? NOTHING);
  }

  /** The same file again brings its marks back; another one begins anew. */
  take(file: string): void {
    if (file === this.state().file) return;
    this.change({ file, moments: [] });
  }

  choose(set: string): void {
    // Other landmarks: what was placed for others is none of these.
    if (set !== this.state().set) this.change({ set, moments: [] });
  }

  look(view: (typeof OFF_SQUARE)[number]): void {
    this.change({ view });
  }

  place(landmark: string, point: Point): void {
    const rest = this.placing();
    this.write([...(this.moment()?.placings.slice(0, -1) ?? []), { ...rest, [landmark]: point }]);
  }

  /** All landmarks of this moment once more, without a look at where they were. */
  again(): void {
    this.write([...(this.moment()?.placings ?? []), {}]);
  }

  clear(): void {
    this.change({ moments: this.moments().filter((moment) => moment !== this.moment()) });
  }

  private write(placings: readonly Placing[]): void {
    const t = this.moment()?.t ?? this.at();
    const others = this.moments().filter((moment) => moment !== this.moment());
    this.change({ moments: [...others, { t, placings }].sort((a, b) => a.t - b.t) });
  }

  private momentAt(t: number): Moment | undefined {
    return this.moments().find((moment) => Math.abs(moment.t - t) < ONE_MOMENT);
  }

  private valuesAt(moment: Moment | undefined): readonly PictureValue[] {
    return moment ? valuesIn(this.set(), moment.placings, this.view()) : [];
  }

  private change(change: Partial<Marked>): void {
    this.state.update((state) => ({ ...state, ...change }));
    this.drafts.keep(this.draft(), this.state());
  }

  private readonly draft = (): string => `picture.${this.visit}`;
}
