import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

/** That the record of a person was erased. Open only within the transaction that erases: nothing else is deleted meanwhile. */
@Entity({ name: 'erasure' })
export class ErasureRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'patient_id' }) patientId!: string;
  @Column(text(300)) why!: string;
  @Column({ ...id, name: 'erased_by' }) erasedBy!: string;
  @Column({ ...moment, name: 'erased_at' }) erasedAt!: Date;
  /** How many rows of each table went. */
  @Column({ type: 'simple-json', name: 'row_counts' }) rowCounts!: Record<string, number>;
  @Column({ ...moment, name: 'finished_at', nullable: true }) finishedAt!: Date | null;
}
