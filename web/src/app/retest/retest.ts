import {
  afterNextRender,
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
import { describeEnd, memoryWords, motion, rounded } from '@dial-gauge/core';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { LazyDialog } from '../ui/lazy-dialog';
import { INSTRUMENT_WORDS } from '../ui/words';
import { MarkerPicker } from './marker-picker';
import { Retesting, type Place } from './retesting';
import { Rounds } from './rounds';
import type { WorseAnswer, WorseQuestion } from './worse.dialog';

/** Two or three quick markers, a drill of seconds, the same markers again: better, the same or worse. */
@Component({
  selector: 'dg-retest',
  imports: [Frame, MarkerPicker, MatButtonModule, Pending, Rounds, RouterLink],
  providers: [Retesting],
  templateUrl: './retest.html',
  styleUrl: './retest.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RetestPage {
  private readonly api = inject(Api);
  private readonly dialogs = inject(LazyDialog);
  private readonly injector = inject(Injector);
  protected readonly retesting = inject(Retesting);
  readonly id = input.required<string>();
  protected readonly loaded = rxResource({ params: () => this.id(), stream: ({ params }) => this.api.call('retests', { id: params }) });
  protected readonly words = { episodeWords, fullName, memoryWords, personWords };
  protected readonly typed = signal('');
  private readonly entry = viewChild<ElementRef<HTMLInputElement>>('entry');

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
  /** Worse now: said at once, not only at the end. */
  protected readonly worse = computed(() => {
    const finish = this.retesting.finish();
    return finish?.kind === 'worse' ? finish : null;
  });

  constructor() {
    effect(() => {
      const view = this.loaded.hasValue() ? this.loaded.value() : undefined;
      if (view) untracked(() => void this.retesting.load(view));
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

  protected type(event: Event): void {
    this.typed.set((event.target as HTMLInputElement).value);
  }

  /** Enter: a reading while one is asked for, otherwise the drill that was done. */
  protected enter(event: Event): void {
    event.preventDefault();
    const done = this.retesting.place() ? this.retesting.read(this.typed()) : this.retesting.drill(this.typed());
    if (done) this.clear();
  }

  protected again(drill: string): void {
    if (this.retesting.drill(drill)) this.clear();
  }

  protected goTo(place: Place): void {
    this.clear();
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
        if (answer === 'again' && worse.goBackTo) this.again(worse.goBackTo);
        this.focus();
      });
  }

  /** At once, not with the next drawing: fast hands type the next figure before it. */
  private clear(): void {
    this.typed.set('');
    const entry = this.entry()?.nativeElement;
    if (entry) entry.value = '';
  }

  private focus(): void {
    afterNextRender({ read: () => this.entry()?.nativeElement.focus() }, { injector: this.injector });
  }
}
