import type { Assessment, ErrorContext, Measurement, Operation } from '@dial-gauge/core';
import { storedTrial } from '@dial-gauge/core/names';
import type { MeasurementView } from './readings.js';
import type { EpisodeView } from './episode-view.js';
import type { VisitRecord } from './visits.js';

/** Stored measurements as the core reads them; those whose readings were all withdrawn are left out. */
export function measurementsOf(views: readonly MeasurementView[]): Measurement[] {
  return views
    .filter((view) => view.trials.length > 0)
    .map(({ trials, pain, painWhere, endFeel, ...view }) => ({
      ...view,
      trials: trials.map((trial) => storedTrial(view.motion, trial)),
      pain: pain ?? undefined,
      painWhere: painWhere || undefined,
      endFeel: endFeel ?? undefined,
      examiner: trials[trials.length - 1]?.examiner,
    }));
}

/** A whole visit as the core judges it. */
export function assessmentOfVisit({ visit, patient, episode, measurements, previous }: VisitRecord): Assessment {
  return {
    person: { birthDate: patient.birthDate, sex: patient.sex },
    assessedOn: visit.assessedOn,
    involvedSide: episode.involvedSide ?? undefined,
    complaintAt: episode.complaintAt ?? undefined,
    procedure: operationOf(episode),
    precautions: episode.precautions,
    measurements: measurementsOf(measurements),
    previous: previous ? { assessedOn: previous.assessedOn, measurements: measurementsOf(previous.measurements) } : undefined,
  };
}

/** What was operated on, where both the procedure and its day are known. */
export function operationOf({ procedureId, procedureOn }: Pick<EpisodeView, 'procedureId' | 'procedureOn'>): Operation | undefined {
  return procedureId && procedureOn ? { id: procedureId, on: procedureOn } : undefined;
}

/** What the measuring error of an episode depends on. */
export function errorContextOf({
  ownErrors,
  valueChecks,
  episode,
}: Pick<VisitRecord, 'ownErrors' | 'valueChecks' | 'episode'>): ErrorContext {
  return { own: ownErrors, procedure: operationOf(episode)?.id, checks: valueChecks };
}
