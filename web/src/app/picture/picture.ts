import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import {
  finestStep,
  atLeastOff,
  formatFixed,
  formatNumber,
  measurementKey,
  modedName,
  PICTURE_SETS,
  protocolOfId,
  OFF_SQUARE,
  type PictureLengthValue,
  type PictureValue,
  type PlanStep,
  type Point,
} from '@dial-gauge/core';
import { fullName } from '../caseload/words';
import { Drafts } from '../data/drafts';
import { VisitCommands } from '../data/visit-commands';
import { VisitStore } from '../data/visit-store';
import { keyOfStep, stepsOf } from '../measure/record/course';
import { pictured } from '../measure/sources/pictured';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { LookOver } from './look-over';
import { Marking, type Moment } from './marking';
import { OverTimeChart, type OverTime } from './over-time';
import { Review } from './review';
import { snapshot } from './snapshot';
import { PictureStage, type Shown } from './stage';
import { ToScreen } from './to-screen-form';

/** Largest file that is opened, in bytes, and most pixels of a side. */
const LARGEST = 400_000_000;
const MOST_PIXELS = 12_000;
/** A clip tells how fast its frames go only while it plays; until then this is taken. */
const USUAL_RATE = 30;
const THUMB = 320;

interface Kept {
  readonly t: number;
  readonly picture: string;
}

