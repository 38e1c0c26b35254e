import { computed, inject, Injectable, signal } from '@angular/core';
import { CLIPS, type ClipReviewView, type ClipsView, type StillView } from '@dial-gauge/contract';
import { inTime, type ClipMark, type ClipTry, type View } from '@dial-gauge/core';
import type { Observable } from 'rxjs';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { toFailure, type Failure } from '../data/problem';
import { VisitCommands } from '../data/visit-commands';

/** What is marked in a clip and may not be with the server yet: kept on this device at once. */
interface Marked {
  readonly clip: string;
  /** The version of the server it was made from; 0: none. */
  readonly from: number;
  readonly file: string;
  readonly view: View;
  readonly marks: readonly ClipMark[];
  readonly isShared: boolean;
  /** True once something of it was changed here and not kept yet. */
  readonly isChanged: boolean;
  /** Tries that were handed to the screen, so that none is handed over twice unseen. */
  readonly taken: readonly string[];
}

const isMarked = (value: unknown): value is Marked =>
  typeof value === 'object' && value !== null && 'clip' in value && 'marks' in value && 'from' in value;
const isOpen = (value: unknown): value is { readonly clip: string } => typeof value === 'object' && value !== null && 'clip' in value;
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Clips of a visit that are looked over, and the stills that are attached to it. */
@Injectable()
export class Review {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  private readonly commands = inject(VisitCommands);
  private visit = '';
  private readonly served = signal<ClipsView>({ reviews: [], stills: [] });
  private readonly state = signal<Marked | null>(null);
  readonly isLoaded = signal(false);
  readonly busy = signal(false);
  readonly failure = signal<Failure | null>(null);
  readonly said = signal('');

  readonly marked = this.state.asReadonly();
  readonly marks = computed(() => inTime(this.state()?.marks ?? []));
  readonly stills = computed((): readonly StillView[] => this.served().stills);
  readonly all = computed((): readonly ClipReviewView[] => this.served().reviews);
  private readonly kept = computed(() => this.served().reviews.find(({ clip }) => clip === this.state()?.clip));
  readonly version = computed(() => this.kept()?.version ?? 0);
  /** True while the server has not all of it. */
  readonly isUnsaved = computed(() => {
    const [state, kept] = [this.state(), this.kept()];
    if (!state) return false;
    if (!kept) return state.marks.length > 0;
    const { file, view, marks, isShared } = state;
    return !same({ file, view, marks, isShared }, { file: kept.file, view: kept.view, marks: kept.marks, isShared: kept.isShared });
  });

  open(visit: string): void {
    this.visit = visit;
    void this.commands.open(visit);
    this.api.call(CLIPS.clips, { id: visit }).subscribe({
      next: (view) => {
        this.served.set(view);
        this.isLoaded.set(true);
        const state = this.state();
        // A file may have been opened before it was known that it was looked over already.
        const known = state && this.isUntouched(state) ? view.reviews.find(({ file }) => file === state.file) : undefined;
        const last = state ? known?.clip : (this.drafts.read(`clip-at.${visit}`, isOpen)?.clip ?? view.reviews[0]?.clip);
        if (last) this.choose(last);
      },
      error: (error: unknown) => {
        this.failure.set(toFailure(error));
        const last = this.drafts.read(`clip-at.${visit}`, isOpen)?.clip;
        if (last) this.choose(last);
      },
    });
  }

  /** The clip of a file: the one that was looked over before, or a new one. */
  take(file: string): void {
    if (this.state()?.file === file) return;
    const known = this.all().find((review) => review.file === file);
    if (known) return this.choose(known.clip);
    this.set({ clip: crypto.randomUUID(), from: 0, file, view: 'side', marks: [], isShared: false, isChanged: false, taken: [] });
  }

  choose(clip: string): void {
    const draft = this.drafts.read(this.draft(clip), isMarked);
    const kept = this.all().find((review) => review.clip === clip);
    // What another device kept since is newer than what was never changed here.
    if (draft && (draft.isChanged || !kept || kept.version <= draft.from)) return this.set(draft);
    if (!kept) return;
    const { file, view, marks, isShared, version } = kept;
    this.set({
      clip,
      from: version,
      file,
      view,
      marks: marks as readonly ClipMark[],
      isShared,
      isChanged: false,
      taken: draft?.taken ?? [],
    });
  }

