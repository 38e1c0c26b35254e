import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { startClinics, type Clinics } from './harness.js';

type Who = 'ours' | 'second' | 'other';
interface Reading {
  readonly id: string;
  readonly end: number;
  readonly by: Who;
  withdrawn: boolean;
  corrects: string | null;
}

/** What the database has to hold, kept in the plainest way there is. */
interface Model {
  readonly readings: Map<string, Reading & { readonly visit: number }>;
  readonly signed: Map<number, boolean>;
  /** Who opened a visit to be amended: who signs it then. Otherwise it is whoever examined. */
  readonly amending: Map<number, Who>;
  readonly signatures: Map<string, number>;
  readonly pains: Map<number, number>;
}

type Step =
  | { readonly do: 'hold'; readonly who: Who; readonly visit: number; readonly id: number; readonly end: number }
  | { readonly do: 'withdraw'; readonly who: Who; readonly id: number }
  | { readonly do: 'correct'; readonly who: Who; readonly id: number; readonly by: number; readonly end: number }
  | { readonly do: 'pain'; readonly who: Who; readonly visit: number; readonly pain: number }
  | { readonly do: 'sign'; readonly who: Who; readonly visit: number; readonly id: number }
  | { readonly do: 'amend'; readonly who: Who; readonly visit: number }
  | { readonly do: 'cut'; readonly who: Who; readonly visit: number; readonly id: number; readonly end: number };

const VISITS = 3;
const who = fc.constantFrom<Who>('ours', 'ours', 'second', 'other');
const visit = fc.integer({ min: 0, max: VISITS - 1 });
// Few ids, so that repeats and clashes are many.
const id = fc.integer({ min: 0, max: 7 });
const end = fc.integer({ min: 80, max: 84 });
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 5, arbitrary: fc.record({ do: fc.constant('hold' as const), who, visit, id, end }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('cut' as const), who, visit, id, end }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('withdraw' as const), who, id }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('correct' as const), who, id, by: id, end }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('pain' as const), who, visit, pain: fc.integer({ min: 0, max: 3 }) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('sign' as const), who, visit, id }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('amend' as const), who, visit }) },
);

/** One run: three visits, the ids that commands choose among, and what the model holds of them. */
interface Trial {
  readonly clinics: Clinics;
  readonly agents: Readonly<Record<Who, Clinics['agent']>>;
  /** The first two are ours, the last one is the other clinic's. */
  readonly visits: readonly string[];
  readonly ids: readonly string[];
  readonly model: Model;
}

async function beginTrial(clinics: Clinics): Promise<Trial> {
  const started = [await clinics.startVisit(), await clinics.startVisit(), await clinics.startVisit(clinics.stranger)];
  return {
    clinics,
    agents: { ours: clinics.agent, second: clinics.second, other: clinics.stranger },
    visits: started.map(({ visitId }) => visitId),
    ids: Array.from({ length: 8 }, () => randomUUID()),
    model: { readings: new Map(), signed: new Map(), amending: new Map(), signatures: new Map(), pains: new Map() },
  };
}

const ours = (v: number): boolean => v < 2;
const mayUse = (user: Who, v: number): boolean => ours(v) === (user !== 'other');
type Do<K extends Step['do']> = Extract<Step, { do: K }>;

function holdInModel({ model }: Trial, user: Who, v: number, readingId: string, value: number): boolean {
  if (!mayUse(user, v)) return false;
  const there = model.readings.get(readingId);
  if (there) return there.visit === v && there.end === value && there.corrects === null;
  if (model.signed.get(v)) return false;
  model.readings.set(readingId, { id: readingId, end: value, by: user, withdrawn: false, corrects: null, visit: v });
  return true;
}

async function hold(trial: Trial, s: Do<'hold' | 'cut'>): Promise<void> {
  const { clinics, visits, ids, agents } = trial;
  const expected = holdInModel(trial, s.who, s.visit, ids[s.id]!, s.end);
  const send = () => clinics.hold(visits[s.visit]!, { id: ids[s.id]!, end: s.end }, agents[s.who]);
  // Cut: the sender never hears of the first, and sends it again: both arrive, perhaps at once.
  const answers = await Promise.all(s.do === 'cut' ? [send(), send()] : [send()]);
  // Whose id it is decides which refusal it is; that it is one is what counts.
  expect(answers.at(-1)!.status === 200)
    .withContext(JSON.stringify(s))
    .toBe(expected);
}

async function withdraw({ model, ids, agents }: Trial, s: Do<'withdraw'>): Promise<void> {
  const reading = model.readings.get(ids[s.id]!);
  const mine = reading && mayUse(s.who, reading.visit);
  const expected = !mine ? 404 : reading.withdrawn ? 200 : model.signed.get(reading.visit) ? 409 : 200;
  if (expected === 200) reading!.withdrawn = true;
  expect((await agents[s.who].post(`/api/readings/${ids[s.id]!}/withdrawal`).send({})).status)
    .withContext(JSON.stringify(s))
    .toBe(expected);
}

function mayCorrect({ model, ids }: Trial, { who: user, id: of, by, end: value }: Do<'correct'>): boolean {
  const old = model.readings.get(ids[of]!);
  if (!old || !mayUse(user, old.visit)) return false;
  const before = [...model.readings.values()].find((reading) => reading.corrects === old.id);
  if (old.withdrawn) return before?.id === ids[by]! && before.end === value;
  return !model.signed.get(old.visit) && !model.readings.has(ids[by]!);
}

