import { isDual, isTilt, type Assessment, type Measurement, type Trial, type TiltTrial } from '../assessment.js';
import type { Ranking } from '../finding/index.js';
import type { ScreenDone } from '../screen/index.js';
import type { Sense, TiltPair } from '../angle/excursion.js';
import type { IsoDate } from '../terms.js';

/** A trial as a file holds it: two figures of a device's scale stand flat in it. */
export type TrialEntry = Exclude<Trial, TiltTrial> | (TiltPair & { readonly sense?: Sense });

export interface MeasurementEntry extends Omit<Measurement, 'trials'> {
  readonly trials: readonly TrialEntry[];
}

export interface ScreenEntry extends Omit<ScreenDone, 'screenedOn'> {
  readonly screenedOn?: IsoDate;
}

/** An assessment file in its newest version: what every other format is made from, and leads back to. */
export interface AssessmentDocument extends Pick<Assessment, 'person' | 'assessedOn' | 'involvedSide' | 'complaintAt' | 'procedure'> {
  readonly format: 'dial-gauge/assessment';
  readonly version: 1;
  readonly ranking?: Ranking;
  readonly normSet?: string;
  readonly normSets?: readonly string[];
  readonly precautions?: Assessment['precautions'];
  readonly measurements: readonly MeasurementEntry[];
  readonly screens?: readonly ScreenEntry[];
  readonly previous?: { readonly assessedOn: IsoDate; readonly measurements: readonly MeasurementEntry[] };
}

/** What a document is made from: an assessment with how it is judged. */
export interface Documented extends Pick<
  Assessment,
  'person' | 'assessedOn' | 'involvedSide' | 'complaintAt' | 'procedure' | 'precautions' | 'measurements' | 'previous'
> {
  readonly ranking?: Ranking;
  readonly normSet?: string;
  readonly normSets?: readonly string[];
  readonly screens?: readonly ScreenEntry[];
}

/** An assessment as a file in its newest version. What was not said is left out. */
export function documentOf({
  person,
  assessedOn,
  involvedSide,
  complaintAt,
  procedure,
  ranking,
  normSet,
  normSets,
  precautions,
  measurements,
  screens,
  previous,
}: Documented): AssessmentDocument {
  return whatWasSaid({
    format: 'dial-gauge/assessment',
    version: 1,
    person: { birthDate: person.birthDate, sex: person.sex },
    assessedOn,
    involvedSide,
    complaintAt,
    procedure,
    ranking,
    normSet,
    normSets,
    precautions: precautions?.length ? precautions : undefined,
    measurements: measurements.map(entryOf),
    screens: screens?.length ? screens : undefined,
    previous: previous && { assessedOn: previous.assessedOn, measurements: previous.measurements.map(entryOf) },
  });
}

/** What a file holds of a measurement; a record may know more. */
function entryOf(measurement: Measurement): MeasurementEntry {
  const {
    motion,
    digit,
    side,
    mode,
    position,
    protocol,
    instrument,
    trials,
    pain,
    painWhere,
    endFeel,
    substitutions,
    examiner,
    broughtIn,
  } = measurement;
  return {
    ...{ motion, digit, side, mode, position, protocol, instrument },
    trials: trials.map(trialEntry),
    ...{ pain, painWhere, endFeel, substitutions, examiner, broughtIn },
  };
}

/** Which way a device counted is always told: a reader would have to ask. */
function trialEntry(trial: Trial): TrialEntry {
  if (isTilt(trial)) return { ...trial.tilt, sense: trial.sense };
  return isDual(trial) ? { ...trial, sense: trial.sense ?? 1 } : trial;
}

/** Without what was not said, at any depth; an empty text says nothing. */
function whatWasSaid<T>(value: T): T {
  if (Array.isArray(value)) return value.map(whatWasSaid) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([name, inner]) =>
      inner === undefined || (typeof inner === 'string' && inner.trim() === '') ? [] : [[name, whatWasSaid(inner)]],
    ),
  ) as T;
}
