import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { PrivateBroker } from '../../../../bin/lib/broker.mjs';
import { freePort } from '../../../../bin/lib/ports.mjs';
import { tlsOf } from '../../http/tls.js';
import { brokerBus } from './bus.js';

describe('the bus over a broker', () => {
  it('goes over TLS, and no broker that another authority vouches for', async () => {
    const [folder, foreign] = await Promise.all([0, 1].map(() => mkdtemp(join(tmpdir(), 'dial-gauge-broker-'))));
    const { cert } = (await tlsOf({ how: 'self-signed', folder: folder! }, '127.0.0.1'))!;
    const { cert: other } = (await tlsOf({ how: 'self-signed', folder: foreign! }, '127.0.0.1'))!;
    const encrypted = new PrivateBroker(await freePort(), { tls: folder! });
    await encrypted.start();
    const errors: string[] = [];
    const [bus, deaf] = [cert, other].map((authority) => brokerBus(encrypted.url, ({ message }) => errors.push(message), authority));
    try {
      const heard: string[] = [];
      await bus!.subscribe('topic', (text) => heard.push(text));
      for (const begun = Date.now(); Date.now() - begun < 60_000 && heard.length === 0;) {
        bus!.publish('topic', 'sealed');
        deaf!.publish('topic', 'from elsewhere');
        await wait(20);
      }
      expect(heard[0]).toBe('sealed');
      expect(heard).not.toContain('from elsewhere');
      expect(errors.join()).toMatch(/certificate/);
    } finally {
      await bus!.close();
      await deaf!.close();
      await encrypted.stop();
      await Promise.all([folder, foreign].map((one) => rm(one!, { recursive: true })));
    }
  });

  it('goes on when its broker comes later than it does', async () => {
    const port = await freePort();
    const heard: string[] = [];
    let tries = 0;
    const bus = brokerBus(`redis://127.0.0.1:${port}`, () => (tries += 1));
    const subscribed = bus.subscribe('topic', (text) => heard.push(text));
    bus.publish('topic', 'too early, and stale by then');
    for (const begun = Date.now(); Date.now() - begun < 60_000 && tries === 0;) await wait(5);
    expect(tries).toBeGreaterThan(0);
    const late = new PrivateBroker(port);
    await late.start();
    await subscribed;
    for (const begun = Date.now(); Date.now() - begun < 60_000 && heard.length === 0;) {
      bus.publish('topic', 'now');
      await wait(20);
    }
    expect(heard[0]).toBe('now');
    await bus.close();
    await late.stop();
  });
});