  private readonly isUntouched = ({ from, marks }: Marked): boolean => from === 0 && marks.length === 0;
  /** True where another device kept a version since this one was begun. */
  readonly isBehind = computed(() => this.version() > (this.state()?.from ?? 0) && (this.state()?.isChanged ?? false));

  private readonly draft = (clip: string): string => `clip.${this.visit}.${clip}`;

  private set(state: Marked): void {
    this.state.set(state);
    this.drafts.keep(`clip-at.${this.visit}`, { clip: state.clip });
    if (state.marks.length > 0 || state.from > 0) this.drafts.keep(this.draft(state.clip), state);
  }

  change(change: Partial<Pick<Marked, 'view' | 'isShared' | 'taken'>>): void {
    const state = this.state();
    if (state) this.set({ ...state, ...change, isChanged: state.isChanged || !('taken' in change) });
  }

  put(mark: ClipMark): void {
    const state = this.state();
    if (state) this.set({ ...state, isChanged: true, marks: inTime([...state.marks.filter(({ id }) => id !== mark.id), mark]) });
  }

  drop(id: string): void {
    const state = this.state();
    if (state) this.set({ ...state, isChanged: true, marks: state.marks.filter((mark) => mark.id !== id) });
  }

  /** To the server, as another version. */
  keep(): void {
    const state = this.state();
    if (!state || this.busy()) return;
    const { clip, file, view, marks, isShared, from } = state;
    const body = { id: crypto.randomUUID(), clip, version: from + 1, file, view, marks: marks as never, isShared };
    this.send(this.api.call(CLIPS.keepReview, { id: this.visit, body }), 'Kept with the visit.', (served) => {
      const version = served.reviews.find((review) => review.clip === clip)?.version ?? from + 1;
      // What was marked meanwhile stays, and is still to be kept.
      const now = this.state()!;
      this.set({ ...now, from: version, isChanged: !same([now.marks, now.view, now.isShared], [marks, view, isShared]) });
    });
  }

  /** Takes what another window kept in place of what is here. */
  takeServed(): void {
    const clip = this.state()?.clip;
    if (!clip) return;
    this.drafts.drop(this.draft(clip));
    this.api.call(CLIPS.clips, { id: this.visit }).subscribe({
      next: (view) => {
        this.served.set(view);
        this.failure.set(null);
        this.choose(clip);
      },
      error: (error: unknown) => this.failure.set(toFailure(error)),
    });
  }

  /** Attached on purpose: from here on it is with the clinic. */
  attach(base64: string, words: string, then: (still: string) => void = () => undefined): void {
    const id = crypto.randomUUID();
    this.send(
      this.api.call(CLIPS.attachStill, { id: this.visit, body: { id, words: words.slice(0, 120), base64 } }),
      'The still is kept with the visit.',
      () => then(id),
    );
  }

  remove(still: string): void {
    this.send(this.api.call(CLIPS.removeStill, { id: still, body: {} }), 'The still is gone.', () => {
      for (const mark of this.marks().filter((one) => one.still === still)) this.put({ ...mark, still: null });
    });
  }

  still(id: string): Observable<{ base64: string }> {
    return this.api.call(CLIPS.still, { id });
  }

  /** On to the screens of the visit, like a try that was entered there. */
  toScreen({ screen, item, view, side, try: one }: ClipTry, words: string): void {
    const id = crypto.randomUUID();
    this.commands.send({
      id,
      visitId: this.visit,
      words,
      route: 'holdScreenTry',
      target: this.visit,
      body: { id, screen, item, ...(view ? { view } : {}), ...(side === 'midline' ? {} : { side }), try: one as never },
    });
    this.said.set(`${words} is on the screen.`);
  }

  private send(asked: Observable<ClipsView>, said: string, then: (view: ClipsView) => void): void {
    this.busy.set(true);
    this.failure.set(null);
    this.said.set('');
    asked.subscribe({
      next: (view) => {
        this.busy.set(false);
        this.served.set(view);
        this.said.set(said);
        then(view);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.failure.set(toFailure(error));
      },
    });
  }
}
