import { motion, regionName } from '../catalogue/index.js';
import { listed, lower, say } from '../words/say.js';
import { jointOf } from './body.js';
import { sidedName } from './make.js';
import type { About, Sum } from './types.js';

/** What a finding is about, inside a sentence: "left hip internal rotation". */
export const nameOf = ({ motion: id, side, digit }: Pick<About, 'motion' | 'side' | 'digit'>): string => lower(sidedName(id, side, digit));

/** Findings come in order of weight: of every motion and side its heaviest, whatever the mode, in that order. */
export function once<F extends About>(findings: readonly F[]): F[] {
  const heaviest = new Map<string, F>();
  for (const finding of findings) {
    const way = `${finding.motion}|${finding.side}|${finding.digit ?? ''}`;
    if (!heaviest.has(way)) heaviest.set(way, finding);
  }
  return [...heaviest.values()];
}

const SIDED: Readonly<Record<About['side'], string>> = { left: 'left {region}', right: 'right {region}', midline: '{region}' };

/** "left hip internal rotation and flexion; right hip flexion": motions of one joint and side together, in the order they come. */
function byJoint(findings: readonly About[]): string {
  const joints = new Map<string, { where: string; motions: string[] }>();
  for (const finding of once(findings)) {
    const joint = jointOf(finding.motion);
    const { short: words, joint: own } = motion(finding.motion);
    const isJoint = own === joint && finding.digit === undefined;
    const where = isJoint ? say(SIDED[finding.side], { region: lower(say(regionName(joint))) }) : '';
    const key = isJoint ? where : nameOf(finding);
    const entry = joints.get(key) ?? { where, motions: [] };
    entry.motions.push(isJoint ? lower(say(words)) : nameOf(finding));
    joints.set(key, entry);
  }
  return [...joints.values()].map(({ where, motions }) => [where, listed(motions)].filter(Boolean).join(' ')).join('; ');
}

/** A sentence that names where; '' where there is nothing. */
export function wherePhrase(phrase: string, findings: readonly About[]): string {
  return findings.length ? say(phrase, { where: byJoint(findings) }) : '';
}

/** Told together whatever the reason. */
export const TO_MEASURE_AGAIN: Sum = { at: 9, words: (all) => wherePhrase('To measure again: {where}.', all) };
