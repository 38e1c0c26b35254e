import { describeEnd, formatNumber } from '../angle/words.js';
import { measurementKey } from '../assessment.js';
import { protocolOf } from '../catalogue/index.js';
import { bandAround } from '../error/sem.js';
import { bandAt, COURSE_CAUTION, courseOf, standingIn } from '../course/index.js';
import { weeksSince } from '../days.js';
import type { MeasuredValue } from '../measurement.js';
import { findProcedure, type TellWhen } from '../procedure/index.js';
import { errorLine, finding, motionOf, sizeWords, trialArithmetic } from './make.js';
import { severityOf } from './severity.js';
import type { Detector, Evidence } from './types.js';

/**
 * Less than is usual so many weeks after the operation, by more than measuring
 * error; and what the surgeon is told of, whether or not anybody says what is
 * usual in that week. Nobody is behind for staying inside a limit.
 */
export const behindCourse: Detector = (evidence) => evidence.measured.flatMap((m) => judged(m, evidence));

function judged(m: MeasuredValue, evidence: Evidence) {
  const { procedure, involvedSide, assessedOn, stopped, thresholds } = evidence;
  const { side } = m.measurement;
  if (!procedure || stopped.has(m.key) || (side !== 'midline' && involvedSide !== 'both' && side !== involvedSide)) return [];
  const weeks = weeksSince(procedure.on, assessedOn);
  const course = courseOf(procedure.id, m.measurement);
  const band = course && bandAt(course, weeks);
  const isBehind = band !== undefined && standingIn(band, m.value, bandAround(m.sem)) === 'behind';
  const tell = tellOf(m, weeks, evidence);
  if (!isBehind && !tell) return [];
  const about = motionOf(m);
  const expected = isBehind ? band.low : (tell?.below ?? tell?.atMost ?? band?.low ?? m.value);
  const gap = Math.abs(expected - m.value);
  const asked = tell ? 'let the surgeon know' : '';
  const weekWords = `${formatNumber(weeks)} weeks after the operation`;
  const verdict = isBehind
    ? [`${sizeWords(m, gap)} behind what is usual ${weekWords}`, asked].filter(Boolean).join(': ')
    : `${tellWords(m, tell!, evidence)}, ${weekWords}: ${asked}`;
  const size = severityOf(null, gap / m.mdc95, thresholds);
  return [
    finding(m, {
      kind: 'behind-course',
      severity: tell && size === 'note' ? 'mild' : size,
      expected,
      timesError: gap / m.mdc95,
      verdict,
      because: [
        trialArithmetic(m),
        ...(band && isBehind
          ? [
              `usual at week ${formatNumber(weeks)}: ${describeEnd(about, band.low)}${band.high === null || band.high === band.low ? ' or more' : ` to ${describeEnd(about, band.high)}`}`,
              `behind by more than the error of a reading (1.96 × ${formatNumber(m.sem)} = ${formatNumber(bandAround(m.sem))}°)`,
            ]
          : []),
        ...(tell
          ? [`from week ${tell.fromWeek} on, without an end, the surgeon is told: ${tellWords(m, tell, evidence)} (from memory)`]
          : []),
        errorLine(m),
        ...(course && isBehind ? [`${course.source.cite} (from memory, confidence ${course.confidence}). ${COURSE_CAUTION}`] : []),
      ],
    }),
  ];
}

const otherSide = (m: MeasuredValue, { byKey }: Evidence): MeasuredValue | undefined => {
  const { side } = m.measurement;
  return side === 'midline' ? undefined : byKey.get(measurementKey({ ...m.measurement, side: side === 'left' ? 'right' : 'left' }));
};

/** What the surgeon is told of, of the strictest that holds. A reading on the line counts, as the caution is larger than its error. */
function tellOf(m: MeasuredValue, weeks: number, evidence: Evidence): TellWhen | undefined {
  const { motion: id, mode } = m.measurement;
  const { variant } = protocolOf(m.measurement);
  const other = otherSide(m, evidence);
  return (findProcedure(evidence.procedure?.id ?? '')?.tellWhen ?? [])
    .filter((tell) => tell.motion === id && (tell.mode === undefined || tell.mode === mode) && weeks >= tell.fromWeek)
    .filter((tell) => tell.variants === undefined || tell.variants.includes(variant))
    .filter(
      ({ below, atMost, beyondOther }) =>
        (below !== undefined && m.value < below) ||
        (atMost !== undefined && m.value <= atMost) ||
        (beyondOther !== undefined && other !== undefined && m.value - other.value >= beyondOther),
    )
    .sort((a, b) => (b.below ?? 0) - (a.below ?? 0))[0];
}

function tellWords(m: MeasuredValue, { below, atMost, beyondOther }: TellWhen, evidence: Evidence): string {
  const about = motionOf(m);
  if (below !== undefined) return `below ${describeEnd(about, below)}`;
  if (atMost !== undefined) return `${describeEnd(about, atMost)} or more`;
  const other = otherSide(m, evidence);
  return `${sizeWords(m, m.value - (other?.value ?? 0))} more than the other side, ${sizeWords(m, beyondOther ?? 0)} or more of which is told`;
}
