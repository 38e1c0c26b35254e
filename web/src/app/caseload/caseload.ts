import { ScrollingModule, type CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { Router, RouterLink } from '@angular/router';
import {
  CASELOAD_ORDERS,
  CASELOAD_PAGE,
  PATIENTS,
  type CaseloadOrder,
  type QueueCounts,
  type CaseloadPage as Page,
  type CaseloadRow,
  type OddRecord,
  type Outcome,
} from '@dial-gauge/contract';
import { differenceInCalendarDays, parseISO } from 'date-fns';
import { debounceTime, fromEvent, map, startWith, Subject, switchMap, tap, catchError, EMPTY, exhaustMap } from 'rxjs';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { OddRecords } from '../ui/odd-records';
import { halfEntered } from './half-entered';
import { asFound, episodeWords, fullName, OUTCOME_WORDS, personWords } from './words';
import { dayWords, lineWords, QUEUE_KINDS, reasonWords, type QueueGroup } from '@dial-gauge/core';
import { LazyDialog } from '../ui/lazy-dialog';
import { QueueMark } from '../ui/queue-mark';
import { Spark } from '../ui/spark';
import { May } from '../data/may';
import { IfMay } from '../ui/may.directive';

const ORDER_WORDS: Readonly<Record<CaseloadOrder, string>> = {
  urgent: 'who needs you first',
  latest: 'seen last first',
  name: 'by name',
  due: 'due first',
};
/** Rows from the end at which the next page is asked for. */
const AHEAD = 25;
/** So long after it was not told yet where somebody stands it is asked again. */
const TOLD_MS = 3_000;
/** Of the reasons of one person so many are shown in a row. */
const REASONS_SHOWN = 2;
/** Heights of a row, in pixels, on a desk and on a phone: rows that are not drawn are counted by it. */
const ROW = { wide: 74, narrow: 150 };
const NARROW = '(max-width: 700px)';
/** Keys that go from one person to another. */
const MOVES: Readonly<Record<string, number>> = { ArrowDown: 1, ArrowUp: -1 };

/** The door: who is in care, found by a word, in the order wanted; a page at a time, however many they are. */
@Component({
  selector: 'dg-caseload',
  imports: [Frame, IfMay, MatButtonModule, MatIconModule, OddRecords, QueueMark, RouterLink, ScrollingModule, Spark],
  host: { '(document:keydown)': 'press($event)' },
  templateUrl: './caseload.html',
  styleUrl: './caseload.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaseloadPage {
  private readonly api = inject(Api);
  private readonly dialogs = inject(LazyDialog);
  private readonly router = inject(Router);
  private readonly drafts = inject(Drafts);
  private readonly may = inject(May);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** Who was being added when the dialog closed or the page was left. */
  protected readonly half = signal(halfEntered(this.drafts));
  /** From the address, so that a reload shows the same. */
  readonly find = input('', { transform: (words: string | undefined) => words ?? '' });
  readonly order = input<string>();
  readonly whose = input('all', { transform: (whose: string | undefined) => whose ?? 'all' });
  readonly state = input<string>();
  protected readonly isEnded = computed(() => this.state() === 'ended');
  protected readonly counts = signal<QueueCounts | null>(null);
  protected readonly orders = CASELOAD_ORDERS.map((id) => ({ id, words: ORDER_WORDS[id] }));
  protected readonly rows = signal<readonly CaseloadRow[]>([]);
  protected readonly odd = signal<readonly OddRecord[]>([]);
  protected readonly next = signal<string | null>(null);
  protected readonly loaded = signal(false);
  protected readonly failure = signal('');
  protected readonly words = { dayWords, episodeWords, fullName, lineWords, personWords };
  private readonly viewport = viewChild<CdkVirtualScrollViewport>('viewport');
  private readonly asked = new Subject<void>();
  private readonly more = new Subject<void>();
  private readonly typed = new Subject<string>();
  private readonly untold = new Subject<void>();
  private readonly isNarrow = matchMedia(NARROW);
  protected readonly rowHeight = toSignal(
    fromEvent<MediaQueryListEvent>(this.isNarrow, 'change').pipe(
      map((event) => event.matches),
      startWith(this.isNarrow.matches),
      map((narrow) => (narrow ? ROW.narrow : ROW.wide)),
    ),
    { requireSync: true },
  );

  constructor() {
    const destroyed = inject(DestroyRef);
    const failed = (error: unknown) => {
      this.failure.set(toFailure(error).message);
      return EMPTY;
    };
    this.asked
      .pipe(
        tap(() => this.failure.set('')),
        switchMap(() => this.page().pipe(catchError(failed))),
        takeUntilDestroyed(destroyed),
      )
      .subscribe((page) => this.show([], page));
    this.more
      .pipe(
        exhaustMap(() => this.page(this.next() ?? undefined).pipe(catchError(failed))),
        takeUntilDestroyed(destroyed),
      )
      .subscribe((page) => this.show(this.rows(), page));
    this.untold.pipe(debounceTime(TOLD_MS), takeUntilDestroyed(destroyed)).subscribe(() => {
      // Whoever has scrolled on is not taken back to the top.
      if (this.rows().length > CASELOAD_PAGE) return;
      this.reload();
      this.count(this.whose());
    });
    this.typed.pipe(debounceTime(250), takeUntilDestroyed(destroyed)).subscribe((find) => this.goTo({ find: find || null }));
    effect(() => {
      this.find();
      this.order();
      this.state();
      untracked(() => this.reload());
    });
    effect(() => {
      const whose = this.whose();
      untracked(() => this.count(whose));
    });
  }

  protected chosenOrder(): CaseloadOrder {
    return CASELOAD_ORDERS.find((order) => order === this.order()) ?? 'urgent';
  }

  private page(after?: string) {
    const whose = this.whose();
    return this.api.call(PATIENTS.caseload, {
      query: {
        order: this.chosenOrder(),
        find: asFound(this.find()).slice(0, 80),
        whose: whose === 'all' ? undefined : whose,
        state: this.isEnded() ? 'ended' : undefined,
        after,
      },
    });
  }

  /** Beside the list: where they cannot be had, the list is all the same. */
  private count(whose: string): void {
    this.api.call(PATIENTS.queueCounts, { query: { whose: whose === 'all' ? undefined : whose } }).subscribe({
      next: (counts) => this.counts.set(counts),
      error: () => this.counts.set(null),
    });
  }

  private show(before: readonly CaseloadRow[], { rows, odd, next }: Page): void {
    // A person who moved down the order between two pages is in both: the later row is kept.
    const again = new Set(rows.map(({ episode }) => episode.id));
    this.rows.set([...before.filter(({ episode }) => !again.has(episode.id)), ...rows]);
    this.odd.update((all) => (before.length ? [...all, ...odd] : odd));
    this.next.set(next);
    this.loaded.set(true);
    // Where somebody stands is being told: looked at again in a moment.
    if (rows.some(({ standing, lastVisit }) => standing === null && lastVisit)) this.untold.next();
    if (before.length === 0) this.viewport()?.scrollToIndex(0);
  }

  protected reload(): void {
    this.asked.next();
  }

  /** The next page, before the last row of this one is reached. */
  protected scrolled(firstShown: number): void {
    const shown = firstShown + (this.viewport()?.getRenderedRange().end ?? 0) - (this.viewport()?.getRenderedRange().start ?? 0);
    if (this.next() && shown + AHEAD >= this.rows().length) this.more.next();
  }

  protected search(text: string): void {
    this.typed.next(text.trim());
  }

  protected goTo(queryParams: { find?: string | null; order?: string | null; whose?: string; state?: string | null }): void {
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }

  protected key = (_: number, row: CaseloadRow): string => row.episode.id;

  protected groupOf({ standing, ended }: CaseloadRow): QueueGroup {
    const first = standing?.reasons[0];
    return ended || !first ? 'way' : QUEUE_KINDS[first.kind].group;
  }

  /** Why they need somebody, the first reason first, as much as a row holds. */
  protected saidOf({ standing, episode, ended, lastVisit }: CaseloadRow): readonly string[] {
    if (ended) return [`discharged ${dayWords(ended.on)}`, OUTCOME_WORDS[ended.outcome as Outcome] ?? ''].filter(Boolean);
    if (standing === null) return [lastVisit ? 'being looked at …' : 'not measured yet: open the record to start a visit'];
    if (standing.reasons.length > 0) return standing.reasons.slice(0, REASONS_SHOWN).map(reasonWords);
    if (episode.dueOn) return [`recheck ${dayWords(episode.dueOn)}`];
    return [lastVisit ? 'nothing agreed' : 'not measured yet: open the record to start a visit'];
  }

  protected press(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('mat-dialog-container')) return;
    const move = MOVES[event.key];
    if (move !== undefined && !target.matches('select, textarea')) {
      const links = [...this.host.querySelectorAll<HTMLElement>('cdk-virtual-scroll-viewport li > a')];
      const at = links.indexOf(target);
      const next = at < 0 ? links[0] : links[at + move];
      if (next) {
        event.preventDefault();
        next.focus();
      }
      return;
    }
    if (target.matches('input, select, textarea')) return;
    if (event.key === '/') {
      event.preventDefault();
      this.host.querySelector<HTMLElement>('input[type=search]')?.focus();
    } else if (event.key === 'n' && this.may.do('screen')) {
      event.preventDefault();
      this.addPatient();
    }
  }

  protected ago(day: string): string {
    const days = differenceInCalendarDays(new Date(), parseISO(day));
    if (days <= 0) return 'today';
    if (days === 1) return 'yesterday';
    return days < 21 ? `${days} days ago` : `${Math.round(days / 7)} weeks ago`;
  }

  protected addPatient(): void {
    this.dialogs
      .open<string>(() => import('./new-patient.dialog').then((m) => m.NewPatientDialog), { width: '560px', maxHeight: '92vh' })
      .subscribe((id) => {
        this.half.set(halfEntered(this.drafts));
        if (id) void this.router.navigate(['/patients', id]);
      });
  }
}
