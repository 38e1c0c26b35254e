import type { VisitRecord } from '@dial-gauge/contract';
import { storedTrial, type Assessment } from '@dial-gauge/core';

/** The visit before as the core judges it, or null when nothing was measured then. */
export function assessmentOfPrevious({ previous, patient, episode }: VisitRecord): Assessment | null {
  const measurements = (previous?.measurements ?? [])
    .filter((view) => view.trials.length > 0)
    .map(({ motion, side, mode, position, protocol, digit, instrument, trials, pain }) => ({
      motion,
      side,
      mode,
      position,
      protocol,
      digit,
      instrument,
      trials: trials.map((trial) => storedTrial(motion, trial)),
      pain: pain ?? undefined,
    }));
  if (!previous || measurements.length === 0) return null;
  return {
    person: { birthDate: patient.birthDate, sex: patient.sex },
    assessedOn: previous.assessedOn,
    involvedSide: episode.involvedSide ?? undefined,
    measurements,
  };
}
