import { Column, Entity, PrimaryColumn } from 'typeorm';
import { day, id, moment, sha256, text } from '../../database/columns.js';

/** A page of the person's own. Link and code are kept as hashes alone. */
@Entity({ name: 'patient_page' })
export class PatientPageRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'episode_id' }) episodeId!: string;
  @Column({ ...sha256, name: 'token_hash' }) tokenHash!: string;
  @Column({ ...text(200), name: 'code_hash' }) codeHash!: string;
  @Column({ ...id, name: 'made_by' }) madeBy!: string;
  @Column({ ...moment, name: 'made_at' }) madeAt!: Date;
  @Column({ ...moment, name: 'expires_at' }) expiresAt!: Date;
  @Column({ ...moment, name: 'revoked_at', nullable: true }) revokedAt!: Date | null;
  @Column({ ...id, name: 'revoked_by', nullable: true }) revokedBy!: string | null;
}

/** A device that opened a page with its code. */
@Entity({ name: 'patient_page_key' })
export class PatientPageKeyRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'page_id' }) pageId!: string;
  @Column({ ...sha256, name: 'key_hash' }) keyHash!: string;
  @Column({ ...moment, name: 'opened_at' }) openedAt!: Date;
}

/** A day as the person logged it. Never changed: of several for one day the last counts. */
@Entity({ name: 'patient_day' })
export class PatientDayRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'page_id' }) pageId!: string;
  @Column({ ...id, name: 'episode_id' }) episodeId!: string;
  @Column({ ...day, name: 'on_day' }) on!: string;
  @Column({ type: 'simple-json' }) done!: string[];
  @Column({ type: 'boolean', nullable: true }) easy!: boolean | null;
  @Column({ type: 'tinyint', nullable: true }) pain!: number | null;
  @Column({ type: 'boolean', nullable: true }) swelling!: boolean | null;
  @Column({ type: 'boolean', nullable: true }) worse!: boolean | null;
  @Column(text(500)) note!: string;
  @Column({ ...moment, name: 'received_at' }) receivedAt!: Date;
}
