import { CASELOAD_PAGE, CaseloadRow, explain, type CaseloadOrder, type CaseloadPage, type OddRecord } from '@dial-gauge/contract';
import type { SelectQueryBuilder } from 'typeorm';
import * as z from 'zod';
import { Episode } from '../episodes/entities.js';
import { wordsOf } from '../episodes/words.js';
import { cursorOf, readCursor } from '../platform/paging.js';
import type { UnitOfWork } from '../platform/unit-of-work.js';
import { lastVisitViews } from '../visits/record.js';
import { Patient } from './entities.js';
import { patientView } from './views.js';

/** A word on so few episodes is looked up, and those put in order; on more, the caseload is read in its order and the word checked on the way. */
const RARE = 5_000;

const Keys = z.tuple([z.string().max(300), z.uuid()]);

interface Order {
  /** The column that rows are ordered by, before their id. */
  readonly column: string;
  readonly direction: 'ASC' | 'DESC';
  readonly key: (episode: Shown) => string;
  /** A key that comes back as text, as the column holds it. */
  readonly value: (key: string) => string | Date;
}

const asIs = (key: string): string => key;

const ORDERS: Readonly<Record<CaseloadOrder, Order>> = {
  urgent: { column: 'e.rankKey', direction: 'ASC', key: (e) => e.rankKey, value: asIs },
  latest: { column: 'e.latestAt', direction: 'DESC', key: (e) => e.latestAt.toISOString(), value: (key) => new Date(key) },
  name: { column: 'e.sortName', direction: 'ASC', key: (e) => e.sortName, value: asIs },
  due: { column: 'e.dueOn', direction: 'ASC', key: (e) => e.dueOn ?? '', value: asIs },
};

/** What a row of the caseload shows, and what it is ordered by. */
const SHOWN = [
  'id',
  'patientId',
  'complaint',
  'involvedSide',
  'openedOn',
  'dueOn',
  'visitCount',
  'lastVisitId',
  'latestAt',
  'sortName',
  'rankKey',
  'queueStanding',
  'endedOn',
  'outcome',
] as const;
type Shown = Pick<Episode, (typeof SHOWN)[number]>;

/** Whoever is discharged comes by the day on which that was. */
const ENDED: Order = { column: 'e.endedOn', direction: 'DESC', key: (e) => e.endedOn ?? '', value: asIs };

interface Asked {
  readonly order: CaseloadOrder;
  readonly find: string;
  readonly whose: string;
  readonly state: 'care' | 'ended';
  readonly after?: string | undefined;
}

/** One page of the caseload, found by keys: as quick among a hundred thousand people as among ten. */
export async function caseload(work: UnitOfWork, { order: name, find, whose, state, after }: Asked): Promise<CaseloadPage> {
  const { manager, clinicId, caller } = work;
  const order = state === 'ended' ? ENDED : ORDERS[name];
  const query = manager.createQueryBuilder(Episode, 'e').where('e.clinicId = :clinicId', { clinicId });
  // As they are in the table: what an entity manager makes of each costs more than finding them.
  query.select([]);
  for (const column of SHOWN) query.addSelect(`e.${column}`, column);
  query.andWhere(state === 'ended' ? 'e.endedOn IS NOT NULL' : 'e.endedOn IS NULL');
  if (whose !== 'all') query.andWhere('e.whoseId = :whose', { whose: whose === 'mine' ? caller.userId : whose });
  if (name === 'due' && state === 'care') query.andWhere('e.dueOn IS NOT NULL');
  if (after !== undefined) beyond(query, order, after);
  if (!(await narrow(work, query, wordsOf(find)))) return { rows: [], odd: [], next: null };
  const found = await query
    .orderBy(order.column, order.direction)
    .addOrderBy('e.id', order.direction)
    .limit(CASELOAD_PAGE + 1)
    .getRawMany<Shown>();
  const page = found.slice(0, CASELOAD_PAGE);
  const last = page[page.length - 1];
  return { ...(await rowsOf(work, page)), next: last && found.length > page.length ? cursorOf([order.key(last), last.id]) : null };
}

