import { randomUUID } from 'node:crypto';
import { CASELOAD_PAGE, type CaseloadPage } from '@dial-gauge/contract';
import { newPatient, startClinics, TODAY, type Clinics } from '../../testing/harness.js';

const COUNT = 120;

describe('a caseload', () => {
  let clinics: Clinics;
  beforeAll(async () => {
    clinics = await startClinics();
    for (let n = 0; n < COUNT; n += 1) {
      const complaint = n % 3 === 0 ? 'stiff left hip' : n % 3 === 1 ? 'Knee after a fall' : 'neck and arm';
      const patient = newPatient({
        givenName: n === 7 ? 'Zoë' : 'Ilka',
        familyName: `Marsh${String(n).padStart(3, '0')}`,
        episode: { id: randomUUID(), complaint, involvedSide: null },
      });
      await clinics.agent.post('/api/patients').send(patient).expect(200);
      if (n % 10 === 0) {
        const intake = { complaint, dueOn: `2027-01-${String(1 + n / 10).padStart(2, '0')}`, revision: 0 };
        await clinics.agent.put(`/api/episodes/${patient.episode.id}/intake`).send(intake).expect(200);
      }
    }
  });
  afterAll(() => clinics.stop());

  const page = async (query: object): Promise<CaseloadPage> => (await clinics.agent.get('/api/caseload').query(query).expect(200)).body;
  const all = async (query: object): Promise<string[]> => {
    const names: string[] = [];
    for (let after: string | null | undefined; after !== null;) {
      const { rows, next } = await page({ ...query, ...(after ? { after } : {}) });
      names.push(...rows.map((row) => row.patient.familyName));
      after = next;
    }
    return names;
  };
  /** The first order follows what is told of each person behind the page: read until it no longer moves. */
  const standingStill = async (): Promise<string[]> => {
    for (let before: string[] = []; ;) {
      const now = await all({});
      if (now.join() === before.join()) return now;
      before = now;
    }
  };
  const name = (n: number) => `Marsh${String(n).padStart(3, '0')}`;

  it('comes a page at a time, everybody once, in each order', async () => {
    expect((await page({})).rows.length).toBe(CASELOAD_PAGE);
    const latest = await standingStill();
    expect(latest.length).toBe(COUNT);
    expect(new Set(latest).size).toBe(COUNT);
    expect(await all({ order: 'name' })).toEqual(Array.from({ length: COUNT }, (_, n) => name(n)));
    expect(await all({ order: 'due' })).toEqual(Array.from({ length: COUNT / 10 }, (_, n) => name(n * 10)));
  });

  it('is found through by beginnings of words, of names and complaints, without accents and case', async () => {
    expect(await all({ find: 'zoe' })).toEqual([name(7)]);
    expect((await all({ find: 'STIFF hip' })).length).toBe(COUNT / 3);
    expect(await all({ find: 'knee marsh004' })).toEqual([name(4)]);
    expect(await all({ find: 'iff' }))
      .withContext('beginnings only')
      .toEqual([]);
    expect(await all({ find: "%' OR 1=1 --" })).toEqual([]);
    expect((await all({ find: 'marsh', order: 'name' })).length).toBe(COUNT);
  });

  it('is found through by a word that very many have, in its order, through keys', async () => {
    const [one] = await clinics.dataSource.query('SELECT * FROM episode LIMIT 1');
    // More than are looked up at once; and before them, by name, more than are walked past.
    const [COMMON, BEFORE] = [5_200, 6_000];
    for (const [first, complaint, count] of [
      ['Yy', 'other', BEFORE],
      ['Zz', 'common', COMMON],
    ])
      await clinics.harness.asSchema(
        `INSERT INTO episode (id, clinic_id, patient_id, complaint, opened_on, sort_name)
         SELECT UUID(), ?, ?, ?, '2026-01-01', CONCAT(?, LPAD(seq, 5, '0')) FROM seq_1_to_${count}`,
        [one.clinic_id, one.patient_id, complaint, first],
      );
    for (const word of ['common', 'commonly'])
      await clinics.dataSource.query(
        'INSERT INTO episode_word (clinic_id, word, episode_id) SELECT clinic_id, ?, id FROM episode WHERE complaint = ?',
        [word, 'common'],
      );
    try {
      const ids = async (query: object): Promise<string[]> => (await page(query)).rows.map(({ episode }) => episode.id);
      const byName: { id: string }[] = await clinics.dataSource.query(
        "SELECT id FROM episode WHERE complaint = 'common' ORDER BY sort_name",
      );
      const expected = byName.slice(0, CASELOAD_PAGE).map(({ id }) => id);
      expect(await ids({ find: 'comm', order: 'name' }))
        .withContext('beyond what is walked past')
        .toEqual(expected);
      expect(await ids({ find: 'common comm', order: 'name' }))
        .withContext('two common beginnings')
        .toEqual(expected);
      expect((await all({ find: 'comm', order: 'latest' })).length).toBe(COMMON);
      expect((await all({ find: 'comm', whose: 'mine' })).length)
        .withContext('all walked, none found')
        .toBe(0);
      expect((await all({ find: 'comm nobody', order: 'name' })).length).toBe(0);
    } finally {
      await clinics.dataSource.query("DELETE w FROM episode_word w JOIN episode e ON e.id = w.episode_id WHERE e.complaint = 'common'");
      await clinics.harness.asSchema("DELETE FROM episode WHERE complaint IN ('common', 'other')");
    }
  });

  it('follows a changed complaint, and a visit that begins', async () => {
    const [row] = (await page({ find: 'marsh011' })).rows;
    await clinics.agent.put(`/api/episodes/${row!.episode.id}/intake`).send({ complaint: 'wrist, healed', revision: 0 }).expect(200);
    expect(await all({ find: 'wrist' })).toEqual([name(11)]);
    expect(await all({ find: 'marsh011 neck' })).toEqual([]);
    const start = (assessedOn: string) =>
      clinics.agent.post(`/api/episodes/${row!.episode.id}/visits`).send({ id: randomUUID(), assessedOn });
    await start(TODAY).expect(200);
    expect((await page({ order: 'latest' })).rows[0]!.lastVisit).toEqual(
      jasmine.objectContaining({ assessedOn: TODAY, number: 1, readings: 0 }),
    );
    await start('2020-01-01').expect(200);
    const now = (await page({ find: 'wrist' })).rows[0]!;
    expect([now.visits, now.lastVisit?.assessedOn, now.lastVisit?.number]).toEqual([2, TODAY, 2]);
  });

  it('counts every one of many visits that begin at once', async () => {
    const [row] = (await page({ find: 'marsh013' })).rows;
    await Promise.all(
      Array.from({ length: 8 }, () =>
        clinics.agent.post(`/api/episodes/${row!.episode.id}/visits`).send({ id: randomUUID(), assessedOn: TODAY }).expect(200),
      ),
    );
    expect((await page({ find: 'marsh013' })).rows[0]!.visits).toBe(8);
  });

  it('refuses the end of a page that is none, by name, and a name that comes twice', async () => {
    const wrong = async (query: object) => (await clinics.agent.get('/api/caseload').query(query).expect(422)).body.errors[0].path;
    expect(await wrong({ after: 'abc' })).toBe('after');
    expect(await wrong({ after: Buffer.from('["2026-01-01", 5]').toString('base64url') })).toBe('after');
    expect(await wrong({ order: 'age' })).toBe('order');
    expect(await wrong({ offset: 5 })).toBe('offset');
    expect(await wrong({ order: ['name', 'due'] })).toBe('order');
  });

  it('is one clinic’s', async () => {
    const { body } = await clinics.stranger.get('/api/caseload').query({ find: 'marsh' }).expect(200);
    expect(body).toEqual({ rows: [], odd: [], next: null });
  });
});
