import { CASELOAD_PAGE, CaseloadRow, explain, type CaseloadOrder, type CaseloadPage, type OddRecord } from '@dial-gauge/contract';
import * as z from 'zod';
import { Episode } from '../../records/episodes/entities.js';
import { wordsOf } from '../../records/episodes/words.js';
import { cursorOf, readCursor } from '../../shared/paging.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { lastVisitViews } from '../visit-record/record.js';
import { Patient } from '../../records/patients/entities.js';
import { patientView } from '../../records/patients/views.js';

/** A word on so few episodes is looked up at once. On more, the caseload is read in its order and the words checked on the way, as far as this many rows; then it is looked up all the same. */
const RARE = 5_000;
const WALKED = 10_000;

const Keys = z.tuple([z.string().max(300), z.uuid()]);

interface Order {
  /** The column that rows are ordered by, before their id. */
  readonly column: 'rank_key' | 'latest_at' | 'sort_name' | 'due_on' | 'ended_on';
  readonly direction: 'ASC' | 'DESC';
  readonly key: (episode: Episode) => string;
  /** A key that comes back as text, as the column holds it. */
  readonly value: (key: string) => string | Date;
}

const asIs = (key: string): string => key;

const ORDERS: Readonly<Record<CaseloadOrder, Order>> = {
  urgent: { column: 'rank_key', direction: 'ASC', key: (e) => e.rankKey, value: asIs },
  latest: { column: 'latest_at', direction: 'DESC', key: (e) => e.latestAt.toISOString(), value: (key) => new Date(key) },
  name: { column: 'sort_name', direction: 'ASC', key: (e) => e.sortName, value: asIs },
  due: { column: 'due_on', direction: 'ASC', key: (e) => e.dueOn ?? '', value: asIs },
};

/** Whoever is discharged comes by the day on which that was. */
const ENDED: Order = { column: 'ended_on', direction: 'DESC', key: (e) => e.endedOn ?? '', value: asIs };

interface Asked {
  readonly order: CaseloadOrder;
  readonly find: string;
  readonly whose: string;
  readonly state: 'care' | 'ended';
  readonly after?: string | undefined;
}

/** A piece of a statement with what stands for its question marks. */
interface Piece {
  readonly sql: string;
  readonly values: readonly unknown[];
}

const allOf = (pieces: readonly Piece[]): Piece => ({
  sql: pieces.map(({ sql }) => sql).join(' AND '),
  values: pieces.flatMap(({ values }) => values),
});

/** One page of the caseload, found by keys: as quick among a hundred thousand people as among ten. */
export async function caseload(work: UnitOfWork, asked: Asked): Promise<CaseloadPage> {
  const { clinicId, caller } = work;
  const { state, whose, after } = asked;
  const order = state === 'ended' ? ENDED : ORDERS[asked.order];
  const conditions: Piece[] = [
    { sql: `e.clinic_id = ? AND e.ended_on IS ${state === 'ended' ? 'NOT NULL' : 'NULL'}`, values: [clinicId] },
    ...(whose === 'all' ? [] : [{ sql: 'e.whose_id = ?', values: [whose === 'mine' ? caller.userId : whose] }]),
    ...(order.column === 'due_on' ? [{ sql: 'e.due_on IS NOT NULL', values: [] }] : []),
    ...(after === undefined ? [] : [beyond(order, after)]),
  ];
  const ids = await found(work, conditions, order, wordsOf(asked.find));
  const shown = ids.slice(0, CASELOAD_PAGE);
  const there = shown.length === 0 ? [] : await work.plain(Episode, 'WHERE t.clinic_id = ? AND t.id IN (?)', [clinicId, shown]);
  const byId = new Map(there.map((episode) => [episode.id, episode]));
  // Erased at this very moment: they are not there any more.
  const page = shown.flatMap((id) => byId.get(id) ?? []);
  const last = page[page.length - 1];
  if (!last) return { rows: [], odd: [], next: null };
  return { ...(await rowsOf(work, page)), next: ids.length > shown.length ? cursorOf([order.key(last), last.id]) : null };
}

