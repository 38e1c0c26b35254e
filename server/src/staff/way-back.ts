import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { SessionRow, User } from '../account/entities.js';
import { removeSecondFactor } from '../account/second-factor.js';
import { Database } from '../platform/database.js';
import { linkToPassword } from './links.js';

/**
 * A lead whom nobody of the clinic can help any more: whoever looks after the
 * server makes a link to another password for them, and takes away a second
 * factor that was lost. It is in the audit, under the lead's own name.
 *
 * @returns the secret of the link
 * @throws where there is no such lead
 */
export async function wayBack(dataSource: DataSource, email: string, factorIsLost: boolean): Promise<string> {
  const leads = await dataSource.manager.findBy(User, { email: email.trim().toLowerCase(), role: 'lead' });
  const [user, another] = leads.filter(({ endedAt }) => endedAt === null);
  if (!user || another)
    throw new Error(`${another ? 'More than one lead has' : 'No lead has'} the address ${email}. Others are helped by their lead.`);
  const { id: userId, name, clinicId } = user;
  return new Database(dataSource).whole({ userId, name, clinicId, role: 'lead', session: '' }, async (work) => {
    if (factorIsLost) {
      await work.log.write('user', userId, [['secondFactor', true, false]]);
      await removeSecondFactor(work.manager, userId);
    }
    await work.manager.delete(SessionRow, { userId });
    return linkToPassword(work, userId, randomUUID());
  });
}
