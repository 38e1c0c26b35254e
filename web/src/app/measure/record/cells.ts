import type { MeasurementView, NotDone, PastLimit, TrialView } from '@dial-gauge/contract';
import { measurementKey, type EndFeel, type Instrument, type MeasurementKey, type StoredReading } from '@dial-gauge/core';
import type { Command } from '../../data/commands';
import { overlay, type Shows } from '../../data/overlay';

/** A reading on this screen, and whether the server has acknowledged it. */
export interface HeldReading extends StoredReading {
  readonly id: string;
  readonly saved: boolean;
  readonly instrument: Instrument;
  /** Who held it; empty while it is on its way. */
  readonly examiner: string;
  readonly pastLimit: PastLimit | null;
  readonly corrected: TrialView['corrected'];
}

/** All that is known of one motion, side and mode at this visit. */
export interface Cell {
  readonly readings: readonly HeldReading[];
  readonly pain: number | null;
  readonly painWhere: string;
  readonly endFeel: EndFeel | null;
  readonly substitutions: readonly string[];
  readonly notDone: NotDone | null;
  readonly notDoneWhy: string;
  readonly note: string;
}

export type Notes = Omit<Cell, 'readings'>;
export type Cells = ReadonlyMap<MeasurementKey, Cell>;

export const EMPTY: Cell = {
  readings: [],
  pain: null,
  painWhere: '',
  endFeel: null,
  substitutions: [],
  notDone: null,
  notDoneWhy: '',
  note: '',
};

/** What the server holds of a visit. */
export function cellsOf(measurements: readonly MeasurementView[]): Cells {
  return new Map(measurements.map((view) => [measurementKey(view), cellOf(view)]));
}

/** The same with what was entered since laid over it; `taken` are those that the server has acknowledged. */
export function cellsShown(served: Cells, entered: readonly Command[], taken: ReadonlySet<string>): Cells {
  const isSaved = (reading: HeldReading) => (taken.has(reading.id) ? { ...reading, saved: true } : reading);
  return everywhere(overlay(served, entered, SHOWS), (readings) => readings.map(isSaved));
}

function cellOf({ trials, pain, painWhere, endFeel, substitutions, notDone, notDoneWhy, note }: MeasurementView): Cell {
  return { readings: trials.map(heldOf), pain, painWhere, endFeel, substitutions, notDone, notDoneWhy, note };
}

function heldOf({
  id,
  start,
  end,
  lower,
  scale,
  sense,
  entered,
  simulated,
  instrument,
  examiner,
  pastLimit,
  corrected,
}: TrialView): HeldReading {
  return { id, start, end, lower, scale, sense, entered, simulated, instrument, examiner, pastLimit, corrected, saved: true };
}

/** How what was entered at a visit shows in its cells; until it is answered its readings are marked as waiting. */
const SHOWS: Shows<'cells', Cells> = {
  holdReading: (cells, { body }) => {
    const { id, instrument, start = 0, end, lower, scale, sense, entered, simulated, pastLimit } = body;
    const reading: HeldReading = {
      id,
      instrument,
      start,
      end,
      lower,
      scale,
      sense,
      entered: entered ?? '',
      simulated: simulated ?? false,
      pastLimit: pastLimit ?? null,
      corrected: [],
      examiner: '',
      saved: false,
    };
    return change(cells, measurementKey(body), (cell) =>
      cell.readings.some((r) => r.id === id) ? cell : { ...cell, readings: [...cell.readings, reading] },
    );
  },
  withdrawReading: (cells, { target }) => everywhere(cells, (readings) => readings.filter((reading) => reading.id !== target)),
  correctReading: (cells, { target, body: { id, why, ...figures } }) => {
    void why;
    return everywhere(cells, (readings) =>
      readings.map((reading) => (reading.id === target ? { ...reading, ...figures, id, saved: false } : reading)),
    );
  },
  remark: (cells, { body: { motion, digit, side, mode, position, protocol, was, ...notes } }) => {
    void was;
    const key = measurementKey({ motion, digit, side, mode, position, protocol });
    return change(cells, key, (cell) => ({ ...cell, ...(notes as Partial<Notes>) }));
  },
};

function change(cells: Cells, key: MeasurementKey, update: (cell: Cell) => Cell): Cells {
  return new Map(cells).set(key, update(cells.get(key) ?? EMPTY));
}

/** The readings of every cell, changed alike. */
function everywhere(cells: Cells, update: (readings: readonly HeldReading[]) => readonly HeldReading[]): Cells {
  return new Map([...cells].map(([key, cell]) => [key, { ...cell, readings: update(cell.readings) }]));
}
