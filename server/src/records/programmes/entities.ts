import type { NewProgram } from '@dial-gauge/contract';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, moment, text } from '../../database/columns.js';

/** A programme as it was given. Never changed: a change is another one. */
@Entity({ name: 'program' })
export class ProgramRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  /** The first of its visit is 1. */
  @Column({ type: 'int' }) number!: number;
  @Column({ type: 'simple-json' }) choices!: NewProgram['choices'];
  @Column({ type: 'simple-json' }) drills!: NewProgram['drills'];
  @Column({ ...day, name: 'recheck_on' }) recheckOn!: string;
  @Column(text(1000)) note!: string;
  @Column({ ...id, name: 'given_by' }) givenBy!: string;
  @Column({ ...moment, name: 'given_at' }) givenAt!: Date;
}
