import type { QueueCounts } from '@dial-gauge/contract';
import { ON_THE_WAY, QUEUE_GROUPS, QUEUE_KINDS, type QueueGroup } from '@dial-gauge/core';
import { RANK_NEW, RANK_UNTOLD } from './rank.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';

/** Where an urgency is counted; whatever else there is, is on its way. */
const GROUP_OF = new Map<number, QueueGroup>([
  ...Object.values(QUEUE_KINDS).map(({ urgency, group }) => [urgency, group] as const),
  [ON_THE_WAY, 'way'],
]);

/** Every urgency that a key can begin with, and those that were not told yet, each a range of its own in the index. */
const COUNTED: readonly { readonly of: QueueGroup | 'untold'; readonly from: string; readonly to: string }[] = [
  ...Array.from({ length: ON_THE_WAY + 1 }, (_, urgency) => ({
    of: GROUP_OF.get(urgency) ?? 'way',
    from: urgency === ON_THE_WAY ? RANK_NEW : String(urgency),
    // A letter comes after every figure in whatever order of the database.
    to: `${urgency}A`,
  })),
  { of: 'untold', from: RANK_UNTOLD, to: RANK_NEW },
];

/** How many of a caseload, or of one examiner's, stand where. Counted over an index alone, range by range: grouped it takes twice as long. */
export async function queueCounts(work: UnitOfWork, whose: string): Promise<QueueCounts> {
  const { manager, clinicId, caller } = work;
  const own = whose === 'all' ? [] : [whose === 'mine' ? caller.userId : whose];
  const [index, ofThem] = own.length > 0 ? ['episode_own_queue', 'AND whose_id = ?'] : ['episode_queue', ''];
  const those = `SELECT COUNT(*) FROM episode FORCE INDEX (${index}) WHERE clinic_id = ? ${ofThem}`;
  const counted = COUNTED.map((_, at) => `(${those} AND ended_on IS NULL AND rank_key >= ? AND rank_key < ?) AS n${at}`);
  const [[found], examiners] = await Promise.all([
    manager.query<Record<string, string | number>[]>(`SELECT ${counted.join(', ')}, (${those} AND ended_on IS NOT NULL) AS ended`, [
      ...COUNTED.flatMap(({ from, to }) => [clinicId, ...own, from, to]),
      clinicId,
      ...own,
    ]),
    manager.query<{ id: string; name: string }[]>(
      "SELECT id, name FROM user WHERE clinic_id = ? AND role <> 'reader' AND ended_at IS NULL ORDER BY name, id",
      [clinicId],
    ),
  ]);
  const counts = Object.fromEntries([...QUEUE_GROUPS, 'untold'].map((group) => [group, 0])) as Record<QueueGroup | 'untold', number>;
  for (const [at, { of }] of COUNTED.entries()) counts[of] += Number(found?.[`n${at}`] ?? 0);
  return { ...counts, ended: Number(found?.['ended'] ?? 0), examiners };
}
