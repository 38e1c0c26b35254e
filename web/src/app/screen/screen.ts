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
import { JUDGEMENT, SCREENINGS, type ScreenTryView, limitsOf } from '@dial-gauge/contract';
import {
  breakdownOf,
  faultSign,
  faultWords,
  FELT_WORDS,
  itemReasonWords,
  MODIFICATION_WORDS,
  painAdvice,
  protocolOfId,
  motion,
  POSITION_WORDS,
  reason,
  suffixOf,
  tellsWords,
  testWords,
  thresholdWords,
  VIEW_WORDS,
  findItem,
  type Hour,
  type Modification,
  type NextTest,
  type ItemTry,
  type Side,
  type View,
} from '@dial-gauge/core';
import { isToday, parseISO } from 'date-fns';
import { catchError, of } from 'rxjs';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { VisitCommands } from '../data/visit-commands';
import { May } from '../data/may';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { SceneFigure } from '../ui/scene/scene';

import { CircleRing } from './circle-ring';
import { ScreenResults } from './results';
import { Screening } from './screening';
import { ScreenSheet } from './sheet';

/** One item at a time: words to say, the figure, what is seen; quality and pain apart. */
@Component({
  selector: 'dg-screen',
  imports: [CircleRing, Frame, MatButtonModule, Pending, RouterLink, SceneFigure, ScreenResults, ScreenSheet],
  providers: [Screening, VisitCommands],
  templateUrl: './screen.html',
  styleUrl: './screen.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
})
export class ScreenPage {
  private readonly may = inject(May);
  private readonly api = inject(Api);
  private readonly injector = inject(Injector);
  protected readonly screening = inject(Screening);
  readonly id = input.required<string>();
  /** An item to be opened, from the address. */
  readonly screen = input<string>();
  readonly item = input<string>();
  readonly view = input<string>();
  readonly with = input<string>();
  readonly side = input<string>();
  protected readonly loaded = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(SCREENINGS.screens, { id: params }),
  });
  /** What was measured at this visit: it answers questions too. Without it, one asks from the screens alone. */
  private readonly judged = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(JUDGEMENT.judgement, { id: params }).pipe(catchError(() => of(null))),
  });
  protected readonly words = { episodeWords, faultWords, fullName, itemReasonWords, painAdvice, personWords, thresholdWords };
  protected readonly modifications = MODIFICATION_WORDS;
  /** The item that may be done in place of this one. */
  protected readonly orElse = computed(() => {
    const step = this.step();
    return step?.item.orElse ? (findItem(step.screen, step.item.orElse) ?? null) : null;
  });
  protected readonly felt = FELT_WORDS;
  protected readonly showsResults = signal(false);
  protected readonly skipping = signal(false);
  private readonly amount = viewChild<ElementRef<HTMLInputElement>>('amount');
  private readonly pain = viewChild<ElementRef<HTMLInputElement>>('pain');
  private readonly why = viewChild<ElementRef<HTMLInputElement>>('why');
  protected readonly isToday = (day: string): boolean => isToday(parseISO(day));
  protected readonly hours: readonly Hour[] = [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];

  protected readonly step = this.screening.step;
  protected readonly heading = computed(() => {
    const step = this.step();
    if (!step) return { name: '', rest: '' };
    const { item, view, with: changes } = step;
    const rest = [view ? `seen ${VIEW_WORDS[view]}` : '', ...changes.map((change) => MODIFICATION_WORDS[change])]
      .filter(Boolean)
      .join(' · ');
    return { name: item.name, rest };
  });
  protected readonly scene = computed(() => {
    const step = this.step();
    return step ? ((step.view && step.item.figureFrom[step.view]) ?? step.item.figure) : null;
  });
  protected readonly position = computed(() => (this.step() ? POSITION_WORDS[this.step()!.item.position] : ''));
  protected readonly unit = computed(() => {
    const answered = this.step()?.item.answered;
    return answered?.by === 'amount' ? suffixOf(answered.unit) : '';
  });
  protected readonly feltChoices = computed(() => {
    const answered = this.step()?.item.answered;
    return answered?.by === 'felt' ? [...answered.wanted, ...answered.unwanted] : [];
  });
  protected readonly choices = computed(() => {
    const answered = this.step()?.item.answered;
    return answered?.by === 'choice' ? answered.choices : [];
  });
  protected readonly sides = computed((): readonly { readonly id: Side; readonly name: string }[] => {
    const sides = this.step()?.item.sides;
    if (!sides || sides === 'none') return [];
    const limbs = [
      { id: 'left', name: 'left' },
      { id: 'right', name: 'right' },
    ] as const;
    return sides === 'either' ? [...limbs, { id: 'midline', name: 'both' }] : limbs;
  });
  protected readonly lines = computed(() => {
    const { shin, trunk } = this.screening.entry();
    const [a, b] = [Number(shin.replace(',', '.')), Number(trunk.replace(',', '.'))];
    return shin.trim() && trunk.trim() && Number.isFinite(a) && Number.isFinite(b) ? { shin: a, trunk: b } : null;
  });
  /** Faults of this step that their name alone does not tell. */
  protected readonly signs = computed(() =>
    this.screening.faults().flatMap(({ id }) => {
      const how = faultSign(id);
      return how ? [{ fault: faultWords(id), how }] : [];
    }),
  );
  /** "Amount", with its unit and what the measurement it stands near is. */
  protected readonly near = computed(() => {
    const near = this.step()?.item.near[0];
    const protocol = near && protocolOfId(near.protocol);
    return protocol ? `It stands near ${motion(protocol.motion).name.toLowerCase()}, ${protocol.label}` : '';
  });
  /** Every question that this step opens, with its next best test. */
  protected readonly questions = computed(() => {
    const [step, view] = [this.step(), this.screening.view()];
    if (!step || !view) return [];
    const opens = new Set(this.screening.gradesOf(step).flatMap((g) => g.opens.map((pattern) => `${pattern}|${g.side}`)));
    if (opens.size === 0) return [];
    const judgement = this.judged.hasValue() ? (this.judged.value()?.judgement ?? null) : null;
    const choosing = {
      limits: limitsOf(view),
      station: step.item.position === 'sidelying' ? null : step.item.position,
    };
    return reason({ graded: this.screening.graded(), judgement }, choosing)
      .filter(({ breakdown, side }) => opens.has(`${breakdown.pattern}|${side}`))
      .map(({ breakdown, side, next }) => ({
        key: `${breakdown.pattern}|${side}`,
        pattern: breakdown.pattern,
        side,
        name: breakdownOf(breakdown.pattern).name,
        sideWord: side === 'midline' ? '' : side,
        next,
        asks: next?.question.asks ?? '',
        test: next ? testWords(next.test) : '',
        tells: next ? tellsWords(next) : '',
        minutes: next ? Math.max(0.5, Math.round(next.test.seconds / 30) / 2) : 0,
      }));
  });
  protected readonly keysShown = computed(() => {
    const step = this.step();
    if (!step) return [];
    return [
      ...(this.screening.faults().length ? [[`1–${Math.min(9, this.screening.faults().length)}`, 'what you see']] : []),
      ['m', 'meets'],
      ['s', 'short'],
      ...(step.item.answered.by === 'amount' ? [['a', 'amount']] : []),
      ['p', 'pain'],
      ...(step.item.sides === 'none' ? [] : [['o', 'side']]),
      ['Enter', 'keep, next'],
      ...(step.item.modifications.includes('heelsRaised') ? [['h', 'heels raised']] : []),
      ['k', 'leave out'],
      ['u', 'take back'],
      ['↓ ↑', 'next, back'],
    ];
  });

  constructor() {
    effect(() => {
      const view = this.loaded.hasValue() ? this.loaded.value() : undefined;
      if (view) untracked(() => void this.screening.load(view).then(() => this.openAt()));
    });
  }

  /** Where the address leads. */
  private openAt(): void {
    const [screen, item] = [this.screen(), this.item()];
    if (!screen || !item) return;
    this.screening.goToWay(
      screen,
      item,
      (this.view() ?? null) as View | null,
      (this.with()?.split('+') ?? []) as Modification[],
      (this.side() || undefined) as Side | undefined,
    );
  }

  protected tryWords(kept: ScreenTryView): { readonly quality: string; readonly why: string } {
    const grade = this.screening.gradeOfTry(kept);
    const reasons = grade.reasons.filter(({ kind }) => kind !== 'told' && kind !== 'not-judged').map(itemReasonWords);
    const picture = (kept.try as ItemTry | null)?.picture?.words;
    return { quality: grade.quality, why: kept.skipped ?? [...reasons, ...(picture ? [picture] : [])].join('; ') };
  }

  protected keep(): void {
    this.screening.keep();
    this.skipping.set(false);
  }

  protected leaveOut(why: string): void {
    if (this.screening.skip(why)) this.skipping.set(false);
  }

  protected startSkipping(): void {
    this.skipping.set(true);
    afterNextRender({ read: () => this.why()?.nativeElement.focus() }, { injector: this.injector });
  }

  /** The next best test, where it is an item of a screen. */
  protected ask({ test }: NextTest): void {
    if (test.kind !== 'item') return;
    const { screen, item, view, with: changes } = test.of;
    this.screening.goToWay(screen, item, view ?? null, changes ?? []);
  }

  protected sectorFrom(value: string, end: 'from' | 'to'): void {
    const hour = Number(value) as Hour;
    const now = this.screening.entry().sector;
    if (!hour) return this.screening.set({ sector: undefined });
    this.screening.set({ sector: { from: now?.from ?? hour, to: now?.to ?? hour, [end]: hour } });
  }

  /** Keys work wherever nothing is being typed. */
  protected key(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    const isChord = event.ctrlKey || event.metaKey || event.altKey;
    if (isChord || !this.takesKeys() || document.querySelector('mat-dialog-container')) return;
    if (target.matches('input, textarea, select')) return this.keyInField(event, target);
    if (event.key === 'Enter' && target.matches('button, a, summary')) return;
    const fault = this.screening.faults()[Number(event.key) - 1];
    const does: Readonly<Record<string, () => void>> = {
      m: () => this.screening.set({ meets: this.screening.entry().meets === true ? null : true }),
      s: () => this.screening.set({ meets: this.screening.entry().meets === false ? null : false }),
      a: () => this.amount()?.nativeElement.focus(),
      p: () => this.pain()?.nativeElement.focus(),
      o: () => this.otherSide(),
      h: () => this.step()?.item.modifications.includes('heelsRaised') && this.screening.change('heelsRaised'),
      k: () => this.startSkipping(),
      u: () => this.screening.undo(),
      ArrowDown: () => this.screening.move(1),
      ArrowUp: () => this.screening.move(-1),
      Enter: () => this.keep(),
    };
    const act = fault ? () => this.screening.toggleFault(fault.id) : does[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  }

  /** An item is on the screen that this person may answer. */
  private takesKeys(): boolean {
    return !this.showsResults() && this.may.do('screen') && this.step() !== undefined;
  }

  private keyInField(event: KeyboardEvent, target: HTMLElement): void {
    if (event.key === 'Enter' && target.matches('input[type="text"]') && target !== this.why()?.nativeElement) {
      event.preventDefault();
      this.keep();
    } else if (event.key === 'Escape') target.blur();
  }

  private otherSide(): void {
    const sides = this.sides();
    const at = sides.findIndex(({ id }) => id === this.screening.side());
    const next = sides[(at + 1) % Math.max(1, sides.length)];
    if (next) this.screening.setSide(next.id);
  }
}
