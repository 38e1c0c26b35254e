import { mean } from 'simple-statistics';
import { motion, protocolOf, regionName } from '../catalogue/index.js';
import { mdcOfDifference } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import type { Joint, Mode, MotionId, Side } from '../terms.js';
import { CAPSULAR_PATTERNS, LEAST_MOTIONS, type CapsularPattern } from './capsular-patterns.js';
import { formatNumber } from '../words/figures.js';
import { lower, say } from '../words/say.js';
import { found as foundAt, modeWord } from './make.js';
import { note, readingsOfValue } from './steps.js';
import type { Evidence, Found, Kind } from './types.js';

/** How well the losses stand in the taught order, the largest first, and what of the pattern is not measured. */
interface Facts {
  readonly joint: Joint;
  readonly pairs: number;
  readonly fits: number;
  readonly losses: readonly { readonly motion: MotionId; readonly share: number; readonly kept: boolean }[];
  readonly open: readonly MotionId[];
}

/** How much of one motion is lost, as a share of what is expected of it. */
interface Lost {
  readonly motion: MotionId;
  readonly measured: MeasuredValue;
  readonly step: number;
  readonly share: number;
  /** Error of that share. */
  readonly error: number;
  readonly expected: number;
  readonly from: string;
}

/** Less than this is not a loss that a pattern could explain. @see severity steps, mild */
const LEAST_SHARE = 0.1;

/**
 * The order of losses held against the joint's capsular pattern: every pair of
 * motions from different steps either stands in the taught order, is too close
 * to tell (half), or stands against it. A prompt, never a diagnosis: studies
 * of the pattern disagree with it.
 *
 * @see against it: Hayes KW et al. Phys Ther 1994;74:697-707; Klässbo M et al. Physiother Res Int 2003;8:1-12;
 *   Rundquist PJ, Ludewig PM. Phys Ther 2004;84:623-633 (from memory)
 */
export const capsularPattern: Kind<Facts> = {
  stage: 'pattern',
  rank: 0,
  mark: 'steps',
  detect: (evidence) => CAPSULAR_PATTERNS.flatMap((pattern) => patternIn(pattern, evidence)),
  subject: (f) => say('{where}, {mode}', { where: whereOf(f), mode: modeWord(f.mode) }),
  verdict: (f) => {
    const { losses, open } = f.facts;
    const order = losses
      .map(({ motion: id, share, kept }) =>
        kept
          ? say('{motion} kept', { motion: shortName(id) })
          : say('{motion} {percent} % lost', { motion: shortName(id), percent: Math.round(share * 100) }),
      )
      .join(' › ');
    const parts = { fit: fitWords(f), order, open: open.map(shortName).join(', ') };
    return open.length ? say('{fit}: {order}; not measured: {open}', parts) : say('{fit}: {order}', parts);
  },
  brief: (f) => say('{where}: {fit}', { where: whereOf(f), fit: fitWords(f) }),
  sum: { at: 5, words: (all) => all.map((f) => `${f.brief}.`).join(' ') },
};

const shortName = (id: MotionId): string => lower(say(motion(id).short));
const fitWords = ({ facts: { fits, pairs } }: Found<Facts>): string =>
  say('capsular order fits {fits} of {pairs} pairs', { fits: formatNumber(fits), pairs });
/** A spine's pattern is of both directions and belongs to neither side. */
const isOfSpine = (id: MotionId): boolean => motion(id).sides === 'towards' || motion(id).sides === 'midline';

function whereOf({ facts: { joint }, motion: id, side }: Found<Facts>): string {
  const region = say(regionName(joint));
  if (isOfSpine(id)) return region;
  return say(side === 'left' ? 'Left {region}' : 'Right {region}', { region: lower(region) });
}

function patternIn(pattern: CapsularPattern, evidence: Evidence): Found<Facts>[] {
  const motions = pattern.steps.flat();
  const own = evidence.measured.filter(({ measurement: m }) => motions.includes(m.motion));
  if (own.length < LEAST_MOTIONS) return [];
  const readings = own.sort((a, b) => (a.key < b.key ? -1 : 1));
  const isSpine = readings.some(({ measurement: m }) => motion(m.motion).sides === 'towards');
  const sides: readonly Side[] = isSpine ? ['midline'] : ['left', 'right'];
  return sides.flatMap((side) => {
    const of = (mode: Mode) => losses(evidence, pattern, readings, side, mode);
    const passive = of('passive');
    const found = passive.length >= LEAST_MOTIONS ? passive : of('active');
    return found.length < LEAST_MOTIONS ? [] : judge(pattern, side, found);
  });
}

