import { describeEnd, formatNumber } from '../angle/words.js';
import { bandAround } from '../error/sem.js';
import { bandAt, COURSE_CAUTION, courseOf, standingIn } from '../course/index.js';
import { weeksSince } from '../days.js';
import { errorLine, finding, motionOf, sizeWords, trialArithmetic } from './make.js';
import { severityOf } from './severity.js';
import type { Detector } from './types.js';

/** Less than is usual so many weeks after the operation, by more than measuring error. */
export const behindCourse: Detector = ({ measured, procedure, involvedSide, assessedOn, thresholds }) =>
  measured.flatMap((m) => {
    const { side } = m.measurement;
    if (!procedure || (side !== 'midline' && involvedSide !== 'both' && side !== involvedSide)) return [];
    const course = courseOf(procedure.id, m.measurement);
    const weeks = weeksSince(procedure.on, assessedOn);
    const band = course && bandAt(course, weeks);
    if (!band || standingIn(band, m.value, bandAround(m.sem)) !== 'behind') return [];
    const gap = band.low - m.value;
    const about = motionOf(m);
    const ask = course.ask && weeks >= course.ask.fromWeek && m.value < course.ask.below;
    return [
      finding(m, {
        kind: 'behind-course',
        severity: severityOf(null, gap / m.mdc95, thresholds),
        expected: band.low,
        timesError: gap / m.mdc95,
        verdict: `${sizeWords(m, gap)} behind what is usual ${formatNumber(weeks)} weeks after the operation${ask ? ': let the surgeon know' : ''}`,
        because: [
          trialArithmetic(m),
          `usual at week ${formatNumber(weeks)}: ${describeEnd(about, band.low)}${band.high === null || band.high === band.low ? ' or more' : ` to ${describeEnd(about, band.high)}`}`,
          `behind by more than the error of a reading (1.96 × ${formatNumber(m.sem)} = ${formatNumber(bandAround(m.sem))}°)`,
          ...(ask
            ? [`from week ${course.ask.fromWeek} on, sources advise asking the surgeon below ${describeEnd(about, course.ask.below)}`]
            : []),
          errorLine(m),
          `${course.source.cite} (from memory, confidence ${course.confidence}). ${COURSE_CAUTION}`,
        ],
      }),
    ];
  });
