import type { CautionsView, PlanView, ScreenPlanView } from '@dial-gauge/contract';
import type { SheetItem } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, moment } from '../../database/columns.js';

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
  /** Screens that are run, and items that are asked for; null: none chosen. */
  @Column({ type: 'simple-json', nullable: true, name: 'screen_plan' }) screenPlan!: ScreenPlanView | null;
  @Column({ type: 'int', default: 0 }) revision!: number;
  /** The summary as somebody wrote it; null: as drafted. */
  @Column({ type: 'text', nullable: true }) summary!: string | null;
  /** Signed, and not being amended. */
  @Column({ type: 'boolean', default: false }) signed!: boolean;
  /** Why a signed visit is being amended. */
  @Column({ type: 'simple-json', nullable: true }) amending!: { why: string; by: string; byId?: string; at: string } | null;
}
