import type {
  BodyStructure,
  CarePlan,
  Condition,
  Device,
  DiagnosticReport,
  Encounter,
  Flag,
  Goal,
  Observation,
  Patient,
  Practitioner,
  Procedure,
  Provenance,
  Reference,
} from '@medplum/fhirtypes';
import type { Judgement } from '../../finding/index.js';
import type { IsoDate, MotionId, Side } from '../../terms.js';
import type { AssessmentDocument } from '../document.js';

export type Resource =
  | BodyStructure
  | CarePlan
  | Condition
  | Device
  | DiagnosticReport
  | Encounter
  | Flag
  | Goal
  | Observation
  | Patient
  | Practitioner
  | Procedure
  | Provenance;

/** A goal of one motion. */
export interface ExchangedGoal {
  readonly motion: MotionId;
  readonly side: Side;
  readonly value: number;
  readonly words: string;
  readonly since: IsoDate;
}

/** A drill of a programme that was given. */
export interface ExchangedDrill {
  readonly id: string;
  readonly words: string;
}

/** What a record knows beside the facts of an assessment. */
export interface FhirContext {
  /** Of today's findings; left out: measurements go without what they were held against. */
  readonly judgement?: Judgement;
  /** Ids of a record, so that two exports of one visit are the same resources; left out: ids within this bundle. */
  readonly ids?: { readonly patient: string; readonly visit: string };
  readonly name?: { readonly given: string; readonly family: string };
  readonly goals?: readonly ExchangedGoal[];
  readonly program?: { readonly drills: readonly ExchangedDrill[]; readonly recheckOn: IsoDate; readonly givenOn: IsoDate };
  /** Set only where somebody signed: everything else goes out as preliminary. */
  readonly signed?: { readonly by: string; readonly at: string };
}

/** Adds a resource where it is not there yet, and says how to refer to it. */
export type Put = <R extends Resource>(resource: R) => Reference<R>;

/** A document on its way into a bundle. */
export interface Writing extends AssessmentDocument {
  readonly put: Put;
  readonly patient: Reference<Patient>;
  /** Who measured, each once. */
  readonly by: (name: string) => Reference<Practitioner>;
}
