import type { CautionsView, Marker, NotDone, PlanView } from '@dial-gauge/contract';
import type {
  DeviceScale,
  EndFeel,
  GoalChoice,
  HandWidths,
  Instrument,
  InvolvedSide,
  Joint,
  Judgement,
  Mode,
  MotionId,
  NormEntry,
  Position,
  Precaution,
  Ranking,
  Sex,
  SheetItem,
  Side,
  StudyTurn,
  Thresholds,
} from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/*
 * Every row but the clinic's own carries the clinic it belongs to. In the
 * database each foreign key is the pair (clinic, id), so a row can never hang
 * below another clinic's row whatever the code above does.
 */
const id = { type: 'char', length: 36 } as const;
const day = { type: 'date' } as const;
const moment = { type: 'datetime', precision: 3 } as const;
const angle = { type: 'decimal', precision: 5, scale: 1 } as const;
const figure = { type: 'decimal', precision: 7, scale: 2 } as const;
const text = (length: number) => ({ type: 'varchar', length }) as const;

@Entity({ name: 'clinic' })
export class Clinic {
  @PrimaryColumn(id) id!: string;
  @Column(text(120)) name!: string;
  @Column({ ...text(60), name: 'norm_set' }) normSet!: string;
  /** null: those that come with the program. */
  @Column({ type: 'simple-json', nullable: true }) thresholds!: Thresholds | null;
  /** Fist and finger, in cm; null: assumed. */
  @Column({ type: 'simple-json', name: 'hand_widths', nullable: true }) handWidths!: HandWidths | null;
  /** Which loss comes first. */
  @Column({ ...text(30), default: 'largest-first' }) ranking!: Ranking;
}

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

/** What the clinic judged by before it was changed: old value, new value, who, when. */
@Entity({ name: 'clinic_change' })
export class ClinicChange {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(30)) field!: string;
  @Column({ type: 'simple-json', name: 'old_value' }) oldValue!: unknown;
  @Column({ type: 'simple-json', name: 'new_value' }) newValue!: unknown;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  @Column({ ...moment, name: 'changed_at' }) changedAt!: Date;
}

@Entity({ name: 'user' })
export class User {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(200)) email!: string;
  @Column(text(120)) name!: string;
  @Column({ ...text(200), name: 'password_hash' }) passwordHash!: string;
}

@Entity({ name: 'session' })
export class SessionRow {
  /** SHA-256 of the cookie's session id: a copy of the table signs nobody in. */
  @PrimaryColumn({ type: 'char', length: 64 }) id!: string;
  @Column({ type: 'text' }) data!: string;
  @Column({ ...moment, name: 'expires_at' }) expiresAt!: Date;
}

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

/** What a clinic measures for a complaint, beside the ready sets. */
@Entity({ name: 'exam_set' })
export class ExamSetRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(80)) name!: string;
  @Column({ type: 'simple-json' }) items!: SheetItem[];
  @Column({ ...id, name: 'added_by' }) addedBy!: string;
  @Column({ ...moment, name: 'added_at' }) addedAt!: Date;
  @Column({ ...moment, name: 'removed_at', nullable: true }) removedAt!: Date | null;
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
  @Column(text(80)) protocol!: string;
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
  /** A limit that was passed, and why; null with a reason: it was not to be measured at all. */
  @Column({ ...angle, name: 'past_limit', nullable: true }) pastLimit!: number | null;
  @Column({ ...text(300), name: 'past_why', default: '' }) pastWhy!: string;
  /** The reading that this one puts right. */
  @Column({ ...id, nullable: true }) corrects!: string | null;
  @Column({ ...id, name: 'examiner_id' }) examinerId!: string;
  @Column({ ...moment, name: 'held_at' }) heldAt!: Date;
  @Column({ ...moment, name: 'saved_at' }) savedAt!: Date;
  @Column({ ...moment, name: 'withdrawn_at', nullable: true }) withdrawnAt!: Date | null;
  @Column({ ...id, name: 'withdrawn_by', nullable: true }) withdrawnBy!: string | null;
  @Column({ ...text(300), name: 'withdrawn_why', default: '' }) withdrawnWhy!: string;
}

/** What a remark said before it was changed: old value, new value, who, when. */
@Entity({ name: 'amendment' })
export class Amendment {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'measurement_id' }) measurementId!: string;
  @Column(text(30)) field!: string;
  @Column({ type: 'simple-json', name: 'old_value' }) oldValue!: string | number | string[] | null;
  @Column({ type: 'simple-json', name: 'new_value' }) newValue!: string | number | string[] | null;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  @Column({ ...moment, name: 'amended_at' }) amendedAt!: Date;
}

export const ENTITIES = [
  Clinic,
  User,
  SessionRow,
  Patient,
  Episode,
  Visit,
  MeasurementRow,
  TrialRow,
  Amendment,
  NormSetRow,
  ClinicChange,
  ExamSetRow,
  RecordChange,
  Signature,
  GoalRow,
  RetestRow,
  RetestRoundRow,
  RetestReadingRow,
  StudyRow,
  StudyReadingRow,
  OwnErrorRow,
];
