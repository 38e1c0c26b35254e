import {
  afterNextRender,
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { RETESTS } from '@dial-gauge/contract';
import { format, parseISO } from 'date-fns';
import { describeEnd, memoryWords, motion, rounded } from '@dial-gauge/core';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { Drafts, isText } from '../data/drafts';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { FigureEntry } from '../ui/figure-entry';
import { LazyDialog } from '../ui/lazy-dialog';
import { INSTRUMENT_WORDS } from '../ui/words';
import { MarkerPicker } from './marker-picker';
import { Retesting, type Place } from './retesting';
import { Rounds } from './rounds';
import type { WorseAnswer, WorseQuestion } from './worse.dialog';

/** Two or three quick markers, a drill of seconds, the same markers again: better, the same or worse. */
@Component({
  selector: 'dg-retest',
  imports: [FigureEntry, Frame, MarkerPicker, MatButtonModule, Pending, Rounds, RouterLink],
  providers: [Retesting],
  templateUrl: './retest.html',
  styleUrl: './retest.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RetestPage {
  private readonly api = inject(Api);
  private readonly dialogs = inject(LazyDialog);
  private readonly drafts = inject(Drafts);
  private readonly injector = inject(Injector);
  private readonly app = inject(ApplicationRef);
  protected readonly retesting = inject(Retesting);
  readonly id = input.required<string>();
  protected readonly loaded = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(RETESTS.retests, { id: params }),
  });
  protected readonly words = { episodeWords, fullName, memoryWords, personWords };
  protected readonly typed = signal('');
  private readonly entry = viewChild(FigureEntry);
  private readonly drill = viewChild<ElementRef<HTMLInputElement>>('drill');

  /** Names what is typed for the reading in turn, so that it is kept for that one alone. */
  private readonly draft = computed(() => {
    const [retest, place] = [this.retesting.open(), this.retesting.place()];
    return retest && place && `figure.${retest.view.id}.${place.round}.${place.marker}`;
  });

  private keptAs: string | null = null;

  /** What is read now, and how it stood before. */
  protected readonly asked = computed(() => {
    const [retest, place] = [this.retesting.open(), this.retesting.place()];
    if (!retest || !place) return null;
    const marker = retest.markers[place.marker]!;
    const about = motion(marker.motion);
    const value = (round: number) => {
      const at = retest.rounds[round]?.values[place.marker];
      return at === null || at === undefined ? '' : describeEnd(about, rounded(at, about.unit));
    };
    const before = place.round > 0 ? value(place.round - 1) : '';
    return {
      name: retest.names[place.marker]!,
      when: place.round === 0 ? 'baseline' : `after “${retest.rounds[place.round]!.drill}”`,
      instrument: INSTRUMENT_WORDS[marker.instrument],
      before: before && (place.round === 1 ? `at the baseline ${before}` : `before it ${before}`),
      again: value(place.round) && `is ${value(place.round)}: another figure replaces it, the first stays on record`,
    };
  });
  protected readonly finished = computed(() =>
    this.retesting.finished().map((retest, index) => ({
      retest,
      title: `Retest ${index + 1}, finished ${format(parseISO(retest.view.finishedAt!), 'HH:mm')} by ${retest.view.by}`,
    })),
  );
  /** Worse now: said at once, not only at the end. */
  protected readonly worse = computed(() => {
    const finish = this.retesting.finish();
    return finish?.kind === 'worse' ? finish : null;
  });

  constructor() {
    // There may be no connection when it is needed.
    void import('./worse.dialog').catch(() => undefined);
    effect(() => {
      const view = this.loaded.hasValue() ? this.loaded.value() : undefined;
      if (view) untracked(() => void this.retesting.load(view));
    });
    effect(() => {
      const [name, typed] = [this.draft(), this.typed()];
      if (name) untracked(() => this.keepTyped(name, typed));
    });
    effect(() => {
      if (this.retesting.ended() > 0) untracked(() => this.loaded.reload());
    });
    effect(() => {
      this.retesting.place();
      this.retesting.open();
      untracked(() => this.focus());
    });
  }

  /** What is typed and not held yet; at a reading come back to, what was typed there before. */
  private keepTyped(name: string, typed: string): void {
    const left = name !== this.keptAs && typed === '' ? this.drafts.read(name, isText) : null;
    this.keptAs = name;
    if (left) this.typed.set(left);
    else if (typed === '') this.drafts.drop(name);
    else this.drafts.keep(name, typed);
  }

  protected hold(): void {
    const name = this.draft();
    if (!this.retesting.read(this.typed())) return;
    if (name) this.drafts.drop(name);
    this.entry()?.clear();
    this.onAtOnce();
  }

  /** What was done: its field goes when it is taken, and keeps its words when it is not. */
  protected note(drill: string): void {
    this.retesting.drill(drill);
    this.onAtOnce();
  }

  /** The field that comes next is there before the next key: with the next drawing its first letter would fall into this one. */
  private onAtOnce(): void {
    this.app.tick();
  }

  protected goTo(place: Place): void {
    this.typed.set('');
    this.entry()?.clear();
    this.retesting.goTo(place);
    this.focus();
  }

  protected stop(): void {
    const worse = this.worse();
    if (!worse) return this.retesting.end();
    const data: WorseQuestion = { why: worse.why, goBackTo: worse.goBackTo };
    this.dialogs
      .open<WorseAnswer>(() => import('./worse.dialog').then((m) => m.WorseDialog), { data, width: '520px' })
      .subscribe((answer) => {
        if (answer === 'finish') this.retesting.end();
        if (answer === 'again' && worse.goBackTo) this.note(worse.goBackTo);
        this.focus();
      });
  }

  private focus(): void {
    afterNextRender({ read: () => (this.entry() ?? this.drill()?.nativeElement)?.focus() }, { injector: this.injector });
  }
}
