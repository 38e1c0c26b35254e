import type { FileView, VisitRecord } from '@dial-gauge/contract';
import { localeOf, speaking } from '@dial-gauge/core';
import { parcel } from '@dial-gauge/files';
import { Clinic } from '../../records/clinic/entities.js';
import { User } from '../../records/identity/entities.js';
import { fileNameOf, printedInFull } from '../documents/paper.js';
import { patientRecord } from '../../read-models/patient-record/patient-record.js';
import { dayOf } from '../../shared/days.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { visitRecord } from '../../read-models/visit-record/record.js';
import { peopleOf } from './erasing.js';
import { OF_PERSON, rowsOf, STAYS, TABLES } from '../../database/person-rows.js';
import { readable } from './readable.js';

type Row = Readonly<Record<string, unknown>>;

/** What opens something is nobody's data: it is kept as a hash and not handed over. */
const isKey = (column: string): boolean => column.endsWith('_hash');

/** All that is kept of a person: every row as it stands, and the same to be read. */
export async function wholeRecord(work: UnitOfWork, id: string, locale: string): Promise<FileView> {
  const people = await peopleOf(work, id);
  const record = await patientRecord(work, id);
  const visits: VisitRecord[] = [];
  for (const episode of record.episodes) for (const { id: visitId } of episode.visits) visits.push(await visitRecord(work, visitId));
  const rows = await rowsOfAll(work, people);
  const json = {
    format: 'dial-gauge person 1',
    writtenAt: work.now.toISOString(),
    clinic: (await work.manager.findOneByOrFail(Clinic, { id: work.clinicId })).name,
    /** Who is meant by the ids of examiners and others of the clinic. */
    names: await namesIn(work, rows),
    tables: rows,
    audit: await auditOf(work, people),
    stays: STAYS,
  };
  const report = speaking(localeOf(locale), () => readable(record, visits, rows['signature'] ?? [], json.clinic));
  const pdf = await printedInFull(work, report, { paper: 'a4', locale });
  const name = fileNameOf({ patient: record.patient, visit: { assessedOn: dayOf(work.now) } }, 'whole-record', 'zip');
  const zip = parcel({ 'record.json': new TextEncoder().encode(JSON.stringify(json, null, 1)), 'record.pdf': new Uint8Array(pdf) });
  return { fileName: name, mediaType: 'application/zip', base64: Buffer.from(zip).toString('base64') };
}

async function rowsOfAll({ manager, clinicId }: UnitOfWork, people: readonly string[]): Promise<Record<string, Row[]>> {
  const all: Record<string, Row[]> = {};
  for (const table of TABLES.filter((name) => !OF_PERSON[name]?.keysAlone)) {
    const { sql, values } = rowsOf(table, clinicId, people);
    const rows = await manager.query<Row[]>(`SELECT * FROM \`${table}\` WHERE ${sql}`, [...values]);
    if (rows.length > 0)
      all[table] = rows.map((row) =>
        Object.fromEntries(
          Object.entries(row)
            .filter(([column]) => !isKey(column))
            .map(([column, value]) => [column, plain(value)]),
        ),
      );
  }
  return all;
}

/** Pictures as base64; what is kept as JSON as what it is. */
function plain(value: unknown): unknown {
  if (Buffer.isBuffer(value)) return { base64: value.toString('base64') };
  if (typeof value !== 'string' || !/^[[{]/.test(value)) return value;
  try {
    return JSON.parse(value) as unknown;
  } catch {
    return value;
  }
}

async function namesIn({ manager, clinicId }: UnitOfWork, rows: Readonly<Record<string, readonly Row[]>>): Promise<Record<string, string>> {
  const users = await manager.find(User, { where: { clinicId }, select: { id: true, name: true } });
  const text = JSON.stringify(rows);
  return Object.fromEntries(users.filter(({ id }) => text.includes(id)).map(({ id, name }) => [id, name]));
}

/** Who looked at and changed the record, and when. */
function auditOf({ manager, clinicId }: UnitOfWork, people: readonly string[]): Promise<Row[]> {
  return manager.query<Row[]>(
    'SELECT e.at, u.name AS who, e.did, e.about FROM audit_entry e JOIN user u ON u.id = e.user_id WHERE e.clinic_id = ? AND e.patient_id IN (?) ORDER BY e.at, e.id',
    [clinicId, people],
  );
}
