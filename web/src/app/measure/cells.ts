import type { MeasurementView, NotDone, PastLimit, TrialView } from '@dial-gauge/contract';
import { measurementKey, type EndFeel, type Instrument, type MeasurementKey, type StoredReading } from '@dial-gauge/core';
import type { Letter } from '../data/letters';

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

/** What the server holds of a visit, with what still waits to be sent laid over it. */
export function cellsOf(measurements: readonly MeasurementView[], waiting: readonly Letter[]): Cells {
  const cells: Cells = new Map(measurements.map((view) => [measurementKey(view), cellOf(view)]));
  return waiting.reduce(withLetter, cells);
}

function cellOf({ trials, pain, painWhere, endFeel, substitutions, notDone, notDoneWhy, note }: MeasurementView): Cell {
  return { readings: trials.map(heldOf), pain, painWhere, endFeel, substitutions, notDone, notDoneWhy, note };
}

function heldOf({ id, start, end, lower, scale, sense, entered, instrument, examiner, pastLimit, corrected }: TrialView): HeldReading {
  return { id, start, end, lower, scale, sense, entered, instrument, examiner, pastLimit, corrected, saved: true };
}

/** The cells as they are once a letter has arrived; until then its readings are marked as waiting. */
export function withLetter(cells: Cells, letter: Letter): Cells {
  switch (letter.route) {
    case 'holdReading': {
      const { id, instrument, start = 0, end, lower, scale, sense, entered, pastLimit } = letter.body;
      const reading: HeldReading = {
        id,
        instrument,
        start,
        end,
        lower,
        scale,
        sense,
        entered: entered ?? '',
        pastLimit: pastLimit ?? null,
        corrected: [],
        examiner: '',
        saved: false,
      };
      return change(cells, measurementKey(letter.body), (cell) =>
        cell.readings.some((r) => r.id === id) ? cell : { ...cell, readings: [...cell.readings, reading] },
      );
    }
    case 'withdrawReading':
      return everywhere(cells, (readings) => readings.filter((reading) => reading.id !== letter.target));
    case 'correctReading': {
      const { id, why, ...figures } = letter.body;
      void why;
      return everywhere(cells, (readings) =>
        readings.map((reading) => (reading.id === letter.target ? { ...reading, ...figures, id, saved: false } : reading)),
      );
    }
    case 'remark': {
      const { motion, digit, side, mode, position, protocol, was, ...notes } = letter.body;
      void was;
      const key = measurementKey({ motion, digit, side, mode, position, protocol });
      return change(cells, key, (cell) => ({ ...cell, ...(notes as Partial<Notes>) }));
    }
    default:
      return cells;
  }
}

export function change(cells: Cells, key: MeasurementKey, update: (cell: Cell) => Cell): Cells {
  return new Map(cells).set(key, update(cells.get(key) ?? EMPTY));
}

/** The readings of every cell, changed alike. */
export function everywhere(cells: Cells, update: (readings: readonly HeldReading[]) => readonly HeldReading[]): Cells {
  return new Map([...cells].map(([key, cell]) => [key, { ...cell, readings: update(cell.readings) }]));
}

/** Marks a reading as acknowledged. */
export function saved(cells: Cells, id: string): Cells {
  return everywhere(cells, (readings) => readings.map((reading) => (reading.id === id ? { ...reading, saved: true } : reading)));
}