/** Narrows to what comes after the end of a page. */
function beyond(query: SelectQueryBuilder<Episode>, { column, direction, value }: Order, after: string): void {
  const [key, id] = readCursor(after, Keys);
  const beyondIt = direction === 'ASC' ? '>' : '<';
  // The first condition is what the index is entered by.
  query
    .andWhere(`${column} ${beyondIt}= :key`, { key: value(key) })
    .andWhere(`(${column} ${beyondIt} :key OR e.id ${beyondIt} :id)`, { key: value(key), id });
}

/**
 * Narrows to episodes with words that begin so. The index is named: right after
 * many people came in, the database's own counts would choose another one.
 *
 * @returns false where there is none
 */
async function narrow({ manager, clinicId }: UnitOfWork, query: SelectQueryBuilder<Episode>, words: readonly string[]): Promise<boolean> {
  for (const [at, word] of words.entries()) {
    const like = `${word.replace(/[\\%_]/g, '\\$&')}%`;
    const [found] = await manager.query<{ n: string | number }[]>(
      'SELECT COUNT(*) AS n FROM (SELECT 1 FROM episode_word WHERE clinic_id = ? AND word LIKE ? LIMIT ?) few',
      [clinicId, like, RARE + 1],
    );
    const count = Number(found?.n ?? 0);
    if (count === 0) return false;
    if (count <= RARE)
      query.andWhere(
        `e.id IN (SELECT w${at}.episode_id FROM episode_word w${at} WHERE w${at}.clinic_id = :clinicId AND w${at}.word LIKE :like${at})`,
        {
          [`like${at}`]: like,
        },
      );
    else
      query.andWhere(
        `(SELECT 1 FROM episode_word w${at} FORCE INDEX (episode_word_of) WHERE w${at}.clinic_id = e.clinic_id AND w${at}.episode_id = e.id AND w${at}.word LIKE :like${at} LIMIT 1) = 1`,
        { [`like${at}`]: like },
      );
  }
  return true;
}

/** Episodes as the caseload names them. One that this version cannot read is named apart, and blanks no other. */
async function rowsOf(work: UnitOfWork, episodes: readonly Shown[]): Promise<Pick<CaseloadPage, 'rows' | 'odd'>> {
  const { clinicId } = work;
  if (episodes.length === 0) return { rows: [], odd: [] };
  const patients = await work.plain(Patient, 'WHERE t.clinic_id = ? AND t.id IN (?)', [clinicId, episodes.map((e) => e.patientId)]);
  const byId = new Map(patients.map((patient) => [patient.id, patient]));
  const visits = await lastVisitViews(
    work,
    new Map(episodes.flatMap((episode) => (episode.lastVisitId ? [[episode.lastVisitId, episode.visitCount] as const] : []))),
  );
  const rows: CaseloadRow[] = [];
  const odd: OddRecord[] = [];
  for (const {
    id,
    patientId,
    complaint,
    involvedSide,
    openedOn,
    dueOn,
    visitCount,
    lastVisitId,
    queueStanding,
    endedOn,
    outcome,
  } of episodes) {
    const patient = byId.get(patientId)!;
    const row = CaseloadRow.safeParse({
      patient: patientView(patient),
      episode: { id, complaint, involvedSide, openedOn, dueOn },
      visits: visitCount,
      lastVisit: visits.get(lastVisitId ?? '') ?? null,
      // As it is in the table: text.
      standing: typeof queueStanding === 'string' ? (JSON.parse(queueStanding) as unknown) : queueStanding,
      ended: endedOn === null ? null : { on: endedOn, outcome: outcome ?? 'other' },
    });
    if (row.success) rows.push(row.data);
    else
      odd.push({
        id,
        what: `${patient.givenName} ${patient.familyName}`,
        why: explain(row.error)
          .map(({ path, message }) => `${path} ${message}`)
          .join('; '),
      });
  }
  return { rows, odd };
}
