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
  formatNumber,
  INSTRUMENT_WORDS,
  type Instrument,
  type MeasurementKey,
  type PlanStep,
  type Side,
  type SheetItem,
  type StoredReading,
} from '@dial-gauge/core';
import type { Command } from '../data/commands';
import { CommandQueue, type Answer } from '../data/command-queue';
import { Drafts } from '../data/drafts';
import { describeFailure } from '../data/problem';
import { overlay } from '../data/overlay';
import { cellsOf, type HeldReading, type Notes } from './record/cells';
import { keyOfStep, stepsOf, STEPS_SHOWN, withStep } from './record/course';
import { ExamCourse } from './exam-course';
import { ExamRecord, keyOf, type Place } from './record/exam-record';
import { LiveSource } from './sources/live';
import { clockWords, figuresOf, isHalfTyped, wayOf, type HalfTyped, type Sent } from './exam-sent';
import { PictureSource } from './sources/pictured';
import { ReadingSources } from './sources/sources';
import { TypedSource } from './sources/typed';
import { Tools } from './record/tools';

/** A reading that passes where it had to stop, until a reason is given. */
export interface PastStop {
  readonly value: number;
  readonly limit: number | null;
  readonly source: string;
}

/** A reading on its way to be held: of what, and with what it was taken where that is not the tool in hand. */
interface Read {
  readonly place: Place;
  readonly reading: StoredReading;
  readonly instrument: Instrument | null;
  /** null: a new one. */
  readonly id: string | null;
  readonly held: () => void;
}

/** What is done at the dial: held, taken back, put right, noted; kept at once and sent in order. */
@Injectable()
export class ExamCommands {
  private readonly record = inject(ExamRecord);
  private readonly course = inject(ExamCourse);
  private readonly sources = inject(ReadingSources);
  private readonly typed = inject(TypedSource);
  private readonly live = inject(LiveSource);
  private readonly picture = inject(PictureSource);
  private readonly tools = inject(Tools);
  private readonly queue = inject(CommandQueue);
  private readonly drafts = inject(Drafts);

  /** A reading past a limit, waiting for its reason. */
  readonly pastStop = signal<PastStop | null>(null);
  private waitsForWhy: Read | null = null;
  /** What was held on this screen, newest last: what undo takes back. */
  private readonly held = signal<readonly { id: string; place: Place }[]>([]);
  /** Taken by the server before the visit was open here: what was read then may not have them yet. */
  private early: readonly Command[] = [];
  /** Counts up with whatever is entered or answered: what was read before is older than the screen. */
  changes = 0;
  readonly canUndo = computed(() => this.held().length > 0);

  constructor() {
    effect(() => {
      const [record, typed] = [this.record.visit(), this.typed.text()];
      if (record) untracked(() => this.keepTyped(typed));
    });
    this.queue.answers.pipe(takeUntilDestroyed(inject(DestroyRef))).subscribe((answer) => this.answered(answer));
  }

  /** Opens a visit, with what of it still waits to be sent. */
  async open(record: VisitRecord): Promise<void> {
    const waiting = await this.queue.waitingOf(record.visit.id);
    this.tools.hand.set(record.hand);
    this.record.visit.set(record);
    this.live.open(record.visit.id);
    this.picture.open(record.visit.id);
    const early = this.early.filter((command) => command.visitId === record.visit.id);
    this.early = [];
    this.record.served.set(cellsOf(record.measurements));
    this.record.taken.set(new Set(early.map((command) => command.id)));
    this.record.entered.set([...early, ...waiting.filter(({ id }) => !early.some((command) => command.id === id))]);
    this.record.steps.set(overlay(stepsOf(record), waiting, STEPS_SHOWN));
    this.held.set([]);
    if (record.plan && record.measurements.length === 0) this.course.trials.set(record.plan.trials);
    const next = this.course.nextOpen(-1, 1) ?? this.course.placeOf(this.record.steps()[0]!);
    const left = this.drafts.read(this.draft(), isHalfTyped);
    const at = left && this.record.places().get(left.key as MeasurementKey)?.place;
    const place = at ?? next;
    this.record.station.set(stationOf(this.course.stepAt(place)));
    this.course.go(place.row, place.side);
    if (at) this.typed.text.set(left.typed);
  }

