import type { Drawn, ExerciseId } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

/** A round of practice: its tasks as they were drawn. Never altered. */
@Entity({ name: 'practice_round' })
export class PracticeRoundRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(20)) exercise!: ExerciseId;
  @Column({ type: 'boolean', name: 'is_shared' }) isShared!: boolean;
  @Column(text(60)) name!: string;
  @Column({ type: 'int' }) seed!: number;
  @Column({ type: 'simple-json' }) tasks!: Drawn[];
  @Column({ ...id, name: 'started_by' }) startedBy!: string;
  @Column({ ...moment, name: 'started_at' }) startedAt!: Date;
}

/** One answer of one person, as it was given: what it comes to follows from it. Never altered. */
@Entity({ name: 'practice_answer' })
export class PracticeAnswerRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'round_id' }) roundId!: string;
  @Column({ type: 'int' }) task!: number;
  @Column({ type: 'simple-json' }) answer!: Record<string, unknown>;
  @Column({ ...id, name: 'answered_by' }) answeredBy!: string;
  @Column({ ...moment, name: 'answered_at' }) answeredAt!: Date;
}
