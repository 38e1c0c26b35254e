import { motion, protocolOf } from '../catalogue/index.js';
import { errorSourceWords } from '../error/source.js';
import { arcWords, notComparedWords, notJudgedWords, saidOf, type Finding, type Judgement } from '../finding/index.js';

const round = (value: number, digits: number): number => Number(value.toFixed(digits)) + 0;
const oneDecimal = (value: number | null): number | null => (value === null ? null : round(value, 1));

/** A judgement as the terminal prints it: angles to 0.1°, z to 0.01, nothing finer than an instrument reads. */
export function evaluationReport(judgement: Judgement) {
  return {
    ranking: judgement.ranking,
    rules: judgement.rules,
    measurements: judgement.measurements.map((m) => ({
      motion: m.measurement.motion,
      side: m.measurement.side,
      mode: m.measurement.mode,
      position: m.measurement.position,
      protocol: protocolOf(m.measurement).id,
      ...(m.measurement.digit === undefined ? {} : { digit: m.measurement.digit }),
      value: round(m.value, 1),
      excursion: round(m.excursion, 1),
      unit: motion(m.measurement.motion).unit,
      trials: m.ends.length,
      consistent: m.consistent,
      sem: round(m.sem, 1),
      mdc95: round(m.mdc95, 1),
      errorSource: errorSourceWords(m.errorSource),
      judgedBy: m.judgedBy,
      norms: m.norms.map((n) => ({
        set: n.set,
        kind: n.kind,
        expected: n.expected,
        deficit: round(n.deficit, 1),
        percent: oneDecimal(n.percent),
        z: n.z === null ? null : round(n.z, 2),
        percentile: oneDecimal(n.percentile),
        band: n.band,
        short: n.short,
        comparable: n.comparable,
        flags: n.flags,
        confidence: n.confidence,
        note: n.note,
        source: n.source,
      })),
      needs: m.needs.map((n) => ({
        task: n.task,
        atLeast: n.atLeast,
        verdict: n.verdict,
        confidence: n.confidence,
        source: n.source.cite,
      })),
      notCompared: m.notCompared.map(notComparedWords),
    })),
    arcs: judgement.arcs.map((arc) => ({
      name: arc.name,
      mode: arc.mode,
      position: arc.position,
      left: arc.left && round(arc.left.value, 1),
      right: arc.right && round(arc.right.value, 1),
      difference: oneDecimal(arc.difference),
      mdc95: oneDecimal(arc.mdc),
      words: arcWords(arc),
    })),
    notJudged: judgement.notJudged.map(({ motion: id, side, mode, digit, reason, limit }) => ({
      motion: id,
      side,
      mode,
      ...(digit === undefined ? {} : { digit }),
      reason,
      why: notJudgedWords({ reason, limit }, id),
    })),
    findings: judgement.findings.map(findingReport),
  };
}

function findingReport(f: Finding) {
  const { subject, verdict, because, place } = saidOf(f);
  return {
    kind: f.kind,
    severity: f.severity,
    motion: f.motion,
    side: f.side,
    mode: f.mode,
    position: f.position,
    protocol: f.protocol,
    ...(f.digit === undefined ? {} : { digit: f.digit }),
    unit: f.unit,
    value: round(f.value, 1),
    expected: oneDecimal(f.expected),
    difference: oneDecimal(f.difference),
    percentLoss: oneDecimal(f.percentLoss),
    timesError: oneDecimal(f.timesError),
    agreement: f.agreement,
    facts: inTenths(f.facts),
    sentence: `${subject}: ${verdict}`,
    because,
    place,
  };
}

/** Facts as the terminal prints them: no figure finer than an instrument reads, shares as they are. */
function inTenths(facts: unknown): unknown {
  if (typeof facts === 'number') return round(facts, 2);
  if (Array.isArray(facts)) return facts.map(inTenths);
  if (facts !== null && typeof facts === 'object')
    return Object.fromEntries(Object.entries(facts).map(([name, value]) => [name, inTenths(value)]));
  return facts;
}

export type EvaluationReport = ReturnType<typeof evaluationReport>;
