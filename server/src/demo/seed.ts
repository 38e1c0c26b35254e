import { randomUUID } from 'node:crypto';
import { motion } from '@dial-gauge/core';
import { addMinutes, formatISO, setHours, startOfHour, subDays, subYears } from 'date-fns';
import type { DataSource, EntityManager } from 'typeorm';
import { Clinic, Episode, MeasurementRow, Patient, TrialRow, User, Visit } from '../store/entities.js';
import { hashPassword } from '../store/password.js';
import { DEMO_CLINIC, DEMO_COLLEAGUE, DEMO_PATIENTS, DEMO_USER, type DemoPatient, type DemoReading } from './clinic.js';

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
    const examinerId = randomUUID();
    await manager.insert(Clinic, { id: clinicId, ...DEMO_CLINIC });
    await manager.insert(User, { id: examinerId, clinicId, name: DEMO_USER.name, email: DEMO_USER.email, passwordHash });
    await manager.insert(User, { id: randomUUID(), clinicId, name: DEMO_COLLEAGUE.name, email: DEMO_COLLEAGUE.email, passwordHash });
    for (const patient of DEMO_PATIENTS) await seedPatient(manager, { clinicId, examinerId, today }, patient);
    return true;
  });
}

interface Seeding {
  readonly clinicId: string;
  readonly examinerId: string;
  readonly today: Date;
}

async function seedPatient(manager: EntityManager, { clinicId, examinerId, today }: Seeding, demo: DemoPatient): Promise<void> {
  const { givenName, familyName, sex, occupation, complaint, involvedSide, procedure, wanted = '' } = demo;
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
    involvedSide,
    openedOn: day(subDays(today, oldest)),
    procedureId: procedure?.id ?? null,
    procedureOn: procedure ? day(subDays(today, procedure.daysAgo)) : null,
    wanted,
  });
  for (const { daysAgo, readings } of demo.visits) {
    const visitId = randomUUID();
    const startedAt = setHours(startOfHour(subDays(today, daysAgo)), 9);
    await manager.insert(Visit, { id: visitId, clinicId, episodeId, examinerId, assessedOn: day(startedAt), startedAt });
    const rows = readings.flatMap((reading) => measurementsOf(reading, { clinicId, visitId }));
    await manager.insert(
      MeasurementRow,
      rows.map(({ trials, ...row }) => (void trials, row)),
    );
    let minute = 0;
    const trials = rows.flatMap((row) =>
      row.trials.map((endAngle) => {
        const heldAt = addMinutes(startedAt, (minute += 0.25));
        return {
          id: randomUUID(),
          clinicId,
          measurementId: row.id,
          instrument: 'goniometer' as const,
          startAngle: 0,
          endAngle,
          lowerZero: null,
          lowerEnd: null,
          scale: null,
          sense: null,
          entered: '',
          pastLimit: null,
          pastWhy: '',
          corrects: null,
          withdrawnWhy: '',
          examinerId,
          heldAt,
          savedAt: heldAt,
        };
      }),
    );
    await manager.insert(TrialRow, trials);
  }
}

type SeedRow = Omit<MeasurementRow, 'trials'> & { trials: number[] };

/** Both sides and modes of one motion; passive readings are taken three times and average to the value given. */
function measurementsOf(reading: DemoReading, owner: { clinicId: string; visitId: string }): SeedRow[] {
  const protocol = motion(reading.motion).protocols[0]!;
  return (['active', 'passive'] as const).flatMap((mode) =>
    (['left', 'right'] as const).map((side): SeedRow => {
      const value = reading[mode][side === 'left' ? 0 : 1];
      const passive = mode === 'passive';
      const pain = passive && reading.pain?.side === side ? reading.pain : undefined;
      return {
        id: randomUUID(),
        ...owner,
        motion: reading.motion,
        side,
        mode,
        position: protocol.position,
        variant: '',
        digit: 0,
        protocol: `${protocol.id}@${protocol.version}`,
        pain: pain?.level ?? 0,
        painWhere: pain?.where ?? '',
        endFeel: passive ? protocol.endFeel[0]! : null,
        substitutions: passive && reading.faked?.side === side ? [reading.faked.by] : [],
        notDone: null,
        notDoneWhy: '',
        note: '',
        trials: passive ? [value - 1, value + 1, value] : [value],
      };
    }),
  );
}
