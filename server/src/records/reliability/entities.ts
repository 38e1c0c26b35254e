import type { Instrument, Mode, MotionId, StudyTurn } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, day, moment, figure, text } from '../../database/columns.js';

/** A study of the clinic's own measuring error. */
@Entity({ name: 'study' })
export class StudyRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(80)) name!: string;
  @Column(text(60)) motion!: MotionId;
  @Column(text(90)) protocol!: string;
  @Column({ type: 'tinyint' }) digit!: number;
  @Column(text(10)) mode!: Mode;
  @Column(text(20)) instrument!: Instrument;
  @Column(text(10)) kind!: 'repeats' | 'raters';
  @Column({ type: 'int' }) subjects!: number;
  @Column({ type: 'int' }) raters!: number;
  /** Who is read when. */
  @Column({ type: 'simple-json' }) turns!: StudyTurn[];
  /** The round of practice it was read in; null for a study of people. */
  @Column({ ...id, name: 'practice_round_id', nullable: true }) practiceRoundId!: string | null;
  @Column({ ...id, name: 'started_by' }) startedBy!: string;
  @Column({ ...moment, name: 'started_at' }) startedAt!: Date;
}

/** One blinded reading. Never changed: the latest of a subject and rater counts. */
@Entity({ name: 'study_reading' })
export class StudyReadingRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'study_id' }) studyId!: string;
  @Column({ type: 'int' }) subject!: number;
  @Column({ type: 'int' }) rater!: number;
  @Column(figure) value!: number;
  @Column({ ...id, name: 'held_by' }) heldBy!: string;
  @Column({ ...moment, name: 'held_at' }) heldAt!: Date;
}

/** An error that the clinic judges by, from a study of its own. Taken out of use, it stays on record. */
@Entity({ name: 'own_error' })
export class OwnErrorRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'study_id' }) studyId!: string;
  @Column(text(60)) motion!: MotionId;
  @Column(text(20)) instrument!: Instrument;
  @Column(text(90)) protocol!: string;
  @Column(text(10)) examiners!: 'same' | 'other';
  @Column(text(15)) basis!: 'agreement' | 'consistency';
  @Column({ type: 'double' }) sem!: number;
  @Column({ type: 'int' }) subjects!: number;
  @Column({ type: 'int' }) raters!: number;
  @Column({ ...day, name: 'adopted_on' }) adoptedOn!: string;
  @Column({ ...id, name: 'adopted_by' }) adoptedBy!: string;
  @Column({ ...moment, name: 'adopted_at' }) adoptedAt!: Date;
  @Column({ ...moment, name: 'removed_at', nullable: true }) removedAt!: Date | null;
  @Column({ ...id, name: 'removed_by', nullable: true }) removedBy!: string | null;
}
