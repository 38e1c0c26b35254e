import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, text } from '../platform/columns.js';

@Entity({ name: 'user' })
export class User {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(200)) email!: string;
  @Column(text(120)) name!: string;
  @Column({ ...text(200), name: 'password_hash' }) passwordHash!: string;
}

/** One place where somebody is signed in. */
@Entity({ name: 'session' })
export class SessionRow {
  /** SHA-256 of the cookie's session id: a copy of the table signs nobody in. */
  @PrimaryColumn({ type: 'char', length: 64 }) id!: string;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  /** SHA-256 of what the password was kept as when the session began: another password ends it. */
  @Column({ type: 'char', length: 64 }) credential!: string;
  @Column(text(120)) device!: string;
  @Column({ ...moment, name: 'started_at' }) startedAt!: Date;
  @Column({ ...moment, name: 'seen_at' }) seenAt!: Date;
  @Column({ ...moment, name: 'expires_at' }) expiresAt!: Date;
}
