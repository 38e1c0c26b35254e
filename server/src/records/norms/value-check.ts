import type { Figures, ValueKind } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, moment, text } from '../../database/columns.js';

/** A value that somebody looked up. The last one about a value stands; those before stay on record. */
@Entity({ name: 'value_check' })
export class ValueCheckRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(10)) kind!: ValueKind;
  @Column({ ...text(60), name: 'of_id' }) of!: string;
  @Column({ ...text(500), name: 'value_key' }) key!: string;
  /** What the program held. */
  @Column({ type: 'simple-json' }) held!: Figures;
  /** What the source prints; none: the same. */
  @Column({ type: 'simple-json', nullable: true }) corrected!: Figures | null;
  @Column(text(300)) source!: string;
  @Column(text(120)) edition!: string;
  @Column(text(60)) page!: string;
  /** Taken back: the value counts as from memory again. */
  @Column({ type: 'boolean' }) withdrawn!: boolean;
  /** Who looked it up, where that was somebody of another clinic. */
  @Column({ ...text(120), name: 'said_by', nullable: true }) saidBy!: string | null;
  @Column({ ...day, name: 'checked_on' }) checkedOn!: string;
  @Column({ ...id, name: 'checked_by' }) checkedBy!: string;
  @Column({ ...moment, name: 'checked_at' }) checkedAt!: Date;
  /** The one that stood before. */
  @Column({ ...id, nullable: true }) follows!: string | null;
}
