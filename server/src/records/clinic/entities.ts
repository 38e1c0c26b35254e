import type { HandWidths, Ranking, SheetItem, Thresholds } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

@Entity({ name: 'clinic' })
export class Clinic {
  @PrimaryColumn(id) id!: string;
  @Column(text(120)) name!: string;
  /** The norm set that is asked first. */
  @Column({ ...text(60), name: 'norm_set' }) normSet!: string;
  /** Norm sets in the order in which they are asked; null: the first, then the program's order. */
  @Column({ type: 'simple-json', name: 'norm_order', nullable: true }) normOrder!: string[] | null;
  /** null: those that come with the program. */
  @Column({ type: 'simple-json', nullable: true }) thresholds!: Thresholds | null;
  /** Fist and finger, in cm; null: assumed. */
  @Column({ type: 'simple-json', name: 'hand_widths', nullable: true }) handWidths!: HandWidths | null;
  /** Whoever signs in after it has a second factor; null: it is left to each. */
  @Column({ ...moment, name: 'second_factor_since', nullable: true }) secondFactorSince!: Date | null;
  /** Which loss comes first. */
  @Column({ ...text(30), default: 'largest-first' }) ranking!: Ranking;
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
