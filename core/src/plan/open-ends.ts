import { motion, protocolOfId } from '../catalogue/index.js';
import { sidedName } from '../finding/make.js';
import { stationOf, type PlanStep } from './plan.js';
import { stationWords, type Station } from './station.js';

/** What is known of a step by now. */
export interface StepState {
  readonly readings: number;
  /** Said not to be done, with or without a reason. */
  readonly notDone: boolean;
  readonly value: number | null;
  readonly mdc: number | null;
  readonly consistent: boolean | null;
}

/** Something to look at before the patient is turned. */
export interface OpenEnd {
  readonly step: PlanStep;
  readonly kind: 'missing' | 'odd';
  readonly words: string;
}

/**
 * What is missing or odd in one position, told before the patient is turned:
 * what is still open, active further than passive by more than the measuring
 * error, and readings that do not agree.
 */
export function openEnds(steps: readonly PlanStep[], station: Station, stateOf: (step: PlanStep) => StepState): OpenEnd[] {
  const here = steps.filter((step) => stationOf(step) === station);
  return here.flatMap((step): OpenEnd[] => {
    const state = stateOf(step);
    const name = nameOf(step);
    if (state.readings === 0) {
      return state.notDone ? [] : [{ step, kind: 'missing', words: `${name} still open in ${stationWords(station)}` }];
    }
    const odd: OpenEnd[] = [];
    if (state.consistent === false) odd.push({ step, kind: 'odd', words: `${name}: the readings do not agree` });
    const passive = step.mode === 'active' && here.find((other) => isTwin(other, step));
    if (passive) {
      const against = stateOf(passive);
      const { better, unit } = motion(protocolOfId(step.protocol)!.motion);
      const over =
        state.value === null || against.value === null || unit !== 'deg' ? 0 : (state.value - against.value) * (better === 'less' ? -1 : 1);
      if (over > (state.mdc ?? Infinity)) {
        odd.push({ step, kind: 'odd', words: `${name} goes ${Math.round(over)}° further than passive: measure both again` });
      }
    }
    return odd;
  });
}

const isTwin = (other: PlanStep, step: PlanStep): boolean =>
  other.mode === 'passive' && other.protocol === step.protocol && other.side === step.side && other.digit === step.digit;

/** "Passive left hip abduction" */
function nameOf({ protocol, side, digit, mode }: PlanStep): string {
  const id = protocolOfId(protocol)!.motion;
  const name = sidedName(id, side, digit);
  if (motion(id).unit !== 'deg') return name;
  return `${mode === 'active' ? 'Active' : 'Passive'} ${name.charAt(0).toLowerCase()}${name.slice(1)}`;
}
