import { randomUUID } from 'node:crypto';
import {
  blindedOrder,
  draftSummary,
  findDrill,
  motion,
  protocolOfId,
  seededRandom,
  type Instrument,
  type Precaution,
} from '@dial-gauge/core';
import { addDays, addMinutes, formatISO, setHours, startOfHour, subDays, subYears } from 'date-fns';
import type { DataSource, EntityManager } from 'typeorm';
import { User } from '../records/identity/entities.js';
import { hashPassword } from '../records/identity/password.js';
import { Clinic } from '../records/clinic/entities.js';
import { Episode, EpisodeWord } from '../records/episodes/entities.js';
import { wordsOf } from '../records/episodes/words.js';
import { GoalRow } from '../records/goals/entities.js';
import { Patient } from '../records/patients/entities.js';
import { sortNameOf } from '../records/patients/views.js';
import { UnitOfWork } from '../database/unit-of-work.js';
import { PORTS } from '../records/open-database.js';
import { ProgramRow } from '../records/programmes/entities.js';
import { MeasurementRow, TrialRow } from '../records/readings/entities.js';
import { variantOf } from '../use-cases/measuring/readings.js';
import { StudyReadingRow, StudyRow } from '../records/reliability/entities.js';
import { RetestReadingRow, RetestRoundRow, RetestRow } from '../records/retests/entities.js';
import { ScreenTryRow } from '../records/screens/entities.js';
import { judge, revisionOf } from '../read-models/judgement/judgement.js';
import { sign } from '../use-cases/signing/signing.js';
import { Visit } from '../records/visits/entities.js';
import { visitRecord } from '../read-models/visit-record/record.js';
import { seedPractice } from './practice.js';
import { DEMO_CLINIC, DEMO_PATIENTS, DEMO_STAFF, DEMO_STUDY, DEMO_USER } from './clinic.js';
import { earlierPeople } from './earlier.js';
import type { DemoPatient, DemoProgram, DemoReading, DemoVisit } from './person.js';

const day = (date: Date): string => formatISO(date, { representation: 'date' });

/**
 * Fills an empty database with the demo clinic, all or nothing.
 *
 * @param today demo visits lie so many days before it
 * @returns false when the database already holds a clinic
 */
export async function seedDemo(dataSource: DataSource, today: Date): Promise<boolean> {
  const passwordHash = await hashPassword(DEMO_USER.password);
  return dataSource.transaction(async (manager) => {
    if ((await manager.count(Clinic)) > 0) return false;
    const clinicId = randomUUID();
    await manager.insert(Clinic, { id: clinicId, ...DEMO_CLINIC });
    const staff = DEMO_STAFF.map(({ name, email, role }) => ({ id: randomUUID(), clinicId, name, email, role, passwordHash }));
    await manager.insert(User, staff);
    const seeding = { clinicId, examinerId: staff[0]!.id, colleagueId: staff[1]!.id, today };
    for (const patient of [...DEMO_PATIENTS, ...earlierPeople()]) await seedPatient(manager, seeding, patient);
    await seedStudy(manager, seeding);
    await seedPractice(manager, seeding);
    return true;
  });
}

interface Seeding {
  readonly clinicId: string;
  readonly examinerId: string;
  readonly colleagueId: string;
  readonly today: Date;
}

/** The limit of a demo patient, from the day of the operation on. */
function precautionsOf({ limit, procedure, involvedSide }: DemoPatient, today: Date): Precaution[] {
  if (!limit || !procedure) return [];
  const { motion, mode, source } = limit;
  const side = involvedSide === 'left' || involvedSide === 'right' ? { side: involvedSide } : {};
  return [{ motion, mode, ...side, limit: limit.limit, until: day(subDays(today, procedure.daysAgo - limit.forDays)), source }];
}

