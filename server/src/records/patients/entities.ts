import type { Sex } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, moment, text } from '../../database/columns.js';

/** A person in care. */
@Entity({ name: 'patient' })
export class Patient {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...text(100), name: 'given_name' }) givenName!: string;
  @Column({ ...text(100), name: 'family_name' }) familyName!: string;
  @Column({ ...day, name: 'birth_date' }) birthDate!: string;
  @Column(text(10)) sex!: Sex;
  @Column(text(120)) occupation!: string;
  /** What somebody says of their gender, in their words; norms go by sex. */
  @Column({ ...text(60), default: '' }) gender!: string;
  @Column({ ...text(40), name: 'file_number', default: '' }) fileNumber!: string;
  /** Counts up with every change. */
  @Column({ type: 'int', default: 0 }) revision!: number;
  /** Set for a record that went into another one of the same person. */
  @Column({ ...id, name: 'merged_into', nullable: true }) mergedInto!: string | null;
}

/** Two records that were made one, and perhaps taken apart again. */
@Entity({ name: 'patient_merge' })
export class PatientMergeRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'kept_id' }) keptId!: string;
  @Column({ ...id, name: 'gone_id' }) goneId!: string;
  /** Which episodes went over. */
  @Column({ type: 'simple-json' }) episodes!: string[];
  @Column({ ...id, name: 'merged_by' }) mergedBy!: string;
  @Column({ ...moment, name: 'merged_at' }) mergedAt!: Date;
  @Column({ ...id, name: 'undone_by', nullable: true }) undoneBy!: string | null;
  @Column({ ...moment, name: 'undone_at', nullable: true }) undoneAt!: Date | null;
}