  /** A figure that is typed and not held yet is there again after a reload, at its measurement. */
  private keepTyped(typed: string): void {
    if (typed === '') this.drafts.drop(this.draft());
    else this.drafts.keep(this.draft(), { key: this.record.key(), typed } satisfies HalfTyped);
  }

  private readonly draft = (): string => `figure.${this.visitId()}`;

  /** What others have held and noted since: it joins what is here, and nothing here is lost. */
  async join(record: VisitRecord): Promise<void> {
    if (this.record.visit()?.visit.id !== record.visit.id) return;
    const seen = this.changes;
    const waiting = await this.queue.waitingOf(record.visit.id);
    if (this.changes !== seen) return;
    const before = this.record.visit()!;
    this.record.visit.set({ ...record, previous: before.previous });
    this.record.served.set(cellsOf(record.measurements));
    this.record.taken.set(new Set());
    this.record.entered.set(waiting);
    const known = new Set(this.record.steps().map(keyOfStep));
    const here = this.record.key();
    this.record.steps.update((steps) =>
      stepsOf(record)
        .filter((step) => !known.has(keyOfStep(step)))
        .reduce(withStep, steps),
    );
    const at = this.record.places().get(here);
    if (at) this.record.place.set(at.place);
  }

  /** Puts another way of measuring on the sheet of this visit, and goes there. */
  add(item: SheetItem): void {
    const record = this.record.visit()!;
    const planned = itemsOfSheet([item]).map(({ side, mode, digit, protocols }): PlanStep => ({
      protocol: protocols[0]!,
      ...(digit ? { digit } : {}),
      side,
      mode,
      seconds: 0,
    }));
    const { involvedSide } = record.episode;
    const uninvolvedFirst = [...planned].sort((a, b) => Number(a.side === involvedSide) - Number(b.side === involvedSide));
    const known = new Set(this.record.steps().map(keyOfStep));
    const fresh = uninvolvedFirst.filter((step) => !known.has(keyOfStep(step))).sort((a, b) => a.mode.localeCompare(b.mode));
    if (fresh.length > 0) {
      this.record.steps.update((steps) => fresh.reduce(withStep, steps));
      const plan = { minutesAvailable: null, leftOut: [], ...record.plan, trials: this.course.trials(), steps: [...this.record.steps()] };
      this.send({ route: 'setPlan', target: record.visit.id, body: { plan } }, 'the run sheet');
    }
    this.course.goTo(this.course.placeOf(uninvolvedFirst[0]!));
  }

  /** Holds what is typed. The reading is on its way as soon as it is held; what was refused stays on the screen. */
  hold(): boolean {
    if (this.record.locked()) return this.refuse('This visit is signed. Open it with “Amend” on Judge, say why, then enter it.');
    if (this.course.turning()) {
      this.course.problem.set(`The patient is ${stationWords(this.record.station())} yet: turn first, then press Enter.`);
      return false;
    }
    const source = this.sources.inHand();
    const read = source.offer();
    if (!read.ok) return this.refuse(read.message);
    if ('arc' in read) return this.holdArc(read.arc);
    const { side } = this.record.place();
    if (read.side && side !== 'midline' && read.side !== side) return this.refuse(this.otherSideWords(side, read.side));
    if (read.other) return this.refuse(`${bothWaysWords(this.record.protocol(), read.reading, read.other)}.`);
    const taken = source.instrument();
    const before = this.record.cell().readings[0]?.instrument;
    if (taken && before && before !== taken)
      return this.refuse(
        `What is held here was taken with ${INSTRUMENT_WORDS[before]}: two tools make no trials of one measurement. Allowed: go on with ${INSTRUMENT_WORDS[before]}, or take those back (u) and measure again.`,
      );
    return this.take({
      place: this.record.place(),
      reading: read.reading,
      instrument: taken,
      id: source.id?.() ?? null,
      held: () => source.held(),
    });
  }