/** What comes after the end of a page. */
function beyond({ column, direction, value }: Order, after: string): Piece {
  const [text, id] = readCursor(after, Keys);
  const key = value(text);
  const comes = direction === 'ASC' ? '>' : '<';
  // The first condition is what the index is entered by.
  return { sql: `e.${column} ${comes}= ? AND (e.${column} ${comes} ? OR e.id ${comes} ?)`, values: [key, key, id] };
}

/** The ids of a page and of one more, in order, of episodes that have a word for each of these beginnings. */
async function found(work: UnitOfWork, conditions: readonly Piece[], order: Order, words: readonly string[]): Promise<string[]> {
  const { manager, clinicId } = work;
  const inOrder = `ORDER BY e.${order.column} ${order.direction}, e.id ${order.direction} LIMIT ${CASELOAD_PAGE + 1}`;
  const ask = async (from: Piece, where: Piece, limit = '') => {
    const sql = `SELECT e.id AS id FROM ${from.sql} WHERE ${where.sql} ${inOrder}${limit}`;
    const rows = await manager.query<{ id: string }[]>(sql, [...from.values, ...where.values]);
    return rows.map(({ id }) => id);
  };
  const all: Piece = { sql: 'episode e', values: [] };
  const counted = await rarestFirst(work, words);
  const [rarest, ...others] = counted;
  if (!rarest) return ask(all, allOf(conditions));
  if (rarest.count === 0) return [];
  if (rarest.count > RARE) {
    const walked = await ask(all, allOf([...conditions, ...counted.map(hasWord)]), ` ROWS EXAMINED ${WALKED}`);
    if (walked.length > CASELOAD_PAGE) return walked;
    const [warned] = await manager.query<{ n: string | number }[]>('SELECT @@warning_count AS n');
    // It came to the end by itself.
    if (Number(warned?.n) === 0) return walked;
  }
  const those: Piece = {
    sql: `(SELECT DISTINCT episode_id FROM episode_word WHERE clinic_id = ? AND word LIKE ?) found STRAIGHT_JOIN episode e ON e.id = found.episode_id`,
    values: [clinicId, rarest.like],
  };
  return ask(those, allOf([...conditions, ...others.map(hasWord)]));
}

interface Beginning {
  readonly like: string;
  /** On how many episodes; those above the bound are not told apart. */
  readonly count: number;
}

/** The longest is taken for the rarest where all are common. */
async function rarestFirst({ manager, clinicId }: UnitOfWork, words: readonly string[]): Promise<Beginning[]> {
  const counted: Beginning[] = [];
  for (const word of [...words].sort((a, b) => b.length - a.length)) {
    const like = `${word.replace(/[\\%_]/g, '\\$&')}%`;
    const [few] = await manager.query<{ n: string | number }[]>(
      'SELECT COUNT(*) AS n FROM (SELECT 1 FROM episode_word WHERE clinic_id = ? AND word LIKE ? LIMIT ?) few',
      [clinicId, like, RARE + 1],
    );
    counted.push({ like, count: Number(few?.n ?? 0) });
  }
  return counted.sort((a, b) => a.count - b.count);
}

/** The index is named: right after many people came in, the database's own counts would choose another one. */
const hasWord = ({ like }: Beginning): Piece => ({
  sql: '(SELECT 1 FROM episode_word w FORCE INDEX (episode_word_of) WHERE w.clinic_id = e.clinic_id AND w.episode_id = e.id AND w.word LIKE ? LIMIT 1) = 1',
  values: [like],
});

/** Episodes as the caseload names them. One that this version cannot read is named apart, and blanks no other. */
async function rowsOf(work: UnitOfWork, episodes: readonly Episode[]): Promise<Pick<CaseloadPage, 'rows' | 'odd'>> {
  const { clinicId } = work;
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
      standing: queueStanding,
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
