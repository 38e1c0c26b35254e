import { storedTrial, type Digit, type Measurement, type Session } from '@dial-gauge/core';
import type { MeasurementRow, TrialRow } from '../../records/readings/entities.js';
import { lowerSite, protocolIdOf } from '../../records/readings/views.js';
import { grouped } from '../../shared/grouped.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import type { Visit } from '../../records/visits/entities.js';
import { placeOf, settingOf, viewOf } from './record.js';

type Seen = Pick<Visit, 'id' | 'assessedOn'> & { examiner: string; signed: number };

/** The visits of an episode in their order, up to one. */
const VISITS = `SELECT v.id, u.name AS examiner, v.assessed_on AS assessedOn, v.signed
  FROM visit v FORCE INDEX (visit_of_episode) JOIN user u ON u.id = v.examiner_id
  WHERE v.clinic_id = ? AND v.episode_id = ? AND v.assessed_on <= ?
  ORDER BY v.assessed_on, v.started_at, v.id`;

type Reading = Pick<MeasurementRow, 'visitId' | 'motion' | 'side' | 'mode' | 'position' | 'variant' | 'digit' | 'pain'> &
  Pick<TrialRow, 'measurementId' | 'instrument' | 'lowerZero' | 'lowerEnd' | 'scale' | 'sense'> & {
    start: number;
    end: number;
    examiner: string;
    /** Seconds, with their fraction. */
    heldAt: number;
    savedAt: number;
  };

/** The readings of people that stand, none of a rehearsal, of the visits of an episode up to a day, in no order: there are few to a measurement, and those are put in order here. Only what a judgement over time asks for: a long record has tens of thousands. */
const READINGS = `SELECT STRAIGHT_JOIN m.visit_id AS visitId, m.motion, m.side, m.mode, m.position, m.variant, m.digit, m.pain,
    t.measurement_id AS measurementId, t.instrument, t.start_angle AS start, t.end_angle AS end,
    t.lower_zero AS lowerZero, t.lower_end AS lowerEnd, t.scale, t.sense, u.name AS examiner,
    UNIX_TIMESTAMP(t.held_at) + 0e0 AS heldAt, UNIX_TIMESTAMP(t.saved_at) + 0e0 AS savedAt
  FROM visit v FORCE INDEX (visit_of_episode)
    JOIN measurement m FORCE INDEX (measurement_visit_id) ON m.clinic_id = v.clinic_id AND m.visit_id = v.id
    JOIN trial t FORCE INDEX (trial_measurement_id) ON t.clinic_id = m.clinic_id AND t.measurement_id = m.id
    JOIN user u ON u.id = t.examiner_id
  WHERE v.clinic_id = ? AND v.episode_id = ? AND v.assessed_on <= ? AND t.withdrawn_at IS NULL AND t.simulated = 0`;

/** A visit and those before it as the core reads them, oldest first. */
export async function history(work: UnitOfWork, row: Visit) {
  const until = [work.clinicId, row.episodeId, row.assessedOn];
  const [setting, all, readings] = await Promise.all([
    settingOf(work, row),
    work.prepared<Seen[]>(VISITS, until),
    work.prepared<Reading[]>(READINGS, until),
  ]);
  const { patient, episode, normSets, ownNormSets, ownErrors, valueChecks } = setting;
  const seen = all.slice(0, 1 + all.findIndex((visit) => visit.id === row.id));
  const counts = new Map<string, number>();
  for (const { visitId } of readings) counts.set(visitId, (counts.get(visitId) ?? 0) + 1);
  const visits = seen.map((of, index) =>
    viewOf({ ...of, signed: of.signed === 1 }, index + 1, { readings: counts.get(of.id) ?? 0, simulated: 0 }, of.examiner),
  );
  const byVisit = measurementsByVisit(readings);
  const sessions = seen.map((visit): Session => ({ assessedOn: visit.assessedOn, measurements: byVisit.get(visit.id) ?? [] }));
  return { patient, episode, normSets, ownNormSets, ownErrors, valueChecks, visit: visits[visits.length - 1]!, visits, sessions };
}

/** Readings to measurements, each in the order held, in the order of a report. Ways of measuring that this version does not know are left out. */
function measurementsByVisit(readings: readonly Reading[]): ReadonlyMap<string, readonly Measurement[]> {
  const byVisit = new Map<string, { readonly place: number; readonly measurement: Measurement }[]>();
  for (const own of grouped(readings, (reading) => reading.measurementId).values()) {
    const place = placeOf(own[0]!);
    if (place === undefined) continue;
    if (own.length > 1) own.sort((a, b) => a.heldAt - b.heldAt || a.savedAt - b.savedAt);
    const placed = { place, measurement: measurementOf(own) };
    const ofVisit = byVisit.get(own[0]!.visitId);
    if (ofVisit) ofVisit.push(placed);
    else byVisit.set(own[0]!.visitId, [placed]);
  }
  return new Map([...byVisit].map(([visit, own]) => [visit, own.sort((a, b) => a.place - b.place).map(({ measurement }) => measurement)]));
}

/** One measurement of its readings; what the last of them was taken with, and by whom, stands for it. */
function measurementOf(readings: readonly Reading[]): Measurement {
  const last = readings[readings.length - 1]!;
  const { motion, side, mode, position, variant, digit, pain, instrument, examiner } = last;
  const trials = readings.map((reading) => {
    const { start, end, scale, sense } = reading;
    return storedTrial(motion, { start, end, lower: lowerSite(reading), scale, sense });
  });
  return {
    motion,
    side,
    mode,
    position,
    protocol: variant === '' ? undefined : protocolIdOf(last),
    digit: digit === 0 ? undefined : (digit as Digit),
    instrument,
    trials,
    pain: pain ?? undefined,
    examiner,
  };
}
