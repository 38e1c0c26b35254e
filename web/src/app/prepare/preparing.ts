import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import {
  CLINIC,
  EPISODES,
  VISITS,
  assessmentOfVisit,
  type CautionsView,
  type IntakeChange,
  type PlanView,
  type ClinicView,
  type VisitRecord,
  limitsOf,
} from '@dial-gauge/contract';
import {
  assess,
  cautionsFor,
  EXAM_SETS,
  itemsOfSheet,
  KINDS,
  measurementKey,
  planExam,
  protocolOf,
  protocolOfId,
  runSheet,
  stationWords,
  bothTouched,
  touchOf,
  touchOfItems,
  turnWords,
  withSigns,
  type BodyPart,
  type CautionWhere,
  type ExamPlan,
  type MeasurementKey,
  type PlanItem,
  type PlanStep,
  type RunBlock,
  type RunRow,
  type ScreenItem,
  type SheetItem,
  type WorthAsked,
} from '@dial-gauge/core';
import type { Observable } from 'rxjs';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { keyOfStep } from '../measure/record/course';

/** A ready choice of what to measure. */
export interface Choice {
  readonly id: string;
  readonly name: string;
  readonly items: readonly SheetItem[];
  readonly own: boolean;
}

/** What a person has said of one measurement. */
export interface Wish {
  readonly provoking?: boolean;
  readonly locked?: boolean;
  readonly keep?: boolean;
}

/** A line of the run sheet as it is prepared: a turn, or a motion and mode with its steps. */
export type Line =
  | { readonly kind: 'turn'; readonly words: string }
  | { readonly kind: 'row'; readonly index: number; readonly row: RunRow; readonly steps: readonly PlanStep[]; readonly first: string };

/** What is chosen before measuring is started. */
interface ChoiceDraft {
  readonly revision: number;
  readonly taken: readonly string[];
  readonly added: readonly SheetItem[];
  readonly removed: readonly string[];
  readonly wishes: readonly (readonly [MeasurementKey, Wish])[];
  readonly order: readonly MeasurementKey[];
  readonly minutes: number | null;
  readonly trials: number;
}

const draftName = (visitId: string): string => `prepare.${visitId}`;

function isChoiceDraft(value: unknown): value is ChoiceDraft {
  const draft = value as Partial<ChoiceDraft> | null;
  const lists = [draft?.taken, draft?.added, draft?.removed, draft?.wishes, draft?.order];
  return lists.every(Array.isArray) && typeof draft?.revision === 'number' && typeof draft.trials === 'number';
}

const LAST_TIME = 'last-time';
const wayKey = ({ protocol, digit }: SheetItem): string => `${protocol} ${digit ?? ''}`;
const keyOfItem = ({ motion: id, digit, side, mode, protocols }: PlanItem): MeasurementKey =>
  measurementKey({ motion: id, digit, side, mode, position: protocolOfId(protocols[0]!)!.position, protocol: protocols[0]! });

