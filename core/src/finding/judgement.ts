import type { MeasuredValue } from '../measurement.js';
import type { NeedComparison, NormComparison, NormSet } from '../norms/index.js';
import type { ItemOutcome } from '../screen/index.js';
import type { Finding } from './kinds.js';
import type { NotCompared } from './not-compared.js';
import type { Ranking } from './rankings.js';
import type { NotJudged } from './silence.js';
import type { TotalArc } from './total-arc.js';
import type { Said } from './types.js';

export interface JudgedMeasurement extends MeasuredValue {
  readonly norms: readonly NormComparison[];
  /** Id of the set that judged it; null where none of the order has a comparable value. */
  readonly judgedBy: string | null;
  /** What everyday tasks ask of this motion, and whether there is enough. */
  readonly needs: readonly NeedComparison[];
  /** Readings that look alike but were taken another way, and so were not compared. */
  readonly notCompared: readonly NotCompared[];
}

/** How a judgement is written down; a copy that was signed keeps the one it was written in. Before there was one: 1. */
export const JUDGEMENT_FORMAT = 3;
/** Which rules judged: changes with every rule that can change a finding. */
export const RULES_VERSION = '2026-12-02.6';

export interface Judgement {
  readonly format: number;
  readonly rules: string;
  /** The set that is asked first. */
  readonly normSet: Pick<NormSet, 'id' | 'short' | 'title'>;
  /** Every set of the order that judged something, in that order. */
  readonly judgedBy: readonly (Pick<NormSet, 'id' | 'short'> & { readonly measurements: number })[];
  readonly notJudged: readonly NotJudged[];
  readonly ranking: Ranking;
  readonly measurements: readonly JudgedMeasurement[];
  /** Total rotation of shoulders and hips, beside their ends. */
  readonly arcs: readonly TotalArc[];
  readonly findings: readonly Finding[];
  /** What the screens of the visit came to; left out where none was run. */
  readonly screens?: readonly ItemOutcome[];
}

/** Findings as they were written down before they were data: in words alone. */
type FindingInWords = Omit<Finding, 'facts' | 'steps' | 'place' | 'said'> &
  Omit<Said, 'brief'> & { readonly brief?: string; readonly isStraighteningFirst?: true };

/** A judgement in an earlier format. 1: one norm set, no rules named; 2: an order of sets. Both in words. */
interface OlderJudgement extends Omit<Judgement, 'measurements' | 'findings'> {
  readonly measurements: readonly (Omit<JudgedMeasurement, 'notCompared' | 'errorSource'> & {
    readonly notCompared?: readonly string[];
    readonly errorSource: string;
  })[];
  readonly findings: readonly FindingInWords[];
}

/** A judgement that was written down in an earlier format, as today's readers want it: its words stay, what it did not say is left unsaid. */
export function judgementOfToday(stored: Judgement): Judgement {
  if (stored.format === JUDGEMENT_FORMAT) return stored;
  const older = stored as unknown as OlderJudgement;
  const inData = {
    ...stored,
    measurements: older.measurements.map((m) => ({
      ...m,
      errorSource: { kind: 'signed', said: m.errorSource } as const,
      notCompared: (m.notCompared ?? []).map((said) => ({ when: 'signed', said }) as const),
    })),
    findings: older.findings.map(findingOfToday),
  };
  return stored.format === 2 ? inData : ofOneSet(inData);
}

function findingOfToday(f: FindingInWords): Finding {
  const { subject, verdict, brief = verdict, because, place, isStraighteningFirst, ...rest } = f;
  const by = isStraighteningFirst ? 'straight-first' : 'stage';
  return { ...rest, facts: {}, steps: [], place: { by }, said: { subject, verdict, brief, because, place } } as unknown as Finding;
}

/** Of the time of one norm set for a clinic. */
function ofOneSet(stored: Judgement): Judgement {
  const { normSet } = stored;
  const measurements = stored.measurements.map((m) => ({
    ...m,
    judgedBy: m.norms.some((norm) => norm.set === normSet.id) ? normSet.id : null,
  }));
  const count = measurements.filter((m) => m.judgedBy !== null).length;
  return {
    ...stored,
    format: 1,
    rules: 'before rules were numbered',
    measurements,
    judgedBy: count === 0 ? [] : [{ id: normSet.id, short: normSet.short, measurements: count }],
    notJudged: [],
  };
}
