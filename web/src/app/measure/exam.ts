import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { NewReading, PastLimit, VisitRecord } from '@dial-gauge/contract';
import {
  isPast,
  itemsOfSheet,
  measurementKey,
  motion,
  protocolOfId,
  readArc,
  bothWaysWords,
  readAtDial,
  sidedName,
  stationOf,
  stationWords,
  valueOfReading,
  type MeasurementKey,
  type PlanStep,
  type RunRow,
  type SheetItem,
  type Sense,
  type Side,
  type StoredReading,
} from '@dial-gauge/core';
import type { Command } from '../data/commands';
import { CommandQueue, type Answer } from '../data/command-queue';
import { Drafts } from '../data/drafts';
import { describeFailure } from '../data/problem';
import { overlay } from '../data/overlay';
import { cellsOf, type HeldReading, type Notes } from './cells';
import { keyOfStep, stepsOf, STEPS_SHOWN, withStep } from './course';
import { ExamCourse } from './exam-course';
import { keyOf, type Place } from './exam-record';

export type { HeldReading } from './cells';
export { TRIALS_CHOICES } from './exam-course';

/** A reading that passes where it had to stop, until a reason is given. */
export interface PastStop {
  readonly value: number;
  readonly limit: number | null;
  readonly source: string;
}

interface HalfTyped {
  readonly key: string;
  readonly typed: string;
}

const isHalfTyped = (value: unknown): value is HalfTyped =>
  typeof value === 'object' && value !== null && 'key' in value && 'typed' in value;

/** The exam in hand: what is typed, held, taken back, put right and noted. */
@Injectable()
export class Exam extends ExamCourse {
  private readonly queue = inject(CommandQueue);
  private readonly drafts = inject(Drafts);

  /** A reading past a limit, waiting for its reason. */
  readonly pastStop = signal<PastStop | null>(null);
  /** What was held on this screen, newest last: what undo takes back. */
  private readonly held = signal<readonly { id: string; place: Place }[]>([]);
  /** Taken by the server before the visit was open here: what was read then may not have them yet. */
  private early: readonly Command[] = [];
  /** Counts up with whatever is entered or answered: what was read before is older than the screen. */
  changes = 0;
  readonly canUndo = computed(() => this.held().length > 0);
  /** What is typed, read with the tool in hand. */
  readonly read = computed(() => readAtDial(this.typed(), this.protocol(), this.tool()));
  /** The reading that is typed, as it would be held. */
  readonly typedReading = computed((): StoredReading | null => {
    const read = this.read();
    if (!read.ok || 'arc' in read) return null;
    return read.other && this.isTold(read.other) ? read.other : read.reading;
  });
  /** Which way the device in hand counts while this joint moves, as it was told: by protocol, side and tool. */
  private readonly senses = signal<ReadonlyMap<string, Sense>>(new Map());
  private readonly senseKey = computed(() => [this.row().protocol, this.place().side, this.tool().instrument, this.tool().scale].join('|'));
  private readonly toldSense = computed(() => this.senses().get(this.senseKey()));
  /** Both readings of the same figures, where nobody has said yet which way the device counts. */
  readonly bothWays = computed((): readonly { readonly sense: Sense; readonly value: number }[] => {
    const read = this.read();
    if (!read.ok || 'arc' in read || !read.other || this.toldSense() !== undefined) return [];
    return [read.reading, read.other].flatMap((of) => (of.sense ? [{ sense: of.sense, value: valueOfReading(this.protocol(), of) }] : []));
  });
  readonly typedValue = computed(() => {
    const reading = this.typedReading();
    return reading && valueOfReading(this.protocol(), reading);
  });
  /** What the same figures come to when the device counted the other way. */
  readonly otherValue = computed(() => {
    const read = this.read();
    if (!read.ok || 'arc' in read || !read.other) return null;
    return this.toldSense() === undefined ? null : valueOfReading(this.protocol(), this.isTold(read.other) ? read.reading : read.other);
  });

  private isTold({ sense }: StoredReading): boolean {
    return sense === this.toldSense();
  }

  /** Says which way the device counts for this movement, for the rest of the visit. */
  tellSense(sense: Sense): void {
    this.senses.update((senses) => new Map(senses).set(this.senseKey(), sense));
    this.problem.set('');
  }

