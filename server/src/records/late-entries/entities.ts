import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../../database/columns.js';

/** Something that was entered before a signature and arrived after it: kept until somebody has decided. */
@Entity({ name: 'late_entry' })
export class LateEntryRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  /** Path and method of the route, by the name the contract gives it. */
  @Column(text(30)) route!: string;
  /** What the address of the request named. */
  @Column(id) target!: string;
  @Column({ type: 'simple-json' }) body!: unknown;
  /** In words, as it was when it arrived. */
  @Column(text(300)) what!: string;
  @Column({ ...moment, name: 'entered_at' }) enteredAt!: Date;
  @Column({ ...id, name: 'entered_by' }) enteredBy!: string;
  @Column({ ...moment, name: 'received_at' }) receivedAt!: Date;
  @Column({ ...text(10), nullable: true }) decision!: 'taken' | 'left-out' | null;
  @Column({ ...id, name: 'decided_by', nullable: true }) decidedBy!: string | null;
  @Column({ ...moment, name: 'decided_at', nullable: true }) decidedAt!: Date | null;
  @Column({ ...text(300), name: 'decided_why', default: '' }) decidedWhy!: string;
}
