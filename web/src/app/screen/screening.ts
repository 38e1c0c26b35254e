import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { errorContextOf, screensDoneOf, type ScreensView, type ScreenTryView, limitsOf } from '@dial-gauge/contract';
import {
  allowedDoing,
  checkItem,
  forbiddenWords,
  gradedScreens,
  gradeItem,
  itemName,
  measureNext,
  screenOutcomes,
  type Allowed,
  type FaultId,
  type Felt,
  type GradedItem,
  type ItemTry,
  type Modification,
  type Side,
  type View,
} from '@dial-gauge/core';
import { Drafts, isText } from '../data/drafts';
import { describeFailure } from '../data/problem';
import { Session } from '../data/session';
import { VisitCommands, type Unsent } from '../data/visit-commands';
import { entryOf, fieldName, isEntry, NOTHING, tryOf, type Entry } from './entry';
import { NOTHING_CHOSEN, planCommand, planShown } from './plan';
import { screensIn, screensOf, sidesFor, stepKey, stepsOf, same, type ScreenStep } from './steps';
import { triesShown } from './tries-shown';

/**
 * The screens of one visit: which ones, where one is, what is being entered.
 * What is kept shows at once and waits in the queue until the server has it;
 * what is chosen or half entered is there again after a reload.
 */
@Injectable()
export class Screening {
  private readonly commands = inject(VisitCommands);
  private readonly drafts = inject(Drafts);
  private readonly session = inject(Session);
  readonly view = signal<ScreensView | null>(null);
  readonly at = signal<string>('');
  readonly side = signal<Side>('midline');
  readonly entry = signal<Entry>(NOTHING);
  /** The try that is being put right. */
  readonly correcting = signal<string | null>(null);
  readonly problem = signal('');
  readonly said = signal('');

  readonly screens = computed(() => screensOf(this.view()?.settings ?? null));
  readonly tries = computed(() => triesShown(this.view()?.tries ?? [], this.commands.all(), this.session.current()?.user.name ?? ''));
  private readonly context = computed(() => {
    const view = this.view();
    return view ? errorContextOf(view) : {};
  });
  private readonly done = computed(() => screensDoneOf(this.tries(), this.view()?.visit.assessedOn ?? ''));
  readonly graded = computed((): readonly GradedItem[] => gradedScreens(this.done(), this.context(), this.screens()));
  readonly outcomes = computed(() => {
    const before = this.view()?.before;
    const then = before ? screensDoneOf(before.tries, before.on) : [];
    return screenOutcomes(this.done(), then, this.context(), this.screens());
  });
  /** What would put a number to what is short. */
  readonly next = computed(() => {
    const view = this.view();
    if (!view || view.visit.signed) return [];
    const how = { limits: limitsOf(view), screens: this.screens() };
    return measureNext(this.outcomes(), view.measured as Parameters<typeof measureNext>[1], how);
  });
  private readonly plan = computed(() => planShown(this.view()?.plan ?? NOTHING_CHOSEN, this.commands.all()));
  /** Single items that are asked for. */
  readonly asked = computed(() => this.plan().asked);
  /** Screens that were chosen to be run, and those that were begun otherwise than by an item that was asked for. */
  readonly chosen = computed(() => {
    const asked = new Set(this.asked().map(({ screen, item }) => `${screen} ${item}`));
    const begun = this.tries().flatMap(({ screen, item }) => (asked.has(`${screen} ${item}`) ? [] : [screen]));
    const known = new Set(this.screens().map(({ id }) => id));
    return [...new Set([...this.plan().screens, ...begun])].filter((id) => known.has(id));
  });
  /** Screens with a line, whole or in part. */
  readonly shown = computed(() => {
    const known = new Set(this.screens().map(({ id }) => id));
    return screensIn(this.chosen(), this.asked()).filter((id) => known.has(id));
  });
  readonly steps = computed((): readonly ScreenStep[] =>
    stepsOf(this.chosen(), this.screens(), this.graded(), this.asked(), this.view()?.before?.tries ?? []),
  );
  readonly step = computed(() => this.steps().find(({ key }) => key === this.at()) ?? this.steps()[0] ?? null);
  readonly locked = computed(() => this.view()?.visit.signed ?? false);