async function seedPatient(manager: EntityManager, seeding: Seeding, demo: DemoPatient): Promise<void> {
  const { clinicId, examinerId, today } = seeding;
  const { givenName, familyName, sex, occupation, complaint, complaintAt, involvedSide, procedure, wanted = '', goals = [] } = demo;
  const patientId = randomUUID();
  const episodeId = randomUUID();
  const oldest = Math.max(...demo.visits.map((visit) => visit.daysAgo));
  const birthDate = day(subDays(subYears(today, demo.age), 100));
  await manager.insert(Patient, { id: patientId, clinicId, givenName, familyName, birthDate, sex, occupation });
  await manager.insert(Episode, {
    id: episodeId,
    clinicId,
    patientId,
    complaint,
    complaintAt,
    involvedSide,
    openedOn: day(subDays(today, oldest)),
    procedureId: procedure?.id ?? null,
    procedureOn: procedure ? day(subDays(today, procedure.daysAgo)) : null,
    wanted,
    dueOn: demo.dueInDays === undefined ? null : day(addDays(today, demo.dueInDays)),
    sortName: sortNameOf(demo),
    precautions: precautionsOf(demo, today),
  });
  const words = wordsOf(givenName, familyName, complaint, birthDate);
  await manager.insert(
    EpisodeWord,
    words.map((word) => ({ clinicId, word, episodeId })),
  );
  for (const { protocol, side, mode, goal } of goals) {
    const setAt = subDays(today, oldest);
    const row = { id: randomUUID(), clinicId, episodeId, protocol, digit: 0, side, mode, choice: goal, setBy: examinerId, setAt };
    await manager.insert(GoalRow, row);
  }
  let last: SeededVisit = { id: '', startedAt: new Date(0) };
  for (const visit of demo.visits) {
    const seeded = await seedVisit(manager, seeding, episodeId, visit);
    last = seeded.startedAt > last.startedAt ? seeded : last;
  }
  if (demo.signed && last.id) await signVisit(manager, seeding, last);
  const latest = { visitCount: demo.visits.length, lastVisitId: last.id, latestAt: last.startedAt };
  const { ended } = demo;
  const end = ended ? { endedOn: day(subDays(today, ended.daysAgo)), outcome: ended.outcome, endedBy: examinerId } : {};
  await manager.update(Episode, { id: episodeId, clinicId }, { ...latest, ...end });
}

interface SeededVisit {
  readonly id: string;
  readonly startedAt: Date;
}

async function seedVisit(
  manager: EntityManager,
  { clinicId, examinerId, colleagueId, today }: Seeding,
  episodeId: string,
  { daysAgo, readings, byColleague, retest, program, screened = [] }: DemoVisit,
): Promise<SeededVisit> {
  const visitId = randomUUID();
  const heldBy = byColleague ? colleagueId : examinerId;
  const startedAt = setHours(startOfHour(subDays(today, daysAgo)), 9);
  await manager.insert(Visit, { id: visitId, clinicId, episodeId, examinerId: heldBy, assessedOn: day(startedAt), startedAt });
  const rows = readings.flatMap((reading) => measurementsOf(reading, { clinicId, visitId }));
  await manager.insert(
    MeasurementRow,
    rows.map(({ trials, instrument, ...row }) => (void [trials, instrument], row)),
  );
  let minute = 0;
  const trials = rows.flatMap((row) =>
    row.trials.map(({ end: endAngle, lower }) => {
      const heldAt = addMinutes(startedAt, (minute += 0.25));
      return {
        id: randomUUID(),
        clinicId,
        measurementId: row.id,
        instrument: row.instrument,
        startAngle: 0,
        endAngle,
        lowerZero: lower === undefined ? null : 0,
        lowerEnd: lower ?? null,
        scale: null,
        sense: null,
        entered: '',
        simulated: false,
        clockOff: null,
        pastLimit: null,
        pastWhy: '',
        corrects: null,
        withdrawnWhy: '',
        examinerId: heldBy,
        heldAt,
        savedAt: heldAt,
      };
    }),
  );
  await manager.insert(TrialRow, trials);
  await manager.insert(
    ScreenTryRow,
    screened.map(({ screen, item, view = '', with: changes = [], side = '', seen }, at) => ({
      id: randomUUID(),
      clinicId,
      visitId,
      screen,
      item,
      view,
      changes: [...changes],
      side,
      seen,
      skipped: null,
      corrects: null,
      heldBy,
      heldAt: addMinutes(startedAt, 10 + at / 2),
    })),
  );
  if (program) await manager.insert(ProgramRow, programRow(program, { clinicId, visitId, heldBy, at: addMinutes(startedAt, 28) }));
  if (retest) await seedRetest(manager, { clinicId, visitId, heldBy, at: addMinutes(startedAt, 20) }, retest);
  return { id: visitId, startedAt };
}

/** Signs a visit at its end, in the name of its examiner. */
async function signVisit(manager: EntityManager, { clinicId, examinerId }: Seeding, { id, startedAt }: SeededVisit): Promise<void> {
  const caller = { clinicId, userId: examinerId, name: DEMO_USER.name, role: 'lead', session: '' } as const;
  const work = new UnitOfWork(manager, caller, addMinutes(startedAt, 45), PORTS);
  const judgement = await judge(work, await visitRecord(work, id));
  const seen = { revision: revisionOf(judgement), at: work.now.toISOString() };
  await sign(work, id, { id: randomUUID(), summary: draftSummary(judgement), seen });
}

interface At {
  readonly clinicId: string;
  readonly visitId: string;
  readonly heldBy: string;
  readonly at: Date;
}

