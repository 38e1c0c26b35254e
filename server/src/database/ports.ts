import type { EntityManager } from 'typeorm';

/** Names by user id. */
export type Names = ReadonlyMap<string, string>;

/** Who a user of a clinic is. */
export interface NameDirectory {
  namesOf(manager: EntityManager, clinicId: string, userIds: readonly string[]): Promise<Names>;
}

/** What a record that a change is about is, for the audit. */
export type AuditSubject = 'patient' | 'episode' | 'visit' | 'measurement' | 'signature' | 'clip' | 'still' | 'none';

/** A field of a record that was changed. */
export interface AuditedChange {
  readonly clinicId: string;
  readonly userId: string;
  readonly at: Date;
  readonly did: 'changed';
  /** The field. */
  readonly about: string;
  readonly subject: AuditSubject;
  readonly subjectId: string;
  readonly digest: string;
}

/** Where changes are audited, in the transaction of the change. */
export interface AuditSink {
  write(manager: EntityManager, change: AuditedChange): Promise<void>;
}

/** What units of work need of records above the database; given where the server is composed. */
export interface DatabasePorts {
  readonly names: NameDirectory;
  readonly audit: AuditSink;
}
