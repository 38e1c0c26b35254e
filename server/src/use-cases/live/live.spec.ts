import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { LIVE_CLOSED, type FromDevice, type Hello, type Shows, type SimulationSetup, type ToDevice } from '@dial-gauge/contract';
import request from 'supertest';
import { PrivateBroker } from '../../../../bin/lib/broker.mjs';
import { freePort } from '../../../../bin/lib/ports.mjs';
import { startClinics, type Clinics } from '../../testing/harness.js';
import { Line, type Said } from '../../testing/line.js';
import { brokerBus, OwnBus, type Bus } from './bus.js';
import { PairingRow } from '../../records/pairings/entities.js';
import type { LiveHub } from './hub.js';
import { meter } from './meter.js';
import { CODE_LASTS } from './pairing.js';

const SETUP: SimulationSetup = {
  format: 'dial-gauge/instruments',
  version: 1,
  seed: 5,
  rate: 50,
  speed: 400,
  tremor: 0,
  devices: [{ name: 'Inclinometer', from: 0, to: 104, scale: null, rounding: 1, noise: 0, drift: 0, placement: 0, turned: 0 }],
  moves: [],
};
const SHOWS: Shows = { t: 1, degrees: 47, held: 47, peak: 47, outOfPlane: 4, still: 1, way: 1, lost: false, zero: 'start', zeroedAt: 'k' };