  private otherSideWords(side: Side, typed: Side): string {
    const which = motion(this.record.row().motion).sides === 'towards' ? `the movement to the ${side}` : `the patient’s ${side} side`;
    return `You typed ${typed}, the run sheet is at ${which}. Look at the drawing; o goes to the other side.`;
  }

  /** Holds what was read past its limit, as it was read then: an instrument has moved on meanwhile. */
  holdPast(why: string): boolean {
    const reading = this.waitsForWhy;
    this.waitsForWhy = null;
    return reading ? this.take(reading, why) : false;
  }

  private take(read: Read, why?: string): boolean {
    const row = this.record.rows()[read.place.row]!;
    const allowed = this.record.allowedAt(row, read.place.side);
    const value = valueOfReading(protocolOfId(row.protocol)!, read.reading);
    let past: PastLimit | undefined;
    if (allowed.kind !== 'free' && isPast(allowed, value, row.motion)) {
      const limit = allowed.kind === 'stop' ? allowed.at : null;
      if (why === undefined) {
        this.waitsForWhy = read;
        this.pastStop.set({ value, limit, source: allowed.by.source });
        return false;
      }
      past = { limit, why };
    }
    this.keep(read, past);
    this.pastStop.set(null);
    if (this.record.cell().readings.length >= this.course.trials()) this.course.advance();
    return true;
  }

  /** Both directions from one arc, all of it or nothing. */
  private holdArc(text: string): boolean {
    const { side } = this.record.place();
    const ends = readArc(text, this.record.row().motion, side);
    if (typeof ends === 'string') return this.refuse(`${ends}.`);
    const { mode, position } = this.record.row();
    const found = ends.map((end) => {
      const rows = this.record.rows().filter((row) => row.motion === end.motion && row.mode === mode);
      const row = rows.find((r) => r.position === position) ?? rows[0];
      return { end, at: row && this.record.places().get(keyOf(row, end.side)) };
    });
    const missing = found.find(({ at }) => !at);
    if (missing)
      return this.refuse(
        `${sidedName(missing.end.motion, missing.end.side)}, ${mode}, is not on the run sheet: add it with a, then type the arc again.`,
      );
    for (const { end, at } of found) {
      const checked = readAtDial(String(end.end), protocolOfId(at!.row.protocol)!, { ...this.record.tool(), scale: null });
      if (!checked.ok) return this.refuse(checked.message);
      if (isPast(this.record.allowedAt(at!.row, end.side), end.end, end.motion))
        return this.refuse(`${sidedName(end.motion, end.side)} goes past its limit: hold that one by itself, with a reason.`);
    }
    for (const { end, at } of found)
      this.keep({
        place: at!.place,
        reading: { start: 0, end: end.end, entered: text },
        instrument: null,
        id: null,
        held: () => this.typed.held(),
      });
    this.course.advance();
    return true;
  }

  private keep({ place, reading, instrument, id, held }: Read, pastLimit?: PastLimit): void {
    const row = this.record.rows()[place.row]!;
    const before = this.record.cellOfRow(row, place.side).readings[0]?.instrument;
    const body: NewReading = {
      id: id ?? crypto.randomUUID(),
      ...wayOf(row, place.side),
      instrument: instrument ?? this.tools.toolFor(protocolOfId(row.protocol)!, before).instrument,
      ...figuresOf(reading),
      ...(reading.simulated ? { simulated: true } : {}),
      heldAt: new Date().toISOString(),
      ...(pastLimit ? { pastLimit } : {}),
    };
    this.held.update((all) => [...all, { id: body.id, place }]);
    const said = this.typed.text() || formatNumber(reading.end);
    this.send({ route: 'holdReading', target: this.visitId(), body }, `${this.record.nameOf(row, place.side)}, ${said}`, body.id);
    held();
    this.course.problem.set('');
  }

