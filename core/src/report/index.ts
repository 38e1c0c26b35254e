import { evidenceReport } from './evidence.js';
import { patientReport } from './patient.js';
import { referrerReport } from './referrer.js';
import type { Report, ReportFacts, ReportKind } from './types.js';

export { plainDose, plainFigure, plainMotion } from './plain.js';
export { drillBlock, progressSentences } from './patient.js';
export {
  REPORT_KINDS,
  type Block,
  type DrillBlock,
  type PictureBlock,
  type Report,
  type ReportedDrill,
  type ReportFacts,
  type ReportKind,
} from './types.js';

const MAKERS: Readonly<Record<ReportKind, (facts: ReportFacts) => Report>> = {
  referrer: referrerReport,
  patient: patientReport,
  evidence: evidenceReport,
};

/** A page as data, in the language and the figures that are spoken. */
export const makeReport = (kind: ReportKind, facts: ReportFacts): Report => MAKERS[kind](facts);
