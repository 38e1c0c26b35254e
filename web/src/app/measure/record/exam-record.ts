import { computed, inject, Injectable, signal } from '@angular/core';
import { errorContextOf, type VisitRecord, limitsOf } from '@dial-gauge/contract';
import {
  ageOn,
  allowedFor,
  compareWithNorm,
  errorOf,
  findNormSet,
  judgingSet,
  measure,
  measurementKey,
  motion,
  normQuery,
  openEnds,
  protocolOfId,
  runSheet,
  modedName,
  storedTrial,
  suffixOf,
  variantWords,
  type Allowed,
  type Degrees,
  type ErrorContext,
  type ExpectedBand,
  type MeasuredValue,
  type MeasurementKey,
  type NormComparison,
  type PlanStep,
  type Protocol,
  type RunRow,
  type Side,
  type Station,
} from '@dial-gauge/core';
import type { Command } from '../../data/commands';
import { cellsShown, EMPTY, type Cell, type Cells } from './cells';
import { keyOfStep } from './course';
import { Tools } from './tools';

export interface Place {
  readonly row: number;
  readonly side: Side;
}

export const keyOf = (row: RunRow, side: Side): MeasurementKey => measurementKey({ ...row, side });

/** What is known of the visit: the run sheet, what was held, and what it is held against. */
@Injectable()
export class ExamRecord {
  private readonly tools = inject(Tools);

  readonly visit = signal<VisitRecord | null>(null);
  readonly place = signal<Place>({ row: 0, side: 'right' });
  /** How the patient lies, sits or stands, as it was last confirmed. */
  readonly station = signal<Station>('supine');
  readonly steps = signal<readonly PlanStep[]>([]);
  /** What the server said of the visit, and what was entered since: what is shown is the one laid over the other. */
  readonly served = signal<Cells>(new Map());
  readonly entered = signal<readonly Command[]>([]);
  /** Readings that the server has acknowledged since. */
  readonly taken = signal<ReadonlySet<string>>(new Set());
  private readonly cells = computed(() => cellsShown(this.served(), this.entered(), this.taken()));

  readonly blocks = computed(() => runSheet(this.steps()));
  readonly rows = computed(() => this.blocks().flatMap((block) => block.rows));
  readonly places = computed(
    () =>
      new Map(
        this.rows().flatMap((row, index) =>
          row.sides.map((side) => [keyOf(row, side), { row, side, place: { row: index, side } }] as const),
        ),
      ),
  );
  readonly row = computed(() => this.rows()[this.place().row] ?? this.rows()[0]!);
  readonly protocol = computed((): Protocol => protocolOfId(this.row().protocol)!);
  readonly motion = computed(() => motion(this.row().motion));
  readonly key = computed(() => keyOf(this.row(), this.place().side));
  readonly cell = computed(() => this.cellAt(this.key()));
  /** What the reading in hand is taken with: what its first reading was taken with, or what is in the hand. */
  readonly tool = computed(() => this.tools.toolFor(this.protocol(), this.cell().readings[0]?.instrument));
  readonly instrument = computed(() => this.tool().instrument);
  readonly isDual = computed(() => this.instrument() === 'dualInclinometer');
  readonly measured = computed(() => this.measuredAt(this.key()));
  readonly savedCount = computed(() =>
    [...this.cells().values()].reduce((sum, cell) => sum + cell.readings.filter((r) => r.saved).length, 0),
  );
  /** Signed, and not opened to be amended: looked at, not changed. */
  readonly locked = computed(() => this.visit()?.visit.signed ?? false);
  /** The unit after the figures. */
  readonly unit = computed(() => suffixOf(this.motion().unit));
  /** What the precautions say of the measurement in hand. */
  readonly allowed = computed(() => this.allowedAt(this.row(), this.place().side));

  cellAt(key: MeasurementKey): Cell {
    return this.cells().get(key) ?? EMPTY;
  }

  /** Whether a reading with this id is here, wherever on the sheet. */
  hasReading(id: string): boolean {
    return [...this.cells().values()].some(({ readings }) => readings.some((reading) => reading.id === id));
  }

  cellOfRow(row: RunRow, side: Side): Cell {
    return this.cellAt(keyOf(row, side));
  }

