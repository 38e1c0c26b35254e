import { findMotion, isJoint, protocolOfId, SCENES } from '../catalogue/index.js';
import { isSpine, jointOf, type Imposition } from '../imposes/index.js';
import { findItem, findScreen } from '../screen/index.js';
import { JOINTS } from '../terms.js';
import { formatNumber } from '../words/figures.js';
import { OWN_DRILL_ID, type OwnDrill } from './own.js';
import type { Drill, Moves, Pose } from './drills/types.js';

/** What is wrong with a drill, where, and what is allowed. */
export interface DrillProblem {
  /** `imposes.2.motion` */
  readonly path: string;
  readonly message: string;
}

/**
 * What a clinic's drill has to hold beyond its shape: it names what there is,
 * has a name of its own, and leads nowhere in a circle.
 *
 * @param others every other drill of the clinic, those that ship among them
 */
export function drillProblems(drill: OwnDrill, others: readonly Drill[]): DrillProblem[] {
  const { id, name, serves, imposes, moves, start, end } = drill;
  const found: DrillProblem[] = [];
  const say = (path: string, message: string | null): void => {
    if (message !== null) found.push({ path, message });
  };
  say('id', OWN_DRILL_ID.test(id) ? null : `"${id}" is not the id of an own drill; allowed: own- and small letters, digits and hyphens`);
  const alike = others.find((other) => other.id !== id && other.name.trim().toLowerCase() === name.trim().toLowerCase());
  say('name', alike ? `"${name}" is the name of ${alike.id} already; allowed: a name of its own` : null);
  serves.forEach((one, at) => {
    if (!findMotion(one)) say(`serves.${at}`, `"${one}" is no motion of the catalogue; allowed: a motion such as hip.flexion`);
    else if (serves.indexOf(one) !== at) say(`serves.${at}`, `${one} is named already; allowed: each motion once`);
  });
  imposes.forEach((row, at) => imposed(row, (field, message) => say(`imposes.${at}.${field}`, message)));
  moves.forEach((one, at) => say(`moves.${at}`, markerProblem(one)));
  say('start', poseProblem(start));
  say('end', poseProblem(end));
  for (const of of ['easier', 'harder'] as const) say(of, neighbourProblem(drill, of, others));
  return found;
}

function imposed(row: Imposition, say: (field: string, message: string) => void): void {
  const isOfMotion = row.what === 'moves' || row.what === 'works';
  const of = isOfMotion ? findMotion(row.motion) : undefined;
  if (isOfMotion && (!of || !isJoint(of.joint)))
    return say('motion', `"${row.motion}" is no direction of a joint; allowed: one such as hip.flexion`);
  const joint = isOfMotion ? jointOf(row.motion) : row.joint;
  if (!JOINTS.includes(joint)) return say('joint', `"${joint}" is no joint; allowed: ${JOINTS.join(', ')}`);
  if (isSpine(joint) !== (row.limb === 'trunk'))
    say('limb', `"${row.limb}" does not fit ${joint}; allowed: ${isSpine(joint) ? 'trunk' : 'measured, other, both'}`);
  if (row.what === 'moves' && row.degrees !== 'full' && (row.degrees < 0 || row.degrees > of!.limits.max))
    say('degrees', `${formatNumber(row.degrees)} is no angle of ${row.motion}; allowed: 0 to ${of!.limits.max}, or "full"`);
}

function markerProblem(one: Moves): string | null {
  if ('screen' in one) {
    const screen = findScreen(one.screen);
    return screen && findItem(screen, one.item)
      ? null
      : `"${one.screen}.${one.item}" is no item of a screen; allowed: one such as patterns.toeTouch`;
  }
  const protocol = protocolOfId(one.protocol);
  if (!protocol) return `"${one.protocol}" is no way of measuring; allowed: one such as hip.flexion/supine`;
  return protocol.modes.includes(one.mode) ? null : `"${one.mode}" is no mode of ${one.protocol}; allowed: ${protocol.modes.join(', ')}`;
}

function poseProblem(pose: Pose): string | null {
  if ('scene' in pose)
    return SCENES.some(({ id }) => id === pose.scene)
      ? null
      : `"${pose.scene}" is no figure; allowed: ${SCENES.map(({ id }) => id).join(', ')}`;
  const protocol = protocolOfId(pose.protocol);
  if (!protocol) return `"${pose.protocol}" is no way of measuring; allowed: one such as hip.flexion/supine`;
  const { min, max } = findMotion(protocol.motion)!.limits;
  return pose.value >= min && pose.value <= max
    ? null
    : `${formatNumber(pose.value)} is no value of ${pose.protocol}; allowed: ${min} to ${max}`;
}

function neighbourProblem(drill: OwnDrill, of: 'easier' | 'harder', others: readonly Drill[]): string | null {
  const first = drill[of];
  if (first === null) return null;
  if (first === drill.id) return `is the drill itself; allowed: another drill, or none`;
  const seen = [drill.id];
  for (let id: string | null = first; id !== null;) {
    if (seen.includes(id)) return `${first} leads back to ${id} in a circle; allowed: a drill that does not`;
    seen.push(id);
    const next: Drill | undefined = others.find((other) => other.id === id);
    if (!next) return id === first ? `"${first}" is no drill; allowed: the id of one, or none` : null;
    id = next[of];
  }
  return null;
}
