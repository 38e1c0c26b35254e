import { randomUUID } from 'node:crypto';
import { SessionRow, User } from '../../records/identity/entities.js';
import { removeSecondFactor } from '../../records/identity/second-factor.js';
import type { Database } from '../../database/database.js';
import { linkToPassword } from './links.js';

/**
 * Somebody whom nobody of the clinic can help: whoever runs the server makes a
 * link to another password for them, and takes away a second factor that was
 * lost. It is in the audit, under the person's own name.
 *
 * @returns the secret of the link
 * @throws where there is no such account, or more than one
 */
export async function wayBack(database: Database, email: string, factorIsLost: boolean): Promise<string> {
  const found = await database.dataSource.manager.findBy(User, { email: email.trim().toLowerCase() });
  const [user, another] = found.filter(({ endedAt }) => endedAt === null);
  if (!user || another) throw new Error(`${another ? 'More than one open account has' : 'No open account has'} the address ${email}.`);
  const { id: userId, name, clinicId, role } = user;
  return database.transaction({ userId, name, clinicId, role, session: '' }, async (work) => {
    if (factorIsLost) {
      await work.log.write('user', userId, [['secondFactor', true, false]]);
      await removeSecondFactor(work.manager, userId);
    }
    await work.manager.delete(SessionRow, { userId });
    return (await linkToPassword(work, userId, randomUUID(), 'the person')).token;
  });
}
