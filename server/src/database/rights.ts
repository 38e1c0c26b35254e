import type { DataSource } from 'typeorm';
import { grouped } from '../shared/grouped.js';
import { PROCEDURES } from './procedures.js';
import { codeOf, errnoOf } from './unit-of-work.js';

/** Tables whose rows the server's own account may delete: none of them holds what was entered into a record. */
export const MAY_DELETE: readonly string[] = [
  'attempt_budget',
  'audit_open',
  'cohort_outcome',
  'cohort_person',
  'cohort_told',
  'episode_word',
  'founding_code',
  'queue_mark',
  'recovery_code',
  'second_factor',
  'session',
];

/** Columns that a procedure alone changes, or nobody. */
export const FIXED_COLUMNS: Readonly<Record<string, readonly string[]>> = {
  user: ['id', 'clinic_id', 'role'],
  visit: ['id', 'clinic_id', 'episode_id', 'assessed_on', 'signed'],
};

/** Tables that the server's own account only reads: a procedure, or the account of the schema, writes them. */
export const ONLY_READ: readonly string[] = ['erasure', 'migrations'];

const NO_SUCH_GRANT = 1141;
const DENIED = new Set(['ER_DBACCESS_DENIED_ERROR', 'ER_TABLEACCESS_DENIED_ERROR', 'ER_ACCESS_DENIED_ERROR', 'ER_PROCACCESS_DENIED_ERROR']);

/**
 * Gives the server's own account what it needs, table by table, and takes away
 * what it held on the whole database.
 *
 * @param account as the database names it: user@host
 * @throws where the account of the schema may not grant
 */
export async function grantRights(schema: DataSource, account: string): Promise<void> {
  const [user, host] = splitAccount(account);
  const to = `'${user}'@'${host}'`;
  const columns = await schema.query<{ t: string; c: string }[]>(
    `SELECT c.TABLE_NAME AS t, c.COLUMN_NAME AS c FROM information_schema.COLUMNS c JOIN information_schema.TABLES b
       ON b.TABLE_SCHEMA = c.TABLE_SCHEMA AND b.TABLE_NAME = c.TABLE_NAME AND b.TABLE_TYPE = 'BASE TABLE'
     WHERE c.TABLE_SCHEMA = DATABASE() ORDER BY c.TABLE_NAME, c.ORDINAL_POSITION`,
  );
  const byTable = grouped(columns, ({ t }) => t);
  try {
    for (const [table, all] of byTable) {
      const fixed = FIXED_COLUMNS[table];
      const update = fixed ? `UPDATE (${all.flatMap(({ c }) => (fixed.includes(c) ? [] : `\`${c}\``)).join(', ')})` : 'UPDATE';
      const rights = ONLY_READ.includes(table)
        ? ['SELECT']
        : ['SELECT', 'INSERT', update, ...(MAY_DELETE.includes(table) ? ['DELETE'] : [])];
      await schema.query(`GRANT ${rights.join(', ')} ON \`${table}\` TO ${to}`);
    }
    for (const name of Object.keys(PROCEDURES)) await schema.query(`GRANT EXECUTE ON PROCEDURE ${name} TO ${to}`);
    const [at] = await schema.query<{ name: string }[]>('SELECT DATABASE() AS name');
    await schema.query(`REVOKE SELECT, INSERT, UPDATE, DELETE ON \`${at!.name}\`.* FROM ${to}`);
  } catch (error) {
    if (errnoOf(error) === NO_SUCH_GRANT) return;
    if (DENIED.has(codeOf(error) ?? ''))
      throw new Error(
        `the account of the schema may not grant rights to ${account}. Allowed: an account with GRANT ALL ON the database WITH GRANT OPTION; see the operating guide.`,
        { cause: error },
      );
    throw error;
  }
}

function splitAccount(account: string): [string, string] {
  const at = account.lastIndexOf('@');
  const [user, host] = [account.slice(0, at), account.slice(at + 1)];
  if (/['\\]/.test(account))
    throw new Error(`the account ${account} has a name that is not taken here; allowed: one without quotes and backslashes`);
  return [user, host];
}
