import { randomUUID } from 'node:crypto';
import { AssessmentFile, type NewTakeover } from '@dial-gauge/contract';
import {
  isDual,
  isTilt,
  isValue,
  motion,
  protocolOf,
  toKept,
  type ItemDone,
  type Measurement,
  type ScreenDone,
  type Trial,
} from '@dial-gauge/core';
import { importText, type Imported } from '@dial-gauge/files';
import { Episode } from '../../records/episodes/entities.js';
import { addPatient } from '../patients/patients.js';
import { Patient } from '../../records/patients/entities.js';
import { notInTheFuture } from '../../shared/days.js';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { MeasurementRow, TrialRow } from '../../records/readings/entities.js';
import { variantOf, versionOf } from '../measuring/readings.js';
import { ScreenTryRow } from '../../records/screens/entities.js';
import { startVisit } from '../visits/visits.js';

const MOST_TOLD = 200;

/** Takes a visit over, and the one before it where the file holds one: all of it or nothing. Sent twice it is taken over once. */
export async function takeOver(work: UnitOfWork, { ids, fileName, base64, complaint, ...person }: NewTakeover): Promise<void> {
  const file = fileOf(fileName, Buffer.from(base64, 'base64').toString('utf8'));
  const { manager, clinicId, now } = work;
  notInTheFuture('assessedOn', file.assessedOn, now);
  const isThere = await manager.existsBy(Patient, { id: ids.patient, clinicId });
  const { birthDate, sex } = file.person;
  const involvedSide = file.involvedSide ?? null;
  const who = { id: ids.patient, ...person, birthDate, sex, gender: '', fileNumber: '' };
  await addPatient(work, { ...who, episode: { id: ids.episode, complaint, involvedSide } });
  if (isThere) return;
  const { complaintAt = null, procedure, precautions = [] } = file;
  await manager.update(
    Episode,
    { id: ids.episode, clinicId },
    { complaintAt, procedureId: procedure?.id ?? null, procedureOn: procedure?.on ?? null, precautions },
  );
  if (file.previous) await addVisit(work, ids.episode, ids.before, file.previous.assessedOn, file.previous.measurements, []);
  await addVisit(work, ids.episode, ids.visit, file.assessedOn, file.measurements, file.screens as unknown as ScreenDone[]);
  await work.log.write('episode', ids.episode, [['takenOver', null, { fileName, visit: ids.visit }]]);
}

/** What a file is, is told by what it holds. */
function fileOf(fileName: string, text: string): AssessmentFile {
  const from: Imported = !/^\s*[{[]/.test(text) ? 'csv' : /"resourceType"\s*:/.test(text.slice(0, 2000)) ? 'fhir' : 'json';
  const read = importText(text, from);
  if (read.ok) return AssessmentFile.parse(read.document);
  throw new HttpProblem(
    422,
    'Not taken over',
    `${fileName} cannot be read as ${from === 'fhir' ? 'FHIR' : from.toUpperCase()}: ${read.problems.length} things are wrong, so nothing was taken over.`,
    { errors: read.problems.slice(0, MOST_TOLD) },
  );
}

async function addVisit(
  work: UnitOfWork,
  episodeId: string,
  visitId: string,
  assessedOn: string,
  measurements: readonly Measurement[],
  screens: readonly ScreenDone[],
): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  await startVisit(work, episodeId, { id: visitId, assessedOn });
  for (const m of measurements) {
    const protocol = protocolOf(m);
    const measurementId = randomUUID();
    const row: MeasurementRow = {
      ...{ id: measurementId, clinicId, visitId },
      ...{ motion: m.motion, side: m.side, mode: m.mode, position: m.position, variant: variantOf(protocol), digit: m.digit ?? 0 },
      ...{ protocol: versionOf(protocol), pain: m.pain ?? null, painWhere: m.painWhere ?? '', endFeel: m.endFeel ?? null },
      ...{
        substitutions: [...(m.substitutions ?? [])],
        notDone: null,
        notDoneWhy: '',
        note: m.examiner ? `Measured by ${m.examiner}` : '',
      },
    };
    await manager.insert(MeasurementRow, row);
    await manager.insert(
      TrialRow,
      m.trials.map((trial, at): TrialRow => ({
        ...{ id: randomUUID(), clinicId, measurementId, instrument: m.instrument, ...figuresOf(m, trial) },
        ...{ pastLimit: null, pastWhy: '', corrects: null, examinerId: caller.userId, clockOff: null },
        ...{ heldAt: new Date(now.getTime() + at), savedAt: now, withdrawnAt: null, withdrawnBy: null, withdrawnWhy: '' },
      })),
    );
  }
  // In the order in which they were done: what was held at one moment would be in none.
  let held = 0;
  for (const { screen, items } of screens)
    for (const item of items) {
      const tries = triesOf(work, visitId, screen, item, held);
      held += tries.length;
      await manager.insert(ScreenTryRow, tries);
    }
}

/** A trial as records keep it: as it was read, in the unit of its motion. */
function figuresOf({ motion: id }: Measurement, trial: Trial) {
  const none = { lowerZero: null, lowerEnd: null, scale: null, sense: null, entered: '', simulated: false };
  if (isDual(trial))
    return {
      ...none,
      startAngle: trial.upper.zero,
      endAngle: trial.upper.end,
      lowerZero: trial.lower.zero,
      lowerEnd: trial.lower.end,
      sense: trial.sense ?? null,
    };
  if (isTilt(trial)) return { ...none, startAngle: trial.tilt.zero, endAngle: trial.tilt.end, scale: '360' as const, sense: trial.sense };
  if (!isValue(trial)) return { ...none, startAngle: trial.start ?? 0, endAngle: trial.end };
  const { unit } = motion(id);
  if (!trial.unit || trial.unit === unit) return { ...none, startAngle: 0, endAngle: trial.value };
  return {
    ...none,
    startAngle: 0,
    endAngle: Math.round(toKept(trial.value, trial.unit) * 10) / 10,
    entered: `${trial.value} ${trial.unit}`,
  };
}

function triesOf({ clinicId, caller, now }: UnitOfWork, visitId: string, screen: string, done: ItemDone, from: number): ScreenTryRow[] {
  const { item, view = '', with: changes = [], side = '', tries, skipped } = done;
  const row = (seen: ScreenTryRow['seen'], at: number): ScreenTryRow => ({
    ...{ id: randomUUID(), clinicId, visitId, screen, item, view, changes: [...changes].sort(), side, seen },
    ...{ skipped: seen ? null : (skipped ?? null), corrects: null, heldBy: caller.userId, heldAt: new Date(now.getTime() + from + at) },
  });
  return tries.length > 0 ? tries.map((one, at) => row(one, at)) : [row(null, 0)];
}
