import { mean } from 'simple-statistics';
import { formatNumber } from '../angle/words.js';
import { motion, protocolOf, regionName } from '../catalogue/index.js';
import { mdcOfDifference } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import type { Mode, MotionId, Side } from '../terms.js';
import { CAPSULAR_PATTERNS, LEAST_MOTIONS, type CapsularPattern } from './capsular-patterns.js';
import { finding, sidedName, trialArithmetic } from './make.js';
import type { Detector, Evidence } from './types.js';

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
export const capsularPattern: Detector = (evidence) =>
  CAPSULAR_PATTERNS.flatMap((pattern) => {
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
  });

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

function judge(pattern: CapsularPattern, side: Side, found: readonly Lost[]) {
  const [most] = [...found].filter((l) => l.step === 0).sort((a, b) => b.share - a.share);
  if (!most || most.share < LEAST_SHARE || most.share < most.error) return [];
  const pairs = found.flatMap((a, at) => found.slice(at + 1).map((b) => fit(pattern, a, b))).filter((score) => score !== null);
  const score = pairs.reduce((sum, s) => sum + s, 0);
  if (pairs.length === 0 || score * 2 < pairs.length) return [];
  const order = [...found].sort((a, b) => b.share - a.share);
  const shareWords = (l: Lost) =>
    `${motion(l.motion).short.toLowerCase()} ${l.share < l.error ? 'kept' : `${Math.round(l.share * 100)} % lost`}`;
  const open = pattern.steps.flat().filter((id) => !found.some((l) => l.motion === id));
  const region = regionName(pattern.joint);
  const where = side === 'midline' ? region : `${side === 'left' ? 'Left' : 'Right'} ${region.toLowerCase()}`;
  return [
    finding(most.measured, {
      kind: 'capsular-pattern',
      severity: 'mild',
      timesError: most.share / most.error,
      subject: `${where}, ${most.measured.measurement.mode}`,
      brief: `${where}: capsular order fits ${formatNumber(score)} of ${pairs.length} pairs`,
      verdict:
        `capsular order fits ${formatNumber(score)} of ${pairs.length} pairs: ${order.map(shareWords).join(' › ')}` +
        (open.length ? `; not measured: ${open.map((id) => motion(id).short.toLowerCase()).join(', ')}` : ''),
      because: [
        `taught order: ${pattern.words}`,
        ...order.map((l) => {
          const lostWords = l.share < l.error ? 'loss within measuring error' : `${formatNumber(l.share * 100)} % lost`;
          return `${sidedName(l.motion, side === 'midline' ? 'midline' : l.measured.measurement.side)}: ${trialArithmetic(l.measured)}; expected ${formatNumber(l.expected)}° (${l.from}), ${lostWords} ± ${formatNumber(l.error * 100)} %`;
        }),
        `fit score ${formatNumber((score / pairs.length) * 100)} %: pairs in the taught order count 1, too close to tell ½, against it 0`,
        open.length
          ? `still unmeasured: ${open.map((id) => motion(id).name.toLowerCase()).join(', ')}`
          : 'every motion of the pattern is measured',
        `${pattern.source.cite} (from memory); studies of hip, knee and shoulder do not bear it out: a prompt for the next test, not a diagnosis`,
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
