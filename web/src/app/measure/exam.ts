import { computed, inject, Injectable, signal } from '@angular/core';
import type { MeasurementView, NewReading, Remark, VisitRecord } from '@dial-gauge/contract';
import {
  ageOn,
  DEFAULT_EXAM_SET,
  compareWithNorm,
  errorOf,
  expectedBand,
  findNormSet,
  measure,
  measurementKey,
  motion,
  normQuery,
  protocolOf,
  protocolOfId,
  runSheet,
  sidedName,
  storedTrial,
  suffixOf,
  type Degrees,
  type EndFeel,
  type ExpectedBand,
  type MeasuredValue,
  type MeasurementKey,
  type NormComparison,
  type Protocol,
  type RunRow,
  type SheetItem,
  type Side,
  type StoredReading,
} from '@dial-gauge/core';
import { Api } from '../data/api';
import { Outbox } from '../data/outbox';
import { describeFailure } from '../data/problem';
import { checkTyped, instrumentOf, readTyped, valueOf } from './typed';

/** A reading on this screen, and whether the server has acknowledged it. */
export interface HeldReading extends StoredReading {
  readonly id: string;
  readonly saved: boolean;
}

/** All that is known of one motion, side and mode at this visit. */
export interface Cell {
  readonly readings: readonly HeldReading[];
  readonly pain: number | null;
  readonly painWhere: string;
  readonly endFeel: EndFeel | null;
  readonly substitutions: readonly string[];
}

export interface Place {
  readonly row: number;
  readonly side: Side;
}
type Notes = Pick<Remark, 'pain' | 'painWhere' | 'endFeel' | 'substitutions'>;

const EMPTY: Cell = { readings: [], pain: null, painWhere: '', endFeel: null, substitutions: [] };
const TRIALS_KEY = 'dial-gauge.trials';
export const TRIALS_CHOICES = [1, 2, 3] as const;

const keyOf = (row: RunRow, side: Side): MeasurementKey => measurementKey({ ...row, side });