  /** The other way round than it was told. */
  flipSense(): void {
    const told = this.toldSense();
    if (told) this.tellSense(told === 1 ? -1 : 1);
  }

  readonly sem = computed(() => this.semAt(this.typedValue() ?? this.measured()?.value));

  constructor() {
    super();
    effect(() => {
      const [record, typed] = [this.record(), this.typed()];
      if (record) untracked(() => this.keepTyped(typed));
    });
    this.queue.answers.pipe(takeUntilDestroyed(inject(DestroyRef))).subscribe((answer) => this.answered(answer));
  }

  /** Opens a visit, with what of it still waits to be sent. */
  async open(record: VisitRecord): Promise<void> {
    const waiting = await this.queue.waitingOf(record.visit.id);
    this.tools.hand.set(record.hand);
    this.record.set(record);
    const early = this.early.filter((command) => command.visitId === record.visit.id);
    this.early = [];
    this.served.set(cellsOf(record.measurements));
    this.taken.set(new Set(early.map((command) => command.id)));
    this.entered.set([...early, ...waiting.filter(({ id }) => !early.some((command) => command.id === id))]);
    this.steps.set(overlay(stepsOf(record), waiting, STEPS_SHOWN));
    this.held.set([]);
    if (record.plan && record.measurements.length === 0) this.trials.set(record.plan.trials);
    const next = this.nextOpen(-1, 1) ?? this.placeOf(this.steps()[0]!);
    const left = this.drafts.read(this.draft(), isHalfTyped);
    const at = left && this.places().get(left.key as MeasurementKey)?.place;
    const place = at ?? next;
    this.station.set(stationOf(this.stepAt(place)));
    this.go(place.row, place.side);
    if (at) this.typed.set(left.typed);
  }

  /** A figure that is typed and not held yet is there again after a reload, at its measurement. */
  private keepTyped(typed: string): void {
    if (typed === '') this.drafts.drop(this.draft());
    else this.drafts.keep(this.draft(), { key: this.key(), typed } satisfies HalfTyped);
  }

  private readonly draft = (): string => `figure.${this.visitId()}`;

  /** Goes to a measurement by its key; stays where there is none. */
  goToKey(key: string | undefined): void {
    const at = this.places().get(key as MeasurementKey);
    if (at) this.goTo(at.place);
  }

  /** What others have held and noted since: it joins what is here, and nothing here is lost. */
  async join(record: VisitRecord): Promise<void> {
    if (this.record()?.visit.id !== record.visit.id) return;
    const seen = this.changes;
    const waiting = await this.queue.waitingOf(record.visit.id);
    if (this.changes !== seen) return;
    const before = this.record()!;
    this.record.set({ ...record, previous: before.previous });
    this.served.set(cellsOf(record.measurements));
    this.taken.set(new Set());
    this.entered.set(waiting);
    const known = new Set(this.steps().map(keyOfStep));
    const here = this.key();
    this.steps.update((steps) =>
      stepsOf(record)
        .filter((step) => !known.has(keyOfStep(step)))
        .reduce(withStep, steps),
    );
    const at = this.places().get(here);
    if (at) this.place.set(at.place);
  }

  /** Puts another way of measuring on the sheet of this visit, and goes there. */
  add(item: SheetItem): void {
    const record = this.record()!;
    const planned = itemsOfSheet([item]).map(({ side, mode, digit, protocols }): PlanStep => ({
      protocol: protocols[0]!,
      ...(digit ? { digit } : {}),
      side,
      mode,
      seconds: 0,
    }));
    const { involvedSide } = record.episode;
    const uninvolvedFirst = [...planned].sort((a, b) => Number(a.side === involvedSide) - Number(b.side === involvedSide));
    const known = new Set(this.steps().map(keyOfStep));
    const fresh = uninvolvedFirst.filter((step) => !known.has(keyOfStep(step))).sort((a, b) => a.mode.localeCompare(b.mode));
    if (fresh.length > 0) {
      this.steps.update((steps) => fresh.reduce(withStep, steps));
      const plan = { minutesAvailable: null, leftOut: [], ...record.plan, trials: this.trials(), steps: [...this.steps()] };
      this.send({ route: 'setPlan', target: record.visit.id, body: { plan } }, 'the run sheet');
    }
    this.goTo(this.placeOf(uninvolvedFirst[0]!));
  }