describe('live instruments', () => {
  let clinics: Clinics;
  let servers: { server: Server; hub: LiveHub; port: number }[];
  let broker: PrivateBroker;
  const lines: Line[] = [];

  async function serve(bus: Bus) {
    const app = clinics.harness.appWith({ bus });
    const hub = clinics.harness.servicesOf(app).live!;
    const server = createServer(app);
    hub.attach(server);
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    return { server, hub, port: (server.address() as AddressInfo).port };
  }

  /** Every connection has said what it is, and is known as that. */
  const allGreeted = async () => {
    const silent = () => servers.reduce((sum, { hub }) => sum + (hub as unknown as { silent: Map<unknown, string> }).silent.size, 0);
    for (const begun = Date.now(); silent() > 0 && Date.now() - begun < 60_000;) await wait(5);
    expect(silent()).toBe(0);
  };

  beforeAll(async () => {
    clinics = await startClinics();
    broker = new PrivateBroker(await freePort());
    await broker.start();
    const failed = (error: Error) => fail(error);
    servers = [await serve(new OwnBus()), await serve(brokerBus(broker.url, failed)), await serve(brokerBus(broker.url, failed))];
  });
  afterEach(() => {
    for (const { socket } of lines.splice(0)) socket.terminate();
  });
  afterAll(async () => {
    for (const { hub, server } of servers) {
      await hub.close();
      server.closeAllConnections();
      server.close();
    }
    await broker.stop();
    await clinics.stop();
  });

  const cookieOf = async (who: string): Promise<string> => {
    const answer = await request(clinics.app)
      .post('/api/session')
      .send({ email: `${who}@clinic.example`, password: `${who}-password` })
      .expect(200);
    return (answer.headers['set-cookie'] as unknown as string[])[0]!.split(';')[0]!;
  };
  async function line(hello: Hello | null, { who = 'ours', at = 0, cookie }: { who?: string; at?: number; cookie?: string } = {}) {
    const made = await Line.open(servers[at]!.port, { cookie: cookie ?? (who ? await cookieOf(who) : '') });
    lines.push(made);
    if (hello) made.say(hello);
    return made;
  }
  const pair = async (visitId: string, id = randomUUID()): Promise<{ id: string; code: string }> =>
    (await clinics.agent.post(`/api/visits/${visitId}/pairings`).send({ id }).expect(200)).body;
  const redeem = (code: string, status = 200) => request(servers[0]!.server).post('/api/phone-pairing').send({ code }).expect(status);
  const keyOf = async (visitId: string) => {
    const { id, code } = await pair(visitId);
    return { id, key: ((await redeem(code)).body as { key: string }).key };
  };
  const shows = (said: Said) => (said['said'] as { shows?: Shows } | undefined)?.shows;
  const tell = (device: unknown, said: ToDevice) => ({ k: 'tell', device, said });

  describe('a pairing code', () => {
    it('is used once: by one of two phones that try it at the same moment, and by none after', async () => {
      const { visitId } = await clinics.startVisit();
      const { code } = await pair(visitId);
      expect(code).toMatch(/^\d{6}$/);
      const tries = await Promise.all([1, 2, 3].map(() => request(servers[0]!.server).post('/api/phone-pairing').send({ code })));
      expect(tries.map(({ status }) => status).sort()).toEqual([200, 401, 401]);
      const { body } = tries.find(({ status }) => status === 200)!;
      // The clinic's name, and nobody's.
      expect(Object.keys(body).sort()).toEqual(['clinic', 'key', 'until']);
      expect((await redeem(code, 401)).body.detail).toContain('Make a new one');
    });

    it('runs out, is taken back by the next one, and is told once', async () => {
      const { visitId } = await clinics.startVisit();
      const id = randomUUID();
      const first = await pair(visitId, id);
      await clinics.agent.post(`/api/visits/${visitId}/pairings`).send({ id }).expect(409);
      const { code, id: second } = await pair(visitId);
      await redeem(first.code, 401);
      await clinics.dataSource.query('UPDATE pairing SET expires_at = ? WHERE id = ?', [new Date(Date.now() - 1), second]);
      await redeem(code, 401);
      expect(CODE_LASTS).toBeLessThanOrEqual(5 * 60_000);
      const left = await clinics.agent.get(`/api/visits/${visitId}/pairings`).expect(200);
      expect(left.body.pairings).toEqual([]);
    });

    it('is of this clinic and of a visit that takes readings', async () => {
      const { visitId } = await clinics.startVisit();
      await clinics.stranger.post(`/api/visits/${visitId}/pairings`).send({ id: randomUUID() }).expect(404);
      await clinics.stranger.get(`/api/visits/${visitId}/pairings`).expect(404);
      const { id } = await pair(visitId);
      await clinics.stranger.post(`/api/pairings/${id}/closing`).send({}).expect(404);
      // An id of another clinic's pairing makes none here, and tells nothing of that one.
      const theirs = await clinics.startVisit(clinics.stranger);
      await clinics.stranger.post(`/api/visits/${theirs.visitId}/pairings`).send({ id }).expect(409);
      await clinics.hold(visitId).expect(200);
      expect((await clinics.sign(visitId)).status).toBe(200);
      await clinics.agent.post(`/api/visits/${visitId}/pairings`).send({ id: randomUUID() }).expect(409);
    });

    it('is guessed a few times only from one place, and names the field when it is none', async () => {
      const refused = await request(servers[0]!.server).post('/api/phone-pairing').send({ code: '12 34' }).expect(422);
      expect(refused.body.errors[0]).toEqual({ path: 'code', message: 'is not a code; allowed: six digits, as 123 456' });
      const guesses: number[] = [];
      for (let i = 0; i < 14; i += 1) {
        const { status } = await request(servers[0]!.server)
          .post('/api/phone-pairing')
          .send({ code: String(100000 + i) });
        guesses.push(status);
      }
      expect(guesses.at(-1)).toBe(429);
      await clinics.dataSource.query('DELETE FROM attempt_budget');
    });

    it('stays as it was used, whatever is tried at the table', async () => {
      const { visitId } = await clinics.startVisit();
      const { id } = await keyOf(visitId);
      const rows = clinics.dataSource.getRepository(PairingRow);
      await expectAsync(rows.update({ id }, { keyHash: 'f'.repeat(64) })).toBeRejected();
      await expectAsync(rows.update({ id }, { visitId: randomUUID() })).toBeRejected();
      await expectAsync(rows.delete({ id })).toBeRejected();
      const [{ code_hash: stored }] = (await clinics.dataSource.query('SELECT code_hash FROM pairing WHERE id = ?', [id])) as [
        { code_hash: string },
      ];
      expect(stored).toMatch(/^[0-9a-f]{64}$/);
    });
  });

  describe('a simulated inclinometer', () => {
    it('is zeroed and held from the screen or at its own buttons, and shows the way the joint moved', async () => {
      const { visitId } = await clinics.startVisit();
      const bench = await line({ as: 'bench', visit: visitId });
      const face = await line({ as: 'simulation', visit: visitId, setup: SETUP });
      const { device, kind } = await bench.until(({ k }) => k === 'here');
      expect(kind).toBe('simulated');
      await bench.until((said) => shows(said) !== undefined);
      bench.say(tell(device, { k: 'asks', for: 'the left knee', place: 'left', words: 'left knee flexion', way: null }));
      bench.say(tell(device, { k: 'zero', at: 'start' }));
      await bench.until((said) => shows(said)?.degrees === 0);
      face.say({ k: 'move', to: 1 });
      const end = await bench.until((said) => shows(said)?.held === 104 && shows(said)!.still > 0.3);
      expect(shows(end)).toEqual(
        jasmine.objectContaining({ degrees: 104, way: 1, peak: 104, zero: 'start', zeroedAt: 'left', lost: false }),
      );
      await face.until(({ k, shown }) => k === 'face' && shown === 104);
      face.say({ k: 'press', device: 0, button: 'hold' });
      const held = (await bench.until((said) => (said['said'] as FromDevice | undefined)?.k === 'held'))['said'] as Extract<
        FromDevice,
        { k: 'held' }
      >;
      expect([held.for, held.shows.held]).toEqual(['the left knee', 104]);
      // Not answered, it comes again under its own id; answered, it does not.
      const heldAgain = () => bench.heard.filter(({ said }) => (said as FromDevice | undefined)?.k === 'held');
      await bench.until((said) => (said['said'] as FromDevice | undefined)?.k === 'held', bench.heard.length);
      expect(new Set(heldAgain().map(({ said }) => (said as { id: string }).id)).size).toBe(1);
      bench.say(tell(device, { k: 'answer', id: held.id, taken: true, words: '104°' }));
      await face.until(({ k }) => k === 'told');
      face.say({ k: 'press', device: 0, button: 'hold' });
      const isSecond = (said: (typeof bench.heard)[number]) => {
        const { k, id } = (said['said'] ?? {}) as { k?: string; id?: string };
        return k === 'held' && id !== held.id;
      };
      await bench.until(isSecond);
      const since = bench.heard.findIndex(isSecond);
      await bench.until(isSecond, since + 1);
      expect(bench.heard.slice(since).filter(({ said }) => (said as { id?: string } | undefined)?.id === held.id)).toEqual([]);
      face.socket.close();
      await bench.until(({ k }) => k === 'gone');
    });

    it('shows less and says how far out of plane it is when it is turned', async () => {
      const { visitId } = await clinics.startVisit();
      const bench = await line({ as: 'bench', visit: visitId });
      const face = await line({ as: 'simulation', visit: visitId, setup: { ...SETUP, devices: [{ ...SETUP.devices[0]!, to: 60 }] } });
      const { device } = await bench.until((said) => shows(said) !== undefined);
      bench.say(tell(device, { k: 'zero', at: 'start' }));
      await bench.until((said) => shows(said)?.degrees === 0);
      face.say({ k: 'turn', device: 0, turned: 45 });
      face.say({ k: 'move', to: 1 });
      // By hand: the sine is sin 60° by sin 45°.
      const out = shows(await bench.until((said) => (shows(said)?.outOfPlane ?? 0) > 37 && shows(said)!.still > 0.3))!;
      expect(out.outOfPlane).toBeCloseTo(37.76, 1);
      expect(out.degrees!).toBeLessThan(60);
    });
  });

  describe('a phone', () => {
    it('is heard by the screen of its visit, is told what is asked and never whose limb it is', async () => {
      const { visitId } = await clinics.startVisit();
      const { id, key } = await keyOf(visitId);
      const bench = await line({ as: 'bench', visit: visitId });
      const phone = await line({ as: 'phone', key }, { who: '' });
      expect(await bench.until(({ k }) => k === 'here')).toEqual(jasmine.objectContaining({ device: id, kind: 'phone', name: 'Phone' }));
      bench.say(tell(id, { k: 'asks', for: 'x', place: 'p', words: 'left knee flexion, active', way: null }));
      expect((await phone.until(({ k }) => k === 'asks'))['words']).toBe('left knee flexion, active');
      phone.say({ k: 'shows', shows: SHOWS });
      expect(shows(await bench.until((said) => shows(said) !== undefined))).toEqual(SHOWS);
      expect(JSON.stringify(phone.heard)).not.toMatch(/Marsh|Ilka|1970/);
    });

    it('is cut when it is let go at the server it is connected to, and its key opens nothing after', async () => {
      const { visitId } = await clinics.startVisit();
      const { id, key } = await keyOf(visitId);
      const phone = await line({ as: 'phone', key }, { who: '' });
      await allGreeted();
      const cookie = await cookieOf('ours');
      await request(servers[0]!.server).post(`/api/pairings/${id}/closing`).set('cookie', cookie).send({}).expect(200);
      expect(await phone.untilClosed()).toBe(LIVE_CLOSED.noSession);
      expect(await (await line({ as: 'phone', key }, { who: '' })).untilClosed()).toBe(LIVE_CLOSED.noSession);
    });

    it('opened again is one phone still: the one before is let go', async () => {
      const { visitId } = await clinics.startVisit();
      const { key } = await keyOf(visitId);
      const first = await line({ as: 'phone', key }, { who: '' });
      await allGreeted();
      const second = await line({ as: 'phone', key }, { who: '' });
      expect(await first.untilClosed()).toBe(LIVE_CLOSED.noSession);
      expect(second.closed).toBeNull();
    });
  });

  describe('a connection', () => {
    it('is made by our own page only, by who is signed in, to a visit of this clinic', async () => {
      const { visitId } = await clinics.startVisit();
      const { port } = servers[0]!;
      await expectAsync(Line.open(port, { origin: 'https://elsewhere.example' })).toBeRejectedWithError(/403/);
      await expectAsync(Line.open(port, { origin: 'null' })).toBeRejectedWithError(/403/);
      const closing = async (hello: Hello, who: string) => (await line(hello, { who })).untilClosed();
      expect(await closing({ as: 'bench', visit: visitId }, '')).toBe(LIVE_CLOSED.noSession);
      expect(await closing({ as: 'bench', visit: visitId }, 'other')).toBe(LIVE_CLOSED.notFound);
      expect(await closing({ as: 'simulation', visit: visitId, setup: SETUP }, 'other')).toBe(LIVE_CLOSED.notFound);
      expect(await closing({ as: 'bench', visit: randomUUID() }, 'ours')).toBe(LIVE_CLOSED.notFound);
      expect(await closing({ as: 'phone', key: 'k'.repeat(43) }, '')).toBe(LIVE_CLOSED.noSession);
    });

    it('is cut for what is not understood, too large or too fast', async () => {
      const { visitId } = await clinics.startVisit();
      const bad = async (...said: (object | string)[]) => {
        const made = await line({ as: 'bench', visit: visitId });
        for (const one of said) made.say(one);
        return made.untilClosed();
      };
      expect(await bad('no JSON')).toBe(LIVE_CLOSED.refused);
      expect(await bad({ k: 'tell', device: null, said: { k: 'zero', at: 'sideways' } })).toBe(LIVE_CLOSED.refused);
      expect(await bad({ k: 'tell', device: null, said: { k: 'zero', at: 'start' }, more: 1 })).toBe(LIVE_CLOSED.refused);
      expect(await bad('x'.repeat(20_000))).toBe(1009);
      const fast = await line({ as: 'bench', visit: visitId });
      for (let i = 0; i < 400; i += 1) fast.say(tell(null, { k: 'zero', at: 'start' }));
      expect(await fast.untilClosed()).toBe(LIVE_CLOSED.refused);
      const greeting = await line(null);
      greeting.say({ as: 'lead', visit: visitId });
      expect(await greeting.untilClosed()).toBe(LIVE_CLOSED.refused);
    });

    it('is made however many others say nothing, and those are cut, the oldest first', async () => {
      const { visitId } = await clinics.startVisit();
      const { port } = servers[0]!;
      const silent: Line[] = [];
      // As many as were let in altogether before, and more, from one address.
      for (let n = 0; n < 230; n += 1) silent.push(await Line.open(port));
      const bench = await line({ as: 'bench', visit: visitId });
      await line({ as: 'simulation', visit: visitId, setup: SETUP });
      await bench.until((said) => shows(said) !== undefined);
      expect(silent.filter(({ closed }) => closed !== null).length).toBeGreaterThanOrEqual(210);
      expect(silent[0]!.closed).not.toBeNull();
      for (const one of silent) one.socket.terminate();
    });

    it('hears nothing of another visit, and no two screens read one visit at once', async () => {
      const [one, other] = [await clinics.startVisit(), await clinics.startVisit()];
      const bench = await line({ as: 'bench', visit: one.visitId });
      const beside = await line({ as: 'bench', visit: other.visitId });
      await line({ as: 'simulation', visit: one.visitId, setup: SETUP });
      await bench.until((said) => shows(said) !== undefined);
      const later = await line({ as: 'bench', visit: one.visitId }, { who: 'second' });
      await bench.until(({ k }) => k === 'elsewhere');
      await later.until((said) => shows(said) !== undefined);
      const before = bench.heard.length;
      // As much as reached this screen before reaches the other one now.
      for (let n = 0; n < 5; n += 1) await later.until((said) => shows(said) !== undefined, later.heard.length);
      expect(bench.heard.length).toBe(before);
      expect(beside.heard).toEqual([]);
    });

    it('ends with the session', async () => {
      const { visitId } = await clinics.startVisit();
      const cookie = await cookieOf('second');
      const bench = await line({ as: 'bench', visit: visitId }, { cookie });
      await allGreeted();
      await request(clinics.app).delete('/api/session').set('cookie', cookie);
      await (servers[0]!.hub as unknown as { look(): Promise<void> }).look();
      expect(await bench.untilClosed()).toBe(LIVE_CLOSED.noSession);
    });
  });

  it('reaches a screen that is connected to another server', async () => {
    const { visitId } = await clinics.startVisit();
    const bench = await line({ as: 'bench', visit: visitId }, { at: 1 });
    const face = await line({ as: 'simulation', visit: visitId, setup: SETUP }, { at: 2 });
    const { device } = await bench.until((said) => shows(said) !== undefined);
    bench.say(tell(device, { k: 'zero', at: 'start' }));
    await bench.until((said) => shows(said)?.degrees === 0);
    face.say({ k: 'move', to: 1 });
    await bench.until((said) => shows(said)?.held === 104);
    face.socket.terminate();
    await bench.until(({ k }) => k === 'gone');
  });

  it('takes a burst and a steady stream, and no more', () => {
    let time = 0;
    const may = meter(() => time);
    expect(Array.from({ length: 300 }, () => may()).filter(Boolean).length).toBe(260);
    time = 1000;
    expect(Array.from({ length: 300 }, () => may()).filter(Boolean).length).toBe(130);
  });
});
