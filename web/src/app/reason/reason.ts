import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { rxResource, takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { JUDGEMENT, SCREENINGS, VISITS, type ScreenPlanChange, type VisitRecord, limitsOf } from '@dial-gauge/contract';
import {
  candidateWords,
  factsOf,
  hurts,
  itemName,
  painAdvice,
  quickestOf,
  reason,
  stateWords,
  stationFor,
  tellsWords,
  testsFor,
  testWords,
  wayOfItem,
  type Choosing,
  type PlanStep,
  type Reasoned,
  type Test,
  NO_LIMITS,
} from '@dial-gauge/core';
import { forkJoin, switchMap } from 'rxjs';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { VisitStore } from '../data/visit-store';
import { overlay } from '../data/overlay';
import { describeFailure, toFailure } from '../data/problem';
import { VisitCommands, type Unsent } from '../data/visit-commands';
import { keyOfStep, stepsOf, STEPS_SHOWN, withStep } from '../measure/record/course';
import { NOTHING_CHOSEN, planCommand, planShown } from '../screen/plan';
import { gradedOf } from '../screen/graded';
import { May } from '../data/may';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';

import { linesFor, pathOf, undecidedLines } from './path';

/** What could limit what fell short: the path taken, what speaks for and against, and the next best test. */
@Component({
  selector: 'dg-reason',
  imports: [Frame, MatButtonModule, Pending, RouterLink],
  templateUrl: './reason.html',
  styleUrl: './reason.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [VisitCommands],
  host: { '(document:keydown)': 'key($event)' },
})
export class ReasonPage {
  private readonly may = inject(May);
  private readonly api = inject(Api);
  private readonly visits = inject(VisitStore);
  private readonly commands = inject(VisitCommands);
  private readonly router = inject(Router);
  readonly id = input.required<string>();
  /** Which breakdown, from the address. */
  readonly pattern = input<string>();
  readonly side = input<string>();
  protected readonly loaded = rxResource({
    params: () => this.id(),
    stream: ({ params }) =>
      forkJoin({
        screens: this.api.call(SCREENINGS.screens, { id: params }),
        judged: this.api.call(JUDGEMENT.judgement, { id: params }),
        record: this.visits.visit(params),
      }),
  });
  protected readonly words = { candidateWords, episodeWords, fullName, painAdvice, personWords, stateWords, tellsWords, testWords };

  protected readonly view = computed(() => (this.loaded.hasValue() ? this.loaded.value() : undefined));
  private readonly graded = computed(() => {
    const screens = this.view()?.screens;
    return screens ? gradedOf(screens) : [];
  });
  private readonly choosing = computed((): Choosing => {
    const view = this.view();
    const last = view?.judged.judgement.measurements.at(-1)?.measurement;
    return {
      limits: view ? limitsOf(view.screens) : NO_LIMITS,
      station: last ? stationFor(last.position, last.side) : null,
    };
  });
  /** The record as it was after something was taken off. */
  private readonly taken = signal<VisitRecord | null>(null);
  /** What was put on the run sheet last, or was found to stand on it. */
  protected readonly added = signal<readonly Test[]>([]);
  protected readonly wasThere = signal<readonly Test[]>([]);
  protected readonly problem = signal('');
  private readonly evidence = viewChild<ElementRef<HTMLElement>>('evidence');
  private readonly steps = computed((): readonly PlanStep[] => {
    const record = this.taken() ?? this.view()?.record;
    return record ? overlay(stepsOf(record), this.commands.all(), STEPS_SHOWN) : [];
  });
  private readonly plan = computed(() => planShown(this.view()?.screens.plan ?? NOTHING_CHOSEN, this.commands.all()));
  protected readonly all = computed((): readonly Reasoned[] => {
    const view = this.view();
    return view ? reason({ graded: this.graded(), judgement: view.judged.judgement }, this.choosing()) : [];
  });
  protected readonly shown = computed(() => {
    const all = this.all();
    return all.find((r) => r.breakdown.pattern === this.pattern() && r.side === this.side()) ?? all[0] ?? null;
  });
  protected readonly path = computed(() => {
    const shown = this.shown();
    return shown && pathOf(shown);
  });
  /** The question or candidate that is looked at. */
  protected readonly chosen = linkedSignal<Reasoned | null, string | null>({
    source: this.shown,
    computation: (shown) => shown?.next?.question.id ?? null,
  });
  protected readonly held = computed(() =>
    this.graded()
      .filter(hurts)
      .map((g) => itemName({ name: g.item.name, side: g.side, view: g.done.view ?? null, with: g.done.with ?? [] })),
  );
  protected readonly undecided = computed(() => (this.shown() ? undecidedLines(this.shown()!) : []));

  /** What is told of the box that was pressed. */
  protected readonly about = computed(() => {
    const [shown, id] = [this.shown(), this.chosen()];
    if (!shown || !id) return null;
    const question = shown.questions.find((q) => q.question.id === id);
    if (question) return { kind: 'question' as const, question, tests: this.testsOf(shown, id) };
    const candidate = shown.candidates.find((c) => c.id === id);
    return candidate ? { kind: 'candidate' as const, candidate, ...linesFor(shown, candidate.id) } : null;
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.commands.open(id));
    });
    this.commands.failed
      .pipe(takeUntilDestroyed())
      .subscribe(({ command, failure, kept }) =>
        this.problem.set(kept ? `${command.words}: ${kept}` : `${command.words} was not saved. ${describeFailure(failure!)}`),
      );
  }

  private testsOf(shown: Reasoned, id: string): readonly Test[] {
    const view = this.view()!;
    const { question } = shown.questions.find((q) => q.question.id === id)!;
    const { measurements, findings } = view.judged.judgement;
    const facts = factsOf(measurements, this.graded(), findings);
    const seen = new Set<string>();
    return testsFor(question, facts, shown.side, this.choosing()).filter((test) => !seen.has(testWords(test)) && seen.add(testWords(test)));
  }

  protected minutes({ seconds }: Test): string {
    return `${Math.max(0.5, Math.round(seconds / 30) / 2)} min`;
  }

  /** What a question that is still open would have done: nothing where nothing may be. */
  protected readonly quickest = (id: string): readonly Test[] => {
    const shown = this.shown();
    const question = shown?.questions.find((q) => q.question.id === id);
    if (!shown || !question || question.state === 'answered') return [];
    return shown.next?.question.id === id ? (shown.next.test.together ?? [shown.next.test]) : quickestOf(this.testsOf(shown, id));
  };

  protected readonly named = (tests: readonly Test[]): string => tests.map(testWords).join(' and ');

  protected pressBox(kind: 'pattern' | 'question' | 'candidate', id: string): void {
    if (kind === 'question') this.press(id);
    else if (kind === 'candidate') this.chosen.set(id);
  }

  /** A question that is pressed is looked at, and its test is put on the run sheet. */
  protected press(id: string): void {
    this.chosen.set(id);
    this.put(this.quickest(id));
  }

  /** Puts tests on the run sheet, measurements and items of screens alike; what is there already is not put there again. */
  protected put(tests: readonly Test[]): void {
    const view = this.view();
    if (!view || view.screens.visit.signed) return;
    const fresh = tests.filter((test) => !this.isOnSheet(test));
    this.added.set(fresh);
    this.wasThere.set(fresh.length > 0 ? [] : tests);
    if (fresh.length === 0) return;
    const steps = fresh.flatMap((test) => (test.kind === 'measurement' ? [stepOf(test)] : []));
    const ask = fresh.flatMap((test) => (test.kind === 'item' ? [wayOf(test)] : []));
    if (steps.length > 0) this.commands.send(this.planWith(steps.reduce(withStep, this.steps()), view.record));
    if (ask.length > 0) this.commands.send(planCommand(this.id(), { ask }));
    this.problem.set('');
  }

  /** Takes what was put on the run sheet here off again. */
  protected takeOff(): void {
    const tests = this.added();
    const keys = new Set(tests.flatMap((test) => (test.kind === 'measurement' ? [keyOfStep(stepOf(test))] : [])));
    const drop = tests.flatMap((test) => (test.kind === 'item' ? [wayOf(test)] : []));
    if (drop.length > 0) this.commands.send(planCommand(this.id(), { drop } satisfies ScreenPlanChange));
    if (keys.size === 0) return this.added.set([]);
    // Taking away is not adding to: it is done on what the server has now, and it is off once the server says so.
    this.visits
      .refresh(this.id())
      .pipe(
        switchMap((record) => {
          const plan = { ...planOf(record), steps: stepsOf(record).filter((step) => !keys.has(keyOfStep(step))) };
          return this.api.call(VISITS.setPlan, { id: this.id(), body: { plan, revision: record.revision } });
        }),
      )
      .subscribe({
        next: (record) => {
          this.commands.forget('setPlan');
          this.taken.set(record);
          this.added.set([]);
        },
        error: (error: unknown) => this.problem.set(`It stays on the run sheet. ${describeFailure(toFailure(error))}`),
      });
  }

  private planWith(steps: readonly PlanStep[], record: VisitRecord): Unsent {
    const body = { plan: { ...planOf(record), steps: [...steps] } };
    return { id: crypto.randomUUID(), visitId: this.id(), target: this.id(), route: 'setPlan', words: 'the run sheet', body };
  }

  protected isOnSheet(test: Test): boolean {
    if (test.kind === 'measurement') return this.steps().some((step) => keyOfStep(step) === keyOfStep(stepOf(test)));
    const { screens, asked } = this.plan();
    const way = wayOf(test);
    if (screens.includes(way.screen) && !way.with?.length) return true;
    return asked.some((one) => wayOfItem(one) === wayOfItem(way));
  }

  /** Goes where a test is done: it is put on the run sheet on the way. */
  protected open(test: Test): void {
    const visit = ['/visits', this.id()];
    this.put([test]);
    if (test.kind === 'measurement')
      void this.router.navigate([...visit, 'measure'], { queryParams: { add: test.way.protocol, side: test.side, mode: test.way.mode } });
    else {
      const { screen, item, view, with: changes } = test.of;
      void this.router.navigate([...visit, 'screen'], { queryParams: { screen, item, view, with: changes?.join('+') || null } });
    }
  }

  protected openWords(test: Test): string {
    return test.kind === 'measurement' ? 'Measure it now' : 'Look at it now';
  }

  /** Keys work wherever nothing is being chosen or pressed. */
  protected key(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      target.matches('input, select, textarea') ||
      !this.shown() ||
      !this.may.do('measure')
    )
      return;
    if (document.querySelector('mat-dialog-container')) return;
    const isControl = target.matches('button, a, summary, [role="button"]');
    const does: Readonly<Record<string, () => void>> = {
      ArrowDown: () => this.move(1),
      ArrowUp: () => this.move(-1),
      e: () => this.evidence()?.nativeElement.focus(),
      Escape: () => void this.router.navigate(['/visits', this.id(), 'judge']),
      ...(isControl ? {} : { Enter: () => this.press(this.chosen() ?? '') }),
    };
    const act = does[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  }

  private move(by: 1 | -1): void {
    const ids = this.shown()!.questions.map(({ question }) => question.id);
    const at = ids.indexOf(this.chosen() ?? '');
    const to = ids[Math.min(ids.length - 1, Math.max(0, at + by))];
    if (to) this.chosen.set(to);
  }

  protected keyOf = ({ breakdown, side }: Reasoned): string => `${breakdown.pattern}|${side}`;
  protected sideOf = ({ side }: Reasoned): string => (side === 'midline' ? '' : side);

  protected go(key: string): void {
    const [pattern, side] = key.split('|');
    void this.router.navigate([], { queryParams: { pattern, side }, replaceUrl: true });
  }
}

const planOf = ({ plan }: VisitRecord) => ({ minutesAvailable: null, leftOut: [], trials: 1, ...plan });

const stepOf = ({ way, side }: Extract<Test, { kind: 'measurement' }>): PlanStep => ({
  protocol: way.protocol,
  side,
  mode: way.mode,
  seconds: 0,
});

const wayOf = ({ of: { screen, item, view, with: changes = [] } }: Extract<Test, { kind: 'item' }>) => ({
  screen,
  item,
  ...(view ? { view } : {}),
  ...(changes.length > 0 ? { with: [...changes].sort() } : {}),
});
