import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, ChangeDetectorRef, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { rxResource, takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import { JUDGEMENT, PROGRAMS, PROGRESS, SCREENINGS, type GivenDrill, type ProgramChoices, limitsOf } from '@dial-gauge/contract';
import {
  becauseWords,
  doseWords,
  drillSideWords,
  drillsWith,
  EQUIPMENT,
  equipmentWords,
  findDrill,
  heldWords,
  leaveWords,
  makeProgram,
  minutesOf,
  MOST_DRILLS,
  movesWords,
  notGivenWords,
  ownBeside,
  PROGRAM_ORDERS,
  reason,
  recheckWords,
  referWords,
  seenWords,
  sidedName,
  sidesCounted,
  slopesOf,
  stageWords,
  unchangedSince,
  type Dose,
  type Drill,
  type DrillSide,
  type Equipment,
  type Program,
} from '@dial-gauge/core';
import { forkJoin } from 'rxjs';
import { episodeWords, fullName, personWords } from '../caseload/words';
import { Api } from '../data/api';
import { CommandQueue } from '../data/command-queue';
import { Drafts } from '../data/drafts';
import { describeFailure } from '../data/problem';
import { Session } from '../data/session';
import { VisitCommands } from '../data/visit-commands';
import { gradedOf } from '../screen/graded';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { DOSE, DOSE_FIELDS, ORDER_WORDS, USUAL, WANT } from './choices';
import { PoseFigure } from '../ui/pose-figure';
import { isWork, programsShown, type Work } from './programs-shown';

/** What to do from here: findings on the left, a programme on the right, within the minutes of a day; and when to look again. */
@Component({
  selector: 'dg-decide',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, Frame, MatButtonModule, MatIconModule, Pending, PoseFigure, RouterLink],
  templateUrl: './decide.html',
  styleUrl: './decide.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [VisitCommands],
})
export class DecidePage {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  private readonly commands = inject(VisitCommands);
  private readonly queue = inject(CommandQueue);
  private readonly session = inject(Session);
  private readonly changes = inject(ChangeDetectorRef);
  readonly id = input.required<string>();
  protected readonly loaded = rxResource({
    params: () => this.id(),
    stream: ({ params }) =>
      forkJoin({
        programs: this.api.call(PROGRAMS.programs, { id: params }),
        judged: this.api.call(JUDGEMENT.judgement, { id: params }),
        screens: this.api.call(SCREENINGS.screens, { id: params }),
        progress: this.api.call(PROGRESS.progress, { id: params }),
      }),
  });
  protected readonly words = {
    becauseWords,
    doseWords,
    drillSideWords,
    episodeWords,
    equipmentWords,
    fullName,
    leaveWords,
    movesWords,
    notGivenWords,
    ownBeside,
    personWords,
    recheckWords,
    referWords,
    seenWords,
    sidedName,
    stageWords,
  };
  protected readonly equipment = EQUIPMENT;
  protected readonly orders = PROGRAM_ORDERS.map((id) => ({ id, words: ORDER_WORDS[id] }));
  protected readonly most = MOST_DRILLS;
  protected readonly tenths = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
  protected readonly want = WANT;
  protected readonly doseFields = DOSE_FIELDS;
  protected readonly view = computed(() => (this.loaded.hasValue() ? this.loaded.value() : undefined));
  protected readonly isSigned = computed(() => this.view()?.programs.visit.signed ?? false);
  protected readonly given = computed(() => {
    const view = this.view();
    return view ? programsShown(view.programs, this.commands.all()) : [];
  });
  /** What was put together here and is not given yet. */
  private readonly draft = signal<Work | null>(null);
  protected readonly problem = signal('');
  protected readonly announcement = signal('');