/** A visit being prepared: what is to be measured, in which order, in how much time, and what stands in the way. */
@Injectable()
export class Preparing {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);

  readonly record = signal<VisitRecord | null>(null);
  readonly practice = signal<ClinicView | null>(null);
  /** Which choices are taken, by id, in the order they were taken. */
  readonly taken = signal<readonly string[]>([]);
  /** Chosen one by one from the library. */
  private readonly added = signal<readonly SheetItem[]>([]);
  private readonly removed = signal<ReadonlySet<string>>(new Set());
  private readonly wishes = signal<ReadonlyMap<MeasurementKey, Wish>>(new Map());
  /** Order by hand, where somebody has dragged a line. */
  private readonly order = signal<readonly MeasurementKey[]>([]);
  readonly minutes = signal<number | null>(null);
  readonly trials = signal(1);

  /** Ready sets, the clinic's own, and what was measured last time. */
  readonly choices = computed((): readonly Choice[] => {
    const last = this.lastTime();
    const own = this.practice()?.examSets ?? [];
    return [
      ...(last.length > 0 ? [{ id: LAST_TIME, name: 'As last time', items: last, own: false }] : []),
      ...EXAM_SETS.map((set) => ({ ...set, own: false })),
      ...own.map((set) => ({ ...set, own: true })),
    ];
  });

  /** What is to be measured, each way once. */
  readonly sheet = computed((): readonly SheetItem[] => {
    const chosen = this.taken().flatMap((id) => this.choices().find((choice) => choice.id === id)?.items ?? []);
    const all = new Map([...chosen, ...this.added()].map((item) => [wayKey(item), item]));
    return [...all.values()].filter((item) => !this.removed().has(wayKey(item)));
  });

  private readonly items = computed((): readonly PlanItem[] => {
    const wishes = this.wishes();
    const items = itemsOfSheet(this.sheet()).map((item) => ({ ...item, ...wishes.get(keyOfItem(item)) }));
    const order = this.order();
    if (order.length === 0) return items;
    const place = (item: PlanItem) => {
      const at = order.indexOf(keyOfItem(item));
      return at < 0 ? order.length : at;
    };
    return items
      .map((item, i) => [item, place(item), i] as const)
      .sort((a, b) => a[1] - b[1] || a[2] - b[2])
      .map(([item]) => item);
  });

  readonly plan = computed((): ExamPlan => {
    const record = this.record();
    if (!record || this.items().length === 0) return { steps: [], leftOut: [], turns: 0, seconds: 0 };
    return planExam({
      items: this.items(),
      involved: record.episode.involvedSide,
      limits: limitsOf(record),
      minutesAvailable: this.minutes(),
      trials: this.trials(),
      times: this.practice()?.times,
      before: this.before(),
    });
  });

  readonly blocks = computed((): readonly RunBlock[] => runSheet(this.plan().steps));
  readonly rows = computed((): readonly RunRow[] => this.blocks().flatMap((block) => block.rows));
  readonly lines = computed((): readonly Line[] => {
    const steps = this.plan().steps;
    let at = 0;
    let index = 0;
    return this.blocks().flatMap((block, b): Line[] => {
      const before = this.blocks()[b - 1];
      const turn: Line[] = [
        { kind: 'turn', words: before ? turnWords(block.station, before.station) : `Begin ${stationWords(block.station)}` },
      ];
      const rows = block.rows.map((row): Line => {
        const own = steps.slice(at, (at += row.sides.length));
        return { kind: 'row', index: index++, row, steps: own, first: keyOfStep(own[0]!) };
      });
      return [...turn, ...rows];
    });
  });

  /** The caution questions that what is to be measured calls for. */
  readonly questions = computed(() => {
    const measured = touchOf(this.items().map(({ protocols, mode }) => ({ protocol: protocols[0]!, mode })));
    return cautionsFor(bothTouched(measured, touchOfItems(this.screened())));
  });
  /** Items of the screens that are to be run at this visit. */
  readonly screened = signal<readonly ScreenItem[]>([]);
  readonly cautions = computed((): CautionsView | null => this.record()?.cautions ?? null);
  readonly refer = computed(() => this.cautions()?.outcome === 'refer');

  open(record: VisitRecord, practice: ClinicView): void {
    this.practice.set(practice);
    this.record.set(record);
    this.trials.set(record.plan?.trials ?? 1);
    this.minutes.set(record.plan?.minutesAvailable ?? null);
    const plan = record.plan;
    if (plan) {
      const ways = [...plan.steps, ...plan.leftOut].map(({ protocol, digit }): SheetItem => ({ protocol, ...(digit ? { digit } : {}) }));
      this.added.set([...new Map(ways.map((item) => [wayKey(item), item])).values()]);
      this.order.set(plan.steps.map(keyOfStep));
      this.wishes.set(new Map(plan.steps.map((step) => [keyOfStep(step), wishOf(step)])));
    } else if (record.sheet) this.added.set(record.sheet);
    else if (this.lastTime().length > 0) this.taken.set([LAST_TIME]);
    else if (record.episode.procedureId === 'knee-replacement') this.taken.set(['knee-replacement']);
    this.restore();
  }

  /** What is chosen here and not started yet, as a draft keeps it: on the run sheet it was chosen at. */
  private readonly chosen = computed((): ChoiceDraft | null => {
    const record = this.record();
    return (
      record && {
        revision: record.revision,
        taken: this.taken(),
        added: this.added(),
        removed: [...this.removed()],
        wishes: [...this.wishes()],
        order: this.order(),
        minutes: this.minutes(),
        trials: this.trials(),
      }
    );
  });
  /** As it was opened: only what differs is a choice worth keeping. */
  private opened = '';

  constructor() {
    effect(() => {
      const chosen = this.chosen();
      const visitId = untracked(() => this.record()?.visit.id);
      if (!chosen || !visitId || this.opened === '' || JSON.stringify(chosen) === this.opened) return;
      this.drafts.keep(draftName(visitId), chosen);
    });
  }

  /** Brings back what was chosen before a reload, where nobody has changed the run sheet since. */
  private restore(): void {
    this.opened = JSON.stringify(this.chosen());
    const { visit, revision } = this.record()!;
    const left = this.drafts.read(draftName(visit.id), isChoiceDraft);
    if (!left || left.revision !== revision || visit.signed) return;
    const known = (item: SheetItem) => protocolOfId(item.protocol) !== undefined;
    this.taken.set(left.taken);
    this.added.set(left.added.filter(known));
    this.removed.set(new Set(left.removed));
    this.wishes.set(new Map(left.wishes));
    this.order.set(left.order);
    this.minutes.set(left.minutes);
    this.trials.set(left.trials);
  }

  /** The run sheet is the visit's now. */
  saved(): void {
    this.opened = '';
    this.drafts.drop(draftName(this.record()!.visit.id));
  }

  toggle(ids: readonly string[]): void {
    const kept = this.taken().filter((id) => ids.includes(id));
    this.taken.set([...kept, ...ids.filter((id) => !kept.includes(id))]);
    this.removed.set(new Set());
  }

  add(item: SheetItem): void {
    this.added.update((added) => [...added, item]);
    this.removed.update((removed) => new Set([...removed].filter((key) => key !== wayKey(item))));
  }

  remove({ protocol, digit }: RunRow): void {
    this.removed.update((removed) => new Set([...removed, wayKey({ protocol, digit })]));
  }

  /** Puts a line between two others and locks it there: the planner keeps the three in this order. */
  move(from: number, to: number): void {
    const lines = this.lines().filter((line) => line.kind === 'row');
    const moved = lines[from];
    if (!moved || from === to || to < 0 || to >= lines.length) return;
    const rest = lines.filter((line) => line !== moved);
    const now = [...rest.slice(0, to), moved, ...rest.slice(to)];
    this.order.set(now.flatMap((line) => line.steps.map(keyOfStep)));
    for (const line of [now[to - 1], moved, now[to + 1]]) if (line) this.wish(line.steps, { locked: true });
  }

  /** Says something of every step of a line. */
  wish(steps: readonly PlanStep[], wish: Wish): void {
    this.wishes.update((wishes) => {
      const next = new Map(wishes);
      for (const step of steps) next.set(keyOfStep(step), { ...next.get(keyOfStep(step)), ...wish });
      return next;
    });
  }

  /** What provokes is the side that hurts, where one is involved. */
  provoke(steps: readonly PlanStep[], provoking: boolean): void {
    const side = this.record()?.episode.involvedSide;
    const meant = steps.filter((step) => step.side === side);
    this.wish(meant.length > 0 ? meant : steps, { provoking });
  }

  keep(key: MeasurementKey): void {
    this.wishes.update((wishes) => new Map(wishes).set(key, { ...wishes.get(key), keep: true }));
  }

  /** Forgets what was ordered by hand. */
  orderAgain(): void {
    this.order.set([]);
    this.wishes.update((wishes) => new Map([...wishes].map(([key, wish]) => [key, { ...wish, locked: false }])));
  }

  readonly hasLocks = computed(() => this.plan().steps.some((step) => step.locked));

  saveIntake(intake: Omit<IntakeChange, 'revision'>): Observable<VisitRecord['episode']> {
    const { episode } = this.record()!;
    return this.api.call(EPISODES.setIntake, { id: episode.id, body: { ...intake, revision: episode.revision } });
  }

  saveCautions({ yes, note, where }: { yes: readonly string[]; note: string; where: CautionWhere }): Observable<VisitRecord> {
    const asked = withSigns(this.questions(), yes).map((question) => question.id);
    const { visit, revision } = this.record()!;
    return this.api.call(VISITS.setCautions, { id: visit.id, body: { asked, yes: [...yes], note, where: bodyOf(where), revision } });
  }

  savePlan(): Observable<VisitRecord> {
    const { steps, leftOut } = this.plan();
    const plan: PlanView = {
      steps: [...steps],
      leftOut: [...leftOut],
      minutesAvailable: this.minutes(),
      trials: this.trials(),
    };
    const { visit, revision } = this.record()!;
    return this.api.call(VISITS.setPlan, { id: visit.id, body: { plan, sheet: [...this.sheet()], revision } });
  }

  saveSet(name: string): Observable<ClinicView> {
    return this.api.call(CLINIC.addExamSet, { body: { id: crypto.randomUUID(), name, items: [...this.sheet()] } });
  }

  removeSet(id: string): Observable<ClinicView> {
    this.taken.update((taken) => taken.filter((other) => other !== id));
    return this.api.call(CLINIC.removeExamSet, { id });
  }

  /** What was measured at the visit before. */
  private readonly lastTime = computed((): readonly SheetItem[] => {
    const measured = this.record()?.previous?.measurements ?? [];
    const ways = measured.map(({ digit, ...way }): SheetItem => ({ protocol: protocolOf(way).id, ...(digit ? { digit } : {}) }));
    return [...new Map(ways.map((item) => [wayKey(item), item])).values()];
  });

  /** What the visit before says of each measurement: whether there is something to compare with, and whether it was short or painful. */
  private readonly before = computed(() => {
    const record = this.record();
    const measured = new Set<string>();
    const found = new Set<string>();
    const key = ({ motion: id, side, mode }: WorthAsked) => `${id} ${side} ${mode}`;
    if (record?.previous) {
      const { assessedOn, measurements } = record.previous;
      const then = { ...record, visit: { ...record.visit, assessedOn }, measurements, previous: null };
      const judgement = assess(assessmentOfVisit(then), {
        normSets: record.normSets,
        ownSets: record.ownNormSets,
        ownErrors: record.ownErrors,
        checks: record.valueChecks,
      });
      for (const { measurement } of judgement.measurements) measured.add(key(measurement));
      const telling = judgement.findings.filter((finding) => KINDS[finding.kind].telling);
      for (const finding of telling) found.add(key(finding));
    }
    return { measuredBefore: (of: WorthAsked) => measured.has(key(of)), foundBefore: (of: WorthAsked) => found.has(key(of)) };
  });
}

function wishOf({ provoking, locked, keep }: PlanStep): Wish {
  return { ...(provoking ? { provoking } : {}), ...(locked ? { locked } : {}), ...(keep ? { keep } : {}) };
}

const bodyOf = (where: CautionWhere): Record<string, BodyPart[]> =>
  Object.fromEntries(Object.entries(where).map(([id, parts]) => [id, [...parts]]));