  /** Tries of this step on this side, in the order they were done. */
  readonly here = computed(() => {
    const step = this.step();
    return step ? this.triesOf(step, this.side()) : [];
  });
  readonly grade = computed((): GradedItem | null => {
    const step = this.step();
    return step ? (this.gradesOf(step).find(({ side }) => side === this.side()) ?? null) : null;
  });
  /** What a precaution says of this step on this side. */
  readonly allowed = computed((): Allowed => {
    const [step, view] = [this.step(), this.view()];
    if (!step || !view) return { kind: 'free' };
    return allowedDoing(step.item, this.side(), limitsOf(view));
  });
  readonly forbidden = computed(() => {
    const allowed = this.allowed();
    return allowed.kind === 'forbidden' ? forbiddenWords(allowed) : '';
  });
  /** Faults that can be seen from here, by number. */
  readonly faults = computed(() => {
    const step = this.step();
    return step ? step.item.faults.filter(({ views }) => views.length === 0 || (step.view !== null && views.includes(step.view))) : [];
  });
  readonly minutesLeft = computed(() =>
    Math.ceil(
      this.steps()
        .filter((step) => this.gradesOf(step).length === 0)
        .reduce((sum, { item }) => sum + item.minutes * (item.sides === 'each' ? 2 : 1), 0),
    ),
  );

  constructor() {
    this.commands.failed
      .pipe(takeUntilDestroyed(inject(DestroyRef)))
      .subscribe(({ command, failure, kept }) =>
        this.problem.set(kept ? `${command.words}: ${kept}` : `${command.words} was not saved. ${describeFailure(failure!)}`),
      );
    effect(() => {
      const [entry, name] = [this.entry(), this.draft()];
      if (name) untracked(() => (entry === NOTHING ? this.drafts.drop(name) : this.drafts.keep(name, entry)));
    });
  }

  private readonly draft = computed(() => {
    const [view, step] = [this.view(), this.step()];
    return view && step && !this.correcting() ? `screen.${view.visit.id}.${step.key}.${this.side()}` : null;
  });

  async load(view: ScreensView): Promise<void> {
    const { id } = view.visit;
    const isNew = this.view()?.visit.id !== id;
    await this.commands.open(id);
    this.view.set(view);
    if (isNew) {
      const [at, side] = (this.drafts.read(`screen-at.${id}`, isText) ?? '').split('|');
      const left = this.steps().find(({ key }) => key === at);
      const step = left ?? this.nextOpen(null) ?? this.steps()[0];
      if (step) this.goTo(step, left ? (side as Side) : undefined);
    }
  }

  choose(id: string, on: boolean): void {
    if (this.locked()) return void this.refuse('This visit is signed. Open it with “Amend” on Judge, say why, then go on.');
    this.send(planCommand(this.view()!.visit.id, on ? { choose: [id] } : { leave: [id] }));
    const step = this.step();
    if (step && (this.at() === '' || on)) this.goTo(on ? (this.steps().find((s) => s.screen.id === id) ?? step) : step);
  }

  /** Opens a step, on the side that is still open, with what was half entered there. */
  goTo(step: ScreenStep, side?: Side): void {
    const view = this.view()!;
    const open = side ?? this.sideOf(step);
    this.correcting.set(null);
    this.problem.set('');
    this.at.set(step.key);
    this.side.set(open);
    this.drafts.keep(`screen-at.${view.visit.id}`, `${step.key}|${open}`);
    this.entry.set(this.drafts.read(`screen.${view.visit.id}.${step.key}.${open}`, isEntry) ?? NOTHING);
  }

  /** The side that is still open; where it may be either, the one that was looked at, or whose fault asks for this. */
  private sideOf(step: ScreenStep): Side {
    const sides = sidesFor(step.item, this.view()!.episode.involvedSide);
    if (step.item.sides !== 'either') return sides.find((s) => this.triesOf(step, s).length === 0) ?? sides[0]!;
    const looked =
      this.gradesOf(step)[0] ?? this.graded().find((g) => g.screen === step.screen.id && g.item.id === step.item.id && g.opens.length > 0);
    return looked?.side ?? 'midline';
  }