  /** Takes back the reading held last on this screen and goes to where it was. */
  undo(): void {
    const last = this.held()[this.held().length - 1];
    if (!last || this.record.locked()) return;
    this.held.update((held) => held.slice(0, -1));
    this.send({ route: 'withdrawReading', target: last.id, body: {} }, 'a withdrawn reading');
    this.course.goTo(last.place);
  }

  /** Puts a reading right; the old value stays on record. */
  correct(old: HeldReading, reading: StoredReading, why: string): void {
    if (this.record.locked()) return;
    const id = crypto.randomUUID();
    const body = {
      id,
      ...figuresOf(reading),
      why,
    };
    this.held.update((held) => held.filter((h) => h.id !== old.id));
    this.send(
      { route: 'correctReading', target: old.id, body },
      `${this.record.nameOf(this.record.row(), this.record.place().side)}, corrected`,
      id,
    );
  }

  note(notes: Partial<Notes>): void {
    if (this.record.locked()) return void this.refuse('This visit is signed: what was noted stays as it is. “Amend” on Judge opens it.');
    const before = this.record.cell();
    const was = Object.fromEntries(Object.keys(notes).map((field) => [field, before[field as keyof Notes]]));
    const body = { ...wayOf(this.record.row(), this.record.place().side), ...notes, was } as (Command & { route: 'remark' })['body'];
    this.send(
      { route: 'remark', target: this.visitId(), body },
      `${this.record.nameOf(this.record.row(), this.record.place().side)}, remark`,
    );
  }

  /** Keeps what was entered, shows it, and hands it to the queue. */
  private send(command: Sent, words: string, id: string = crypto.randomUUID()): void {
    const whole = { ...command, id, userId: '', visitId: this.visitId(), words, typed: this.typed.text() } as Command;
    this.changes += 1;
    this.record.entered.update((entered) => [...entered, whole]);
    this.queue.add(whole);
  }

  /** How a sending went, from whichever tab it was sent. */
  private answered({ command, failure, kept, clockOff }: Answer): void {
    this.changes += 1;
    if (command.visitId !== this.record.visit()?.visit.id) {
      if (!failure && !kept) this.early = [...this.early, command];
      return;
    }
    if (!failure && !kept) return this.saved(command, clockOff);
    // Left out, it is undone: what stood before it shows again.
    this.record.entered.update((entered) => entered.filter(({ id }) => id !== command.id));
    if (kept) {
      this.held.update((held) => held.filter((h) => h.id !== command.id));
      return this.course.problem.set(`${command.words}: ${kept}`);
    }
    this.course.problem.set(`${command.words} was not saved. ${describeFailure(failure!)}`);
    if (command.route === 'holdReading') this.backToTyping(command);
    void this.queue.dismiss(command.id);
  }

  private saved(command: Command, clockOff: Answer['clockOff']): void {
    // Entered in another tab: it joins what is here.
    if (!this.record.entered().some(({ id }) => id === command.id)) this.record.entered.update((entered) => [...entered, command]);
    if (command.route === 'holdReading' || command.route === 'correctReading')
      this.record.taken.update((taken) => new Set([...taken, command.id]));
    if (command.route === 'withdrawReading') this.course.announcement.set('Reading withdrawn');
    if (clockOff) this.course.problem.set(clockWords(clockOff));
  }

  /** Back to where a refused reading was typed, unless something else is being typed by now: that stays. */
  private backToTyping(command: Extract<Command, { route: 'holdReading' }>): void {
    const at = this.record.places().get(measurementKey(command.body));
    this.held.update((held) => held.filter((h) => h.id !== command.id));
    if (!at || this.typed.text() !== '' || this.course.turning()) return;
    const { problem } = this.course;
    const said = problem();
    this.course.goTo(at.place);
    this.typed.text.set(command.typed ?? '');
    problem.set(said);
  }

  private refuse(message: string): false {
    this.course.problem.set(message);
    return false;
  }

  private visitId(): string {
    return this.record.visit()!.visit.id;
  }
}
