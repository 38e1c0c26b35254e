import { motion, protocolOfId } from '../catalogue/index.js';
import { positionAt, stationOf, type ExamPlan, type LeftOut, type PlanStep, type Station } from '../plan/index.js';

const minutes = (seconds: number): number => Math.round(seconds / 6) / 10;

/** A plan as the terminal prints it: the run sheet with its turns, minutes, and what was left out. */
export function planReport(plan: ExamPlan) {
  const steps: object[] = [];
  let at: Station | null = null;
  for (const step of plan.steps) {
    const station = stationOf(step);
    if (at !== null && at !== station) {
      const onto = station === 'sidelying-on-left' ? 'left' : station === 'sidelying-on-right' ? 'right' : undefined;
      steps.push({ turn: positionAt(station), ...(onto ? { onto } : {}) });
    }
    at = station;
    steps.push(stepReport(step));
  }
  return { minutes: Math.ceil(plan.seconds / 60), turns: plan.turns, steps, leftOut: plan.leftOut.map(leftOutReport) };
}

function stepReport({ protocol: id, digit, side, mode, seconds, stopAt }: PlanStep) {
  const { motion: of, position } = protocolOfId(id)!;
  return {
    motion: of,
    ...(digit === undefined ? {} : { digit }),
    side,
    mode,
    position,
    protocol: id,
    minutes: minutes(seconds),
    ...(stopAt === undefined ? {} : { stopAt, unit: motion(of).unit }),
  };
}

function leftOutReport({ protocol, motion: of, digit, side, mode, reason, why }: LeftOut) {
  return { motion: of, ...(digit === undefined ? {} : { digit }), side, mode, position: protocolOfId(protocol)!.position, reason, why };
}