  /** The same item with something changed about it, or from another view. */
  goToWay(screen: string, item: string, view: View | null, changes: readonly Modification[], side?: Side): void {
    const key = stepKey(screen, item, view, changes);
    if (!this.steps().some((step) => step.key === key) && !this.locked())
      this.send(
        planCommand(this.view()!.visit.id, {
          ask: [{ screen, item, ...(view ? { view } : {}), ...(changes.length > 0 ? { with: [...changes] } : {}) }],
        }),
      );
    const step = this.steps().find((s) => s.key === key);
    if (step) this.goTo(step, side);
  }

  change(change: Modification): void {
    const step = this.step();
    if (!step) return;
    const changes = step.with.includes(change) ? step.with.filter((c) => c !== change) : [...step.with, change];
    this.goToWay(step.screen.id, step.item.id, step.view, changes);
  }

  setSide(side: Side): void {
    const step = this.step();
    if (step) this.goTo(step, side);
  }

  set(change: Partial<Entry>): void {
    this.problem.set('');
    // Another amount than the picture's is none of the picture's.
    const typed = ['value', 'shin', 'trunk'].some((field) => field in change) ? { picture: undefined } : {};
    this.entry.update((entry) => ({ ...entry, ...typed, ...change }));
  }

  toggleFault(fault: FaultId): void {
    const { faults } = this.entry();
    this.set({ faults: faults.includes(fault) ? faults.filter((f) => f !== fault) : [...faults, fault] });
  }

  toggleFelt(muscle: Felt): void {
    const felt = this.entry().felt ?? [];
    this.set({ felt: felt.includes(muscle) ? felt.filter((f) => f !== muscle) : [...felt, muscle] });
  }

  /** Keeps what is entered as a try. What does not fit stays where it was typed. */
  keep(): boolean {
    const [step, view] = [this.step(), this.view()];
    if (!step || !view) return false;
    if (this.locked()) return this.refuse('This visit is signed. Open it with “Amend” on Judge, say why, then go on.');
    if (this.forbidden()) return this.refuse(`This is not to be done: ${this.forbidden()}. Leave it out, with the reason.`);
    const read = tryOf(step, this.entry());
    if (typeof read === 'string') return this.refuse(read);
    const way = this.wayOf(step);
    const [wrong] = checkItem(step.screen.id, { item: step.item.id, ...way, tries: [read] }, this.screens());
    if (wrong) return this.refuse(`${fieldName(wrong.path)}: ${wrong.message}.`);
    const id = crypto.randomUUID();
    const target = this.correcting();
    const words = this.nameOf(step);
    const common = { id, visitId: view.visit.id, words };
    if (target) this.send({ ...common, route: 'correctScreenTry', target, body: { id, try: read as never } });
    else
      this.send({
        ...common,
        route: 'holdScreenTry',
        target: view.visit.id,
        body: { id, screen: step.screen.id, item: step.item.id, ...way, try: read as never },
      });
    this.forget();
    this.said.set(`${words} kept`);
    if (target) this.goTo(step, this.side());
    else this.moveOn(step);
    return true;
  }

  skip(why: string): boolean {
    const [step, view] = [this.step(), this.view()];
    const reason = why.trim();
    if (!step || !view) return false;
    if (this.locked()) return this.refuse('This visit is signed. Open it with “Amend” on Judge, say why, then go on.');
    if (reason === '') return this.refuse('Why is it left out? Say it in a word: refused, not possible, no time.');
    const id = crypto.randomUUID();
    const words = this.nameOf(step);
    this.send({
      id,
      visitId: view.visit.id,
      words: `${words}, left out`,
      route: 'holdScreenTry',
      target: view.visit.id,
      body: { id, screen: step.screen.id, item: step.item.id, ...this.wayOf(step), skipped: reason },
    });
    this.forget();
    this.said.set(`${words} left out`);
    this.moveOn(step, true);
    return true;
  }

  /** Kept: nothing of it is half entered any more. */
  private forget(): void {
    const name = this.draft();
    if (name) this.drafts.drop(name);
    this.entry.set(NOTHING);
  }

