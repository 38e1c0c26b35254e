import type { Role } from '@dial-gauge/contract';

/** Who is asking. Every query is made with this clinic. */
export interface Caller {
  readonly userId: string;
  readonly name: string;
  readonly clinicId: string;
  readonly role: Role;
  /** Key of the session the request came with; empty without one. */
  readonly session: string;
}

/** Stands in for the caller on the routes that work without a session. */
export const NOBODY: Caller = { userId: '', name: '', clinicId: '', role: 'reader', session: '' };
