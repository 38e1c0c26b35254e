import type { GoalChoice, Mode, Side } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

/** Where the goal of a measurement comes from. The latest counts; null takes it back. */
@Entity({ name: 'goal' })
export class GoalRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'episode_id' }) episodeId!: string;
  @Column(text(90)) protocol!: string;
  @Column({ type: 'tinyint' }) digit!: number;
  @Column(text(10)) side!: Side;
  @Column(text(10)) mode!: Mode;
  @Column({ type: 'simple-json', nullable: true }) choice!: GoalChoice | null;
  @Column({ ...id, name: 'set_by' }) setBy!: string;
  @Column({ ...moment, name: 'set_at' }) setAt!: Date;
}
