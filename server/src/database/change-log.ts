import { randomUUID } from 'node:crypto';
import { Column, Entity, PrimaryColumn, type EntityManager } from 'typeorm';
import { hashOf } from '../shared/hash.js';
import type { AuditSink } from './ports.js';
import type { Caller } from '../shared/caller.js';
import { id, moment, text } from './columns.js';

export type Subject = 'clinic' | 'user' | 'patient' | 'episode' | 'visit' | 'measurement';

/** What a record said before it was changed: old value, new value, who, when. The database refuses to change or delete one. */
@Entity({ name: 'change_log' })
export class ChangeRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(12)) subject!: Subject;
  @Column({ ...id, name: 'subject_id' }) subjectId!: string;
  @Column(text(30)) field!: string;
  @Column({ type: 'simple-json', name: 'old_value', nullable: true }) oldValue!: unknown;
  @Column({ type: 'simple-json', name: 'new_value', nullable: true }) newValue!: unknown;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  @Column({ ...moment, name: 'changed_at' }) changedAt!: Date;
}

/** A field with what it said and what it says now. */
export type FieldChange = readonly [field: string, before: unknown, after: unknown];

export const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** SHA-256 of a change, as the audit keeps it. */
export const changeDigest = (subject: string, subjectId: string, field: string, before: unknown, after: unknown): string =>
  hashOf(JSON.stringify([subject, subjectId, field, before ?? null, after ?? null]));

/** What the log wants of the unit of work it belongs to. */
interface Work {
  readonly manager: EntityManager;
  readonly caller: Caller;
  readonly clinicId: string;
  readonly now: Date;
  nameOf(id: string): Promise<string>;
}

/** The one place that writes down what stood before a change. */
export class ChangeLog {
  constructor(
    private readonly work: Work,
    private readonly audit: AuditSink,
  ) {}

  /** Writes what has changed; fields that say the same are left out. @returns the fields that did change */
  async write(subject: Subject, subjectId: string, changes: readonly FieldChange[]): Promise<readonly string[]> {
    const { clinicId, userId } = this.work.caller;
    const real = changes.filter(([, before, after]) => !same(before, after));
    if (real.length > 0)
      await this.work.manager.insert(
        ChangeRow,
        real.map(([field, oldValue, newValue]) => ({
          id: randomUUID(),
          clinicId,
          subject,
          subjectId,
          field,
          oldValue: (oldValue ?? null) as object,
          newValue: (newValue ?? null) as object,
          userId,
          changedAt: this.work.now,
        })),
      );
    for (const [field, before, after] of real)
      await this.audit.write(this.work.manager, {
        clinicId,
        userId,
        at: this.work.now,
        did: 'changed',
        about: field,
        subject: subject === 'clinic' || subject === 'user' ? 'none' : subject,
        subjectId,
        digest: changeDigest(subject, subjectId, field, before, after),
      });
    return real.map(([field]) => field);
  }

  /** Who changed a record last, or one field of it; null when nobody did. */
  async last(subject: Subject, subjectId: string, field?: string): Promise<{ userId: string; name: string } | null> {
    const { clinicId } = this.work;
    const where = { clinicId, subject, subjectId, ...(field ? { field } : {}) };
    const row = await this.work.manager.findOne(ChangeRow, { where, order: { changedAt: 'DESC' } });
    return row && { userId: row.userId, name: await this.work.nameOf(row.userId) };
  }

  /** What was changed after a moment, oldest first. */
  since(moment: Date, subjects: readonly { readonly subject: Subject; readonly ids: readonly string[] }[]): Promise<ChangeRow[]> {
    const { clinicId, manager } = this.work;
    const wanted = subjects.filter(({ ids }) => ids.length > 0);
    if (wanted.length === 0) return Promise.resolve([]);
    const query = manager
      .createQueryBuilder(ChangeRow, 'c')
      .where('c.clinicId = :clinicId AND c.changedAt > :moment', { clinicId, moment });
    const which = wanted.map((_, at) => `(c.subject = :subject${at} AND c.subjectId IN (:...ids${at}))`).join(' OR ');
    query.andWhere(
      `(${which})`,
      Object.fromEntries(
        wanted.flatMap(({ subject, ids }, at) => [
          [`subject${at}`, subject],
          [`ids${at}`, ids],
        ]),
      ),
    );
    return query.orderBy('c.changedAt', 'ASC').getMany();
  }
}
