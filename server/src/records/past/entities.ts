import type { NewPast } from '@dial-gauge/contract';
import type { Session } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

/** Old readings as they were brought in, and the rows they come from. Undone as a whole; never changed. */
@Entity({ name: 'past_batch' })
export class PastBatchRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'episode_id' }) episodeId!: string;
  @Column({ ...text(200), name: 'file_name' }) fileName!: string;
  /** Rows and choices, as they were sent. */
  @Column({ type: 'simple-json' }) kept!: Pick<NewPast, 'rows' | 'choices'>;
  /** What they came to. */
  @Column({ type: 'simple-json' }) sessions!: Session[];
  @Column({ type: 'int' }) readings!: number;
  @Column({ ...id, name: 'brought_by' }) broughtBy!: string;
  @Column({ ...moment, name: 'brought_at' }) broughtAt!: Date;
  @Column({ ...moment, name: 'undone_at', nullable: true }) undoneAt!: Date | null;
  @Column({ ...id, name: 'undone_by', nullable: true }) undoneBy!: string | null;
}
