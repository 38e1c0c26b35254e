import type { CautionsView, PlanView } from '@dial-gauge/contract';
import type { InvolvedSide, Joint, Judgement, Precaution, Sex, SheetItem } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, day, moment, text } from './columns.js';

@Entity({ name: 'patient' })
export class Patient {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...text(100), name: 'given_name' }) givenName!: string;
  @Column({ ...text(100), name: 'family_name' }) familyName!: string;
  @Column({ ...day, name: 'birth_date' }) birthDate!: string;
  @Column(text(10)) sex!: Sex;
  @Column(text(120)) occupation!: string;
}

@Entity({ name: 'episode' })
export class Episode {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'patient_id' }) patientId!: string;
  @Column(text(300)) complaint!: string;
  @Column({ ...text(10), name: 'involved_side', nullable: true }) involvedSide!: InvolvedSide | null;
  @Column({ ...day, name: 'opened_on' }) openedOn!: string;
  /** Id of a procedure that the program knows. */
  @Column({ ...text(60), name: 'procedure_id', nullable: true }) procedureId!: string | null;
  @Column({ ...text(160), name: 'procedure_name', default: '' }) procedure!: string;
  @Column({ ...day, name: 'procedure_on', nullable: true }) procedureOn!: string | null;
  @Column({ ...text(10), name: 'dominant_side', nullable: true }) dominantSide!: 'left' | 'right' | 'both' | null;
  @Column({ ...text(300), default: '' }) wanted!: string;
  /** Which joint the complaint is about. */
  @Column({ ...text(20), name: 'complaint_at', nullable: true }) complaintAt!: Joint | null;
  /** null: none. */
  @Column({ type: 'simple-json', nullable: true }) precautions!: Precaution[] | null;
  /** Counts up with every change, so that two examiners do not overwrite each other. */
  @Column({ type: 'int', default: 0 }) revision!: number;
}

/** What an episode or a visit said before it was changed: old value, new value, who, when. */
@Entity({ name: 'record_change' })
export class RecordChange {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(10)) subject!: 'episode' | 'visit';
  @Column({ ...id, name: 'subject_id' }) subjectId!: string;
  @Column(text(30)) field!: string;
  @Column({ type: 'simple-json', name: 'old_value', nullable: true }) oldValue!: unknown;
  @Column({ type: 'simple-json', name: 'new_value', nullable: true }) newValue!: unknown;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  @Column({ ...moment, name: 'changed_at' }) changedAt!: Date;
}

@Entity({ name: 'visit' })
export class Visit {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'episode_id' }) episodeId!: string;
  @Column({ ...id, name: 'examiner_id' }) examinerId!: string;
  @Column({ ...day, name: 'assessed_on' }) assessedOn!: string;
  @Column({ ...moment, name: 'started_at' }) startedAt!: Date;
  /** What is to be measured; null: the default set. */
  @Column({ type: 'simple-json', nullable: true }) sheet!: SheetItem[] | null;
  /** Answers to the caution questions; null: not asked yet. */
  @Column({ type: 'simple-json', nullable: true }) cautions!: CautionsView | null;
  /** The run sheet as it was prepared; null: planned from the sheet. */
  @Column({ type: 'simple-json', nullable: true }) plan!: PlanView | null;
  @Column({ type: 'int', default: 0 }) revision!: number;
  /** The summary as somebody wrote it; null: as drafted. */
  @Column({ type: 'text', nullable: true }) summary!: string | null;
  /** Signed, and not being amended. */
  @Column({ type: 'boolean', default: false }) signed!: boolean;
  /** Why a signed visit is being amended. */
  @Column({ type: 'simple-json', nullable: true }) amending!: { why: string; by: string; at: string } | null;
}

/** A signature with its own copy of what was found. A visit that is amended gets another one; none is ever changed. */
@Entity({ name: 'signature' })
export class Signature {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  @Column({ type: 'int' }) number!: number;
  @Column({ type: 'text' }) summary!: string;
  @Column({ ...text(300), default: '' }) why!: string;
  @Column({ type: 'simple-json' }) judgement!: Judgement;
  @Column({ ...id, name: 'signed_by' }) signedBy!: string;
  @Column({ ...moment, name: 'signed_at' }) signedAt!: Date;
}
