import type { LINK_KINDS, Role } from '@dial-gauge/contract';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import { id, moment, sha256, text } from '../../database/columns.js';

@Entity({ name: 'user' })
export class User {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(200)) email!: string;
  @Column(text(120)) name!: string;
  @Column({ ...text(200), name: 'password_hash' }) passwordHash!: string;
  /** null: chosen before this was kept. */
  @Column({ ...moment, name: 'password_since', nullable: true }) passwordSince!: Date | null;
  @Column(text(12)) role!: Role;
  /** Set for an account that was closed: nobody signs in, and what was done under its name stays. */
  @Column({ ...moment, name: 'ended_at', nullable: true }) endedAt!: Date | null;
  /** The password was set with a link, and the person has not confirmed yet that they know: when, and who made the link. */
  @Column({ ...moment, name: 'link_used_at', nullable: true }) linkUsedAt!: Date | null;
  @Column({ ...text(120), name: 'link_made_by', nullable: true }) linkMadeBy!: string | null;
}

/** One place where somebody is signed in. */
@Entity({ name: 'session' })
export class SessionRow {
  /** SHA-256 of the cookie's session id: a copy of the table signs nobody in. */
  @PrimaryColumn(sha256) id!: string;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  /** SHA-256 of what the password was kept as when the session began: another password ends it. */
  @Column(sha256) credential!: string;
  @Column(text(120)) device!: string;
  @Column({ ...moment, name: 'started_at' }) startedAt!: Date;
  @Column({ ...moment, name: 'seen_at' }) seenAt!: Date;
  @Column({ ...moment, name: 'expires_at' }) expiresAt!: Date;
  /** The password is asked for again before what wants proof. */
  @Column({ type: 'boolean', name: 'wants_proof', default: false }) wantsProof!: boolean;
}

/** An authenticator of somebody. It counts from its first code on. */
@Entity({ name: 'second_factor' })
export class SecondFactorRow {
  @PrimaryColumn({ ...id, name: 'user_id' }) userId!: string;
  /** Sealed with the key of the server: a copy of the table makes no codes. */
  @Column(text(200)) secret!: string;
  @Column({ ...moment, name: 'confirmed_at', nullable: true }) confirmedAt!: Date | null;
  /** The step of time whose code was taken last: none is taken twice. */
  @Column({ type: 'int', name: 'last_step' }) lastStep!: number;
}

/** A code for when the authenticator is lost. Each works once. */
@Entity({ name: 'recovery_code' })
export class RecoveryCodeRow {
  @PrimaryColumn({ ...sha256, name: 'code_hash' }) codeHash!: string;
  @Column({ ...id, name: 'user_id' }) userId!: string;
  @Column({ ...moment, name: 'used_at', nullable: true }) usedAt!: Date | null;
}

/** A link with which somebody joins a clinic, or chooses another password. It works once. */
@Entity({ name: 'account_link' })
export class AccountLinkRow {
  @PrimaryColumn(id) id!: string;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column(text(12)) kind!: (typeof LINK_KINDS)[number];
  /** Whose password; null for somebody new. */
  @Column({ ...id, name: 'user_id', nullable: true }) userId!: string | null;
  @Column(text(120)) name!: string;
  @Column(text(200)) email!: string;
  @Column(text(12)) role!: Role;
  @Column({ ...sha256, name: 'token_hash' }) tokenHash!: string;
  /** Somebody else has seen it: it opens only with the second factor of the person. */
  @Column({ type: 'boolean', name: 'needs_factor', default: false }) needsFactor!: boolean;
  @Column({ ...id, name: 'made_by' }) madeBy!: string;
  @Column({ ...moment, name: 'made_at' }) madeAt!: Date;
  @Column({ ...moment, name: 'expires_at' }) expiresAt!: Date;
  @Column({ ...moment, name: 'used_at', nullable: true }) usedAt!: Date | null;
  @Column({ ...moment, name: 'withdrawn_at', nullable: true }) withdrawnAt!: Date | null;
}

/** A code that a server printed because there was no clinic yet. */
@Entity({ name: 'founding_code' })
export class FoundingCodeRow {
  @PrimaryColumn({ ...sha256, name: 'code_hash' }) codeHash!: string;
  @Column({ ...moment, name: 'made_at' }) madeAt!: Date;
}

/** That a clinic was founded with a code: one row, so that it happens once however many servers there are. */
@Entity({ name: 'founded' })
export class FoundedRow {
  @PrimaryColumn({ type: 'tinyint' }) one!: number;
  @Column({ ...id, name: 'clinic_id' }) clinicId!: string;
  @Column({ ...moment, name: 'founded_at' }) foundedAt!: Date;
}
