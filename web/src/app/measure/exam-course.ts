import { computed, inject, Injectable, signal } from '@angular/core';
import {
  measurementKey,
  stationOf,
  stationWords,
  turnWords,
  type MeasurementKey,
  type PlanStep,
  type RunRow,
  type Side,
  type Station,
} from '@dial-gauge/core';
import { ExamRecord, keyOf, type Place } from './record/exam-record';
import { keyOfStep } from './record/course';
import { TypedSource } from './sources/typed';

const TRIALS_KEY = 'dial-gauge.trials';
export const TRIALS_CHOICES = [1, 2, 3, 4, 5, 6] as const;

/** Where we are on the run sheet, and how the patient has to be turned to go on. */
@Injectable()
export class ExamCourse {
  private readonly record = inject(ExamRecord);
  private readonly typed = inject(TypedSource);

  readonly problem = signal('');
  /** Spoken to who does not see the screen. */
  readonly announcement = signal('');
  /** Readings wanted of each motion before the sheet moves on by itself. */
  readonly trials = signal<number>(TRIALS_CHOICES.find((n) => String(n) === localStorage.getItem(TRIALS_KEY)) ?? 1);
  /** A turn that waits to be confirmed, and where it leads. */
  readonly turning = signal<{ readonly to: Station; readonly place: Place } | null>(null);

  setTrials(count: number): void {
    this.trials.set(count);
    localStorage.setItem(TRIALS_KEY, String(count));
  }

  /** Goes to a place; where the patient has to be turned for it, the turn comes first. */
  go(row: number, side: Side): void {
    const target = this.record.rows()[row];
    if (!target) return;
    const to = stationOf({ protocol: target.protocol, side });
    this.typed.text.set('');
    this.problem.set('');
    if (to !== this.record.station()) {
      this.turning.set({ to, place: { row, side } });
      const open = this.record.openEnds().length;
      this.announcement.set(`${turnWords(to, this.record.station())}, then press Enter.${open ? ` ${open} to look at before.` : ''}`);
      return;
    }
    this.turning.set(null);
    this.record.place.set({ row, side });
    this.announcement.set(this.record.nameOf(target, side));
  }

  /** The patient has been turned. */
  confirmTurn(): void {
    const turning = this.turning();
    if (!turning) return;
    this.record.station.set(turning.to);
    const words = `Patient ${stationWords(turning.to)}. `;
    this.goTo(turning.place);
    this.announcement.update((said) => words + said);
  }

  /** Not yet: back to where the patient still is. */
  stayHere(): void {
    this.turning.set(null);
    this.problem.set('');
    this.announcement.set(this.record.nameOf(this.record.row(), this.record.place().side));
  }

  goTo({ row, side }: Place): void {
    this.go(row, side);
  }

  /** Goes to a measurement by its key; stays where there is none. */
  goToKey(key: string | undefined): void {
    const at = this.record.places().get(key as MeasurementKey);
    if (at) this.goTo(at.place);
  }

  placeOf(step: PlanStep): Place {
    return this.record.places().get(keyOfStep(step))?.place ?? { row: 0, side: step.side };
  }

  step(by: 1 | -1): void {
    if (this.turning() && by === -1) return this.stayHere();
    const row = this.record.place().row + by;
    const target = this.record.rows()[row];
    if (target) this.go(row, target.sides[0]!);
  }

  otherSide(): void {
    const { side } = this.record.place();
    if (side !== 'midline') this.goToWay({ side: side === 'left' ? 'right' : 'left' }, `the ${side === 'left' ? 'right' : 'left'} side`);
  }

  otherMode(): void {
    const { mode } = this.record.row();
    this.goToWay({ mode: mode === 'active' ? 'passive' : 'active' }, mode === 'active' ? 'passive' : 'active');
  }

  private goToWay(change: { side?: Side; mode?: RunRow['mode'] }, words: string): void {
    const at = this.record.places().get(measurementKey({ ...this.record.row(), side: this.record.place().side, ...change }));
    if (at) this.goTo(at.place);
    else this.problem.set(`${words.charAt(0).toUpperCase()}${words.slice(1)} is not on the run sheet.`);
  }

  /** The next place that still wants readings; stays where it is when all is done. */
  advance(): void {
    const here = this.record.steps().findIndex((step) => keyOfStep(step) === this.record.key());
    const next = this.nextOpen(here, this.trials());
    if (next) this.goTo(next);
    else this.announcement.set('The run sheet is complete');
  }

  /** Where it goes on after this one; nowhere when all is done. */
  readonly next = computed((): Place | undefined => {
    const here = this.record.steps().findIndex((step) => keyOfStep(step) === this.record.key());
    const place = this.nextOpen(here, this.trials());
    const { row, side } = this.record.place();
    return place && (place.row !== row || place.side !== side) ? place : undefined;
  });

  /** Which of all steps this is. */
  readonly progress = computed(() => {
    const steps = this.record.steps();
    return { at: steps.findIndex((step) => keyOfStep(step) === this.record.key()) + 1, of: steps.length };
  });

  /** The first step after one, round the end, that has fewer readings and was not said to be left out. */
  nextOpen(after: number, wanted: number): Place | undefined {
    const steps = this.record.steps();
    const round = [...steps.slice(after + 1), ...steps.slice(0, Math.max(after, 0))];
    const open = round.find((step) => {
      const cell = this.record.cellAt(keyOfStep(step));
      return cell.notDone === null && cell.readings.length < wanted;
    });
    return open && this.placeOf(open);
  }

  stepAt({ row, side }: Place): PlanStep {
    const at = this.record.rows()[row]!;
    return this.record.steps().find((step) => keyOfStep(step) === keyOf(at, side)) ?? this.record.steps()[0]!;
  }
}
