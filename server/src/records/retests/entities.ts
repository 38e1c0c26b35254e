import type { Marker } from '@dial-gauge/contract';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { figure, id, moment, text } from '../../database/columns.js';

/** Markers read before and after drills within one visit. */
@Entity({ name: 'retest' })
export class RetestRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  @Column({ type: 'simple-json' }) markers!: Marker[];
  @Column({ ...id, name: 'started_by' }) startedBy!: string;
  @Column({ ...moment, name: 'started_at' }) startedAt!: Date;
  @Column({ ...moment, name: 'finished_at', nullable: true }) finishedAt!: Date | null;
}

/** What was done before the readings of a round. */
@Entity({ name: 'retest_round' })
export class RetestRoundRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'retest_id' }) retestId!: string;
  @Column({ type: 'int' }) number!: number;
  @Column(text(120)) drill!: string;
  @Column({ ...id, name: 'noted_by' }) notedBy!: string;
  @Column({ ...moment, name: 'noted_at' }) notedAt!: Date;
}

/** One marker read in one round. Never changed: the latest of a marker and round counts. */
@Entity({ name: 'retest_reading' })
export class RetestReadingRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'retest_id' }) retestId!: string;
  @Column({ type: 'int' }) round!: number;
  @Column({ type: 'int' }) marker!: number;
  @Column(figure) value!: number;
  @Column({ ...id, name: 'held_by' }) heldBy!: string;
  @Column({ ...moment, name: 'held_at' }) heldAt!: Date;
}