async function correct(trial: Trial, s: Do<'correct'>): Promise<void> {
  const { model, ids, agents } = trial;
  const expected = mayCorrect(trial, s);
  const { status } = await agents[s.who].post(`/api/readings/${ids[s.id]!}/correction`).send({ id: ids[s.by]!, end: s.end, why: 'slip' });
  expect(status === 200)
    .withContext(JSON.stringify(s))
    .toBe(expected);
  const old = model.readings.get(ids[s.id]!);
  if (!expected || !old || old.withdrawn) return;
  old.withdrawn = true;
  model.readings.set(ids[s.by]!, { id: ids[s.by]!, end: s.end, by: s.who, withdrawn: false, corrects: old.id, visit: old.visit });
}

async function notePain({ model, visits, agents }: Trial, s: Do<'pain'>): Promise<void> {
  const way = { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine' };
  const { status } = await agents[s.who].put(`/api/visits/${visits[s.visit]!}/remarks`).send({ ...way, pain: s.pain });
  const same = model.pains.get(s.visit) === s.pain;
  const allowed = mayUse(s.who, s.visit) && (same || !model.signed.get(s.visit));
  expect(status === 200)
    .withContext(JSON.stringify(s))
    .toBe(allowed);
  if (allowed) model.pains.set(s.visit, s.pain);
}

async function sign({ clinics, model, visits, ids, agents }: Trial, s: Do<'sign'>): Promise<void> {
  const owner: Who = ours(s.visit) ? 'ours' : 'other';
  const signer = mayUse(s.who, s.visit) ? s.who : owner;
  const isTheirs = signer === (model.amending.get(s.visit) ?? owner);
  const { status } = await clinics.sign(visits[s.visit]!, agents[signer], ids[s.id]!);
  const already = model.signatures.get(ids[s.id]!);
  if (already !== undefined) {
    if (already !== s.visit) expect(status).withContext(JSON.stringify(s)).toBe(409);
    return;
  }
  if (model.signed.get(s.visit)) return;
  const hasReadings = [...model.readings.values()].some((reading) => reading.visit === s.visit && !reading.withdrawn);
  if (!isTheirs) expect(status).withContext(JSON.stringify(s)).toBe(403);
  else if (hasReadings) {
    expect(status).withContext(JSON.stringify(s)).toBe(200);
    model.amending.delete(s.visit);
    model.signatures.set(ids[s.id]!, s.visit);
    model.signed.set(s.visit, true);
  }
}

async function amend({ model, visits, agents }: Trial, s: Do<'amend'>): Promise<void> {
  const { status } = await agents[s.who].post(`/api/visits/${visits[s.visit]!}/amendment`).send({ why: 'look again' });
  if (status !== 200) return;
  expect(mayUse(s.who, s.visit)).withContext(JSON.stringify(s)).toBeTrue();
  // Asked for again while it is open, it stays whoever opened it.
  if (model.signed.get(s.visit)) model.amending.set(s.visit, s.who);
  model.signed.set(s.visit, false);
}

function run(trial: Trial, s: Step): Promise<void> {
  switch (s.do) {
    case 'hold':
    case 'cut':
      return hold(trial, s);
    case 'withdraw':
      return withdraw(trial, s);
    case 'correct':
      return correct(trial, s);
    case 'pain':
      return notePain(trial, s);
    case 'sign':
      return sign(trial, s);
    case 'amend':
      return amend(trial, s);
  }
}

/**
 * Random commands of two users of one clinic and one of another, with repeats,
 * clashes and connections cut before the answer, against a model: nothing is
 * lost, doubled, moved or changed.
 */
describe('random commands', () => {
  let clinics: Clinics;
  beforeAll(async () => {
    clinics = await startClinics();
  });
  afterAll(() => clinics.stop());

  it('leave the database as the model says', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 10, maxLength: 40 }), async (steps) => {
        const trial = await beginTrial(clinics);
        const { visits, model } = trial;
        for (const s of steps) await run(trial, s);

        const rows = (await clinics.dataSource.query(
          `SELECT t.id, t.end_angle AS end, t.withdrawn_at IS NOT NULL AS withdrawn, t.corrects, m.visit_id AS visit, u.name AS who, u.clinic_id = t.clinic_id AS own
             FROM trial t JOIN measurement m ON m.id = t.measurement_id JOIN user u ON u.id = t.examiner_id WHERE m.visit_id IN (?)`,
          [visits],
        )) as { id: string; end: number; withdrawn: number; corrects: string | null; visit: string; who: string; own: number }[];
        const stored = rows.map((r) => [r.id, Number(r.end), Number(r.withdrawn) === 1, r.corrects, visits.indexOf(r.visit), r.who]).sort();
        const expected = [...model.readings.values()].map((r) => [r.id, r.end, r.withdrawn, r.corrects, r.visit, r.by]).sort();
        expect(stored).toEqual(expected);
        expect(rows.every((row) => Number(row.own) === 1)).toBeTrue();
        const signatures = (await clinics.dataSource.query('SELECT id, visit_id AS visit FROM signature WHERE visit_id IN (?)', [
          visits,
        ])) as {
          id: string;
          visit: string;
        }[];
        expect(signatures.map((s) => [s.id, visits.indexOf(s.visit)]).sort()).toEqual([...model.signatures].sort());
        const pains = (await clinics.dataSource.query(
          'SELECT visit_id AS visit, pain FROM measurement WHERE visit_id IN (?) AND pain IS NOT NULL',
          [visits],
        )) as { visit: string; pain: number }[];
        expect(pains.map((p) => [visits.indexOf(p.visit), p.pain]).sort()).toEqual([...model.pains].sort());
      }),
      { numRuns: 25 },
    );
  });
});
