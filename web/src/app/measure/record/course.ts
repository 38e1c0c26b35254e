import { limitsOf } from '@dial-gauge/contract';
import type { VisitRecord } from '@dial-gauge/contract';
import {
  DEFAULT_EXAM_SET,
  itemsOfSheet,
  planExam,
  protocolOf,
  stationOf,
  protocolOfId,
  type MeasurementKey,
  measurementKey,
  type PlanStep,
} from '@dial-gauge/core';
import type { Shows } from '../../data/overlay';

/**
 * What is measured at a visit, in order: as it was prepared, or planned from
 * the sheet where nobody has prepared it; and what was measured beyond it,
 * in the position it belongs to.
 */
export function stepsOf(record: VisitRecord): readonly PlanStep[] {
  const planned = record.plan?.steps ?? plannedFrom(record);
  const known = new Set(planned.map(keyOfStep));
  const beyond = record.measurements
    .filter((view) => !known.has(measurementKey(view)))
    .map(({ side, mode, digit, ...way }): PlanStep => ({
      protocol: protocolOf(way).id,
      ...(digit ? { digit } : {}),
      side,
      mode,
      seconds: 0,
    }));
  return beyond.reduce(withStep, planned);
}

function plannedFrom(record: VisitRecord): readonly PlanStep[] {
  const items = itemsOfSheet(record.sheet ?? DEFAULT_EXAM_SET.items);
  const { involvedSide } = record.episode;
  return planExam({ items, involved: involvedSide, limits: limitsOf(record) }).steps;
}

/** A step put behind the last one of its position, or at the end. */
export function withStep(steps: readonly PlanStep[], step: PlanStep): readonly PlanStep[] {
  const station = stationOf(step);
  const last = steps.map(stationOf).lastIndexOf(station);
  const at = last < 0 ? steps.length : last + 1;
  return [...steps.slice(0, at), step, ...steps.slice(at)];
}

/** A run sheet that was added to shows as it was sent. */
export const STEPS_SHOWN: Shows<'steps', readonly PlanStep[]> = { setPlan: (_, { body }) => body.plan.steps };

export function keyOfStep({ protocol: id, digit, side, mode }: PlanStep): MeasurementKey {
  const { motion, position } = protocolOfId(id)!;
  return measurementKey({ motion, position, protocol: id, digit, side, mode });
}