/** The exam in hand: where we are on the run sheet, what has been held, what is typed. */
@Injectable()
export class Exam {
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);

  /** Standard error of the instrument in hand, in the motion's unit; a force's grows with the reading. */
  readonly sem = computed(() => {
    const { motion: id, protocol } = this.row();
    const value = this.typedValue() ?? this.measured()?.value;
    return errorOf({ motion: id, protocol, instrument: this.instrument(), value }).sem;
  });
  readonly record = signal<VisitRecord | null>(null);
  readonly place = signal<Place>({ row: 0, side: 'right' });
  readonly typed = signal('');
  readonly problem = signal('');
  /** Spoken to who does not see the screen. */
  readonly announcement = signal('');
  /** Readings wanted of each motion before the sheet moves on by itself. */
  readonly trials = signal<number>(TRIALS_CHOICES.find((n) => String(n) === localStorage.getItem(TRIALS_KEY)) ?? 1);
  private readonly cells = signal<ReadonlyMap<MeasurementKey, Cell>>(new Map());
  /** What was held on this screen, newest last: what undo takes back. */
  private readonly held = signal<readonly { key: MeasurementKey; id: string; place: Place }[]>([]);

  /** What is to be measured, and what was measured beyond it. */
  readonly sheet = computed((): readonly SheetItem[] => {
    const record = this.record();
    const planned = record?.sheet ?? DEFAULT_EXAM_SET.items;
    const measured = (record?.measurements ?? []).map((m): SheetItem => ({
      protocol: protocolOf(m).id,
      ...(m.digit ? { digit: m.digit } : {}),
    }));
    const seen = new Map([...planned, ...measured].map((item) => [`${item.protocol} ${item.digit ?? ''}`, item]));
    return [...seen.values()];
  });
  readonly blocks = computed(() => runSheet(this.sheet(), this.record()?.episode.involvedSide ?? null));
  readonly rows = computed(() => this.blocks().flatMap((block) => block.rows));
  private readonly places = computed(
    () => new Map(this.rows().flatMap((row) => row.sides.map((side) => [keyOf(row, side), { row, side }] as const))),
  );
  readonly row = computed(() => this.rows()[this.place().row]!);
  readonly protocol = computed((): Protocol => protocolOfId(this.row().protocol)!);
  /** What the reading in hand is taken with: the protocol's usual instrument. */
  readonly instrument = computed(() => instrumentOf(this.protocol()));
  readonly isDual = computed(() => this.instrument() === 'dualInclinometer');
  readonly motion = computed(() => motion(this.row().motion));
  readonly key = computed(() => keyOf(this.row(), this.place().side));
  readonly cell = computed(() => this.cellAt(this.key()));
  readonly measured = computed(() => this.measuredAt(this.key()));
  readonly canUndo = computed(() => this.held().length > 0);
  readonly savedCount = computed(() =>
    [...this.cells().values()].reduce((sum, cell) => sum + cell.readings.filter((r) => r.saved).length, 0),
  );
  /** The unit after the figures. */
  readonly unit = computed(() => suffixOf(this.motion().unit));
  /** What is typed as the reading it would be: the needle follows it before it is held. */
  readonly typedValue = computed(() => {
    const read = readTyped(this.protocol(), this.typed());
    return read.ok ? valueOf(this.protocol(), read.reading) : null;
  });

  open(record: VisitRecord): void {
    this.record.set(record);
    this.cells.set(new Map(record.measurements.map((view) => [measurementKey(view), cellOf(view)])));
    this.held.set([]);
    const firstOpen = this.rows().findIndex((row) => row.sides.some((side) => this.cellAt(keyOf(row, side)).readings.length === 0));
    const row = Math.max(firstOpen, 0);
    const side = this.rows()[row]!.sides.find((s) => this.cellAt(keyOf(this.rows()[row]!, s)).readings.length === 0);
    this.go(row, side ?? this.rows()[row]!.sides[0]!);
  }

  cellAt(key: MeasurementKey): Cell {
    return this.cells().get(key) ?? EMPTY;
  }

  cellOfRow(row: RunRow, side: Side): Cell {
    return this.cellAt(keyOf(row, side));
  }

  /** Value, error and consistency of what was held, as the core measures it. */
  measuredAt(key: MeasurementKey): MeasuredValue | null {
    const place = this.places().get(key);
    const readings = this.cellAt(key).readings;
    if (!place || readings.length === 0) return null;
    const { row, side } = place;
    const instrument = instrumentOf(protocolOfId(row.protocol)!);
    return measure({ ...row, side, instrument, trials: readings.map((reading) => storedTrial(row.motion, reading)) });
  }

  /** The same measurement with another side or mode. */
  measuredFor(change: Partial<Pick<RunRow, 'mode'> & { side: Side }>): MeasuredValue | null {
    return this.measuredAt(measurementKey({ ...this.row(), side: this.place().side, ...change }));
  }

  /** Value of the same measurement at the visit before, with its day. */
  readonly lastVisit = computed(() => {
    const previous = this.record()?.previous;
    const view = previous?.measurements.find((m) => measurementKey(m) === this.key() && m.trials.length > 0);
    if (!previous || !view) return null;
    const trials = view.trials.map((trial) => storedTrial(view.motion, trial));
    return { on: previous.assessedOn, value: measure({ ...view, trials, pain: undefined, endFeel: undefined }).value };
  });

  /** The clinic's norm set, and what it is asked for the measurement in hand. */
  private readonly normQuestion = computed(() => {
    const record = this.record();
    const set = record && findNormSet(record.normSet, record.ownNormSet ? [record.ownNormSet] : []);
    if (!record || !set) return undefined;
    const { sex, birthDate } = record.patient;
    return { set, query: normQuery({ ...this.row(), side: this.place().side }, sex, ageOn(birthDate, record.visit.assessedOn)) };
  });
  readonly normSetName = computed(() => this.normQuestion()?.set.short ?? 'this set');

  /** Where the clinic's norm expects the measurement in hand, whether or not anything was read yet. */
  readonly expected = computed((): ExpectedBand | null => {
    const question = this.normQuestion();
    return (question && expectedBand(question.set, question.query)) ?? null;
  });

  /** A value of the measurement in hand against the clinic's norm. */
  normFor(value: Degrees): NormComparison | undefined {
    const question = this.normQuestion();
    return question && compareWithNorm(question.set, question.query, value, this.sem());
  }

  setTrials(count: number): void {
    this.trials.set(count);
    localStorage.setItem(TRIALS_KEY, String(count));
  }

  /** Puts another way of measuring on the sheet of this visit, and goes there. */
  add(item: SheetItem): void {
    const visitId = this.visitId();
    const at = () => this.rows().findIndex((row) => row.protocol === item.protocol && row.digit === item.digit);
    if (at() < 0) {
      const items = [...this.sheet(), item];
      this.record.update((record) => record && { ...record, sheet: items });
      this.outbox.add({
        id: crypto.randomUUID(),
        send: () => this.api.call('setSheet', { id: visitId, body: { items } }),
        saved: () => undefined,
        refused: (failure) => this.problem.set(describeFailure(failure)),
      });
    }
    this.go(at(), this.rows()[at()]!.sides[0]!);
  }

  go(row: number, side: Side): void {
    const before = this.rows()[this.place().row];
    const target = this.rows()[row];
    if (!target) return;
    this.place.set({ row, side });
    this.typed.set('');
    this.problem.set('');
    const turn = before && before.position !== target.position ? `Turn patient ${target.position}. ` : '';
    this.announcement.set(`${turn}${this.nameOf(target, side)}`);
  }

  step(by: 1 | -1): void {
    const row = this.place().row + by;
    const target = this.rows()[row];
    if (target) this.go(row, target.sides[0]!);
  }

  otherSide(): void {
    const { row, side } = this.place();
    if (side !== 'midline') this.go(row, side === 'left' ? 'right' : 'left');
  }

  otherMode(): void {
    const { protocol, digit, mode } = this.row();
    const row = this.rows().findIndex((r) => r.protocol === protocol && r.digit === digit && r.mode !== mode);
    if (row >= 0) this.go(row, this.place().side);
  }

  /** Holds what is typed. The reading is on its way as soon as it is held; what was refused stays on the screen. */
  hold(): boolean {
    const text = this.typed();
    const read = readTyped(this.protocol(), text);
    const row = this.row();
    const problem = read.ok ? checkTyped(this.protocol(), read.reading) : read.message;
    if (!read.ok || problem) {
      this.problem.set(problem ?? '');
      return false;
    }
    const place = this.place();
    const key = this.key();
    const visitId = this.visitId();
    const { start, end, lower } = read.reading;
    const reading: NewReading = {
      id: crypto.randomUUID(),
      ...wayOf(row, place.side),
      instrument: this.instrument(),
      start,
      end,
      ...(lower ? { lower } : {}),
      heldAt: new Date().toISOString(),
    };
    this.change(key, (cell) => ({ ...cell, readings: [...cell.readings, { id: reading.id, start, end, lower, saved: false }] }));
    this.held.update((held) => [...held, { key, id: reading.id, place }]);
    this.outbox.add({
      id: reading.id,
      send: () => this.api.call('holdReading', { id: visitId, body: reading }),
      saved: () =>
        this.changeIn(visitId, key, (cell) => ({
          ...cell,
          readings: cell.readings.map((r) => (r.id === reading.id ? { ...r, saved: true } : r)),
        })),
      refused: (failure) => {
        const why = `${this.nameOf(row, place.side)}, ${text} was not saved. ${describeFailure(failure)}`;
        // Back to where it was typed, unless something else is being typed by now: that stays.
        const here = this.visitId() === visitId;
        if (here) this.drop(key, reading.id);
        if (here && this.typed() === '') {
          this.go(place.row, place.side);
          this.typed.set(text);
        }
        this.problem.set(why);
      },
    });
    this.typed.set('');
    this.problem.set('');
    if (this.cell().readings.length >= this.trials()) this.advance();
    return true;
  }

  /** Takes back the reading held last on this screen and goes to where it was. */
  undo(): void {
    const last = this.held()[this.held().length - 1];
    if (!last) return;
    this.drop(last.key, last.id);
    this.go(last.place.row, last.place.side);
    this.outbox.add({
      id: `withdraw ${last.id}`,
      send: () => this.api.call('withdrawReading', { id: last.id, body: {} }),
      saved: () => this.announcement.set('Reading withdrawn'),
      refused: (failure) => this.problem.set(describeFailure(failure)),
    });
  }

  note(notes: Notes): void {
    const key = this.key();
    const visitId = this.visitId();
    const row = this.row();
    const before = this.cell();
    this.change(key, (cell) => ({ ...cell, ...(notes as Partial<Cell>) }));
    const body: Remark = { ...wayOf(row, this.place().side), ...notes };
    this.outbox.add({
      id: crypto.randomUUID(),
      send: () => this.api.call('remark', { id: visitId, body }),
      saved: () => {},
      refused: (failure) => {
        const { pain, painWhere, endFeel, substitutions } = before;
        this.changeIn(visitId, key, (cell) => ({ ...cell, pain, painWhere, endFeel, substitutions }));
        this.problem.set(describeFailure(failure));
      },
    });
  }

  /** The next place that still wants readings; stays where it is when all is done. */
  private advance(): void {
    const { row, side } = this.place();
    const places = this.rows().flatMap((r, index) => r.sides.map((s) => ({ row: index, side: s, key: keyOf(r, s) })));
    const at = places.findIndex((p) => p.row === row && p.side === side);
    const next = [...places.slice(at + 1), ...places.slice(0, at)].find((p) => this.cellAt(p.key).readings.length < this.trials());
    if (next) this.go(next.row, next.side);
    else this.announcement.set('The run sheet is complete');
  }

  /** What sets a way of measuring apart on the sheet, where its motion stands there in more than one. */
  labelOf({ protocol: id, motion: of, position }: RunRow): string {
    const twins = this.rows().some((row) => row.motion === of && row.position === position && row.protocol !== id);
    return twins ? protocolOfId(id)!.label.split(', ').slice(1).join(', ') : '';
  }

  /** "left hip flexion, active": what a place on the sheet is called. */
  nameOf({ motion: id, digit, mode }: RunRow, side: Side): string {
    const name = sidedName(id, side, digit);
    return `${name.charAt(0).toLowerCase()}${name.slice(1)}${motion(id).unit === 'deg' ? `, ${mode}` : ''}`;
  }

  private drop(key: MeasurementKey, id: string): void {
    this.change(key, (cell) => ({ ...cell, readings: cell.readings.filter((r) => r.id !== id) }));
    this.held.update((held) => held.filter((h) => h.id !== id));
  }

  /** An answer may come when another visit is on the screen: then it changes nothing here. */
  private changeIn(visitId: string, key: MeasurementKey, update: (cell: Cell) => Cell): void {
    if (this.visitId() === visitId) this.change(key, update);
  }

  private change(key: MeasurementKey, update: (cell: Cell) => Cell): void {
    this.cells.update((cells) => new Map(cells).set(key, update(cells.get(key) ?? EMPTY)));
  }

  private visitId(): string {
    return this.record()!.visit.id;
  }
}

/** What a reading or a remark belongs to, as it travels. */
function wayOf({ motion: id, digit, mode, position, protocol }: RunRow, side: Side) {
  return { motion: id, ...(digit ? { digit } : {}), side, mode, position, protocol };
}

function cellOf({ trials, pain, painWhere, endFeel, substitutions }: MeasurementView): Cell {
  return {
    readings: trials.map(({ id, start, end, lower }) => ({ id, start, end, lower, saved: true })),
    pain,
    painWhere,
    endFeel,
    substitutions,
  };
}
