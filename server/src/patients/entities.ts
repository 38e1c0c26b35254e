import type { Sex } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, text } from '../platform/columns.js';

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
}
