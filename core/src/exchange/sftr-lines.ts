import { findMotion, protocolOf, regionName } from '../catalogue/index.js';
import { measure, type MeasuredValue } from '../measurement.js';
import type { Measurement } from '../assessment.js';
import { JOINT_PLANES, PLANES, SFTR_POSITIONS, type Plane } from '../notation/planes.js';
import { formatSftr } from '../notation/sftr.js';
import { isJoint } from '../catalogue/index.js';
import { JOINTS, MODES, type Joint, type Mode, type Position } from '../terms.js';
import { formatNumber } from '../words/figures.js';

type Row = MeasuredValue;
interface Group {
  readonly joint: Joint;
  readonly plane: Plane;
  readonly side: string;
  readonly mode: Mode;
  readonly digit: number | undefined;
  readonly position: Position | null;
}

/**
 * The arcs of an assessment in SFTR notation, one a line, in whole degrees as
 * the notation has them. What it cannot say stands in lines that begin with
 * `#`, with the reason: nothing is left out in silence.
 *
 * @example 'left hip passive S:15-0-125'
 */
export function sftrLines(measurements: readonly Measurement[]): string[] {
  const rows = measurements.filter((one) => one.trials.length > 0).map((one) => measure(one));
  const used = new Set<Row>();
  const lines: string[] = [];
  for (const joint of JOINTS)
    for (const plane of PLANES)
      for (const group of groupsOf(rows, joint, plane)) {
        const ends = endsOf(rows, group);
        if (!ends) continue;
        ends.forEach((row) => used.add(row));
        lines.push(lineOf(group, ends[0].value, ends[1].value));
      }
  return [...lines, ...rows.filter((row) => !used.has(row)).map(notSaid)];
}

/** Every side, mode, finger and (for turning) position in which a plane of a joint was measured. */
function groupsOf(rows: readonly Row[], joint: Joint, plane: Plane): Group[] {
  const pair = JOINT_PLANES[joint][plane];
  if (!pair) return [];
  const isSpine = pair.first === pair.last;
  const groups = new Map<string, Group>();
  for (const { measurement: m } of rows) {
    if (m.motion !== `${joint}.${pair.first}` && m.motion !== `${joint}.${pair.last}`) continue;
    if (protocolOf(m).variant !== null) continue;
    const position = plane === 'R' && SFTR_POSITIONS[joint] ? m.position : null;
    if (position !== null && bracketOf(joint, position) === undefined) continue;
    const group: Group = { joint, plane, side: isSpine ? 'midline' : m.side, mode: m.mode, digit: m.digit, position };
    groups.set(JSON.stringify(group), group);
  }
  return [...groups.values()].sort((a, b) => a.side.localeCompare(b.side) || MODES.indexOf(a.mode) - MODES.indexOf(b.mode));
}

const bracketOf = (joint: Joint, position: Position): string | undefined =>
  Object.entries(SFTR_POSITIONS[joint] ?? {}).find(([, named]) => named === position)?.[0];

/** Both ends, where both were measured. */
function endsOf(rows: readonly Row[], { joint, plane, side, mode, digit, position }: Group): readonly [Row, Row] | undefined {
  const pair = JOINT_PLANES[joint][plane]!;
  const isSpine = pair.first === pair.last;
  const find = (name: string, of: string) =>
    rows.find(
      ({ measurement: m }) =>
        m.motion === `${joint}.${name}` &&
        m.side === of &&
        m.mode === mode &&
        m.digit === digit &&
        protocolOf(m).variant === null &&
        (position === null || m.position === position),
    );
  const first = find(pair.first, isSpine ? 'left' : side);
  const last = find(pair.last, isSpine ? 'right' : side);
  return first && last && first.value + last.value >= 0 ? [first, last] : undefined;
}

function lineOf({ joint, plane, side, mode, digit, position }: Group, first: number, last: number): string {
  const [a, b] = [Math.round(first) + 0, Math.round(last) + 0];
  const record = formatSftr({
    plane,
    position: position && bracketOf(joint, position)!,
    // Rounded apart they could pass each other where they meet.
    arc: { kind: 'moving', first: Math.max(a, -b), last: b },
  });
  return [...(side === 'midline' ? [] : [side]), joint, ...(digit === undefined ? [] : [`digit ${digit}`]), mode, record].join(' ');
}

/** Why a measurement stands in no line. */
function notSaid({ measurement: m, value }: Row): string {
  const about = findMotion(m.motion)!;
  const what = [
    m.side === 'midline' ? '' : m.side,
    m.motion,
    m.digit === undefined ? '' : `digit ${m.digit}`,
    m.mode,
    m.position,
    formatNumber(value),
  ]
    .filter(Boolean)
    .join(' ');
  const pairs = isJoint(about.joint) ? Object.values(JOINT_PLANES[about.joint]) : [];
  const isOfPlane = pairs.some((pair) => [pair.first, pair.last].some((name) => m.motion === `${about.joint}.${name}`));
  if (!isOfPlane)
    return `# ${what}: SFTR has no line for ${isJoint(about.joint) ? about.name.toLowerCase() : regionName(about.joint).toLowerCase()}`;
  if (protocolOf(m).variant !== null) return `# ${what}: taken in a way that SFTR does not name`;
  return `# ${what}: the other end of its plane was not measured the same way, or SFTR has no name for the position`;
}
