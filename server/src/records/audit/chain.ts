import { createHash, createHmac } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { changeDigest } from '../../database/change-log.js';
import { SIGNATURE_DIGEST } from './write.js';
import { isDuplicate } from '../../database/unit-of-work.js';
import type { AuditEntryRow } from './entities.js';

const BATCH = 500;
/** What the first link is made of, beside its entry. */
const BEGINNING = '0'.repeat(64);

type Entry = Pick<AuditEntryRow, 'id' | 'clinicId' | 'at' | 'userId' | 'did' | 'about' | 'patientId' | 'subjectId' | 'digest'>;

const ENTRY = `e.id, e.clinic_id AS clinicId, e.at, e.user_id AS userId, e.did, e.about, e.patient_id AS patientId, e.subject_id AS subjectId, e.digest`;

/**
 * The hash of a link. With the server's key nobody who has the database alone
 * can make the chain anew; without one it still shows what was changed by
 * somebody who did not.
 */
function linkHash(key: Buffer | null, before: string, entry: Entry): string {
  const { id, clinicId, at, userId, did, about, patientId, subjectId, digest } = entry;
  const text = JSON.stringify([before, id, clinicId, at.toISOString(), userId, did, about, patientId, subjectId, digest]);
  return (key ? createHmac('sha256', key) : createHash('sha256')).update(text).digest('hex');
}

/** Makes links of what is open, clinic by clinic. Two servers that do it at once meet at the number of the link: one of them tries again. */
export async function chainOpen(dataSource: DataSource, key: Buffer | null): Promise<void> {
  const clinics = await dataSource.query<{ clinic_id: string }[]>('SELECT DISTINCT clinic_id FROM audit_open');
  for (const { clinic_id } of clinics) while (await chainSome(dataSource, key, clinic_id));
}

/** @returns whether there may be more */
async function chainSome(dataSource: DataSource, key: Buffer | null, clinicId: string): Promise<boolean> {
  try {
    return await dataSource.transaction(async (manager) => {
      const open = await manager.query<Entry[]>(
        `SELECT ${ENTRY} FROM audit_open o JOIN audit_entry e ON e.id = o.entry_id WHERE o.clinic_id = ? ORDER BY e.at, e.id LIMIT ?`,
        [clinicId, BATCH],
      );
      if (open.length === 0) return false;
      const [last] = await manager.query<{ seq: number; hash: string }[]>(
        'SELECT seq, hash FROM audit_link WHERE clinic_id = ? ORDER BY seq DESC LIMIT 1',
        [clinicId],
      );
      let { seq, hash } = last ?? { seq: 0, hash: BEGINNING };
      const links = open.map((entry) => [clinicId, (seq += 1), entry.id, (hash = linkHash(key, hash, entry))]);
      await manager.query('INSERT INTO audit_link (clinic_id, seq, entry_id, hash) VALUES ?', [links]);
      await manager.query('DELETE FROM audit_open WHERE entry_id IN (?)', [open.map(({ id }) => id)]);
      return open.length === BATCH;
    });
  } catch (error) {
    if (isDuplicate(error)) return true;
    throw error;
  }
}

/** What a check of a clinic's chain comes to. */
export interface Checked {
  readonly clinicId: string;
  readonly links: number;
  /** The last link: noted down, it shows later whether the end of the chain was cut off. */
  readonly head: string;
  /** Entries that are no links yet. */
  readonly open: number;
  /** Where it breaks, and how; empty: it holds. */
  readonly faults: readonly string[];
}

const MOST_FAULTS = 20;

/** Walks the chain of a clinic from its beginning: every link has its entry as it was, none is missing, and no entry stands beside it. */
export async function checkChain(manager: EntityManager, key: Buffer | null, clinicId: string): Promise<Checked> {
  const faults: string[] = [];
  let before = BEGINNING;
  let seq = 0;
  for (;;) {
    const links = await manager.query<({ seq: number; hash: string; entry_id: string } & Omit<Entry, 'id'> & { id: string | null })[]>(
      `SELECT l.seq, l.hash, l.entry_id, ${ENTRY} FROM audit_link l LEFT JOIN audit_entry e ON e.id = l.entry_id
       WHERE l.clinic_id = ? AND l.seq > ? ORDER BY l.seq LIMIT ?`,
      [clinicId, seq, BATCH],
    );
    if (links.length === 0) break;
    for (const link of links) {
      if (link.seq !== seq + 1) faults.push(`links ${seq + 1} to ${link.seq - 1} are missing`);
      seq = link.seq;
      if (link.id === null) faults.push(`link ${seq}: its entry ${link.entry_id} is missing`);
      else if (linkHash(key, before, link as Entry) !== link.hash)
        faults.push(`link ${seq}: its entry ${link.entry_id}, or the link before it, is not what it was`);
      before = link.hash;
      if (faults.length >= MOST_FAULTS) return { clinicId, links: seq, head: before, open: 0, faults };
    }
  }
  const [beside] = await manager.query<{ n: string | number }[]>(
    `SELECT COUNT(*) AS n FROM audit_entry e LEFT JOIN audit_link l ON l.entry_id = e.id LEFT JOIN audit_open o ON o.entry_id = e.id
     WHERE e.clinic_id = ? AND l.entry_id IS NULL AND o.entry_id IS NULL`,
    [clinicId],
  );
  faults.push(
    ...(await changedSince(manager, clinicId)),
    ...(await signaturesSince(manager, clinicId)),
    ...(await erasedUnseen(manager, clinicId)),
  );
  if (Number(beside?.n ?? 0) > 0) faults.push(`${beside!.n} entries stand beside the chain`);
  const [open] = await manager.query<{ n: string | number }[]>('SELECT COUNT(*) AS n FROM audit_open WHERE clinic_id = ?', [clinicId]);
  return { clinicId, links: seq, head: before, open: Number(open?.n ?? 0), faults };
}

