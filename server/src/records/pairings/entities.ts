import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, sha256 } from '../../database/columns.js';

/** A phone that may be, or is, an inclinometer of one visit. Code and key are kept as hashes alone. */
@Entity({ name: 'pairing' })
export class PairingRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...id, name: 'visit_id' }) visitId!: string;
  @Column({ ...sha256, name: 'code_hash' }) codeHash!: string;
  @Column({ ...id, name: 'made_by' }) madeBy!: string;
  @Column({ ...moment, name: 'made_at' }) madeAt!: Date;
  /** Until then the code can be used; afterwards the key stands until `endsAt`. */
  @Column({ ...moment, name: 'expires_at' }) expiresAt!: Date;
  @Column({ ...moment, name: 'used_at', nullable: true }) usedAt!: Date | null;
  @Column({ ...sha256, name: 'key_hash', nullable: true }) keyHash!: string | null;
  @Column({ ...moment, name: 'ends_at', nullable: true }) endsAt!: Date | null;
  @Column({ ...moment, name: 'closed_at', nullable: true }) closedAt!: Date | null;
}
