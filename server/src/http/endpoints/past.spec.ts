import { randomUUID } from 'node:crypto';
import type { NewPast, PastView, ProgressView } from '@dial-gauge/contract';
import { guessColumns } from '@dial-gauge/core';
import { xlsxOf } from '../../../../files/src/testing/xlsx.js';
import { episodes, type Episodes } from '../../testing/episodes.js';
import { startClinics, TODAY, type Clinics } from '../../testing/harness.js';

const ROWS = [
  ['Date', 'Left hip flexion passive'],
  ['3.11.2024', '60'],
  ['1.12.2024', '71'],
];

describe('readings of before', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let patient: Episodes['patient'];
  let visit: Episodes['visit'];
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent } = clinics);
    ({ patient, visit } = episodes(agent));
  });
  afterAll(() => clinics.stop());

  const list = (over: Partial<NewPast> = {}, rows: string[][] = ROWS): NewPast => ({
    ...{ id: randomUUID(), fileName: 'last year.xlsx', rows },
    choices: {
      columns: guessColumns(rows) as NewPast['choices']['columns'],
      dateOrder: 'day-month-year',
      minus: null,
      mode: null,
      instrument: null,
      without: [],
    },
    ...over,
  });
  const bring = (episodeId: string, body: object, status = 200) => agent.post(`/api/episodes/${episodeId}/past`).send(body).expect(status);
  const seen = async (episodeId: string): Promise<PastView> => (await agent.get(`/api/episodes/${episodeId}/past`).expect(200)).body;
  const points = async (visitId: string) => {
    const { series } = (await agent.get(`/api/visits/${visitId}/progress`).expect(200)).body as ProgressView;
    return series.flatMap(({ points: all }) => all.map(({ on, value, broughtIn }) => [on, value, broughtIn ?? false]));
  };

  it('are brought in once, take part in progress with a mark and a larger error, and are undone as a whole', async () => {
    const episodeId = await patient();
    const visitId = await visit(episodeId);
    await clinics.hold(visitId, { end: 90 }).expect(200);
    const body = list();
    for (let twice = 0; twice < 2; twice += 1) await bring(episodeId, body);
    expect(await points(visitId)).toEqual([
      ['2024-11-03', 60, true],
      ['2024-12-01', 71, true],
      [TODAY, 90, false],
    ]);
    const [batch, ...more] = (await seen(episodeId)).batches;
    expect([batch!.readings, batch!.from, batch!.until, batch!.by, batch!.undone, more]).toEqual([
      2,
      '2024-11-03',
      '2024-12-01',
      'ours',
      null,
      [],
    ]);
    for (let twice = 0; twice < 2; twice += 1) await agent.post(`/api/past/${body.id}/undoing`).send({}).expect(200);
    expect(await points(visitId)).toEqual([[TODAY, 90, false]]);
    expect((await seen(episodeId)).batches[0]!.undone!.by).toBe('ours');
    const sql = (statement: string) => clinics.harness.dataSource.query(statement);
    await expectAsync(sql("UPDATE past_batch SET sessions = '[]'")).toBeRejectedWithError(/stays as it was brought in/);
    await expectAsync(sql('DELETE FROM past_batch')).toBeRejectedWithError(/denied|is kept/);
  });

  it('are refused as a whole with every cell that cannot be read, and come in without the rows that were left out', async () => {
    const episodeId = await patient();
    const rows = [...ROWS, ['30.2.2025', '80'], ['3.3.2025', 'about 90']];
    const { errors, detail } = (await bring(episodeId, list({}, rows), 422)).body;
    expect(detail).toBe('2 cells cannot be read, so nothing was brought in.');
    expect(errors.map(({ path }: { path: string }) => path)).toEqual(['line 4, Date', 'line 5, Left hip flexion passive']);
    expect((await seen(episodeId)).batches).toEqual([]);
    const body = list({}, rows);
    await bring(episodeId, { ...body, choices: { ...body.choices, without: [4, 5] } });
    expect((await seen(episodeId)).batches[0]!.readings).toBe(2);
    expect((await bring(episodeId, list({ rows: [['Date', 'Left hip flexion passive']] }), 422)).body.detail).toBe(
      'No row holds a reading.',
    );
  });

  it('are of their episode and clinic alone', async () => {
    const [episodeId, other] = [await patient(), await patient()];
    const body = list();
    await bring(episodeId, body);
    await bring(other, body, 409);
    await bring(episodeId, { ...body, fileName: 'another.xlsx' }, 409);
    await clinics.stranger.get(`/api/episodes/${episodeId}/past`).expect(404);
    await clinics.stranger.post(`/api/episodes/${episodeId}/past`).send(list()).expect(404);
    await clinics.stranger.post(`/api/past/${body.id}/undoing`).send({}).expect(404);
    expect((await seen(episodeId)).batches[0]!.undone).toBeNull();
  });

  it('are read from a spreadsheet without keeping it, and what is none is told by its name', async () => {
    const sheet = (bytes: Uint8Array, status = 200) =>
      agent
        .post('/api/sheets')
        .send({ fileName: 'last year.xlsx', base64: Buffer.from(bytes).toString('base64') })
        .expect(status);
    expect(
      (
        await sheet(
          xlsxOf([
            ['Date', 'x'],
            ['3.11.2024', 60],
          ]),
        )
      ).body.rows,
    ).toEqual([
      ['Date', 'x'],
      ['3.11.2024', '60'],
    ]);
    const { errors } = (await sheet(new Uint8Array([80, 75, 1, 2]), 422)).body;
    expect(errors[0]).toEqual({ path: 'last year.xlsx', message: 'is broken; allowed: a spreadsheet as .xlsx, or text' });
    expect((await agent.post('/api/sheets').send({ fileName: 'x', base64: 'not base64!' }).expect(422)).body.errors[0].path).toBe('base64');
  });
});
