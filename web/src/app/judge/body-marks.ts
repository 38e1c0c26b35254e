import { jointOf, motion, stageOf, type Finding, type FindingStage, type Joint, type Judgement, type Side } from '@dial-gauge/core';
import type { JointMark, JointState } from '../ui/body-map/body-map';

/** Heaviest first: what is drawn where several were found. */
const STATES: readonly (readonly [JointState, readonly FindingStage[], string])[] = [
  ['pain', ['pain'], 'hurts'],
  ['again', ['again'], 'to measure again'],
  ['short', ['worse'], 'worse than at the last visit'],
  ['short', ['loss', 'pattern'], 'short'],
  ['beyond', ['beyond'], 'beyond normal'],
];

/** Joints that stand for the whole body where nothing was measured, so that what is missing shows. */
const OUTLINE: readonly Joint[] = ['shoulder', 'elbow', 'wrist', 'hip', 'knee', 'ankle'];
const MIDLINE: readonly Joint[] = ['cervical', 'thoracic', 'lumbar'];

/** One mark for every joint and side: what was found there, or that it was not measured. */
export function bodyMarks({ measurements, findings, notJudged }: Pick<Judgement, 'measurements' | 'findings' | 'notJudged'>): JointMark[] {
  const sideOf = (of: Pick<Finding, 'motion' | 'side'>): Side => (motion(of.motion).sides === 'limb' ? of.side : 'midline');
  const key = (joint: Joint, side: Side) => `${joint} ${side}`;
  const measured = new Map(
    measurements.map(({ measurement: m }) => {
      const [joint, side] = [jointOf(m.motion), sideOf(m)];
      return [key(joint, side), { joint, side }] as const;
    }),
  );
  const marks = [...measured.values()].map(({ joint, side }): JointMark => {
    const own = findings.filter((f) => jointOf(f.motion) === joint && sideOf(f) === side);
    const states = STATES.filter(([, kinds]) => own.some((f) => kinds.includes(stageOf(f.kind))));
    // What was not judged is never called fine.
    const silent = notJudged.filter((of) => jointOf(of.motion) === joint && sideOf(of) === side).length;
    const words = [...states.map(([, , said]) => said), ...(silent > 0 ? [`${silent} not judged`] : [])].join(', ');
    return { joint, side, state: states[0]?.[0] ?? (silent > 0 ? 'not-judged' : 'fine'), words };
  });
  const open = [
    ...OUTLINE.flatMap((joint) => (['left', 'right'] as const).map((side) => ({ joint, side }))),
    ...MIDLINE.map((joint) => ({ joint, side: 'midline' as const })),
  ].filter(({ joint, side }) => !measured.has(key(joint, side)));
  return [...marks, ...open.map(({ joint, side }): JointMark => ({ joint, side, state: 'not-measured', words: '' }))];
}

/** Whether a finding belongs to a joint and side of the map. */
export function isAt(finding: Pick<Finding, 'motion' | 'side'>, at: { readonly joint: Joint; readonly side: Side } | null): boolean {
  if (!at) return true;
  const side = motion(finding.motion).sides === 'limb' ? finding.side : 'midline';
  return jointOf(finding.motion) === at.joint && side === at.side;
}
