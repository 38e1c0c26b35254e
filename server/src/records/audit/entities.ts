import type { AuditDeed } from '@dial-gauge/contract';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, sha256, text } from '../../database/columns.js';

/** That somebody looked at, or changed, something. The database refuses to change or delete one. */
@Entity({ name: 'audit_entry' })
export class AuditEntryRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(moment) at!: Date;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  @Column(text(12)) did!: AuditDeed;
  @Column(text(60)) about!: string;
  @Column({ ...id, name: 'patient_id', nullable: true }) patientId!: string | null;
  /** What it was about: a visit, an episode, a change. */
  @Column({ ...text(64), name: 'subject_id' }) subjectId!: string;
  /** SHA-256 of what was changed, as the change log has it. */
  @Column({ ...sha256, nullable: true }) digest!: string | null;
}

/** An entry that is no link of the chain yet. */
@Entity({ name: 'audit_open' })
export class AuditOpenRow {
  @PrimaryColumn({ ...id, name: 'entry_id' }) entryId!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
}

/** A link of the chain: made of the one before it and of its entry. */
@Entity({ name: 'audit_link' })
export class AuditLinkRow {
  @PrimaryColumn({ ...id, name: 'clinic_id' }) clinicId!: string;
  @PrimaryColumn({ type: 'int' }) seq!: number;
  @Column({ ...id, name: 'entry_id' }) entryId!: string;
  @Column(sha256) hash!: string;
}
