import type { NotDone } from '@dial-gauge/contract';
import type { DeviceScale, EndFeel, Instrument, Mode, MotionId, Position, Side } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, angle, text } from '../../database/columns.js';

@Entity({ name: 'measurement' })
export class MeasurementRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  @Column(text(60)) motion!: MotionId;
  @Column(text(10)) side!: Side;
  @Column(text(10)) mode!: Mode;
  @Column(text(20)) position!: Position;
  /** Empty for the usual protocol of the position. */
  @Column(text(40)) variant!: string;
  /** Finger 1–5; 0 where none belongs. */
  @Column({ type: 'tinyint' }) digit!: number;
  /** Protocol and version the readings were taken by. */
  @Column(text(110)) protocol!: string;
  @Column({ type: 'tinyint', nullable: true }) pain!: number | null;
  @Column({ ...text(200), name: 'pain_where' }) painWhere!: string;
  @Column({ ...text(10), name: 'end_feel', nullable: true }) endFeel!: EndFeel | null;
  @Column({ type: 'simple-json' }) substitutions!: string[];
  /** Why there is no reading. */
  @Column({ ...text(15), name: 'not_done', nullable: true }) notDone!: NotDone | null;
  @Column({ ...text(300), name: 'not_done_why', default: '' }) notDoneWhy!: string;
  @Column({ ...text(1000), default: '' }) note!: string;
}

/** A held reading as entered. Never changed and never deleted: undoing it fills the withdrawal, correcting it adds another that points back. */
@Entity({ name: 'trial' })
export class TrialRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'measurement_id' }) measurementId!: string;
  @Column(text(20)) instrument!: Instrument;
  @Column({ ...angle, name: 'start_angle' }) startAngle!: number;
  @Column({ ...angle, name: 'end_angle' }) endAngle!: number;
  /** The lower site of a reading at two. */
  @Column({ ...angle, name: 'lower_zero', nullable: true }) lowerZero!: number | null;
  @Column({ ...angle, name: 'lower_end', nullable: true }) lowerEnd!: number | null;
  /** How the device counts, where it was not set to zero. */
  @Column({ ...text(10), nullable: true }) scale!: DeviceScale | null;
  @Column({ type: 'tinyint', nullable: true }) sense!: 1 | -1 | null;
  /** As it was entered, where it was converted. */
  @Column({ ...text(80), default: '' }) entered!: string;
  /** Read off simulated instruments. */
  @Column({ type: 'boolean', default: false }) simulated!: boolean;
  /** A limit that was passed, and why; null with a reason: it was not to be measured at all. */
  @Column({ ...angle, name: 'past_limit', nullable: true }) pastLimit!: number | null;
  @Column({ ...text(300), name: 'past_why', default: '' }) pastWhy!: string;
  /** The reading that this one puts right. */
  @Column({ ...id, nullable: true }) corrects!: string | null;
  @Column({ ...id, name: 'examiner_id' }) examinerId!: string;
  @Column({ ...moment, name: 'held_at' }) heldAt!: Date;
  /** By how many seconds the device's clock was off, where `heldAt` was put right by it. */
  @Column({ type: 'int', name: 'clock_off', nullable: true }) clockOff!: number | null;
  @Column({ ...moment, name: 'saved_at' }) savedAt!: Date;
  @Column({ ...moment, name: 'withdrawn_at', nullable: true }) withdrawnAt!: Date | null;
  @Column({ ...id, name: 'withdrawn_by', nullable: true }) withdrawnBy!: string | null;
  @Column({ ...text(300), name: 'withdrawn_why', default: '' }) withdrawnWhy!: string;
}