/** What each motion of the pattern lost on one side; for the spine, the mean of both directions. */
function losses(evidence: Evidence, pattern: CapsularPattern, readings: readonly MeasuredValue[], side: Side, mode: Mode): Lost[] {
  return pattern.steps.flatMap((motions, step) =>
    motions.flatMap((id): Lost[] => {
      const all = readings.filter(
        ({ measurement: m }) => m.motion === id && m.mode === mode && (side === 'midline' || m.side === side) && isFree(pattern, m),
      );
      // Of several positions the first that the catalogue names: two positions are two different ranges.
      const usual = motion(id).protocols.find((p) => all.some(({ measurement: m }) => protocolOf(m).id === p.id));
      const own = all.filter(({ measurement: m }) => protocolOf(m).id === usual?.id);
      const each = own.flatMap((m) => lostOf(evidence, m, step) ?? []);
      const [first] = each;
      if (!first) return [];
      return [{ ...first, share: mean(each.map((l) => l.share)), error: mean(each.map((l) => l.error)) / Math.sqrt(each.length) }];
    }),
  );
}

/** The usual way of measuring; or another one that the pattern allows, where the usual one is out of reach. */
function isFree({ also = [] }: CapsularPattern, m: MeasuredValue['measurement']): boolean {
  const { id, variant } = protocolOf(m);
  return variant === null || also.includes(id);
}

/** Against the sound side where there is one, otherwise against the norm that judges. */
function lostOf({ judging, involvedSide, measured }: Evidence, m: MeasuredValue, step: number): Lost | null {
  const { motion: id, side, mode, digit } = m.measurement;
  const protocol = protocolOf(m.measurement).id;
  const sound =
    involvedSide === side
      ? measured.find(
          ({ measurement: o }) =>
            o.motion === id &&
            o.side !== side &&
            o.side !== 'midline' &&
            o.mode === mode &&
            o.digit === digit &&
            protocolOf(o).id === protocol,
        )
      : undefined;
  const norm = judging.get(m.key);
  const expected = sound?.value ?? norm?.expected;
  if (expected === undefined || expected <= 0) return null;
  const error = mdcOfDifference(m.sem, sound?.sem ?? 0) / expected;
  return {
    motion: id,
    measured: m,
    step,
    share: (expected - m.value) / expected,
    error,
    expected,
    from: sound ? 'the other side' : (norm?.setName ?? ''),
  };
}

function judge(pattern: CapsularPattern, side: Side, found: readonly Lost[]): Found<Facts>[] {
  const [most] = [...found].filter((l) => l.step === 0).sort((a, b) => b.share - a.share);
  if (!most || most.share < LEAST_SHARE || most.share < most.error) return [];
  const pairs = found.flatMap((a, at) => found.slice(at + 1).map((b) => fit(pattern, a, b))).filter((score) => score !== null);
  const score = pairs.reduce((sum, s) => sum + s, 0);
  if (pairs.length === 0 || score * 2 < pairs.length) return [];
  const order = [...found].sort((a, b) => b.share - a.share);
  const open = pattern.steps.flat().filter((id) => !found.some((l) => l.motion === id));
  return [
    foundAt(most.measured, {
      severity: 'mild',
      timesError: most.share / most.error,
      facts: {
        joint: pattern.joint,
        pairs: pairs.length,
        fits: score,
        losses: order.map(({ motion: id, share, error }) => ({ motion: id, share, kept: share < error })),
        open,
      },
      steps: [
        note('taught order: {order}', { order: pattern.words }),
        ...order.map(({ motion: id, measured, expected, from, share, error }) => ({
          step: 'share-lost' as const,
          motion: id,
          side: side === 'midline' ? side : measured.measurement.side,
          of: readingsOfValue(measured),
          expected,
          from,
          share,
          error,
        })),
        note('fit score {score} %: pairs in the taught order count 1, too close to tell ½, against it 0', {
          score: (score / pairs.length) * 100,
        }),
        { step: 'unmeasured', motions: open },
        {
          step: 'source',
          source: pattern.source,
          caution: 'Studies of hip, knee and shoulder do not bear it out: a prompt for the next test, not a diagnosis',
        },
      ],
    }),
  ];
}

/** 1 in the taught order, ½ too close to tell, 0 against it; null where nothing is taught about the two. */
function fit(pattern: CapsularPattern, a: Lost, b: Lost): number | null {
  const gap = a.share - b.share;
  const isClose = Math.abs(gap) < Math.hypot(a.error, b.error);
  if (a.step === b.step) return pattern.equalWithin ? (isClose ? 1 : 0) : null;
  if (isClose) return 0.5;
  return gap > 0 === a.step < b.step ? 1 : 0;
}
