import type { NormEntry } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

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
