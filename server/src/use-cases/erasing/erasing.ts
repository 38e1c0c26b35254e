import { PATIENTS, type Erased, type Erasure, type ErasureView } from '@dial-gauge/contract';
import { randomUUID } from 'node:crypto';
import { addYears, formatISO, parseISO } from 'date-fns';
import { In, IsNull } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import { Patient } from '../../records/patients/entities.js';
import { dayOf } from '../../shared/days.js';
import { HttpProblem, idTaken, refused } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { ErasureRow } from '../../records/erasures/entities.js';
import { rowsOf, STAYS, STAYS_ELSEWHERE, TABLES } from '../../database/person-rows.js';

const GROWN_UP = 18;
/**
 * A person and whatever records went into theirs.
 *
 * @throws where the record went into another one itself: that is the one to look at
 */
export async function peopleOf(work: UnitOfWork, id: string): Promise<readonly string[]> {
  const { manager, clinicId } = work;
  const patient = await work.one(Patient, id, 'patient');
  if (patient.mergedInto)
    throw new HttpProblem(
      409,
      'Part of another record',
      `This record went into another one of the same person: ask for that one, ${PATIENTS.patient.path.replace(':id', patient.mergedInto)}.`,
    );
  const people = [id];
  for (let last: readonly string[] = [id]; last.length > 0;) {
    const gone = await manager.find(Patient, { where: { clinicId, mergedInto: In(last) }, select: { id: true } });
    last = gone.map((one) => one.id).filter((one) => !people.includes(one));
    people.push(...last);
  }
  return people;
}

/** The last day on which anything was entered about them, and so many years on; of a child not before they were grown up for so long. */
async function erasableFrom(work: UnitOfWork, people: readonly string[], birthDate: string, keepYears: number): Promise<string> {
  const { manager, clinicId } = work;
  const days: { day: string | null }[] = [];
  for (const [table, column] of [
    ['visit', 'assessed_on'],
    ['episode', 'ended_on'],
    ['episode', 'opened_on'],
    ['patient_day', 'on_day'],
  ] as const) {
    const { sql, values } = rowsOf(table, clinicId, people);
    days.push(
      ...(await manager.query<{ day: string | null }[]>(`SELECT MAX(${column}) AS day FROM \`${table}\` WHERE ${sql}`, [...values])),
    );
  }
  const grownUp = formatISO(addYears(parseISO(birthDate), GROWN_UP), { representation: 'date' });
  const last = [grownUp, ...days.flatMap(({ day }) => day ?? [])].sort().at(-1)!;
  return formatISO(addYears(parseISO(last), keepYears), { representation: 'date' });
}

export async function erasureView(work: UnitOfWork, id: string, keepYears: number): Promise<ErasureView> {
  const { manager, clinicId, now } = work;
  const people = await peopleOf(work, id);
  const { birthDate } = await work.one(Patient, id, 'patient');
  const inCare = await manager.countBy(Episode, { clinicId, patientId: In([...people]), endedOn: IsNull() });
  const from = inCare > 0 ? null : await erasableFrom(work, people, birthDate, keepYears);
  const against = [
    ...(inCare > 0 ? [`${inCare === 1 ? 'An episode is' : `${inCare} episodes are`} in care: discharge first.`] : []),
    ...(from !== null && from > dayOf(now) ? [`A record is kept ${keepYears} years after the last entry: until ${from}.`] : []),
  ];
  const goes = [];
  for (const table of TABLES) {
    const { sql, values } = rowsOf(table, clinicId, people);
    const [counted] = await manager.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM \`${table}\` WHERE ${sql}`, [...values]);
    goes.push({ table, rows: Number(counted?.n ?? 0) });
  }
  return { from, against, keepYears, goes: goes.filter(({ rows }) => rows > 0), stays: [...Object.values(STAYS), ...STAYS_ELSEWHERE] };
}

/** Erases all that is kept of a person, or nothing. Sent twice it is done once. */
export async function erase(work: UnitOfWork, id: string, { id: erasureId, why, name }: Erasure, keepYears: number): Promise<Erased> {
  const { manager, clinicId, caller, now } = work;
  const done = await manager.findOneBy(ErasureRow, { id: erasureId });
  if (done) {
    if (done.clinicId !== clinicId || done.patientId !== id || done.finishedAt === null) throw idTaken('erasure');
    return erasedView(done);
  }
  const patient = await work.one(Patient, id, 'patient', 'pessimistic_write');
  const whole = `${patient.givenName} ${patient.familyName}`;
  if (name !== whole)
    throw refused('name', 'is not the name of this person; allowed: the whole name as it stands in the record', 'Nothing was erased.');
  const { against, goes } = await erasureView(work, id, keepYears);
  if (against.length > 0) throw new HttpProblem(409, 'Not to be erased yet', `Nothing was erased. ${against.join(' ')}`);
  const people = await peopleOf(work, id);
  const rowCounts = Object.fromEntries(goes.map(({ table, rows }) => [table, rows]));
  // Two records that were made one point at each other.
  const { sql, values } = rowsOf('patient', clinicId, people);
  await manager.query(`UPDATE patient SET merged_into = NULL WHERE ${sql}`, [...values]);
  for (const patientId of people)
    await manager
      .query('CALL erase_person(?, ?, ?, ?, ?, ?, ?)', [
        ...[patientId === id ? erasureId : randomUUID(), clinicId, patientId, why, caller.userId, now],
        JSON.stringify(patientId === id ? rowCounts : {}),
      ])
      .catch((error: unknown) => {
        throw isDuplicate(error) ? idTaken('erasure') : error;
      });
  return erasedView({ erasedAt: now, rowCounts });
}

const erasedView = ({ erasedAt, rowCounts }: Pick<ErasureRow, 'erasedAt' | 'rowCounts'>): Erased => ({
  at: erasedAt.toISOString(),
  rows: Object.values(rowCounts).reduce((sum, rows) => sum + rows, 0),
});
