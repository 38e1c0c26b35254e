import type { ClipMark, View } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, sha256, text } from '../../database/columns.js';

/** One version of what was marked in a clip. Never altered: a change is another one. */
@Entity({ name: 'clip_review' })
export class ClipReviewRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  @Column({ ...id, name: 'clip_id' }) clipId!: string;
  @Column({ type: 'int' }) version!: number;
  @Column(text(120)) file!: string;
  @Column(text(10)) view!: View;
  @Column({ type: 'simple-json' }) marks!: ClipMark[];
  @Column({ type: 'boolean', name: 'is_shared' }) isShared!: boolean;
  @Column({ ...id, name: 'made_by' }) madeBy!: string;
  @Column({ ...moment, name: 'made_at' }) madeAt!: Date;
}

/** A still that was attached on purpose. Taken away, its picture is gone, and that it was there stays on record. */
@Entity({ name: 'still' })
export class StillRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  @Column(text(120)) words!: string;
  @Column({ type: 'int' }) width!: number;
  @Column({ type: 'int' }) height!: number;
  /** JPEG; null once it was taken away. */
  @Column({ type: 'mediumblob', nullable: true, select: false }) bytes!: Buffer | null;
  /** Of what was sent, so that the same sent again is known. */
  @Column({ ...sha256, name: 'sent_hash' }) sentHash!: string;
  @Column({ ...id, name: 'attached_by' }) attachedBy!: string;
  @Column({ ...moment, name: 'attached_at' }) attachedAt!: Date;
  @Column({ ...id, name: 'removed_by', nullable: true }) removedBy!: string | null;
  @Column({ ...moment, name: 'removed_at', nullable: true }) removedAt!: Date | null;
}
