import { Column, Entity, PrimaryColumn } from 'typeorm';
import { angle, day, id, moment, text } from '../../database/columns.js';

/** A count of the clinic's own readings: asked for, leased by the server that does it, finished. */
@Entity({ name: 'cohort_run' })
export class CohortRun {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...moment, name: 'asked_at' }) askedAt!: Date;
  /** null: by itself. */
  @Column({ ...id, name: 'asked_by', nullable: true }) askedBy!: string | null;
  /** The visit up to which it has come. */
  @Column({ ...text(36), name: 'after_visit', default: '' }) afterVisit!: string;
  @Column({ type: 'boolean', default: false }) gathered!: boolean;
  @Column({ type: 'int', default: 0 }) visits!: number;
  @Column({ type: 'int', default: 0 }) readings!: number;
  @Column({ ...moment, name: 'lease_until' }) leaseUntil!: Date;
  @Column({ ...text(36), name: 'leased_by' }) leasedBy!: string;
  @Column({ ...moment, name: 'finished_at', nullable: true }) finishedAt!: Date | null;
}

/** What it gathers by person while it counts; gone once it has told. */
@Entity({ name: 'cohort_person' })
export class CohortPerson {
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @PrimaryColumn({ ...id, name: 'run_id' }) runId!: string;
  @PrimaryColumn(text(60)) motion!: string;
  @PrimaryColumn(text(20)) position!: string;
  @PrimaryColumn(text(40)) variant!: string;
  @PrimaryColumn({ type: 'tinyint' }) digit!: number;
  @PrimaryColumn(text(10)) mode!: string;
  @PrimaryColumn({ ...id, name: 'patient_id' }) patientId!: string;
  @Column(text(110)) protocol!: string;
  @Column(text(10)) sex!: string;
  @Column({ type: 'tinyint' }) age!: number;
  @Column({ ...id, name: 'examiner_id' }) examinerId!: string;
  @Column({ ...day, name: 'on_day' }) onDay!: string;
  @Column(angle) value!: number;
}

/** The same by week after a procedure. */
@Entity({ name: 'cohort_outcome' })
export class CohortOutcome {
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @PrimaryColumn({ ...id, name: 'run_id' }) runId!: string;
  @PrimaryColumn({ ...text(60), name: 'procedure_id' }) procedureId!: string;
  @PrimaryColumn(text(60)) motion!: string;
  @PrimaryColumn(text(20)) position!: string;
  @PrimaryColumn(text(40)) variant!: string;
  @PrimaryColumn({ type: 'tinyint' }) digit!: number;
  @PrimaryColumn(text(10)) mode!: string;
  @PrimaryColumn({ type: 'tinyint' }) week!: number;
  @PrimaryColumn({ ...id, name: 'patient_id' }) patientId!: string;
  @Column(text(110)) protocol!: string;
  @Column({ ...day, name: 'on_day' }) onDay!: string;
  @Column(angle) value!: number;
}

/** What it told: groups, and nobody by name. */
@Entity({ name: 'cohort_told' })
export class CohortTold {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'run_id' }) runId!: string;
  @Column(text(10)) kind!: 'norm' | 'outcome' | 'examiner';
  @Column({ type: 'mediumtext' }) told!: string;
}
