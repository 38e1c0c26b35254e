import { randomUUID } from 'node:crypto';
import type { AuditEntry, NewValueCheck, NormsView, ValueCheckView } from '@dial-gauge/contract';
import { saidOf, valuesOf, type Finding, type PrintedValue } from '@dial-gauge/core';
import Papa from 'papaparse';
import type { Agent } from 'supertest';
import { startClinics, TODAY, type Clinics } from '../../testing/harness.js';

const HIP = valuesOf('norms', 'aaos-1965')!.find(({ motion }) => motion === 'hip.flexion')!;
const LIMIT = valuesOf('procedure', 'meniscus-repair')!.find(({ figures }) => 'limit' in figures && 'untilWeek' in figures)!;
const found = ({ kind, of, key }: PrintedValue, over: Partial<NewValueCheck> = {}): NewValueCheck => ({
  id: randomUUID(),
  kind,
  of,
  key,
  follows: null,
  corrected: null,
  source: 'An invented handbook',
  edition: '3rd ed.',
  page: 'p. 41',
  ...over,
});

describe('values that a clinic looks up', () => {
  let clinics: Clinics;
  beforeEach(async () => (clinics = await startClinics()));
  afterEach(() => clinics.stop());

  const send = (checks: readonly NewValueCheck[], by: Agent = clinics.agent) => by.post('/api/value-checks').send({ checks });
  const standing = async (by: Agent = clinics.agent): Promise<ValueCheckView[]> =>
    ((await by.get('/api/norms').expect(200)).body as NormsView).valueChecks;
  const short = async (visitId: string) => {
    const { body } = await clinics.agent.get(`/api/visits/${visitId}/judgement`).expect(200);
    const finding = (body.judgement.findings as Finding[]).find(({ kind }) => kind === 'short-of-normal')!;
    return { expected: finding.expected, because: saidOf(finding).because.join('\n') };
  };

  it('lose their flag as printed, and are judged by as corrected, where nothing was signed before', async () => {
    const [first, second] = [await clinics.startVisit(), await clinics.startVisit()];
    for (const { visitId } of [first, second]) await clinics.hold(visitId, { end: 80 }).expect(200);
    expect((await short(first.visitId)).because).toContain('AAOS 1965');
    expect((await short(first.visitId)).because).toContain('(from memory)');
    const check = found(HIP);
    const { body } = await send([check]).expect(200);
    expect(body.checks).toEqual([
      jasmine.objectContaining({ id: check.id, held: HIP.figures, corrected: null, page: 'p. 41', by: 'ours', on: TODAY }),
    ]);
    // Sent again, as after a lost answer: once on record.
    await send([check]).expect(200);
    expect((await standing()).length).toBe(1);
    const now = await short(first.visitId);
    expect(now.because).toContain('looked up in An invented handbook, 3rd ed., p. 41 by ours');
    expect((await clinics.sign(first.visitId)).status).toBe(200);

    const corrected = { expected: HIP.figures['expected']! - 6 };
    await send([found(HIP, { follows: check.id, corrected })]).expect(200);
    expect((await short(second.visitId)).expected).toBe(corrected.expected);
    // What was signed keeps what it was judged by.
    expect((await short(first.visitId)).expected).toBe(HIP.figures['expected']!);
    // The old figure stays on record, with who and when.
    const rows = await clinics.harness.asSchema<{ corrected: string | null }[]>(
      'SELECT corrected FROM value_check WHERE value_key = ? ORDER BY checked_at',
      [HIP.key],
    );
    expect(rows.map(({ corrected: one }) => one && JSON.parse(one))).toEqual([null, corrected]);
    await clinics.harness.servicesOf(clinics.app).auditor.chain();
    const { body: audit } = await clinics.agent.get('/api/audit').expect(200);
    expect((audit.rows as AuditEntry[]).filter(({ did, about }) => did === 'changed' && about === 'valueCheck').length).toBe(2);
  });

  it('are taken back, and can be looked up again', async () => {
    await send([found(HIP)]).expect(200);
    const [stands] = await standing();
    const back = found(HIP, { follows: stands!.id, withdrawn: true });
    const { body } = await send([back]).expect(200);
    expect(body.checks).toEqual([]);
    expect(await standing()).toEqual([]);
    await send([found(HIP)]).expect(200);
    expect((await standing()).map(({ corrected }) => corrected)).toEqual([null]);
  });

  it('are told where somebody else looked first: nothing is overwritten unseen', async () => {
    await send([found(HIP)]).expect(200);
    const [stands] = await standing();
    const both = await Promise.all([1, 2].map((by) => send([found(HIP, { follows: stands!.id, corrected: { expected: 110 + by } })])));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const { body } = await send([found(HIP)]).expect(409);
    expect(body.detail).toContain('looked up by somebody else');
    const used = (await standing())[0]!;
    await send([found(LIMIT, { id: used.id })]).expect(409);
  });

  it('are refused with the field where they do not fit, all of them or none', async () => {
    const before = (await standing()).length;
    const refusal = async (check: NewValueCheck): Promise<string> => {
      const { body } = await send([found(LIMIT), check]).expect(422);
      return `${body.errors[0].path}: ${body.errors[0].message}`;
    };
    const other = valuesOf('norms', 'aaos-1965')!.find(({ motion }) => motion === 'knee.flexion')!;
    expect(await refusal(found(other, { corrected: { expected: 900 } }))).toMatch(
      /^checks\.1\.corrected\.expected: 900 does not fit; allowed: /,
    );
    expect(await refusal(found(other, { corrected: { mean: 90 } }))).toContain('checks.1.corrected.mean: is no figure of this value');
    expect(await refusal({ ...found(other), key: 'nothing' })).toContain('checks.1.key: "nothing" is no value of it');
    expect(await refusal({ ...found(other), of: 'nothing' })).toContain('checks.1.of: "nothing" is none of this program');
    expect(await refusal(found(LIMIT))).toContain('checks.1.key: is sent twice');
    expect(await refusal(found(other, { page: '  ' }))).toContain('page');
    expect((await standing()).length).toBe(before);
  });

  it('are for the lead alone, and never another clinic’s', async () => {
    const { agent } = await clinics.somebody('examiner');
    await send([found(LIMIT)], agent).expect(403);
    await agent.post('/api/value-checks/csv').send({ csv: 'x' }).expect(403);
    expect(await standing(clinics.stranger)).toEqual([]);
    await send([found(HIP)]).expect(200);
    const [stands] = await standing();
    // An id of ours says nothing to them, and cannot be used by them.
    await send([found(LIMIT, { id: stands!.id })], clinics.stranger).expect(409);
    await send([found(HIP, { follows: stands!.id })], clinics.stranger).expect(409);
  });

  it('travel to another clinic as a table, and come back as they were', async () => {
    await send([found(HIP)]).expect(200);
    await send([found(LIMIT, { corrected: { ...LIMIT.figures, untilWeek: 8 }, source: '=1+1; "quoted"' })]).expect(200);
    const { body: file } = await clinics.agent.get('/api/value-checks/csv').expect(200);
    expect(file.fileName).toBe(`looked-up-${TODAY}.csv`);
    expect(file.csv).not.toContain('\n=');
    const { body } = await clinics.stranger.post('/api/value-checks/csv').send({ csv: file.csv }).expect(200);
    expect(body).toEqual({ values: (await standing()).length });
    const theirs = await standing(clinics.stranger);
    const bare = (all: readonly ValueCheckView[]) =>
      all.map(({ kind, of, key, held, corrected, source, page, on }) => ({ kind, of, key, held, corrected, source, page, on }));
    expect(bare(theirs)).toEqual(bare(await standing()));
    expect(theirs[0]!.by).toMatch(/ours \(brought in by other\)$/);
    // Once more: nothing is new.
    expect((await clinics.stranger.post('/api/value-checks/csv').send({ csv: file.csv }).expect(200)).body).toEqual({ values: 0 });
    const rows = Papa.parse<string[]>(file.csv.trimEnd()).data;
    const held = rows[0]!.indexOf('held');
    rows[1]![held] = 'expected=1';
    const { body: refused } = await clinics.stranger
      .post('/api/value-checks/csv')
      .send({ csv: Papa.unparse(rows) })
      .expect(422);
    expect(refused.errors[0].path).toBe('line 2, held');
    expect(refused.errors[0].message).toContain('is not what this program holds');
  });

  it('travel with a visit where they change what is proposed there', async () => {
    const knee = valuesOf('procedure', 'knee-replacement')!.find(({ figures }) => 'limit' in figures && 'untilWeek' in figures)!;
    await send([found(knee, { corrected: { ...knee.figures, untilWeek: 9 } })]).expect(200);
    const { visitId } = await clinics.startVisit();
    const { body } = await clinics.agent.get(`/api/visits/${visitId}`).expect(200);
    // Of norms and procedures only what was corrected travels with a visit.
    expect(body.valueChecks.every(({ corrected }: ValueCheckView) => corrected !== null)).toBeTrue();
    expect(body.valueChecks.some(({ key }: ValueCheckView) => key === knee.key)).toBeTrue();
  });

  it('stay as they were written, whoever asks the database', async () => {
    await send([found(HIP)]).expect(200);
    const run = (sql: string) => clinics.dataSource.query(sql);
    await expectAsync(run("UPDATE value_check SET page = 'p. 1'")).toBeRejected();
    await expectAsync(run('DELETE FROM value_check')).toBeRejected();
    await expectAsync(clinics.harness.asSchema('DELETE FROM value_check')).toBeRejected();
  });
});
