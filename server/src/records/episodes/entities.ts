import type { InvolvedSide, Joint, Precaution, QueueStanding } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, moment, text } from '../../database/columns.js';

/** What somebody is in care for. */
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
  /** When they are to be measured again. */
  @Column({ ...day, name: 'due_on', nullable: true }) dueOn!: string | null;
  /** What the caseload is ordered by: family name first; the visit seen last, or the day of opening; how many visits. */
  @Column({ ...text(202), name: 'sort_name', default: '' }) sortName!: string;
  @Column({ ...moment, name: 'latest_at', default: '1970-01-02' }) latestAt!: Date;
  @Column({ type: 'int', name: 'visit_count', default: 0 }) visitCount!: number;
  @Column({ ...id, name: 'last_visit_id', nullable: true }) lastVisitId!: string | null;
  /** null: in care. */
  @Column({ ...day, name: 'ended_on', nullable: true }) endedOn!: string | null;
  @Column({ ...text(20), nullable: true }) outcome!: string | null;
  @Column({ ...text(300), name: 'ended_note', default: '' }) endedNote!: string;
  @Column({ ...id, name: 'ended_by', nullable: true }) endedBy!: string | null;
  /** Where it stands in the queue: what that is ordered by, and why, as it was told last. */
  @Column({ ...text(20), name: 'rank_key', default: '9' }) rankKey!: string;
  @Column({ type: 'simple-json', name: 'queue_standing', nullable: true }) queueStanding!: QueueStanding | null;
  /** Who examined last. */
  @Column({ ...id, name: 'whose_id', nullable: true }) whoseId!: string | null;
  /** Counts up with whatever is entered; 0: told since. And the day from which on it has to be told anew anyway. */
  @Column({ type: 'int', default: 1 }) stale!: number;
  @Column({ ...day, name: 'stale_on', default: '1970-01-01' }) staleOn!: string;
  /** Until when somebody has looked at what came from the person's page. */
  @Column({ ...moment, name: 'messages_seen_at', nullable: true }) messagesSeenAt!: Date | null;
}

/** The words an episode is found by. */
@Entity({ name: 'episode_word' })
export class EpisodeWord {
  @PrimaryColumn({ ...id, name: 'clinic_id' }) clinicId!: string;
  @PrimaryColumn(text(40)) word!: string;
  @PrimaryColumn({ ...id, name: 'episode_id' }) episodeId!: string;
}
