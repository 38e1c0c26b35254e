import { randomUUID } from 'node:crypto';
import type { StoryView } from '@dial-gauge/contract';
import { newPatient, startClinics, TODAY, type Clinics } from '../../testing/harness.js';

describe('the story of an episode', () => {
  let clinics: Clinics;
  beforeAll(async () => {
    clinics = await startClinics();
  });
  afterAll(() => clinics.stop());

  const story = async (episode: string): Promise<StoryView> => (await clinics.agent.get(`/api/episodes/${episode}/story`).expect(200)).body;
  const begun = async (): Promise<string> => {
    const patient = newPatient();
    await clinics.agent.post('/api/patients').send(patient).expect(200);
    return patient.episode.id;
  };
  const visit = async (episode: string, assessedOn: string, end: number, pain?: number): Promise<string> => {
    const id = randomUUID();
    await clinics.agent.post(`/api/episodes/${episode}/visits`).send({ id, assessedOn }).expect(200);
    const way = { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine' };
    await clinics.hold(id, { ...way, end } as never).expect(200);
    if (pain !== undefined)
      await clinics.agent
        .put(`/api/visits/${id}/remarks`)
        .send({ ...way, pain })
        .expect(200);
    return id;
  };

  it('says what is not there, and of nothing that it is fine', async () => {
    const told = await story(await begun());
    expect(told).toEqual(
      jasmine.objectContaining({ visit: null, findings: [], findingsInAll: 0, notJudged: 0, series: [], program: null, loggedDays: null }),
    );
  });

  it('says what hurts and is short, since when, and what changed', async () => {
    const episode = await begun();
    await visit(episode, '2026-03-02', 124);
    await visit(episode, '2026-04-06', 88, 4);
    const last = await visit(episode, '2026-05-04', 95, 2);
    const told = await story(episode);
    expect(told.visit?.id).toBe(last);
    const since = Object.fromEntries(told.findings.map(({ finding, since: from }) => [finding.kind, from]));
    expect(since).toEqual(
      jasmine.objectContaining({
        painful: { on: '2026-04-06', fromFirst: false },
        'short-of-normal': { on: '2026-04-06', fromFirst: false },
      }),
    );
    expect(told.series.map(({ points }) => points.map(({ value }) => value))).toEqual([[124, 88, 95]]);
    // A visit that holds nothing yet is not what is told of.
    await clinics.agent.post(`/api/episodes/${episode}/visits`).send({ id: randomUUID(), assessedOn: TODAY }).expect(200);
    expect((await story(episode)).visit?.id).toBe(last);
  });

  it('tells first what got worse since the visit before, whatever it gained since the first', async () => {
    const episode = await begun();
    await visit(episode, '2026-03-02', 60);
    await visit(episode, '2026-04-06', 110);
    const last = await visit(episode, '2026-05-04', 90);
    const way = { motion: 'hip.abduction', side: 'left', mode: 'passive', position: 'supine' };
    await clinics.hold(last, { ...way, end: 12 } as never).expect(200);
    const told = await story(episode);
    expect(told.findings[0]?.finding.kind).toBe('worse');
    expect(told.series[0]?.motion).toBe('hip.flexion');
    expect(told.standing === null || told.standing.reasons.some(({ kind }) => kind === 'lost')).toBeTrue();
  });

  it('names no more than fits at a glance, and how many there are in all', async () => {
    const episode = await begun();
    const id = await visit(episode, '2026-05-04', 60, 3);
    for (const [motion, position] of [
      ['hip.internalRotation', 'prone'],
      ['hip.externalRotation', 'prone'],
      ['hip.abduction', 'supine'],
      ['hip.extension', 'prone'],
    ])
      await clinics.hold(id, { motion, position, side: 'left', mode: 'passive', end: 4 } as never).expect(200);
    const told = await story(episode);
    expect(told.findings.length).toBe(4);
    expect(told.findingsInAll).toBeGreaterThan(4);
    expect(told.findings[0]?.finding.kind).toBe('painful');
    // Measured once alone: nothing tells since when.
    expect(told.findings.every(({ since }) => since === null)).toBeTrue();
  });
});