/** The record of an entry `e` was erased, and that stands in the audit itself: a row of the table of erasures alone proves nothing. */
const ERASED = `EXISTS (SELECT 1 FROM audit_entry x WHERE x.clinic_id = e.clinic_id AND x.patient_id = e.patient_id AND x.did = 'erased')`;

/** Signatures that are not there as they were signed, and signatures that no entry knows. */
async function signaturesSince(manager: EntityManager, clinicId: string): Promise<string[]> {
  const gone = await manager.query<{ id: string; subjectId: string }[]>(
    `SELECT e.id, e.subject_id AS subjectId FROM audit_entry e LEFT JOIN signature s ON s.clinic_id = e.clinic_id AND s.id = e.subject_id AND ${SIGNATURE_DIGEST} = e.digest
     WHERE e.clinic_id = ? AND e.did = 'signed' AND s.id IS NULL AND NOT ${ERASED} LIMIT ?`,
    [clinicId, MOST_FAULTS],
  );
  const unknown = await manager.query<{ id: string }[]>(
    `SELECT s.id FROM signature s LEFT JOIN audit_entry e ON e.clinic_id = s.clinic_id AND e.did = 'signed' AND e.subject_id = s.id
     WHERE s.clinic_id = ? AND e.id IS NULL LIMIT ?`,
    [clinicId, MOST_FAULTS],
  );
  return [
    ...gone.map(({ id, subjectId }) => `the signature ${subjectId} of entry ${id} is missing, or is not what was signed`),
    ...unknown.map(({ id }) => `the signature ${id} has no entry`),
  ];
}

/** Erasures that no entry knows. */
async function erasedUnseen(manager: EntityManager, clinicId: string): Promise<string[]> {
  const rows = await manager.query<{ id: string }[]>(
    `SELECT x.id FROM erasure x LEFT JOIN audit_entry e ON e.clinic_id = x.clinic_id AND e.did = 'erased' AND e.patient_id = x.patient_id
     WHERE x.clinic_id = ? AND e.id IS NULL LIMIT ?`,
    [clinicId, MOST_FAULTS],
  );
  return rows.map(({ id }) => `the erasure ${id} has no entry`);
}

/** Changes in the change log that are not what the audit says of them. */
async function changedSince(manager: EntityManager, clinicId: string): Promise<string[]> {
  const faults: string[] = [];
  for (let after = ''; ;) {
    const rows = await manager.query<
      {
        id: string;
        about: string;
        digest: string;
        subject: string | null;
        subjectId: string;
        oldValue: string | null;
        newValue: string | null;
      }[]
    >(
      `SELECT e.id, e.about, e.digest, c.subject, e.subject_id AS subjectId, c.old_value AS oldValue, c.new_value AS newValue FROM audit_entry e
       LEFT JOIN change_log c ON c.clinic_id = e.clinic_id AND c.subject_id = e.subject_id AND c.field = e.about AND c.changed_at = e.at
       WHERE e.clinic_id = ? AND e.did = 'changed' AND e.id > ? AND NOT ${ERASED} ORDER BY e.id LIMIT ?`,
      [clinicId, after, BATCH],
    );
    if (rows.length === 0) return faults;
    after = rows.at(-1)!.id;
    const parsed = (json: string | null): unknown => (json === null ? null : (JSON.parse(json) as unknown));
    const fits = (row: (typeof rows)[number]): boolean =>
      row.subject !== null &&
      row.digest === changeDigest(row.subject, row.subjectId, row.about, parsed(row.oldValue), parsed(row.newValue));
    // Two changes of one field at one moment stand side by side: one of them fits.
    const good = new Set(rows.filter(fits).map(({ id }) => id));
    for (const id of new Set(rows.map((row) => row.id)))
      if (!good.has(id) && faults.length < MOST_FAULTS) faults.push(`the change of entry ${id} is not in the change log as it was`);
  }
}
