import { describeEnd, formatSize } from '../angle/words.js';
import { motion, regionName } from '../catalogue/index.js';
import type { MotionId, Side } from '../terms.js';
import type { Judgement } from './assess.js';
import { jointOf } from './body.js';
import { modedName, sidedName } from './make.js';
import type { NotJudged } from './silence.js';
import { stageOf, type FindingStage } from './kinds.js';
import { RANKING_NAMES } from './rankings.js';
import type { Finding } from './types.js';

/** "a, b and c" */
function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]!}`;
}

const upper = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
const ofStage = (findings: readonly Finding[], stage: FindingStage): Finding[] => findings.filter((f) => stageOf(f.kind) === stage);
const of = (findings: readonly Finding[], ...kinds: readonly Finding['kind'][]): Finding[] =>
  findings.filter((f) => kinds.includes(f.kind));
/** The same motion and side, whatever mode: said once. */
const wayOf = ({ motion: id, side, digit }: Finding): string => `${id}|${side}|${digit ?? ''}`;
const name = ({ motion: id, side, digit }: Finding): string => {
  const words = sidedName(id, side, digit);
  return `${words.charAt(0).toLowerCase()}${words.slice(1)}`;
};

/** Findings come in order of weight: of every motion its heaviest, in that order. */
function once(findings: readonly Finding[]): Finding[] {
  const heaviest = new Map<string, Finding>();
  for (const finding of findings) if (!heaviest.has(wayOf(finding))) heaviest.set(wayOf(finding), finding);
  return [...heaviest.values()];
}

/**
 * A short summary of a visit in plain clinical words, to be read over and put
 * right: which joints and directions are short, which side is greater, what
 * hurts, what changed, what is to be measured again, and what comes first. No
 * figure in it that is not in the findings, and no diagnosis.
 */
export function draftSummary({ findings, measurements, ranking, judgedBy, notJudged }: Judgement): string {
  if (measurements.length === 0) return '';
  const lines = [
    short(findings),
    sides(findings),
    control(findings),
    pain(findings),
    patterns(findings),
    course(findings),
    changes(findings),
    again(findings),
  ];
  const said = lines.filter((line) => line !== '');
  if (said.length === 1 && of(findings, 'painful').length === 0) said.unshift(nothingShort(judgedBy));
  const first = ofStage(findings, 'loss')[0];
  if (first)
    said.push(
      `First: ${name(first)} (${RANKING_NAMES[ranking]}${first.isStraighteningFirst ? '; after surgery on the knee, straightening first' : ''}).`,
    );
  if (notJudged.length > 0) said.push(`Not judged against norms: ${silent(notJudged)}.`);
  return said.join('\n');
}

/** Said only of what was judged, and by what. */
function nothingShort(judgedBy: Judgement['judgedBy']): string {
  const count = judgedBy.reduce((sum, set) => sum + set.measurements, 0);
  if (count === 0) return 'Nothing was judged against norms; no side and no active reading is short by more than measuring error.';
  const by = listed(judgedBy.map((set) => `${set.short} ${set.measurements}`));
  return `Of ${count} ${count === 1 ? 'measurement' : 'measurements'} judged against norms (${by}), nothing is short of normal; nothing is short of the other side or active of passive by more than measuring error.`;
}

const WHY: Readonly<Record<NotJudged['reason'], string>> = {
  'no-comparable-norm': 'no norm that may be compared',
  'stopped-at-limit': 'stopped at a limit',
  'no-other-side': 'the other side is not measured',
};

/** Why one measurement was not judged: "stopped at a limit: 90° (the surgeon)". */
export function notJudgedWords({ reason, limit }: Pick<NotJudged, 'reason' | 'limit'>, id: MotionId): string {
  return limit ? `${WHY[reason]}: ${describeEnd(motion(id), limit.at)} (${limit.source})` : WHY[reason];
}

/** What was not judged, named, by why it was not. */
function silent(notJudged: readonly NotJudged[]): string {
  const reasons = [...new Set(notJudged.map((of) => of.reason))];
  return reasons
    .map((reason) => {
      const names = notJudged
        .filter((of) => of.reason === reason)
        .map(({ motion: id, side, mode, digit }) => modedName(id, side, mode, digit));
      return `${listed([...new Set(names.map((words) => `${words.charAt(0).toLowerCase()}${words.slice(1)}`))])} (${WHY[reason]})`;
    })
    .join('; ');
}

/** "left hip internal rotation and flexion; right hip flexion": motions of one joint and side together, in the order they come. */
function byJoint(findings: readonly Finding[]): string {
  const joints = new Map<string, { where: string; motions: string[] }>();
  for (const finding of once(findings)) {
    const joint = jointOf(finding.motion);
    const { short: words, joint: own } = motion(finding.motion);
    const isJoint = own === joint && finding.digit === undefined;
    const where = isJoint ? `${finding.side === 'midline' ? '' : `${finding.side} `}${regionName(joint).toLowerCase()}` : '';
    const key = isJoint ? where : name(finding);
    const entry = joints.get(key) ?? { where, motions: [] };
    entry.motions.push(isJoint ? words.toLowerCase() : name(finding));
    joints.set(key, entry);
  }
  return [...joints.values()].map(({ where, motions }) => [where, listed(motions)].filter(Boolean).join(' ')).join('; ');
}

function short(findings: readonly Finding[]): string {
  const where = byJoint(of(findings, 'short-of-normal'));
  return where ? `Short of normal: ${where}.` : '';
}

const OTHER: Readonly<Record<Side, string>> = { left: 'right', right: 'left', midline: '' };

/** "The right side is greater in hip internal rotation by 12°." */
function sides(findings: readonly Finding[]): string {
  const greater = new Map<string, string[]>();
  for (const finding of once(of(findings, 'short-of-other-side'))) {
    const { name: words, unit } = motion(finding.motion);
    const side = OTHER[finding.side];
    greater.set(side, [
      ...(greater.get(side) ?? []),
      `${words.charAt(0).toLowerCase()}${words.slice(1)} (by ${formatSize(Math.abs(finding.difference ?? 0), unit)})`,
    ]);
  }
  return [...greater].map(([side, motions]) => `The ${side} side is greater in ${listed(motions)}.`).join(' ');
}

function control(findings: readonly Finding[]): string {
  const where = byJoint(of(findings, 'active-short-of-passive'));
  return where ? `Active clearly less than passive: ${where}.` : '';
}

function pain(findings: readonly Finding[]): string {
  const parts = once(of(findings, 'painful')).map((f) => `${name(f)} (${f.brief})`);
  return parts.length ? `Hurts: ${parts.join('; ')}.` : 'No pain was noted.';
}

function patterns(findings: readonly Finding[]): string {
  const capsular = of(findings, 'capsular-pattern').map((f) => f.brief);
  const muscle = of(findings, 'two-joint-limit').map((f) => `${upper(name(f))}: ${f.verdict}`);
  const tissue = of(findings, 'opposite-direction-pain').map((f) => `${f.subject}: ${f.verdict}`);
  return [...capsular, ...muscle, ...tissue].map((line) => `${line}.`).join(' ');
}

function course(findings: readonly Finding[]): string {
  const found = once(of(findings, 'behind-course'));
  return found.map((f) => `${upper(name(f))} is ${f.verdict}.`).join(' ');
}

function changes(findings: readonly Finding[]): string {
  const real = once(of(findings, 'changed')).map((f) => `${name(f)} ${f.brief}`);
  return real.length ? `Really changed since the last visit: ${listed(real)}.` : '';
}

function again(findings: readonly Finding[]): string {
  const where = byJoint(ofStage(findings, 'again'));
  return where ? `To measure again: ${where}.` : '';
}