  /** Holds what is typed. The reading is on its way as soon as it is held; what was refused stays on the screen. */
  hold(why?: string): boolean {
    if (this.locked()) return this.refuse('This visit is signed. Open it with “Amend” on Judge, say why, then enter it.');
    if (this.turning()) {
      this.problem.set(`The patient is ${stationWords(this.station())} yet: turn first, then press Enter.`);
      return false;
    }
    const read = this.read();
    if (!read.ok) return this.refuse(read.message);
    if ('arc' in read) return this.holdArc(read.arc);
    const { side } = this.place();
    if (read.side && side !== 'midline' && read.side !== side) {
      const which = motion(this.row().motion).sides === 'towards' ? `the movement to the ${side}` : `the patient’s ${side} side`;
      return this.refuse(`You typed ${read.side}, the run sheet is at ${which}. Look at the drawing; o goes to the other side.`);
    }
    if (read.other && this.toldSense() === undefined) return this.refuse(`${bothWaysWords(this.protocol(), read.reading, read.other)}.`);
    const reading = this.typedReading()!;
    const allowed = this.allowed();
    const value = valueOfReading(this.protocol(), reading);
    let past: PastLimit | undefined;
    if (allowed.kind !== 'free' && isPast(allowed, value, this.row().motion)) {
      const limit = allowed.kind === 'stop' ? allowed.at : null;
      if (why === undefined) {
        this.pastStop.set({ value, limit, source: allowed.by.source });
        return false;
      }
      past = { limit, why };
    }
    this.keep(this.place(), reading, past);
    this.pastStop.set(null);
    if (this.cell().readings.length >= this.trials()) this.advance();
    return true;
  }

  /** Both directions from one arc, all of it or nothing. */
  private holdArc(text: string): boolean {
    const { side } = this.place();
    const ends = readArc(text, this.row().motion, side);
    if (typeof ends === 'string') return this.refuse(`${ends}.`);
    const { mode, position } = this.row();
    const found = ends.map((end) => {
      const rows = this.rows().filter((row) => row.motion === end.motion && row.mode === mode);
      const row = rows.find((r) => r.position === position) ?? rows[0];
      return { end, at: row && this.places().get(keyOf(row, end.side)) };
    });
    const missing = found.find(({ at }) => !at);
    if (missing)
      return this.refuse(
        `${sidedName(missing.end.motion, missing.end.side)}, ${mode}, is not on the run sheet: add it with a, then type the arc again.`,
      );
    for (const { end, at } of found) {
      const checked = readAtDial(String(end.end), protocolOfId(at!.row.protocol)!, { ...this.tool(), scale: null });
      if (!checked.ok) return this.refuse(checked.message);
      if (isPast(this.allowedAt(at!.row, end.side), end.end, end.motion))
        return this.refuse(`${sidedName(end.motion, end.side)} goes past its limit: hold that one by itself, with a reason.`);
    }
    for (const { end, at } of found) this.keep(at!.place, { start: 0, end: end.end, entered: text });
    this.advance();
    return true;
  }

  private keep(place: Place, reading: StoredReading, pastLimit?: PastLimit): void {
    const row = this.rows()[place.row]!;
    const body: NewReading = {
      id: crypto.randomUUID(),
      ...wayOf(row, place.side),
      instrument: this.tools.toolFor(protocolOfId(row.protocol)!, this.cellOfRow(row, place.side).readings[0]?.instrument).instrument,
      ...figuresOf(reading),
      heldAt: new Date().toISOString(),
      ...(pastLimit ? { pastLimit } : {}),
    };
    this.held.update((held) => [...held, { id: body.id, place }]);
    this.send({ route: 'holdReading', target: this.visitId(), body }, `${this.nameOf(row, place.side)}, ${this.typed()}`, body.id);
    this.typed.set('');
    this.problem.set('');
  }

  /** Takes back the reading held last on this screen and goes to where it was. */
  undo(): void {
    const last = this.held()[this.held().length - 1];
    if (!last || this.locked()) return;
    this.held.update((held) => held.slice(0, -1));
    this.send({ route: 'withdrawReading', target: last.id, body: {} }, 'a withdrawn reading');
    this.goTo(last.place);
  }

