import type { Request } from 'express';
import { Door } from './door.js';
import type { KnownDevices } from './known-devices.js';

describe('the door', () => {
  const devices = { deviceOf: ({ headers }: Request) => headers['x-device'] ?? null } as unknown as KnownDevices;
  const from = (ip: string, device?: string) => ({ ip, headers: device ? { 'x-device': device } : {} }) as unknown as Request;

  it('lets a few in at once, and whoever is known or comes from elsewhere does not wait for a flood', async () => {
    const door = new Door(devices, 0);
    const inside: { readonly who: string; readonly leave: () => void }[] = [];
    const enter = (who: string, request: Request) =>
      door
        .run(request, () => new Promise<number>((resolve) => inside.push({ who, leave: () => resolve(200) })))
        .catch(({ status }: { status: number }) => status);
    const flood = Array.from({ length: 200 }, () => enter('flood', from('203.0.113.1')));
    await Promise.resolve();
    expect(inside.length).toBe(3);
    const known = enter('known', from('203.0.113.1', 'a tablet'));
    await Promise.resolve();
    expect(inside.at(-1)?.who).withContext('from the same address').toBe('known');
    const elsewhere = enter('elsewhere', from('198.51.100.1'));
    // The places of the flood come free: the next one is for somebody else.
    inside.shift()!.leave();
    for (let turns = 0; turns < 20; turns += 1) await Promise.resolve();
    const refused = (await Promise.all(flood.slice(70))).filter((status) => status === 429).length;
    expect(refused).toBe(130);
    for (let left = 0; left < 70; left += 1) {
      inside.shift()?.leave();
      for (let turns = 0; turns < 20; turns += 1) await Promise.resolve();
      if (inside.some(({ who }) => who === 'elsewhere')) {
        expect(left).withContext('not after all of the flood').toBeLessThan(5);
        break;
      }
    }
    while (inside.length > 0) {
      inside.shift()!.leave();
      for (let turns = 0; turns < 20; turns += 1) await Promise.resolve();
    }
    expect(await Promise.all([known, elsewhere])).toEqual([200, 200]);
    expect((await Promise.all(flood)).filter((status) => status === 200).length).toBe(63);
  });
});
