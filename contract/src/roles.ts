import * as z from 'zod';

/** What somebody is in a clinic. */
export const ROLES = ['lead', 'examiner', 'assistant', 'reader'] as const;
export type Role = (typeof ROLES)[number];
export const Role = z.enum(ROLES);

/** What there is to do. */
export const ACTS = [
  'door',
  'self',
  'look',
  'train',
  'screen',
  'measure',
  'sign',
  'countersign',
  'send',
  'settle',
  'export',
  'erase',
  'staff',
  'audit',
] as const;
export type Act = (typeof ACTS)[number];

interface Allowed {
  /** Who may. */
  readonly roles: readonly Role[];
  /** The password is asked for again after a rest before it is done. */
  readonly proof?: boolean;
  /** As it is said to whoever may not: "measure and plan". */
  readonly words: string;
}

/** Who may do what: the one table. */
export const ALLOWED: Readonly<Record<Act, Allowed>> = {
  /** Without a session. */
  door: { roles: ROLES, words: 'come in' },
  self: { roles: ROLES, words: 'look after their own account' },
  look: { roles: ROLES, words: 'read records' },
  train: { roles: ROLES, words: 'practise' },
  /** Screens and classes, and whoever comes to one. */
  screen: { roles: ['lead', 'examiner', 'assistant'], words: 'run screens and classes' },
  measure: { roles: ['lead', 'examiner'], words: 'measure and plan' },
  /** One's own visits. */
  sign: { roles: ['lead', 'examiner'], proof: true, words: 'sign and amend' },
  countersign: { roles: ['lead'], proof: true, words: 'countersign' },
  /** Pages and files of one visit for whoever is outside. */
  send: { roles: ['lead', 'examiner'], words: 'write out a visit' },
  /** What the whole clinic judges by. */
  settle: { roles: ['lead'], words: 'change norms, thresholds and adopted errors' },
  export: { roles: ['lead'], proof: true, words: 'write out records of the whole clinic' },
  /** One person's whole record, for good. */
  erase: { roles: ['lead'], proof: true, words: 'erase records' },
  staff: { roles: ['lead'], proof: true, words: 'look after accounts' },
  audit: { roles: ['lead'], proof: true, words: 'read who looked at what' },
};

export const mayDo = (role: Role, act: Act): boolean => ALLOWED[act].roles.includes(role);

const WORDS: Readonly<Record<Role, string>> = { lead: 'the lead', examiner: 'an examiner', assistant: 'an assistant', reader: 'a reader' };

/** "the lead or an examiner" */
const whoMay = (act: Act): string => ALLOWED[act].roles.map((role) => WORDS[role]).join(' or ');

/** What is said to whoever may not. */
export const notAllowed = (role: Role, act: Act): string =>
  `You are ${WORDS[role]} here; only ${whoMay(act)} may ${ALLOWED[act].words}. The lead can change what somebody is.`;
