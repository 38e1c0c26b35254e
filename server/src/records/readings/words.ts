import { describeEnd, endPosition, findMotion, modedName, motion, storedTrial, type Digit } from '@dial-gauge/core';
import type { MeasurementRow, TrialRow } from './entities.js';

/** "Left hip flexion, passive"; a motion that this version does not know stands as it is stored. */
export function measurementName(row: Pick<MeasurementRow, 'motion' | 'side' | 'mode' | 'digit'>): string {
  if (!findMotion(row.motion)) return `${row.motion}, ${row.side}, ${row.mode}`;
  return modedName(row.motion, row.side, row.mode, (row.digit || undefined) as Digit | undefined);
}

type Figures = Pick<TrialRow, 'startAngle' | 'endAngle' | 'lowerZero' | 'lowerEnd' | 'scale' | 'sense'>;

/** "98°", "lacks 15° of straight" */
export function trialWords(
  id: MeasurementRow['motion'],
  { startAngle: start, endAngle: end, lowerZero, lowerEnd, scale, sense }: Figures,
): string {
  if (!findMotion(id)) return String(end);
  const lower = lowerZero === null || lowerEnd === null ? null : { zero: lowerZero, end: lowerEnd };
  return describeEnd(motion(id), endPosition(storedTrial(id, { start, end, lower, scale, sense })));
}
