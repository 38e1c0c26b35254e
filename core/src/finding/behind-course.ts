import { measurementKey } from '../assessment.js';
import { protocolOf } from '../catalogue/index.js';
import { bandAt, COURSE_CAUTION, courseOf, standingIn, upTo, type CourseBand } from '../course/index.js';
import { weeksSince } from '../days.js';
import { bandAround } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import type { Allowed } from '../precaution/index.js';
import type { TellWhen } from '../procedure/index.js';
import { formatNumber } from '../words/figures.js';
import { say, upper } from '../words/say.js';
import { errorStep, found, motionOf, sizeOf } from './make.js';
import { severityOf } from './severity.js';
import { note, readings, type Step, type Told } from './steps.js';
import { nameOf, once } from './sums.js';
import { toldWords } from './told.js';
import type { Evidence, Found, Kind } from './types.js';

/** How far behind what is usual, and what the surgeon is told of: either, or both. */
interface Facts {
  readonly weeks: number;
  readonly behind: number | null;
  readonly tell: Told | null;
}

/**
 * Less than is usual so many weeks after the operation, by more than measuring
 * error; and what the surgeon is told of, whether or not anybody says what is
 * usual in that week. Nobody is behind for staying inside a limit.
 */
export const behindCourse: Kind<Facts> = {
  stage: 'loss',
  rank: 3,
  mark: 'gap',
  joins: true,
  telling: true,
  detect: (evidence) => evidence.measured.flatMap((m) => judged(m, evidence)),
  verdict: (f) => {
    const { weeks, behind, tell } = f.facts;
    const what = tell ? (tell.when === 'beyond-other' ? beyondWords(f, tell) : toldWords(f.motion, tell)) : '';
    const parts = { size: sizeOf(f, behind ?? 0), weeks: formatNumber(weeks), what };
    if (behind === null) return say('{what}, {weeks} weeks after the operation: let the surgeon know', parts);
    return tell
      ? say('{size} behind what is usual {weeks} weeks after the operation: let the surgeon know', parts)
      : say('{size} behind what is usual {weeks} weeks after the operation', parts);
  },
  sum: {
    at: 7,
    words: (all) =>
      once(all)
        .map((f) => say('{name} is {verdict}.', { name: upper(nameOf(f)), verdict: f.verdict }))
        .join(' '),
  },
};

const beyondWords = (f: Found<Facts>, { beyond = 0 }: Told): string => say('{size} more than the other side', { size: sizeOf(f, beyond) });

/** Whether the operation was on this side, and the reading went as far as it would. */
const isOfOperation = ({ key, measurement: { side } }: MeasuredValue, { involvedSide, stopped }: Evidence): boolean =>
  !stopped.has(key) && (side === 'midline' || involvedSide === 'both' || side === involvedSide);

function judged(m: MeasuredValue, evidence: Evidence): Found<Facts>[] {
  const { procedure, assessedOn, thresholds } = evidence;
  if (!procedure || !isOfOperation(m, evidence)) return [];
  const weeks = weeksSince(procedure.on, assessedOn);
  const behind = behindOf(m, procedure.id, weeks, evidence);
  const telling = tellOf(m, weeks, evidence);
  if (!behind && !telling) return [];
  const tell = telling ? tellFacts(m, telling, evidence) : null;
  const told: Step[] =
    tell && telling
      ? [
          {
            step: 'told',
            motion: motionOf(m).id,
            fromWeek: telling.fromWeek,
            ...tell,
            ...(telling.lookedUp ? { lookedUp: telling.lookedUp } : {}),
          },
        ]
      : [];
  const { low: expected, steps, sources } = behind ?? { low: expectedBy(m, procedure.id, weeks, telling), steps: [], sources: [] };
  const gap = Math.abs(expected - m.value);
  const size = severityOf(null, gap / m.mdc95, thresholds);
  return [
    found(m, {
      severity: tell && size === 'note' ? 'mild' : size,
      expected,
      timesError: gap / m.mdc95,
      facts: { weeks, behind: behind ? gap : null, tell },
      steps: [readings(m), ...steps, ...told, errorStep(m), ...sources],
    }),
  ];
}

/** What a reading that is not behind was expected to be: the edge that was told of, or the usual one. */
function expectedBy(m: MeasuredValue, procedure: string, weeks: number, telling: TellWhen | undefined): number {
  const course = courseOf(procedure, m.measurement);
  return telling?.below ?? telling?.atMost ?? (course && bandAt(course, weeks))?.low ?? m.value;
}

/** The edge that a reading lies behind by more than its error, with the reasons; undefined where it does not. */
function behindOf(
  m: MeasuredValue,
  procedure: string,
  weeks: number,
  { allowed }: Evidence,
): { low: number; steps: Step[]; sources: Step[] } | undefined {
  const course = courseOf(procedure, m.measurement);
  const usual = course && bandAt(course, weeks);
  const band = usual && withinAllowed(usual, allowed.get(m.key));
  if (!course || !band || standingIn(band, m.value, bandAround(m.sem)) !== 'behind') return undefined;
  const { id, unit } = motionOf(m);
  return {
    low: band.low,
    steps: [
      { step: 'usual', motion: id, weeks, low: band.low, high: band.high },
      note('behind by more than the error of a reading (1.96 × {sem} = {band})', { sem: m.sem, band: { value: bandAround(m.sem), unit } }),
    ],
    sources: [{ step: 'source', source: { ...course.source, fromMemory: true }, confidence: course.confidence, caution: COURSE_CAUTION }],
  };
}

/** As far as this person may go: nobody is behind what a limit of their own keeps from them. */
function withinAllowed(band: CourseBand, allowed: Allowed | undefined): CourseBand | undefined {
  if (allowed?.kind === 'forbidden') return undefined;
  return allowed?.kind === 'stop' ? upTo(band, allowed.at) : band;
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
  return (evidence.after?.tellWhen ?? [])
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

function tellFacts(m: MeasuredValue, { below, atMost, beyondOther }: TellWhen, evidence: Evidence): Told {
  if (below !== undefined) return { when: 'below', at: below };
  if (atMost !== undefined) return { when: 'at-most', at: atMost };
  return { when: 'beyond-other', at: beyondOther ?? 0, beyond: m.value - (otherSide(m, evidence)?.value ?? 0) };
}