  /** Takes the try that was kept last back. */
  undo(): boolean {
    const last = this.tries().at(-1);
    if (!last) return this.refuse('Nothing was kept yet: there is nothing to take back.');
    if (this.locked()) return this.refuse('This visit is signed. Open it with “Amend” on Judge, say why, then go on.');
    const id = crypto.randomUUID();
    this.send({
      id,
      visitId: this.view()!.visit.id,
      words: 'a try taken back',
      route: 'correctScreenTry',
      target: last.id,
      body: { id, try: null },
    });
    const step = this.steps().find((s) => this.isOf(last, s));
    if (step) this.goTo(step, last.side ?? 'midline');
    this.said.set('Taken back');
    return true;
  }

  /** Puts a try back where it was entered, to be put right. */
  correct(kept: ScreenTryView): void {
    this.correcting.set(kept.id);
    this.problem.set('');
    this.entry.set(entryOf((kept.try ?? {}) as ItemTry));
  }

  leaveAsItWas(): void {
    this.correcting.set(null);
    this.entry.set(NOTHING);
  }

  /** So many lines on, or back. */
  move(by: 1 | -1): void {
    const at = this.steps().findIndex((step) => step === this.step()) + by;
    const to = this.steps()[at];
    if (to) this.goTo(to);
  }

  gradesOf(step: ScreenStep): readonly GradedItem[] {
    return this.graded().filter(
      (g) =>
        g.screen === step.screen.id &&
        g.item.id === step.item.id &&
        (g.done.view ?? null) === step.view &&
        same(g.done.with ?? [], step.with),
    );
  }

  /** How one try by itself is graded. */
  gradeOfTry(kept: ScreenTryView): GradedItem {
    const step = this.step()!;
    const one = (kept.try ?? {}) as ItemTry;
    return gradeItem(
      step.screen,
      step.item,
      { item: step.item.id, ...this.wayOf(step), tries: kept.try ? [one] : [], ...(kept.skipped ? { skipped: kept.skipped } : {}) },
      this.context(),
    );
  }

  private triesOf(step: ScreenStep, side: Side): readonly ScreenTryView[] {
    return this.tries().filter((one) => this.isOf(one, step) && (one.side ?? 'midline') === side);
  }

  private isOf(one: ScreenTryView, { screen, item, view, with: changes }: ScreenStep): boolean {
    return one.screen === screen.id && one.item === item.id && (one.view ?? null) === view && same(one.with ?? [], changes);
  }

  private wayOf({ view, with: changes, item }: ScreenStep): { view?: View; with?: Modification[]; side?: Side } {
    const side = this.side();
    return {
      ...(view ? { view } : {}),
      ...(changes.length ? { with: [...changes] } : {}),
      ...(item.sides === 'none' || side === 'midline' ? {} : { side }),
    };
  }

  private nameOf({ item, view, with: changes }: ScreenStep): string {
    return itemName({ name: item.name, side: this.side(), view, with: changes });
  }

  /** On to the second try where the first fell short, then to the other side, then to what is still open. */
  private moveOn(step: ScreenStep, isSkipped = false): void {
    const side = this.side();
    const grade = this.gradesOf(step).find((g) => g.side === side);
    const done = this.triesOf(step, side).length;
    if (!isSkipped && grade?.quality === 'short' && done < step.item.tries && (grade.pain ?? 0) === 0) return this.goTo(step, side);
    const sides = sidesFor(step.item, this.view()!.episode.involvedSide);
    const other = sides.find((s) => this.triesOf(step, s).length === 0);
    if (other && step.item.sides === 'each') return this.goTo(step, other);
    const next = this.nextOpen(step);
    if (next) this.goTo(next);
    else this.goTo(step, side);
  }

  /** The next step after one at which nothing was done yet; from the beginning, where none comes after. */
  private nextOpen(step: ScreenStep | null): ScreenStep | undefined {
    const steps = this.steps();
    const from = step ? steps.findIndex(({ key }) => key === step.key) + 1 : 0;
    const isOpen = (s: ScreenStep) => this.gradesOf(s).length === 0;
    return steps.slice(from).find(isOpen) ?? steps.find(isOpen);
  }

  private send(command: Unsent): void {
    this.problem.set('');
    this.commands.send(command);
  }

  private refuse(message: string): false {
    this.problem.set(message);
    return false;
  }
}
