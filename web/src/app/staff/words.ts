import type { Role } from '@dial-gauge/contract';

/** What each is there for, in a line. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  lead: 'norms, thresholds, adopted errors, accounts; everything an examiner does; countersigns',
  examiner: 'measures, plans, judges; signs what they examined themselves',
  assistant: 'runs screens and classes; signs nothing',
  reader: 'reads records and practises; changes nothing',
};
