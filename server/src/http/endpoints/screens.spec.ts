import { randomUUID } from 'node:crypto';
import { startClinics, type Clinics } from '../../testing/harness.js';
import { episodes, type Episodes } from '../../testing/episodes.js';

const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);

describe('screens', () => {
  let clinics: Clinics;
  let agent: Clinics['agent'];
  let stranger: Clinics['stranger'];
  let patient: Episodes['patient'];
  let visit: Episodes['visit'];
  let judgement: Episodes['judgement'];
  beforeAll(async () => {
    clinics = await startClinics();
    ({ agent, stranger } = clinics);
    ({ patient, visit, judgement } = episodes(agent));
  });
  afterAll(() => clinics.stop());

  const squat = (faults: string[], more: object = {}) => ({
    id: randomUUID(),
    screen: 'squatCheck',
    item: 'squat',
    view: 'side',
    side: 'left',
    try: { faults, pain: 0 },
    ...more,
  });
  const post = (id: string, body: object, status = 200) => agent.post(`/api/visits/${id}/screens`).send(body).expect(status);
  const wall = (value: number, more: object = {}) => ({
    id: randomUUID(),
    screen: 'loadingReadiness',
    item: 'kneeToWall',
    side: 'left',
    try: { value, pain: 0 },
    ...more,
  });

  it('keep every try once, in the order it was done, and judge them with the visit', async () => {
    const id = await visit(await patient());
    const first = squat(['heelLifts']);
    for (let twice = 0; twice < 2; twice++) await post(id, first);
    await post(id, squat([], { with: ['heelsRaised'] }));
    const { body } = await post(id, { id: randomUUID(), screen: 'patterns', item: 'leanBack', skipped: 'dizzy today' });
    expect(
      body.tries.map((t: { item: string; with?: string[]; skipped: string | null; by: string }) => [t.item, t.with ?? [], t.skipped, t.by]),
    ).toEqual([
      ['squat', [], null, 'ours'],
      ['squat', ['heelsRaised'], null, 'ours'],
      ['leanBack', [], 'dizzy today', 'ours'],
    ]);
    const { screens } = (await judgement(id)).judgement;
    expect(screens!.map(({ item, quality, opens }) => [item, quality, opens])).toEqual([
      ['squat', 'short', ['squat.heelLifts']],
      ['squat', 'meets', []],
      ['leanBack', 'not judged', []],
    ]);
  });

  it('refuse what does not fit, with its field, and keep nothing of it', async () => {
    const id = await visit(await patient());
    const wrong = async (body: object) => (await post(id, body, 422)).body.errors[0];
    expect(await wrong(squat(['kneeRollsIn']))).toEqual(jasmine.objectContaining({ path: 'try.faults.0' }));
    expect((await wrong(squat([], { item: 'jump' }))).path).toBe('item');
    expect((await wrong(squat([], { screen: 'yoga' }))).message).toContain('allowed: patterns');
    expect((await wrong(wall(40))).message).toBe('40 cm is more than kneeToWall can hold; allowed: 0 to 25 cm');
    expect((await wrong(wall(4, { side: undefined }))).path).toBe('side');
    expect((await wrong({ id: randomUUID(), screen: 'patterns', item: 'leanBack' })).path).toBe('try');
    expect((await wrong(squat([], { try: { pain: 12 } }))).path).toBe('try.pain');
    expect((await agent.get(`/api/visits/${id}/screens`).expect(200)).body.tries).toEqual([]);
  });

  it('refuse what a precaution forbids, and take it as left out', async () => {
    const episodeId = await patient();
    const id = await visit(episodeId);
    const { body: record } = await agent.get(`/api/visits/${id}`).expect(200);
    await agent
      .put(`/api/episodes/${episodeId}/intake`)
      .send({
        ...intakeOf(record.episode),
        precautions: [{ motion: 'ankle.dorsiflexion', side: 'left', limit: null, until: null, source: 'the surgeon' }],
      })
      .expect(200);
    expect((await post(id, wall(4), 422)).body.errors[0].message).toContain('the surgeon');
    expect((await post(id, wall(4, { side: 'right' }), 422)).body.errors[0].message)
      .withContext('the back ankle bends too')
      .toContain('takes the other');
    await post(id, { id: randomUUID(), screen: 'patterns', item: 'toeTouch', try: { value: 3 } });
    await post(id, wall(4, { try: undefined, skipped: 'forbidden by the surgeon' }));
  });

  it('are of their visit, their clinic and their sender’s id alone', async () => {
    const episodeId = await patient();
    const [a, b] = [await visit(episodeId, daysAgo(7)), await visit(episodeId)];
    const held = wall(5);
    await post(a, held);
    await post(b, held, 409);
    await post(a, { ...held, try: { value: 9, pain: 0 } }, 409);
    await stranger.get(`/api/visits/${a}/screens`).expect(404);
    await stranger.post(`/api/visits/${a}/screens`).send(wall(5)).expect(404);
    await stranger.post(`/api/screen-tries/${held.id}/corrections`).send({ id: randomUUID(), try: null }).expect(404);
    expect((await agent.get(`/api/visits/${b}/screens`).expect(200)).body.tries).toEqual([]);
  });

  it('are put right and taken back; the first stays on record, and of two at once one is told', async () => {
    const id = await visit(await patient());
    const [slip, other] = [wall(14), wall(6, { side: 'right' })];
    await post(id, slip);
    await post(id, other);
    const correct = (target: string, body: object, status = 200) =>
      agent.post(`/api/screen-tries/${target}/corrections`).send(body).expect(status);
    const right = { id: randomUUID(), try: { value: 4, pain: 0 } };
    for (let twice = 0; twice < 2; twice++) await correct(slip.id, right);
    const { body } = await agent.get(`/api/visits/${id}/screens`).expect(200);
    expect(body.tries.map((t: { side: string; try: { value: number } }) => [t.side, t.try.value])).toEqual([
      ['left', 4],
      ['right', 6],
    ]);
    expect((await correct(slip.id, { id: randomUUID(), try: { value: 5 } }, 409)).body.detail).toContain(
      'put right or taken back meanwhile',
    );
    expect((await correct(right.id, { id: randomUUID(), try: { value: 55 } }, 422)).body.errors[0].path).toBe('try.value');
    await correct(right.id, { id: randomUUID(), try: null });
    expect((await agent.get(`/api/visits/${id}/screens`).expect(200)).body.tries.length).toBe(1);
    const rows = await clinics.harness.dataSource.query('SELECT COUNT(*) AS n FROM screen_try WHERE visit_id = ?', [id]);
    expect(Number(rows[0].n)).toBe(4);
    await expectAsync(
      clinics.harness.dataSource.query("UPDATE screen_try SET side = 'left' WHERE visit_id = ?", [id]),
    ).toBeRejectedWithError(/stays as it is/);
    await expectAsync(clinics.harness.dataSource.query('DELETE FROM screen_try WHERE visit_id = ?', [id])).toBeRejectedWithError(
      /denied|is kept/,
    );
  });

  it('compare with the last time they were run, by the item’s own error', async () => {
    const episodeId = await patient();
    const [first, between, now] = [await visit(episodeId, daysAgo(28)), await visit(episodeId, daysAgo(14)), await visit(episodeId)];
    await post(first, wall(4));
    await post(first, wall(8, { side: 'right' }));
    await post(now, wall(8));
    await post(now, wall(8.5, { side: 'right' }));
    const { screens } = (await judgement(now)).judgement;
    expect(screens!.map(({ side, before }) => [side, before!.change, before!.on])).toEqual([
      ['left', 'better', daysAgo(28)],
      ['right', 'same', daysAgo(28)],
    ]);
    const view = await agent.get(`/api/visits/${now}/screens`).expect(200);
    expect([view.body.before.on, view.body.before.tries.length]).toEqual([daysAgo(28), 2]);
    expect((await judgement(between)).judgement.screens).toBeUndefined();
  });

  it('look back past what was taken back, and as far as each was done the last time', async () => {
    const episodeId = await patient();
    const [first, slipped, later, now] = [
      await visit(episodeId, daysAgo(42)),
      await visit(episodeId, daysAgo(28)),
      await visit(episodeId, daysAgo(14)),
      await visit(episodeId),
    ];
    const slip = wall(12);
    await post(first, wall(4));
    await post(slipped, slip);
    await agent.post(`/api/screen-tries/${slip.id}/corrections`).send({ id: randomUUID(), try: null }).expect(200);
    await post(later, squat(['heelLifts']));
    await post(now, wall(9));
    await post(now, squat([]));
    const { screens } = (await judgement(now)).judgement;
    expect(screens!.map(({ item, before }) => [item, before!.on, before!.change])).toEqual([
      ['kneeToWall', daysAgo(42), 'better'],
      ['squat', daysAgo(14), 'better'],
    ]);
    const { body } = await agent.get(`/api/visits/${now}/screens`).expect(200);
    expect([body.before.on, body.before.tries.map((t: { item: string }) => t.item)]).toEqual([daysAgo(14), ['squat']]);
  });

  it('are signed with the visit, which needs nothing measured, and then stand', async () => {
    const id = await visit(await patient());
    const held = wall(4);
    await post(id, held);
    const { seen, judgement: shown } = await judgement(id);
    expect(shown.screens!.length).toBe(1);
    await post(id, squat(['heelLifts']));
    const unseen = await agent
      .post(`/api/visits/${id}/signatures`)
      .send({ id: randomUUID(), summary: 'Knee to wall short.', seen })
      .expect(409);
    expect(unseen.body.errors[0].message).toBe('screen, left squat from the side added (ours)');
    expect((await clinics.sign(id)).status).toBe(200);
    await post(id, wall(5), 409);
    await agent.post(`/api/screen-tries/${held.id}/corrections`).send({ id: randomUUID(), try: null }).expect(409);
    await post(id, held);
    const { judgement: signed, signing } = await judgement(id);
    expect(signed.screens!.map(({ item }) => item)).toEqual(['kneeToWall', 'squat']);
    expect(signing.changes).toEqual([]);
  });

  it('are kept for review when they arrive for a signed visit, and taken in afterwards', async () => {
    const id = await visit(await patient());
    await post(id, wall(4));
    const enteredAt = new Date().toISOString();
    expect((await clinics.sign(id)).status).toBe(200);
    const late = wall(6, { side: 'right' });
    const { body } = await agent.post(`/api/visits/${id}/screens`).set('x-dial-gauge-entered', enteredAt).send(late).expect(202);
    expect(body.detail).toContain('screen, right knee to wall');
    await agent.post(`/api/visits/${id}/amendment`).send({ why: 'arrived late' }).expect(200);
    await agent.post(`/api/late-entries/${late.id}/taking`).send({}).expect(200);
    expect((await judgement(id)).judgement.screens!.map(({ side }) => side)).toEqual(['left', 'right']);
  });

  it('follow what the clinic changed, from that day on', async () => {
    const episodeId = await patient();
    const [old, now] = [await visit(episodeId, daysAgo(3)), await visit(episodeId)];
    for (const id of [old, now]) await post(id, wall(9));
    const set = (change: object, status = 200) =>
      agent
        .post('/api/clinic/screens')
        .send({ id: randomUUID(), thresholds: {}, hidden: [], own: [], ...change })
        .expect(status);
    const change = {
      id: randomUUID(),
      thresholds: { 'loadingReadiness.kneeToWall': 10 },
      hidden: ['patterns.leanBack'],
      own: [{ id: 'own-runners', version: 1, name: 'Runners', purpose: '', items: ['loadingReadiness.kneeToWall'] }],
    };
    for (let twice = 0; twice < 2; twice++) await set(change);
    const quality = async (id: string) => (await judgement(id)).judgement.screens!.map((s) => s.quality);
    expect([await quality(old), await quality(now)]).toEqual([['meets'], ['short']]);
    expect(
      (await post(now, { id: randomUUID(), screen: 'patterns', item: 'leanBack', try: { meets: true } }, 422)).body.errors[0].path,
    ).toBe('item');
    await post(now, { id: randomUUID(), screen: 'own-runners', item: 'loadingReadiness.kneeToWall', side: 'right', try: { value: 11 } });
    expect(await quality(now)).toEqual(['short', 'meets']);
    expect((await set({ thresholds: { 'loadingReadiness.kneeToWall': 99 } }, 422)).body.errors[0].path).toBe(
      'thresholds.loadingReadiness.kneeToWall',
    );
    expect((await set({ thresholds: { 'patterns.leanBack': 1 } }, 422)).body.errors[0].message).toContain('has no threshold');
    expect((await set({ hidden: ['patterns.gone'] }, 422)).body.errors[0].path).toBe('hidden');
    expect((await set({ own: [change.own[0], change.own[0]] }, 422)).body.errors[0].message).toContain('given twice');
    expect((await agent.get('/api/clinic/screens').expect(200)).body.settings.hidden).toEqual(['patterns.leanBack']);
    expect((await stranger.get('/api/clinic/screens').expect(200)).body.settings.hidden).toEqual([]);
    await set({});
  });

  it('stand in Progress over the visits, each by what held on its day', async () => {
    const episodeId = await patient();
    const [first, between, now] = [await visit(episodeId, daysAgo(28)), await visit(episodeId, daysAgo(14)), await visit(episodeId)];
    await post(first, wall(4));
    await post(now, wall(9));
    const progress = async (id: string) => (await agent.get(`/api/visits/${id}/progress`).expect(200)).body;
    const { screens, visits } = await progress(now);
    expect(visits.length).toBe(3);
    expect(screens.map(({ item, side }: { item: string; side: string }) => [item, side])).toEqual([['kneeToWall', 'left']]);
    expect(screens[0].points.map(({ visit, value }: { visit: number; value: number }) => [visit, value])).toEqual([
      [0, 4],
      [2, 9],
    ]);
    expect([screens[0].sinceFirst.change, screens[0].sinceFirst.on, screens[0].isCurrent]).toEqual(['better', daysAgo(28), true]);
    expect((await progress(between)).screens[0].points.length).toBe(1);
    expect((await progress(between)).screens[0].isCurrent).toBeFalse();
  });

  describe('as they are planned', () => {
    const plan = (id: string, change: object, status = 200, who = agent) =>
      who.post(`/api/visits/${id}/screen-plan`).send(change).expect(status);
    const heels = { screen: 'squatCheck', item: 'squat', view: 'side', with: ['heelsRaised'] };

    it('are chosen and left, asked for and dropped, and come to the same sent twice', async () => {
      const id = await visit(await patient());
      expect((await agent.get(`/api/visits/${id}/screens`).expect(200)).body.plan).toEqual({ screens: [], asked: [] });
      for (let twice = 0; twice < 2; twice++) await plan(id, { choose: ['patterns', 'squatCheck'], ask: [heels] });
      const { body } = await plan(id, { leave: ['patterns'] });
      expect(body.plan).toEqual({ screens: ['squatCheck'], asked: [heels] });
      expect((await plan(id, { drop: [heels] })).body.plan).toEqual({ screens: ['squatCheck'], asked: [] });
      const logged = await clinics.harness.dataSource.query(
        "SELECT COUNT(*) AS n FROM change_log WHERE subject_id = ? AND field = 'screenPlan'",
        [id],
      );
      expect(Number(logged[0].n)).withContext('what changed nothing is not logged').toBe(3);
    });

    it('of two at once both are kept', async () => {
      const id = await visit(await patient());
      const ids = ['patterns', 'squatCheck', 'posture', 'quickMarkers'];
      await Promise.all(ids.map((choose) => plan(id, { choose: [choose] })));
      const { body } = await agent.get(`/api/visits/${id}/screens`).expect(200);
      expect([...body.plan.screens].sort()).toEqual([...ids].sort());
    });

    it('are refused where they are not there, with the field, and nothing of them is kept', async () => {
      const id = await visit(await patient());
      const wrong = async (change: object) => (await plan(id, { choose: ['patterns'], ...change }, 422)).body.errors[0];
      expect(await wrong({ choose: ['gone'] })).toEqual({ path: 'choose.0', message: jasmine.stringContaining('allowed: patterns,') });
      expect(await wrong({ ask: [{ ...heels, screen: 'gone' }] })).toEqual(jasmine.objectContaining({ path: 'ask.0.screen' }));
      expect(await wrong({ ask: [{ ...heels, item: 'gone' }] })).toEqual(jasmine.objectContaining({ path: 'ask.0.item' }));
      expect(await wrong({ ask: [{ ...heels, view: 'above' }] })).toEqual({
        path: 'ask.0.view',
        message: 'it is not looked at from "above"; allowed: front, side, behind',
      });
      expect((await wrong({ ask: [{ ...heels, with: ['upsideDown'] }] })).message).toContain('allowed: heelsRaised');
      for (const change of [{}, { choose: ['patterns'], leave: ['patterns'] }, { choose: 'patterns' }]) await plan(id, change, 422);
      expect((await agent.get(`/api/visits/${id}/screens`).expect(200)).body.plan.screens).toEqual([]);
    });

    it('belong to the clinic, and a signed visit takes none', async () => {
      const id = await visit(await patient());
      await plan(id, { choose: ['patterns'] }, 404, stranger);
      await post(id, wall(4));
      expect((await clinics.sign(id)).status).toBe(200);
      await plan(id, { choose: ['patterns'] }, 409);
    });

    it('say what is measured already, by what stands', async () => {
      const id = await visit(await patient());
      const reading = {
        id: randomUUID(),
        motion: 'hip.flexion',
        side: 'left',
        mode: 'active',
        position: 'supine',
        instrument: 'goniometer',
        start: 0,
        end: 110,
        heldAt: new Date().toISOString(),
      };
      await agent.post(`/api/visits/${id}/readings`).send(reading).expect(200);
      const measured = async () => (await agent.get(`/api/visits/${id}/screens`).expect(200)).body.measured;
      expect(await measured()).toEqual([{ motion: 'hip.flexion', side: 'left', mode: 'active', position: 'supine' }]);
      await agent.post(`/api/readings/${reading.id}/withdrawal`).send({}).expect(200);
      expect(await measured()).toEqual([]);
    });
  });
});

/** An intake as it is sent: what the view holds beside it is left out. */
const intakeOf = ({ id: _id, openedOn: _openedOn, ...intake }: Record<string, unknown>): object => intake;
