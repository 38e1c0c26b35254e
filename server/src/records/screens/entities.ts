import type { ScreenSettings, ItemTry } from '@dial-gauge/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, moment, text } from '../../database/columns.js';

/** One try of an item of a screen, or that it was left out; or what stands in place of one. Never changed. */
@Entity({ name: 'screen_try' })
export class ScreenTryRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  @Column(text(40)) screen!: string;
  @Column(text(80)) item!: string;
  @Column(text(10)) view!: string;
  /** What was changed about it, sorted. */
  @Column({ type: 'simple-json' }) changes!: string[];
  @Column(text(10)) side!: string;
  /** null: left out, or taken back. */
  @Column({ type: 'simple-json', nullable: true }) seen!: ItemTry | null;
  @Column({ ...text(200), nullable: true }) skipped!: string | null;
  /** The try in whose place this stands. */
  @Column({ ...id, nullable: true }) corrects!: string | null;
  @Column({ ...id, name: 'held_by' }) heldBy!: string;
  @Column({ ...moment, name: 'held_at' }) heldAt!: Date;
}

/** How a clinic has the screens from a day on. A change is another row. */
@Entity({ name: 'screen_settings' })
export class ScreenSettingsRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(day) since!: string;
  @Column({ type: 'simple-json' }) settings!: Omit<ScreenSettings, 'since'>;
  @Column({ ...id, name: 'set_by' }) setBy!: string;
  @Column({ ...moment, name: 'set_at' }) setAt!: Date;
}
