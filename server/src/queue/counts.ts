import type { QueueCounts } from '@dial-gauge/contract';
import { ON_THE_WAY, QUEUE_GROUPS, QUEUE_KINDS, type QueueGroup } from '@dial-gauge/core';
import { RANK_UNTOLD } from './rank.js';
import type { UnitOfWork } from '../platform/unit-of-work.js';

/** Where an urgency is counted; whatever else there is, is on its way. */
const GROUP_OF = new Map<number, QueueGroup>([
  ...Object.values(QUEUE_KINDS).map(({ urgency, group }) => [urgency, group] as const),
  [ON_THE_WAY, 'way'],
]);

/** How many of a caseload, or of one examiner's, stand where. Counted over an index alone. */
export async function queueCounts(work: UnitOfWork, whose: string): Promise<QueueCounts> {
  const { manager, clinicId, caller } = work;
  const own = whose === 'all' ? [] : [whose === 'mine' ? caller.userId : whose];
  const [index, ofThem] = own.length > 0 ? ['episode_own_queue', 'AND whose_id = ?'] : ['episode_queue', ''];
  const [rows, [ended], examiners] = await Promise.all([
    manager.query<{ urgency: string; n: string | number }[]>(
      `SELECT IF(rank_key = '${RANK_UNTOLD}', 'untold', LEFT(rank_key, 1)) AS urgency, COUNT(*) AS n FROM episode FORCE INDEX (${index})
       WHERE clinic_id = ? ${ofThem} AND ended_on IS NULL GROUP BY urgency`,
      [clinicId, ...own],
    ),
    manager.query<{ n: string | number }[]>(
      `SELECT COUNT(*) AS n FROM episode FORCE INDEX (${index}) WHERE clinic_id = ? ${ofThem} AND ended_on IS NOT NULL`,
      [clinicId, ...own],
    ),
    manager.query<{ id: string; name: string }[]>(
      "SELECT id, name FROM user WHERE clinic_id = ? AND role <> 'reader' AND ended_at IS NULL ORDER BY name, id",
      [clinicId],
    ),
  ]);
  const counts = Object.fromEntries(QUEUE_GROUPS.map((group) => [group, 0])) as Record<QueueGroup, number>;
  let untold = 0;
  for (const { urgency, n } of rows)
    if (urgency === 'untold') untold = Number(n);
    else counts[GROUP_OF.get(Number(urgency)) ?? 'way'] += Number(n);
  return { ...counts, untold, ended: Number(ended?.n ?? 0), examiners };
}