/** Angles out of a still or a clip. The file stays in this browser: nothing of it is sent. */
@Component({
  selector: 'dg-picture',
  imports: [Frame, LookOver, MatButtonModule, OverTimeChart, Pending, PictureStage, RouterLink, ToScreen],
  providers: [Marking, Review, VisitCommands],
  templateUrl: './picture.html',
  styleUrl: './picture.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PicturePage {
  private readonly visits = inject(VisitStore);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);
  protected readonly marking = inject(Marking);
  private readonly review = inject(Review);
  readonly id = input.required<string>();

  /** `over`: the clip is looked over for whoever sent it. */
  readonly look = input<string>();

  protected readonly visit = rxResource({ params: () => this.id(), stream: ({ params }) => this.visits.visit(params) });
  protected readonly sets = PICTURE_SETS;
  protected readonly views = OFF_SQUARE;
  protected readonly problem = signal('');
  protected readonly still = signal<ImageBitmap | null>(null);
  /** Address of a clip, in this page alone. */
  protected readonly clip = signal<string | null>(null);
  protected readonly length = signal(0);
  protected readonly rate = signal(USUAL_RATE);
  protected readonly shown = signal<Shown | null>(null);
  protected readonly isPlaying = signal(false);
  /** Stills of marked moments, for two side by side. */
  private readonly kept = signal<readonly Kept[]>([]);
  protected readonly beside = signal<readonly number[]>([]);
  protected readonly courseOf = signal<string | null>(null);
  private readonly video = viewChild<ElementRef<HTMLVideoElement>>('video');
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('canvas');

  protected readonly name = computed(() => (this.visit.hasValue() ? fullName(this.visit.value().patient) : ''));
  protected readonly isOpen = computed(() => this.still() !== null || this.clip() !== null);
  protected readonly todo = computed(() => {
    const next = this.marking.next();
    return next ? `Touch the picture at: ${next.label}` : 'All placed. Drag a mark, or move it with the arrow keys.';
  });
  protected readonly overTime = computed((): OverTime | null => {
    const course = this.marking.course();
    const found = course.find(({ angle }) => angle.id === this.courseOf()) ?? course[0];
    return found && found.points.length > 1 ? { label: found.angle.label, points: found.points, peak: found.peak } : null;
  });
  /** Whatever on the run sheet may be read off a picture. */
  protected readonly steps = computed((): readonly PlanStep[] =>
    this.visit.hasValue() ? stepsOf(this.visit.value()).filter((step) => protocolOfId(step.protocol)!.instruments.includes('picture')) : [],
  );

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => {
        this.marking.open(id);
        this.review.open(id);
      });
    });
    effect(() => {
      const [still, canvas] = [this.still(), this.canvas()?.nativeElement];
      if (still && canvas) canvas.getContext('2d')?.drawImage(still, 0, 0);
    });
    inject(DestroyRef).onDestroy(() => this.forget());
  }

  protected async open(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (file) await this.use(file);
  }

  /** A figure that was drawn from known angles, to try with. */
  protected async drawn(name: string, type: string): Promise<void> {
    try {
      const answer = await fetch(`/drawn/${name}`);
      await this.use(new File([await answer.blob()], name, { type }));
    } catch {
      this.problem.set('The drawn figure was not fetched: there is no connection. A file of your own opens without one.');
    }
  }

  private async use(file: File): Promise<void> {
    this.problem.set('');
    if (file.size > LARGEST) return this.problem.set(`${file.name} is too large; allowed: up to ${LARGEST / 1e6} MB.`);
    this.forget();
    if (file.type.startsWith('video/')) this.openClip(file);
    else await this.openStill(file);
  }

  private async openStill(file: File): Promise<void> {
    try {
      const still = await createImageBitmap(file, { imageOrientation: 'from-image' });
      if (Math.max(still.width, still.height) > MOST_PIXELS)
        return this.problem.set(`${file.name} is ${still.width} × ${still.height}; allowed: up to ${MOST_PIXELS} a side.`);
      this.still.set(still);
      this.marking.at.set(0);
      this.take(file.name);
      this.show(still, still.width, still.height);
    } catch {
      this.problem.set(`${file.name} is no picture or clip that this browser opens; allowed: JPEG, PNG, WebP, MP4, WebM.`);
    }
  }

  private openClip(file: File): void {
    this.take(file.name);
    this.clip.set(URL.createObjectURL(file));
  }

  private take(file: string): void {
    this.marking.take(file);
    this.review.take(file);
  }

  /** Lines of the marks of this moment, as they were drawn where they were marked; none while landmarks are placed here. */
  protected readonly before = computed(() => {
    const shown = this.shown();
    if (!shown || this.marking.lines().length > 0) return [];
    const scaled = ([x, y]: Point): Point => [x * shown.width, y * shown.height];
    return this.review
      .marks()
      .filter(({ t }) => Math.abs(t - this.marking.at()) < 0.001)
      .flatMap(({ lines }) => lines.map(([from, to]) => ({ from: scaled(from), to: scaled(to) })));
  });

  /** What is shown, with the lines that are drawn on it; null where nothing is open. */
  protected readonly snap = (): string | null => {
    const [shown, from] = [this.shown(), this.video()?.nativeElement ?? this.still()];
    return shown && from ? snapshot(from, shown, [...this.marking.lines(), ...this.before()]) : null;
  };

  protected clipReady(): void {
    const video = this.video()!.nativeElement;
    // Some clips tell how long they are only when their end was looked for.
    if (!Number.isFinite(video.duration)) {
      video.addEventListener('durationchange', () => this.clipReady(), { once: true });
      video.currentTime = 1e7;
      return;
    }
    this.length.set(video.duration);
    this.show(video, video.videoWidth, video.videoHeight);
    this.seek(this.marking.moments()[0]?.t ?? 0);
  }

  protected clipFailed(): void {
    this.problem.set(`${this.marking.file()} is no clip that this browser plays; allowed: MP4, WebM.`);
    this.forget();
  }

  private show(from: CanvasImageSource, width: number, height: number): void {
    this.shown.set({
      width,
      height,
      draw: (to, { x, y, size }, wanted) => to.drawImage(from, x, y, size, size, 0, 0, wanted, wanted),
    });
  }

  /** Frames are told apart while they are played: how far they lie from each other. */
  protected play(): void {
    const video = this.video()!.nativeElement;
    if (this.isPlaying()) return video.pause();
    let last: number | null = null;
    const gaps: number[] = [];
    const seen = (_: number, { mediaTime }: VideoFrameCallbackMetadata): void => {
      if (last !== null && mediaTime > last) gaps.push(mediaTime - last);
      last = mediaTime;
      this.marking.at.set(mediaTime);
      if (gaps.length >= 5) this.rate.set(Math.round(1 / [...gaps].sort((a, b) => a - b)[Math.floor(gaps.length / 2)]!));
      if (!video.paused && !video.ended) video.requestVideoFrameCallback(seen);
    };
    video.requestVideoFrameCallback(seen);
    void video.play();
  }

  protected step(frames: number): void {
    this.seek(this.marking.at() + frames / this.rate());
  }

  protected seek(t: number): void {
    const video = this.video()?.nativeElement;
    if (!video) return;
    video.pause();
    const at = Math.min(Math.max(t, 0), Math.max(0, this.length() - 0.001));
    // Half a frame in: on the edge between two nobody knows which is shown.
    video.currentTime = at;
    this.marking.at.set(Math.round(at * 1000) / 1000);
  }

  protected scrub(event: Event): void {
    this.seek(Number((event.target as HTMLInputElement).value));
  }

  protected changeRate(event: Event): void {
    const rate = Number((event.target as HTMLInputElement).value);
    if (rate >= 1 && rate <= 1000) this.rate.set(rate);
    else this.problem.set(`${rate} frames a second is not possible; allowed: 1 to 1000.`);
  }

  /** Puts the moment in hand beside another: a still of it, with what it came to. */
  protected keep(): void {
    const shown = this.shown();
    if (!shown) return;
    const canvas = document.createElement('canvas');
    const scale = THUMB / shown.width;
    [canvas.width, canvas.height] = [THUMB, Math.round(shown.height * scale)];
    const from = this.video()?.nativeElement ?? this.still();
    canvas.getContext('2d')!.drawImage(from!, 0, 0, canvas.width, canvas.height);
    const t = this.marking.at();
    this.kept.update((kept) => [...kept.filter((one) => one.t !== t), { t, picture: canvas.toDataURL('image/jpeg', 0.85) }]);
    this.beside.update((beside) => [...beside.filter((one) => one !== t), t].slice(-2));
  }

  protected readonly pair = computed(() =>
    this.beside().flatMap((t) => {
      const kept = this.kept().find((one) => one.t === t);
      const course = this.marking.course().flatMap(({ angle, points }) => {
        const at = points.find((point) => Math.abs(point.t - t) < 0.001);
        return at ? `${angle.label} ${formatFixed(at.degrees, 0)}°` : [];
      });
      return kept ? { ...kept, words: course.join(', ') || 'nothing is marked here' } : [];
    }),
  );

  protected readonly errorWords = (value: PictureValue): string =>
    [
      `at least ± ${formatNumber(atLeastOff(value, 1))}°`,
      ...viewWords(value.byView, '°'),
      value.byPlacing === null ? 'placed once' : `spread ${formatFixed(value.byPlacing, 1)}° of ${value.placings} placings`,
    ].join(', ');

  protected readonly lengthError = (value: PictureLengthValue): string =>
    [
      `at least ± ${formatFixed(atLeastOff(value, 0.1), 1)} cm`,
      ...viewWords(value.byView, ' cm'),
      value.byPlacing === null ? 'placed once' : `spread ${formatFixed(value.byPlacing, 1)} cm of ${value.placings} placings`,
    ].join(', ');
  protected readonly tenth = (value: number): string => formatFixed(value, 1);

  protected setScale(event: Event): void {
    const { value } = event.target as HTMLInputElement;
    const cm = value.trim() === '' ? null : Number(value);
    if (cm !== null && !(cm >= 0.1 && cm <= 1000)) return this.problem.set(`${value} cm is no length that is known; allowed: 0.1 to 1000.`);
    this.problem.set('');
    this.marking.setScale(cm);
  }

  protected readonly whole = (value: number): string => formatNumber(Math.round(value / finestStep('picture')) * finestStep('picture'));
  protected readonly seconds = (t: number): string => `${formatFixed(t, 2)} s`;
  protected readonly momentWords = (moment: Moment): string => this.seconds(moment.t);
  protected readonly stepKey = (step: PlanStep): string => keyOfStep(step);
  protected readonly stepWords = ({ protocol, side, mode, digit }: PlanStep): string => {
    const { motion, label } = protocolOfId(protocol)!;
    return `${modedName(motion, side, mode, digit)}, ${label}`;
  };

  /** On to the dial: it stands there as a reading that waits to be held. */
  protected handOver(angle: string, key: string): void {
    const value = this.marking.values().find((one) => one.angle.id === angle);
    const step = this.steps().find((one) => keyOfStep(one) === key);
    if (!value || !step) return this.problem.set('Choose which angle it is, and as which measurement it goes to the run sheet.');
    this.problem.set('');
    const { motion, position } = protocolOfId(step.protocol)!;
    const at = measurementKey({ ...step, motion, position });
    this.drafts.keep(pictured(this.id()), {
      key: at,
      degrees: Math.round(value.degrees),
      words: `picture, ${this.errorWords(value)}`.slice(0, 80),
    });
    void this.router.navigate(['/visits', this.id(), 'measure'], { queryParams: { at } });
  }

  private forget(): void {
    const clip = this.clip();
    if (clip) URL.revokeObjectURL(clip);
    this.still()?.close();
    this.clip.set(null);
    this.still.set(null);
    this.shown.set(null);
    this.kept.set([]);
    this.beside.set([]);
  }
}

/** By how much the view alone may be off; nothing where that rounds to nothing. */
const viewWords = (byView: number, suffix: string): string[] => {
  const words = formatFixed(byView, 1);
  return Number(words) === 0 ? [] : [`view ± ${words}${suffix}`];
};
