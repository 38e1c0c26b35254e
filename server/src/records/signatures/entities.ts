import type { EpisodeView, GoalView, PatientView } from '@dial-gauge/contract';
import type { Judgement } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

export interface SignedContext {
  readonly patient: PatientView;
  readonly episode: EpisodeView;
  readonly goals: readonly GoalView[];
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
  /** Whose it was, what the episode was about and what was aimed at, as they stood then; null for those signed before this was kept. */
  @Column({ type: 'simple-json', nullable: true }) context!: SignedContext | null;
}

/** That the lead has read a signature and stands by it. */
@Entity({ name: 'countersignature' })
export class Countersignature {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'signature_id' }) signatureId!: string;
  @Column({ ...id, name: 'signed_by' }) signedBy!: string;
  @Column({ ...moment, name: 'signed_at' }) signedAt!: Date;
}
