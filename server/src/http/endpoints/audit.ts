import { AUDIT, AUDIT_PAGE, type AuditPage } from '@dial-gauge/contract';
import * as z from 'zod';
import { cursorOf, readCursor } from '../../shared/paging.js';
import { serve, type Resource } from '../endpoint.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { AuditEntryRow, AuditLinkRow, AuditOpenRow } from '../../records/audit/entities.js';

const Keys = z.tuple([z.iso.datetime(), z.uuid()]);

/** Who looked at and changed whose record: for the lead. */
export const audit: Resource = {
  entities: [AuditEntryRow, AuditOpenRow, AuditLinkRow],
  routes: [serve(AUDIT.audit, (work, { query }) => auditPage(work, query))],
};

async function auditPage(
  work: UnitOfWork,
  { patient, user, after }: { patient?: string; user?: string; after?: string },
): Promise<AuditPage> {
  const { manager, clinicId } = work;
  const query = manager
    .createQueryBuilder(AuditEntryRow, 'a')
    .leftJoin('user', 'u', 'u.clinic_id = a.clinic_id AND u.id = a.user_id')
    .leftJoin('patient', 'p', 'p.clinic_id = a.clinic_id AND p.id = a.patient_id')
    .select(['a.id AS id', 'a.at AS at', 'a.did AS did', 'a.about AS about', 'a.patient_id AS patientId', 'u.name AS `by`'])
    .addSelect("CONCAT(p.given_name, ' ', p.family_name)", 'patientName')
    .where('a.clinic_id = :clinicId', { clinicId });
  if (patient) query.andWhere('a.patient_id = :patient', { patient });
  if (user) query.andWhere('a.user_id = :user', { user });
  if (after) {
    const [at, id] = readCursor(after, Keys);
    query.andWhere('a.at <= :at AND (a.at < :at OR a.id < :id)', { at: new Date(at), id });
  }
  const found = await query
    .orderBy('a.at', 'DESC')
    .addOrderBy('a.id', 'DESC')
    .limit(AUDIT_PAGE + 1)
    .getRawMany<{
      id: string;
      at: Date;
      did: AuditEntryRow['did'];
      about: string;
      patientId: string | null;
      by: string;
      patientName: string | null;
    }>();
  const page = found.slice(0, AUDIT_PAGE);
  const last = page.at(-1);
  const people = await manager.query<{ id: string; name: string }[]>('SELECT id, name FROM user WHERE clinic_id = ? ORDER BY name, id', [
    clinicId,
  ]);
  return {
    rows: page.map(({ id, at, did, about, by, patientId, patientName }) => ({
      ...{ id, did, about, by },
      at: at.toISOString(),
      patient: patientId === null ? null : { id: patientId, name: patientName ?? 'somebody whose record was erased' },
    })),
    next: last && found.length > page.length ? cursorOf([last.at.toISOString(), last.id]) : null,
    people,
  };
}