  /** Value, error and consistency of what was held, as the core measures it. */
  measuredAt(key: MeasurementKey): MeasuredValue | null {
    const at = this.places().get(key);
    const { readings } = this.cellAt(key);
    if (!at || readings.length === 0) return null;
    const { row, side } = at;
    return measure(
      {
        ...row,
        side,
        instrument: readings[0]!.instrument,
        trials: readings.map((reading) => storedTrial(row.motion, reading)),
      },
      this.errors(),
    );
  }

  /** The same measurement with another side or mode. */
  measuredFor(change: Partial<Pick<RunRow, 'mode'> & { side: Side }>): MeasuredValue | null {
    return this.measuredAt(measurementKey({ ...this.row(), side: this.place().side, ...change }));
  }

  /** Value of the same measurement at the visit before, with its day. */
  readonly lastVisit = computed(() => {
    const previous = this.visit()?.previous;
    const view = previous?.measurements.find((m) => measurementKey(m) === this.key() && m.trials.length > 0);
    if (!previous || !view) return null;
    const { motion: id, side, mode, position, protocol, digit, instrument } = view;
    const trials = view.trials.map((trial) => storedTrial(id, trial));
    return { on: previous.assessedOn, value: measure({ motion: id, side, mode, position, protocol, digit, instrument, trials }).value };
  });

  private readonly normOrder = computed(() => {
    const record = this.visit();
    return record ? record.normSets.flatMap((id) => findNormSet(id, record.ownNormSets) ?? []) : [];
  });

  /** The norm set that judges the measurement in hand, what it is asked, and where it expects people. */
  private readonly normQuestion = computed(() => {
    const record = this.visit();
    if (!record) return undefined;
    const { sex, birthDate } = record.patient;
    const query = normQuery({ ...this.row(), side: this.place().side }, sex, ageOn(birthDate, record.visit.assessedOn));
    const judging = judgingSet(this.normOrder(), query);
    return judging && { ...judging, query };
  });

  /** Where the clinic's norm expects the measurement in hand, whether or not anything was read yet. */
  readonly expected = computed((): ExpectedBand | null => this.normQuestion()?.band ?? null);

  /** Standard error of the instrument in hand, in the motion's unit; a force's grows with the reading. */
  semAt(value: number | undefined, instrument = this.instrument()): number {
    const { motion: id, protocol } = this.row();
    return errorOf({ motion: id, protocol, instrument, value }, true, this.errors()).sem;
  }

  /** What the measuring error depends on beside the reading: the clinic's own, and the operation. */
  private readonly errors = computed((): ErrorContext => {
    const record = this.visit();
    return record ? errorContextOf(record) : {};
  });

  /** A value of the measurement in hand against the clinic's norm. */
  normFor(value: Degrees): NormComparison | undefined {
    const question = this.normQuestion();
    return question && compareWithNorm(question.set, question.query, value, this.semAt(value));
  }

  allowedAt({ motion: id, mode, protocol }: Pick<RunRow, 'motion' | 'mode' | 'protocol'>, side: Side): Allowed {
    const record = this.visit();
    return record ? allowedFor({ protocol, motion: id, mode, side }, limitsOf(record)) : { kind: 'free' };
  }

  /** What is missing or odd in the position the patient is in. */
  readonly openEnds = computed(() =>
    openEnds(this.steps(), this.station(), (step) => {
      const cell = this.cellAt(keyOfStep(step));
      const measured = this.measuredAt(keyOfStep(step));
      return {
        readings: cell.readings.length,
        notDone: cell.notDone !== null,
        value: measured?.value ?? null,
        mdc: measured?.mdc95 ?? null,
        consistent: measured?.consistent ?? null,
      };
    }),
  );

  /** What sets a way of measuring apart on the sheet, where its motion stands there in more than one. */
  labelOf(row: RunRow): string {
    return variantWords(row, this.rows());
  }

  /** "left hip flexion, active": what a place on the sheet is called. */
  nameOf({ motion: id, digit, mode }: RunRow, side: Side): string {
    const name = modedName(id, side, mode, digit);
    return `${name.charAt(0).toLowerCase()}${name.slice(1)}`;
  }
}