  private readonly last = computed(() => {
    const last = this.given().at(-1);
    return last ? ({ ...last, byHand: true } as unknown as Work) : null;
  });
  protected readonly choices = computed((): ProgramChoices => {
    const kept = this.draft() ?? this.last();
    return kept?.choices ?? (this.view()?.programs.before?.choices as ProgramChoices | undefined) ?? USUAL;
  });
  /** The clinic’s drills as they stand: what is chosen now is of these. */
  private readonly own = computed(() => ownBeside(this.view()?.programs.own ?? []));
  private readonly current = computed(() => drillsWith(this.own()));
  /** The same beside what stands on the page, which may be as it was given before. */
  private readonly known = computed(() => this.knownBeside(this.work()?.drills ?? []));
  /** What a proposal is made from, whatever is chosen. */
  private readonly ground = computed(() => {
    const view = this.view();
    if (!view) return null;
    const { judgement } = view.judged;
    const { patient, episode, visit, memory } = view.programs;
    const { procedureId, procedureOn } = episode;
    const limits = limitsOf({ episode, visit });
    const on = visit.assessedOn;
    const byName = new Map(this.current().map(({ id, name }) => [name.toLowerCase(), id]));
    return {
      judgement,
      reasoned: reason({ graded: gradedOf(view.screens), judgement }, { limits, station: null }),
      person: patient,
      on,
      limits,
      procedure: procedureId ? { id: procedureId, on: procedureOn } : undefined,
      involvedSide: episode.involvedSide ?? undefined,
      slopes: slopesOf(view.progress.series),
      unchanged: unchangedSince(view.progress.series, view.programs.running, on, this.current()),
      drills: this.current(),
      past: new Map(
        memory.flatMap((m) => {
          const id = byName.get(m.drill.toLowerCase());
          return id ? [[id, { better: m.better, worse: m.worse }] as const] : [];
        }),
      ),
    };
  });
  protected readonly proposal = computed((): Program | null => (this.ground() ? this.propose(this.choices()) : null));
  protected readonly work = computed((): Work | null => {
    const proposal = this.proposal();
    return this.draft() ?? this.last() ?? (proposal && this.asWork(proposal, this.choices()));
  });
  protected readonly isChanged = computed(() => this.draft() !== null || this.given().length === 0);
  protected readonly lines = computed(() => {
    const proposal = this.proposal();
    return (this.work()?.drills ?? []).flatMap((one, at) => {
      const drill = findDrill(one.drill, this.known());
      if (!drill) return [];
      const minutes = minutesOf(one.dose, sidesCounted(one.side));
      return [{ at, one, drill, minutes, proposed: proposal?.drills.find((d) => d.drill.id === one.drill) ?? null }];
    });
  });
  protected readonly minutes = computed(() => this.lines().reduce((sum, { minutes }) => sum + minutes, 0));
  protected readonly share = computed(() => Math.min(100, (100 * this.minutes()) / Math.max(0.5, this.choices().minutesADay)));
  protected readonly isOver = computed(() => this.minutes() > this.choices().minutesADay);
  /** Who gave what stands; what was given here just now is one's own. */
  protected readonly givenBy = computed(() => {
    const last = this.given().at(-1);
    if (!last) return '';
    if (last.by) return `by ${last.by}`;
    return this.queue.waiting() > 0 ? 'sending …' : `by ${this.session.current()?.user.name ?? ''}`;
  });
  /** Said once, where one item stands near several motions. */
  protected readonly held = computed(() => [...new Set((this.proposal()?.held ?? []).map(heldWords))]);
  protected readonly chosenWords = computed(() => {
    const { minutesADay, painTolerated, order, equipment } = this.choices();
    const pieces = equipment.map(equipmentWords).join(', ') || 'nothing';
    return `Made for ${minutesADay} min a day, pain up to ${painTolerated} of 10, ${ORDER_WORDS[order]}; at hand: ${pieces}`;
  });
  /** What may be added: drills that serve what was found and are not given, those kept out by a rule left out. */
  protected readonly addable = computed(() => {
    const there = new Set((this.work()?.drills ?? []).map(({ drill }) => drill));
    const out = this.proposal()?.leftOut ?? [];
    return out
      .filter(({ drill, why }) => !there.has(drill.id) && (why.why === 'worth-less' || why.why === 'minutes'))
      .map(({ drill }) => drill);
  });
  protected readonly keptOut = computed(() =>
    (this.proposal()?.leftOut ?? []).filter(({ why }) => why.why !== 'worth-less' && why.why !== 'minutes'),
  );

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => {
        this.draft.set(this.drafts.read(`decide.${id}`, isWork));
        void this.commands.open(id);
      });
    });
    this.commands.failed
      .pipe(takeUntilDestroyed())
      .subscribe(({ failure, kept }) =>
        this.problem.set(kept ? `The programme: ${kept}` : `The programme was not given. ${describeFailure(failure!)}`),
      );
  }

  private propose({ equipment, minutesADay, painTolerated, order }: ProgramChoices): Program {
    return makeProgram({ ...this.ground()!, equipment, minutesADay, painTolerated, order });
  }

  private asWork({ drills, recheck }: Program, choices: ProgramChoices): Work {
    const given = drills.map(({ drill, side, dose }) => this.asGiven(drill, side, dose));
    return { choices, drills: given, recheckOn: recheck.on, note: '', byHand: false };
  }

  private asGiven({ id }: Drill, side: DrillSide, dose: Dose): GivenDrill {
    const own = this.own().find((one) => one.id === id);
    return { drill: id, ...(own && { version: own.version }), side, dose, words: '' };
  }

  private knownBeside(given: readonly { readonly drill: string; readonly version?: number }[]): readonly Drill[] {
    return drillsWith(ownBeside(this.view()?.programs.own ?? [], given));
  }

  protected beforeNames(given: readonly { readonly drill: string; readonly version?: number }[]): readonly string[] {
    const known = this.knownBeside(given);
    return given.map(({ drill }) => findDrill(drill, known)?.name ?? drill);
  }

  private keep(work: Work): void {
    this.draft.set(work);
    this.drafts.keep(`decide.${this.id()}`, work);
    this.problem.set('');
  }

  protected edit(change: Partial<Work>): void {
    const work = this.work();
    if (work && !this.isSigned()) this.keep({ ...work, ...change, byHand: true });
  }

  /** What is at hand, and how long a day: proposes anew while nothing was changed by hand. */
  protected choose(change: Partial<ProgramChoices>): void {
    const work = this.work();
    if (!work || this.isSigned()) return;
    const choices = { ...this.choices(), ...change };
    this.keep(work.byHand ? { ...work, choices } : this.asWork(this.propose(choices), choices));
  }

  protected proposeAnew(): void {
    const proposal = this.proposal();
    if (proposal) this.keep({ ...this.asWork(proposal, this.choices()), note: this.work()?.note ?? '' });
  }

  protected toggle(piece: Equipment): void {
    const { equipment } = this.choices();
    this.choose({ equipment: equipment.includes(piece) ? equipment.filter((one) => one !== piece) : [...equipment, piece] });
  }

  protected minutesTyped(typed: string): void {
    const minutesADay = Number(typed.replace(',', '.'));
    if (typed.trim() === '' || !(minutesADay >= 0 && minutesADay <= 240))
      return this.problem.set(`${typed.trim() || 'Nothing'} is no number of minutes; allowed: 0 to 240.`);
    this.choose({ minutesADay });
  }

  private setDrills(drills: readonly GivenDrill[]): void {
    this.edit({ drills: [...drills] });
  }

  protected dropped({ previousIndex, currentIndex }: CdkDragDrop<unknown>): void {
    this.move(previousIndex, currentIndex);
  }

  private move(from: number, to: number): void {
    const drills = [...(this.work()?.drills ?? [])];
    if (to < 0 || to >= drills.length) return;
    const [one] = drills.splice(from, 1);
    drills.splice(to, 0, one!);
    this.setDrills(drills);
  }

  /** The handle under the arrow keys: moves the drill, and stays in the hand. */
  protected moveByKey(event: KeyboardEvent, at: number): void {
    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (by === 0) return;
    event.preventDefault();
    this.move(at, at + by);
    const to = Math.max(0, Math.min(this.lines().length - 1, at + by));
    this.announcement.set(`${this.lines()[to]?.drill.name}: ${to + 1} of ${this.lines().length}`);
    const list = (event.target as HTMLElement).closest('ol');
    this.changes.detectChanges();
    list?.querySelector<HTMLElement>(`[data-line="${to}"]`)?.focus();
  }

  protected remove(at: number): void {
    this.setDrills((this.work()?.drills ?? []).filter((_, index) => index !== at));
  }

  protected add(id: string): void {
    const drill = findDrill(id, this.current());
    const { drills = [] } = this.work() ?? {};
    if (!drill || drills.length >= MOST_DRILLS) return;
    const side: DrillSide = drill.sides === 'none' ? 'midline' : this.usualSide();
    this.setDrills([...drills, this.asGiven(drill, side, drill.dose)]);
  }

  /** The side that was treated, or both. */
  private usualSide(): DrillSide {
    return this.view()?.programs.episode.involvedSide ?? 'both';
  }

  /** The easier or the harder neighbour, where there is one that is not given already. */
  protected neighbour(at: number, which: 'easier' | 'harder') {
    const drills = this.work()?.drills ?? [];
    const next = findDrill(findDrill(drills[at]?.drill ?? '', this.known())?.[which] ?? '', this.current());
    const isOut = this.keptOut().some(({ drill }) => drill.id === next?.id);
    return next && !isOut && !drills.some(({ drill }) => drill === next.id) ? next : null;
  }

  protected swap(at: number, which: 'easier' | 'harder'): void {
    const next = this.neighbour(at, which);
    if (!next) return;
    const drills = (this.work()?.drills ?? []).map((one, index) => {
      if (index !== at) return one;
      const side: DrillSide = next.sides === 'none' ? 'midline' : one.side === 'midline' ? this.usualSide() : one.side;
      return this.asGiven(next, side, next.dose);
    });
    this.setDrills(drills);
  }

  protected sidesFor(id: string): readonly DrillSide[] {
    return findDrill(id, this.known())?.sides === 'none' ? [] : ['left', 'right', 'both'];
  }

  protected set(at: number, change: Partial<GivenDrill>): void {
    this.setDrills((this.work()?.drills ?? []).map((one, index) => (index === at ? { ...one, ...change } : one)));
  }

  protected dose(at: number, field: keyof Dose, typed: string): void {
    const one = this.work()?.drills[at];
    if (!one) return;
    const { name, least, most, mayBeNone } = DOSE[field];
    const text = typed.trim();
    if (text === '' && mayBeNone && one.dose[field === 'reps' ? 'seconds' : 'reps'] !== null)
      return this.set(at, { dose: { ...one.dose, [field]: null } });
    const value = Number(text);
    if (!Number.isInteger(value) || value < least || value > most)
      return this.problem.set(
        `${findDrill(one.drill, this.known())?.name}: “${text}” is no number of ${name}; allowed: ${least} to ${most}.`,
      );
    this.set(at, { dose: { ...one.dose, [field]: value } });
  }

  protected give(): void {
    const work = this.work();
    if (!work || this.isSigned()) return;
    const { choices, drills, recheckOn, note } = work;
    const id = crypto.randomUUID();
    this.problem.set('');
    const body = { id, choices, drills, recheckOn, note };
    this.commands.send({ id, visitId: this.id(), target: this.id(), route: 'giveProgram', words: 'the programme', body });
    this.draft.set(null);
    this.drafts.drop(`decide.${this.id()}`);
  }
}
