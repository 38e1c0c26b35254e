import { computed, inject, Injectable, signal } from '@angular/core';
import {
  PICTURE_SETS,
  lengthsIn,
  pictureSet,
  scaleOf,
  valuesIn,
  type OFF_SQUARE,
  type Landmark,
  type PictureAngle,
  type PictureLengthValue,
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

/** A length in the picture that is known: its ends, as far as they are placed, and how long it is. */
interface Scale {
  readonly from: Point | null;
  readonly to: Point | null;
  readonly cm: number | null;
}
const NO_SCALE: Scale = { from: null, to: null, cm: null };
/** Its ends, as marks that are placed like any other. */
const SCALE_ENDS: readonly (Landmark & { readonly end: 'from' | 'to' })[] = [
  { id: 'scale-from', label: 'one end of the known length', end: 'from' },
  { id: 'scale-to', label: 'its other end', end: 'to' },
];

/** What was marked: kept on this device for the visit, so that it is there after a reload. The picture itself is not kept. */
interface Marked {
  readonly file: string;
  readonly set: string;
  readonly view: (typeof OFF_SQUARE)[number];
  readonly moments: readonly Moment[];
  /** Left out: none is known. */
  readonly scale?: Scale;
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
  readonly scale = computed(() => this.state().scale ?? NO_SCALE);
  /** True while the ends of the known length are placed before anything else. */
  readonly isScaling = signal(false);
  private readonly cmPerPixel = computed(() => {
    const { from, to, cm } = this.scale();
    return from && to && cm ? scaleOf(from, to, cm) : null;
  });
  readonly lengths = computed((): readonly PictureLengthValue[] => {
    const [scale, moment] = [this.cmPerPixel(), this.moment()];
    return scale && moment ? lengthsIn(this.set(), moment.placings, scale, this.view()) : [];
  });
  /** The landmark that is placed next. */
  readonly next = computed((): Landmark | undefined => {
    const end = this.isScaling() ? SCALE_ENDS.find(({ end }) => !this.scale()[end]) : undefined;
    return end ?? this.set().landmarks.find(({ id }) => !this.placing()[id]);
  });
  /** All that stands on the picture. */
  readonly marks = computed(() => {
    const landmarks = this.set().landmarks.map(({ id, label }) => ({ id, label, at: this.placing()[id] ?? null }));
    const ends = SCALE_ENDS.map(({ id, label, end }) => ({ id, label, at: this.scale()[end] }));
    return [...landmarks, ...ends].flatMap(({ at, ...mark }) => (at ? [{ ...mark, at }] : []));
  });
  /** What the angles are taken between. */
  readonly lines = computed(() => {
    const placing = this.placing();
    const pairs = this.set().angles.flatMap(pairsOf);
    const distinct = new Map(pairs.map(([a, b]) => [[a, b].sort().join(), [a, b] as const]));
    return [...distinct.values()].flatMap(([a, b]) => {
      const [from, to] = [placing[a], placing[b]];
      return from && to ? [{ from, to }] : [];
    });
  });
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
    this.change({ file, moments: [], scale: NO_SCALE });
  }

  /** Begins a known length anew: its ends are placed next. */
  measureScale(): void {
    this.change({ scale: { ...NO_SCALE, cm: this.scale().cm } });
    this.isScaling.set(true);
  }

  setScale(cm: number | null): void {
    this.change({ scale: { ...this.scale(), cm } });
  }

  choose(set: string): void {
    // Other landmarks: what was placed for others is none of these.
    if (set !== this.state().set) this.change({ set, moments: [] });
  }

  look(view: (typeof OFF_SQUARE)[number]): void {
    this.change({ view });
  }

  place(landmark: string, point: Point): void {
    const end = SCALE_ENDS.find(({ id }) => id === landmark);
    if (end) {
      this.change({ scale: { ...this.scale(), [end.end]: point } });
      return this.isScaling.set(this.scale().from === null || this.scale().to === null);
    }
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
    return moment ? valuesIn(this.set(), moment.placings, this.view(), this.cmPerPixel()) : [];
  }

  private change(change: Partial<Marked>): void {
    this.state.update((state) => ({ ...state, ...change }));
    this.drafts.keep(this.draft(), this.state());
  }

  private readonly draft = (): string => `picture.${this.visit}`;
}

function pairsOf({ kind, of }: PictureAngle): readonly (readonly [string, string])[] {
  const [a, b, c, d] = of as readonly [string, string, string?, string?];
  if (kind === 'between') return [[a, b] as const, [c!, d!] as const];
  return c ? [[a, b] as const, [b, c] as const] : [[a, b] as const];
}