  /** Puts a reading right; the old value stays on record. */
  correct(old: HeldReading, reading: StoredReading, why: string): void {
    if (this.locked()) return;
    const id = crypto.randomUUID();
    const body = {
      id,
      ...figuresOf(reading),
      why,
    };
    this.held.update((held) => held.filter((h) => h.id !== old.id));
    this.send({ route: 'correctReading', target: old.id, body }, `${this.nameOf(this.row(), this.place().side)}, corrected`, id);
  }

  note(notes: Partial<Notes>): void {
    if (this.locked()) return void this.refuse('This visit is signed: what was noted stays as it is. “Amend” on Judge opens it.');
    const before = this.cell();
    const was = Object.fromEntries(Object.keys(notes).map((field) => [field, before[field as keyof Notes]]));
    const body = { ...wayOf(this.row(), this.place().side), ...notes, was } as (Command & { route: 'remark' })['body'];
    this.send({ route: 'remark', target: this.visitId(), body }, `${this.nameOf(this.row(), this.place().side)}, remark`);
  }

  /** Keeps what was entered, shows it, and hands it to the queue. */
  private send(command: Sent, words: string, id: string = crypto.randomUUID()): void {
    const whole = { ...command, id, userId: '', visitId: this.visitId(), words, typed: this.typed() } as Command;
    this.changes += 1;
    this.entered.update((entered) => [...entered, whole]);
    this.queue.add(whole);
  }

  /** How a sending went, from whichever tab it was sent. */
  private answered({ command, failure, kept, clockOff }: Answer): void {
    this.changes += 1;
    if (command.visitId !== this.record()?.visit.id) {
      if (!failure && !kept) this.early = [...this.early, command];
      return;
    }
    if (!failure && !kept) {
      // Entered in another tab: it joins what is here.
      if (!this.entered().some(({ id }) => id === command.id)) this.entered.update((entered) => [...entered, command]);
      if (command.route === 'holdReading' || command.route === 'correctReading')
        this.taken.update((taken) => new Set([...taken, command.id]));
      if (command.route === 'withdrawReading') this.announcement.set('Reading withdrawn');
      if (clockOff) this.problem.set(clockWords(clockOff));
      return;
    }
    // Left out, it is undone: what stood before it shows again.
    this.entered.update((entered) => entered.filter(({ id }) => id !== command.id));
    if (kept) {
      this.held.update((held) => held.filter((h) => h.id !== command.id));
      return this.problem.set(`${command.words}: ${kept}`);
    }
    this.problem.set(`${command.words} was not saved. ${describeFailure(failure!)}`);
    if (command.route === 'holdReading') {
      const at = this.places().get(measurementKey(command.body));
      this.held.update((held) => held.filter((h) => h.id !== command.id));
      // Back to where it was typed, unless something else is being typed by now: that stays.
      if (at && this.typed() === '' && !this.turning()) {
        const { problem } = this;
        const said = problem();
        this.goTo(at.place);
        this.typed.set(command.typed ?? '');
        problem.set(said);
      }
    }
    void this.queue.dismiss(command.id);
  }

  private refuse(message: string): false {
    this.problem.set(message);
    return false;
  }

  private visitId(): string {
    return this.record()!.visit.id;
  }
}

/** A clock that is off is told: the reading was filed at the right moment, and the device wants setting. */
const clockWords = (seconds: number): string =>
  `The clock of this device is ${Math.max(1, Math.round(Math.abs(seconds) / 60))} min ${seconds > 0 ? 'ahead' : 'behind'}: the reading was filed at the right time. Set the clock.`;

type Sent = Command extends infer L ? (L extends Command ? Pick<L, 'route' | 'target' | 'body'> : never) : never;

/** What a reading or a remark belongs to, as it travels. */
function wayOf({ motion: id, digit, mode, position, protocol }: RunRow, side: Side) {
  return { motion: id, ...(digit ? { digit } : {}), side, mode, position, protocol };
}

/** What was read, as it travels: nothing where there is nothing. */
function figuresOf({ start, end, lower, scale, sense, entered }: StoredReading) {
  return {
    start,
    end,
    ...(lower ? { lower } : {}),
    ...(scale ? { scale } : {}),
    ...(sense ? { sense } : {}),
    ...(entered ? { entered } : {}),
  };
}
