import { randomUUID } from 'node:crypto';
import type { ClipMarkBody, ClipPageView, ClipsView, FileView, NewClipReview, OwnPage } from '@dial-gauge/contract';
import type { Report } from '@dial-gauge/core';
import sharp from 'sharp';
import request from 'supertest';
import readability from 'text-readability';
import { readPdf } from '../../../../files/src/testing/pdf-text.js';
import { startClinics, type Clinics } from '../../testing/harness.js';

const mark = (over: Partial<ClipMarkBody> = {}): ClipMarkBody => ({
  id: randomUUID(),
  t: 3.2,
  tells: 'work',
  side: 'midline',
  shows: { screen: 'squatCheck', item: 'squat', fault: 'heelLifts' },
  words: '',
  sure: 'sure',
  lines: [
    [
      [0.1, 0.2],
      [0.5, 0.6],
    ],
  ],
  angles: [{ label: 'knee bend', degrees: 104, error: 3 }],
  still: null,
  ...over,
});

describe('clips that were looked over', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let stranger: Clinics['stranger'];
  let visitId: string;
  let episodeId: string;
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent, stranger } = clinics);
  });
  beforeEach(async () => ({ visitId, episodeId } = await clinics.startVisit()));
  afterAll(() => clinics.stop());

  type Who = Clinics['agent'];
  const review = (over: Partial<NewClipReview> = {}): NewClipReview => ({
    id: randomUUID(),
    clip: randomUUID(),
    version: 1,
    file: 'squat.webm',
    view: 'side',
    marks: [mark()],
    isShared: false,
    ...over,
  });
  const keep = (body: NewClipReview, status = 200, who: Who = agent, to = visitId) =>
    who.post(`/api/visits/${to}/clips`).send(body).expect(status);
  const attach = (bytes: Buffer, { status = 200, id = randomUUID() as string, who = agent, to = visitId } = {}) =>
    who
      .post(`/api/visits/${to}/stills`)
      .send({ id, words: 'squat at 3.2 s', base64: bytes.toString('base64') })
      .expect(status);
  const jpeg = (width = 400, height = 300) => sharp({ create: { width, height, channels: 3, background: '#88aacc' } }).jpeg();
  const page = async (clip: string): Promise<ClipPageView> => (await agent.get(`/api/clips/${clip}/page?locale=en-GB`).expect(200)).body;
  const errors = (body: { errors?: { path: string; message: string }[] }) => (body.errors ?? []).map(({ path }) => path);

  it('are kept version by version: sent twice once, a change made from an older one refused, and none altered', async () => {
    const first = review();
    for (let twice = 0; twice < 2; twice += 1) await keep(first);
    await keep({ ...first, id: randomUUID() });
    const second = { ...first, id: randomUUID(), version: 2, marks: [mark({ tells: 'strength', shows: null, words: 'calm and slow' })] };
    await keep(second);
    expect((await keep({ ...first, id: randomUUID(), version: 2 }, 409)).body.detail).toContain('was changed by ours meanwhile');
    await keep({ ...first, id: randomUUID(), version: 4 }, 409);
    const at = await Promise.all(
      [1, 2, 3].map((t) =>
        agent.post(`/api/visits/${visitId}/clips`).send({ ...second, id: randomUUID(), version: 3, marks: [mark({ t })] }),
      ),
    );
    expect(at.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
    const { reviews } = (await agent.get(`/api/visits/${visitId}/clips`).expect(200)).body as ClipsView;
    expect(reviews.map(({ version, file }) => [version, file])).toEqual([[3, 'squat.webm']]);
    const sql = (statement: string) => clinics.harness.dataSource.query(statement);
    await expectAsync(sql("UPDATE clip_review SET file = 'x'")).toBeRejectedWithError(/stays as it was/);
    await expectAsync(sql('DELETE FROM clip_review')).toBeRejectedWithError(/denied|is kept/);
  });

  it('are refused with the mark, what is wrong and what is allowed', async () => {
    const wrong = async (over: Partial<NewClipReview>) => errors((await keep(review(over), 422)).body);
    expect(await wrong({ marks: [mark(), mark(), mark(), mark()] })).toEqual(['marks']);
    expect(await wrong({ marks: [mark({ shows: { screen: 'squatCheck', item: 'squat', fault: 'kneeRollsIn' } })] })).toEqual([
      'marks.0.shows',
    ]);
    expect(await wrong({ marks: [mark({ still: randomUUID() })] })).toEqual(['marks.0.still']);
    expect(
      await wrong({
        marks: [
          mark({
            lines: [
              [
                [0, 0],
                [2, 0],
              ],
            ],
          }),
        ],
      }),
    ).toEqual(['marks.0.lines.0.1.0']);
    expect(await wrong({ marks: [mark({ shows: { screen: 'squatCheck', item: 'squat', fault: 'nothing' as never } })] })).toEqual([
      'marks.0.shows.fault',
    ]);
  });

  it('belong to one visit of one clinic, and so do their stills', async () => {
    const mine = review();
    await keep(mine);
    const still = randomUUID();
    await attach(await jpeg().toBuffer(), { id: still });
    await keep(review(), 404, stranger);
    await attach(await jpeg().toBuffer(), { status: 404, who: stranger });
    for (const path of [
      `/api/visits/${visitId}/clips`,
      `/api/clips/${mine.clip}/page`,
      `/api/clips/${mine.clip}/pdf`,
      `/api/stills/${still}`,
    ])
      await stranger.get(path).expect(404);
    await stranger.post(`/api/stills/${still}/removal`).send({}).expect(404);
    const other = (await clinics.startVisit()).visitId;
    // Another visit's clip and another visit's still.
    expect(errors((await keep({ ...mine, id: randomUUID(), version: 2 }, 422, agent, other)).body)).toEqual(['clip']);
    expect(errors((await keep(review({ marks: [mark({ still })] }), 422, agent, other)).body)).toEqual(['marks.0.still']);
    const theirs = (await clinics.startVisit(stranger)).visitId;
    expect(errors((await keep({ ...mine, id: randomUUID(), version: 1 }, 422, stranger, theirs)).body)).toEqual(['clip']);
    await keep({ ...mine }, 409, stranger, theirs);
    await attach(await jpeg().toBuffer(), { status: 409, id: still, who: stranger, to: theirs });
    await request(clinics.app).get(`/api/stills/${still}`).expect(401);
  });

  it('take nothing any more once the visit is signed', async () => {
    await clinics.hold(visitId).expect(200);
    await clinics.sign(visitId);
    const { body } = await keep(review(), 409);
    expect(body.detail).toContain('signed');
    await attach(await jpeg().toBuffer(), { status: 409 });
  });

  it('make a page for the sender, short and easy to read, as PDF, and on their own page only where it is shared', async () => {
    const { body } = await attach(await jpeg(800, 600).toBuffer());
    const [still] = (body as ClipsView).stills;
    const one = review({
      marks: [
        mark({ t: 4.5, still: still!.id, sure: 'likely' }),
        mark({ t: 1, tells: 'strength', shows: null, words: 'You keep your back long and calm.', angles: [] }),
        mark({ t: 2, tells: 'unseen', shows: null, words: 'Your feet are cut off.', angles: [] }),
      ],
    });
    await keep(one);
    const { report, pages } = await page(one.clip);
    expect(pages).toBe(1);
    expect(report.blocks.filter(({ kind }) => kind === 'picture').length).toBe(1);
    const prose = report.blocks
      .flatMap((block) =>
        block.kind === 'heading' || block.kind === 'paragraph' ? [block.text] : block.kind === 'list' ? block.items : [],
      )
      .map((line) => (/[.!?]$/.test(line) ? line : `${line}.`))
      .join(' ');
    expect(readability.fleschKincaidGrade(prose)).withContext(prose).toBeLessThanOrEqual(6);
    const file = (await agent.get(`/api/clips/${one.clip}/pdf?paper=letter`).expect(200)).body as FileView;
    expect(file.fileName).toMatch(/^marsh-\d{4}-\d\d-\d\d-clip\.pdf$/);
    const { pages: texts } = await readPdf(Buffer.from(file.base64, 'base64'));
    expect(texts.join(' ')).toContain('You keep your back long and calm.');

    const made = (await agent.post(`/api/episodes/${episodeId}/patient-pages`).send({ id: randomUUID(), days: 30 }).expect(200)).body;
    const opened = await request(clinics.app).post('/api/own-page/opening').send({ token: made.token, code: made.code }).expect(200);
    const own = async (): Promise<OwnPage> =>
      (await request(clinics.app).post('/api/own-page').send({ key: opened.body.key }).expect(200)).body;
    expect((await own()).clips).toEqual([]);
    await keep({ ...one, id: randomUUID(), version: 2, isShared: true });
    const [shown] = (await own()).clips as Report[];
    expect(shown!.title).toBe('What we saw in your clip');
    expect(JSON.stringify(shown)).toContain('/9j/');
    // Taken away, the picture is nowhere any more.
    await agent.post(`/api/stills/${still!.id}/removal`).send({}).expect(200);
    expect(JSON.stringify((await own()).clips)).not.toContain('/9j/');
    expect((await page(one.clip)).report.blocks.some(({ kind }) => kind === 'picture')).toBeFalse();
    await agent.get(`/api/stills/${still!.id}`).expect(404);
    const [row] = await clinics.harness.dataSource.query('SELECT bytes, removed_by FROM still WHERE id = ?', [still!.id]);
    expect([row.bytes, row.removed_by]).toEqual([null, clinics.ids.ours]);
  });

  it('keep plain pictures alone: upright, no larger than is looked at, without the place they were taken at', async () => {
    const withPlace = await jpeg(2400, 1200)
      .withExif({ IFD0: { Make: 'Somebody', Orientation: '6' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' } })
      .toBuffer();
    expect((await sharp(withPlace).metadata()).exif).toBeDefined();
    const id = randomUUID();
    for (let twice = 0; twice < 2; twice += 1) await attach(withPlace, { id });
    const stills = ((await agent.get(`/api/visits/${visitId}/clips`).expect(200)).body as ClipsView).stills;
    expect(stills.map(({ width, height }) => [width, height])).toEqual([[1600, 800]]);
    const { base64, mediaType } = (await agent.get(`/api/stills/${id}`).expect(200)).body as FileView;
    const kept = Buffer.from(base64, 'base64');
    const { exif, xmp, icc, format } = await sharp(kept).metadata();
    expect([mediaType, format, exif, xmp, icc]).toEqual(['image/jpeg', 'jpeg', undefined, undefined, undefined]);
    expect(kept.includes('Somebody')).toBeFalse();
    await attach(await jpeg(10, 10).toBuffer(), { id, status: 409 });
    const png = await sharp({ create: { width: 20, height: 10, channels: 4, background: '#0000' } })
      .png()
      .toBuffer();
    await attach(png);
  });

  it('refuse what is no picture by what it holds, whatever it is called', async () => {
    const refusedAs = async (bytes: Buffer) => {
      const { body } = await attach(bytes, { status: 422 });
      return body.errors[0] as { path: string; message: string };
    };
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>');
    expect((await refusedAs(svg)).message).toMatch(/^holds (no picture|application\/xml); allowed: a picture as JPEG, PNG or WebP/);
    expect((await refusedAs(Buffer.from('<!doctype html><script>1</script>'))).message).toContain('allowed: a picture');
    expect((await refusedAs(Buffer.from('%PDF-1.7 something that goes on for a while'))).message).toContain('application/pdf');
    const whole = await jpeg(600, 600).toBuffer();
    expect((await refusedAs(whole.subarray(0, Math.floor(whole.length / 2)))).message).toContain('broken picture');
    const bomb = await sharp({ create: { width: 12_000, height: 12_000, channels: 3, background: '#fff' } })
      .png({ compressionLevel: 9 })
      .toBuffer();
    expect(bomb.length).toBeLessThan(1_000_000);
    expect((await refusedAs(bomb)).message).toContain('million pixels');
    await agent.post(`/api/visits/${visitId}/stills`).send({ id: randomUUID(), words: 'x', base64: 'not base64!' }).expect(422);
    await agent
      .post(`/api/visits/${visitId}/stills`)
      .send({ id: randomUUID(), words: 'x', base64: 'A'.repeat(9_000_000) })
      .expect(413);
    expect(((await agent.get(`/api/visits/${visitId}/clips`).expect(200)).body as ClipsView).stills).toEqual([]);
  });
});