function programRow({ drills, equipment, recheckInDays }: DemoProgram, { clinicId, visitId, heldBy, at }: At): ProgramRow {
  return {
    id: randomUUID(),
    clinicId,
    visitId,
    number: 1,
    choices: { equipment: [...equipment], minutesADay: 20, painTolerated: 3, order: 'stages' },
    drills: drills.map(([drill, side]) => ({ drill, side, dose: { ...findDrill(drill)!.dose }, words: '' })),
    recheckOn: day(addDays(at, recheckInDays)),
    note: '',
    givenBy: heldBy,
    givenAt: at,
  };
}

async function seedRetest(
  manager: EntityManager,
  { clinicId, visitId, heldBy, at }: At,
  { protocol, side, rounds }: NonNullable<DemoVisit['retest']>,
): Promise<void> {
  const retestId = randomUUID();
  const markers = [{ protocol, side, mode: 'passive' as const, instrument: 'goniometer' as const }];
  await manager.insert(RetestRow, {
    id: retestId,
    clinicId,
    visitId,
    markers,
    startedBy: heldBy,
    startedAt: at,
    finishedAt: addMinutes(at, 8),
  });
  for (const [number, [drill, value]] of rounds.entries()) {
    const moment = addMinutes(at, number * 2);
    if (number > 0)
      await manager.insert(RetestRoundRow, { id: randomUUID(), clinicId, retestId, number, drill, notedBy: heldBy, notedAt: moment });
    await manager.insert(RetestReadingRow, {
      id: randomUUID(),
      clinicId,
      retestId,
      round: number,
      marker: 0,
      value,
      heldBy,
      heldAt: moment,
    });
  }
}

/** A study read to the end and not adopted yet. */
async function seedStudy(manager: EntityManager, { clinicId, examinerId, today }: Seeding): Promise<void> {
  const { name, motion: motionId, protocol, mode, instrument, kind, daysAgo, table } = DEMO_STUDY;
  const id = randomUUID();
  const startedAt = setHours(startOfHour(subDays(today, daysAgo)), 17);
  const [subjects, raters] = [table.length, table[0].length];
  const turns = blindedOrder(subjects, raters, kind, seededRandom(3));
  await manager.insert(StudyRow, {
    id,
    clinicId,
    name,
    motion: motionId,
    protocol,
    digit: 0,
    mode,
    instrument,
    kind,
    subjects,
    raters,
    turns,
    practiceRoundId: null,
    startedBy: examinerId,
    startedAt,
  });
  for (const [at, { subject, rater }] of turns.entries()) {
    const value = table[subject]![rater]!;
    const reading = {
      id: randomUUID(),
      clinicId,
      studyId: id,
      subject,
      rater,
      value,
      heldBy: examinerId,
      heldAt: addMinutes(startedAt, at),
    };
    await manager.insert(StudyReadingRow, reading);
  }
}

type SeedRow = Omit<MeasurementRow, 'trials'> & { trials: { end: number; lower?: number }[]; instrument: Instrument };

/** Both sides and modes of one motion; passive readings are taken three times and average to the value given. */
function measurementsOf(reading: DemoReading, owner: { clinicId: string; visitId: string }): SeedRow[] {
  const { protocols, unit } = motion(reading.motion);
  const protocol = reading.protocol ? protocolOfId(reading.protocol)! : protocols[0]!;
  const step = unit === 'deg' ? 1 : 0.1;
  const row = (side: SeedRow['side'], mode: SeedRow['mode'], trials: SeedRow['trials']): SeedRow => {
    const passive = mode === 'passive';
    const pain = passive && reading.pain?.side === side ? reading.pain : undefined;
    return {
      id: randomUUID(),
      ...owner,
      motion: reading.motion,
      side,
      mode,
      position: protocol.position,
      variant: variantOf(protocol),
      digit: 0,
      protocol: `${protocol.id}@${protocol.version}`,
      instrument: reading.sites ? 'dualInclinometer' : (reading.instrument ?? 'goniometer'),
      pain: pain?.level ?? 0,
      painWhere: pain?.where ?? '',
      endFeel: passive ? (protocol.endFeel[0] ?? null) : null,
      substitutions: passive && reading.faked?.side === side ? [reading.faked.by] : [],
      notDone: null,
      notDoneWhy: '',
      note: '',
      trials,
    };
  };
  const thrice = (value: number) => [value - step, value + step, value].map((end) => ({ end: Math.round(end * 10) / 10 }));
  const [firstMode] = protocol.modes;
  if (reading.sites) {
    const [upper, lower] = reading.sites;
    return [
      row(
        'midline',
        firstMode!,
        [-1, 1, 0].map((more) => ({ end: upper + more, lower })),
      ),
    ];
  }
  if (reading.midline !== undefined) return [row('midline', firstMode!, thrice(reading.midline))];
  return (['active', 'passive'] as const).flatMap((mode) => {
    const pair = reading[mode];
    if (!pair) return [];
    return (['left', 'right'] as const).map((side, at) => row(side, mode, mode === 'passive' ? thrice(pair[at]!) : [{ end: pair[at]! }]));
  });
}
