import type { MeasurementView, TrialView } from '@dial-gauge/contract';
import { endPosition, PROTOCOLS, storedTrial, type Digit } from '@dial-gauge/core';
import type { Names } from '../../database/ports.js';
import type { MeasurementRow, TrialRow } from './entities.js';

/** Everybody a list of readings names. */
export const peopleOf = (rows: readonly TrialRow[]): string[] => rows.map((row) => row.examinerId);

/** The readings that stand, each with what it said before it was put right. */
export function trialViews(rows: readonly TrialRow[], names: Names): TrialView[] {
  const byId = new Map(rows.map((row) => [row.id, row]));
  return rows.filter((row) => row.withdrawnAt === null).map((row) => trialView(row, names, byId));
}

/** One reading; `byId` holds those it may have been put right from. */
export function trialView(trial: TrialRow, names: Names, byId: ReadonlyMap<string, TrialRow> = new Map()): TrialView {
  const corrected: TrialView['corrected'] = [];
  for (let by = trial, old = byId.get(trial.corrects ?? ''); old; by = old, old = byId.get(old.corrects ?? '')) {
    corrected.unshift({
      value: old.lowerZero === null && old.scale === null ? old.endAngle : tiltValue(old),
      entered: old.entered,
      examiner: names.get(old.examinerId) ?? '',
      by: names.get(by.examinerId) ?? '',
      at: by.savedAt.toISOString(),
      why: old.withdrawnWhy,
    });
  }
  return {
    id: trial.id,
    start: trial.startAngle,
    end: trial.endAngle,
    lower: lowerSite(trial),
    scale: trial.scale,
    sense: trial.sense,
    entered: trial.entered,
    instrument: trial.instrument,
    heldAt: trial.heldAt.toISOString(),
    examiner: names.get(trial.examinerId) ?? '',
    clockOff: trial.clockOff,
    simulated: Boolean(trial.simulated),
    pastLimit: trial.pastWhy === '' ? null : { limit: trial.pastLimit, why: trial.pastWhy },
    corrected,
  };
}

/** What figures of an inclinometer came to; any motion in degrees reads them alike. */
function tiltValue({ startAngle: start, endAngle: end, scale, sense, ...of }: TrialRow): number {
  return endPosition(storedTrial('lumbar.flexion', { start, end, lower: lowerSite(of), scale, sense }));
}

/** What was read at the lower of two sites, where there were two. */
export function lowerSite({ lowerZero, lowerEnd }: Pick<TrialRow, 'lowerZero' | 'lowerEnd'>): { zero: number; end: number } | null {
  return lowerZero === null || lowerEnd === null ? null : { zero: lowerZero, end: lowerEnd };
}

export function measurementView(row: MeasurementRow, trials: TrialView[]): MeasurementView {
  const { motion: id, digit, side, mode, position, pain, painWhere, endFeel, substitutions, notDone, notDoneWhy, note } = row;
  return {
    motion: id,
    ...(digit === 0 ? {} : { digit: digit as Digit }),
    side,
    mode,
    position,
    ...(row.variant === '' ? {} : { protocol: protocolIdOf(row) }),
    instrument: trials[trials.length - 1]?.instrument ?? 'goniometer',
    trials,
    pain,
    painWhere,
    endFeel,
    substitutions,
    notDone,
    notDoneWhy,
    note,
  };
}

const BY_WAY = new Map(
  [...PROTOCOLS].reverse().map((protocol) => [`${protocol.motion} ${protocol.position} ${protocol.variant ?? ''}`, protocol.id]),
);

/** The protocol that a row's motion, position and variant name; the usual one goes without saying. */
export function protocolIdOf({
  motion: id,
  position,
  variant,
}: Pick<MeasurementRow, 'motion' | 'position' | 'variant'>): string | undefined {
  return BY_WAY.get(`${id} ${position} ${variant}`);
}
