import type { HandWidths, NormEntry, Ranking, SheetItem, Thresholds } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from './columns.js';

@Entity({ name: 'clinic' })
export class Clinic {
  @PrimaryColumn(id) id!: string;
  @Column(text(120)) name!: string;
  @Column({ ...text(60), name: 'norm_set' }) normSet!: string;
  /** null: those that come with the program. */
  @Column({ type: 'simple-json', nullable: true }) thresholds!: Thresholds | null;
  /** Fist and finger, in cm; null: assumed. */
  @Column({ type: 'simple-json', name: 'hand_widths', nullable: true }) handWidths!: HandWidths | null;
  /** Which loss comes first. */
  @Column({ ...text(30), default: 'largest-first' }) ranking!: Ranking;
}

/** A norm set that the clinic brought in. Taken out of use, it stays on record. */
@Entity({ name: 'norm_set' })
export class NormSetRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...text(60), name: 'set_id' }) setId!: string;
  @Column(text(160)) title!: string;
  @Column({ ...text(60), name: 'short_name' }) short!: string;
  @Column({ type: 'smallint', nullable: true }) year!: number | null;
  @Column({ ...text(160), name: 'found_at' }) where!: string;
  @Column(text(500)) cite!: string;
  @Column({ type: 'boolean', name: 'from_memory' }) fromMemory!: boolean;
  @Column({ type: 'simple-json' }) entries!: NormEntry[];
  @Column({ ...id, name: 'added_by' }) addedBy!: string;
  @Column({ ...moment, name: 'added_at' }) addedAt!: Date;
  @Column({ ...moment, name: 'removed_at', nullable: true }) removedAt!: Date | null;
  @Column({ ...id, name: 'removed_by', nullable: true }) removedBy!: string | null;
}

/** What the clinic judged by before it was changed: old value, new value, who, when. */
@Entity({ name: 'clinic_change' })
export class ClinicChange {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(30)) field!: string;
  @Column({ type: 'simple-json', name: 'old_value' }) oldValue!: unknown;
  @Column({ type: 'simple-json', name: 'new_value' }) newValue!: unknown;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  @Column({ ...moment, name: 'changed_at' }) changedAt!: Date;
}

@Entity({ name: 'user' })
export class User {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(200)) email!: string;
  @Column(text(120)) name!: string;
  @Column({ ...text(200), name: 'password_hash' }) passwordHash!: string;
}

@Entity({ name: 'session' })
export class SessionRow {
  /** SHA-256 of the cookie's session id: a copy of the table signs nobody in. */
  @PrimaryColumn({ type: 'char', length: 64 }) id!: string;
  @Column({ type: 'text' }) data!: string;
  @Column({ ...moment, name: 'expires_at' }) expiresAt!: Date;
}

/** What a clinic measures for a complaint, beside the ready sets. */
@Entity({ name: 'exam_set' })
export class ExamSetRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(80)) name!: string;
  @Column({ type: 'simple-json' }) items!: SheetItem[];
  @Column({ ...id, name: 'added_by' }) addedBy!: string;
  @Column({ ...moment, name: 'added_at' }) addedAt!: Date;
  @Column({ ...moment, name: 'removed_at', nullable: true }) removedAt!: Date | null;
}
