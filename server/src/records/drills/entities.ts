import type { OwnDrill } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

/** One version of a clinic's drill. Never altered: a change, or taking it out of use, is another one. */
@Entity({ name: 'drill_version' })
export class DrillVersionRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...text(44), name: 'drill_id' }) drillId!: string;
  @Column({ type: 'int' }) version!: number;
  @Column({ type: 'boolean', name: 'in_use' }) inUse!: boolean;
  @Column({ type: 'simple-json' }) drill!: OwnDrill;
  @Column({ ...id, name: 'made_by' }) madeBy!: string;
  @Column({ ...moment, name: 'made_at' }) madeAt!: Date;
}
