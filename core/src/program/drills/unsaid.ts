import { isJoint, motion } from '../../catalogue/index.js';
import { directionOf, imposesOf, isSpine, jointOf, type Imposition, type JointMotion } from '../../imposes/index.js';
import type { Mode, MotionId } from '../../terms.js';
import type { Drill, DrillStage } from './types.js';

/** What a drill that serves a motion imposes at most, where its writer did not say how far it goes. */
export function unsaid({ serves, imposes, mode, stage }: Pick<Drill, 'serves' | 'imposes' | 'mode' | 'stage'>): Imposition[] {
  // What is said of the other limb says nothing of the one that works.
  const said = new Set(imposes.flatMap((row) => (row.what === 'moves' && row.limb !== 'other' ? [row.motion] : [])));
  const rows = serves.flatMap((id) => asFarAsItGoes(id, mode, stage));
  const added = new Map<JointMotion, Imposition>();
  for (const row of rows) if (row.what === 'moves' && !partsOf(row.motion).some((part) => said.has(part))) added.set(row.motion, row);
  return [...added.values()];
}

/** The whole trunk is moved where its parts are. */
function partsOf(of: JointMotion): readonly JointMotion[] {
  if (jointOf(of) !== 'thoracolumbar') return [of];
  return (['thoracolumbar', 'thoracic', 'lumbar'] as const).map((joint): JointMotion => `${joint}.${directionOf(of)}`);
}

/** What is done to the whole trunk is done to the chest and the low back: limits name those. */
export function withParts(row: Imposition): readonly Imposition[] {
  if (row.what !== 'moves' || jointOf(row.motion) !== 'thoracolumbar') return [row];
  return partsOf(row.motion).map((part) => ({ ...row, motion: part }));
}

const LOAD = { free: 'none', mobilise: 'none', lengthen: 'stretch', activate: 'limb', load: 'body' } as const satisfies Record<
  DrillStage,
  string
>;

function asFarAsItGoes(id: MotionId, mode: Mode, stage: DrillStage): readonly Imposition[] {
  const { joint, protocols } = motion(id);
  // A length, a distance, a force, a stance: what the measurement itself moves.
  if (!isJoint(joint))
    return imposesOf(protocols[0]!.id).flatMap((row) =>
      row.what === 'moves' && row.by === 'measurement' ? [{ ...row, isFigure: false }] : [],
    );
  const limb = isSpine(joint) ? 'trunk' : 'measured';
  return [{ what: 'moves', limb, motion: id as JointMotion, degrees: 'full', load: LOAD[stage], by: mode, isFigure: false }];
}
