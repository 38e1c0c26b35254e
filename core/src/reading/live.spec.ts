import fc from 'fast-check';
import type { Shown } from '../angle/follow.js';
import { PROTOCOLS, protocolOfId, type Protocol } from '../catalogue/index.js';
import { valueOfReading } from './read.js';
import { liveInstrument, readLive, type LiveChoice, type LiveSite } from './live.js';

const shown = (over: Partial<Shown> = {}): Shown => ({
  ...{ t: 5, degrees: 47.2, held: 47.4, peak: 52.6, outOfPlane: 3, still: 1, way: 1, lost: false, zero: 'start', zeroedAt: 'here' },
  ...over,
});
const site = (over: Partial<Shown> = {}, more: Partial<LiveSite> = {}): LiveSite => ({
  ...{ name: 'Inclinometer', kind: 'device', shows: shown(over), isStale: false },
  ...more,
});
const CHOICE: LiveChoice = { told: null, peak: false, place: 'here' };
const protocol = (id: string): Protocol => protocolOfId(id)!;
const KNEE = protocol('knee.flexion/supine');
const LUMBAR = protocol('lumbar.flexion/standing');
const read = (sites: readonly LiveSite[], choice: Partial<LiveChoice> = {}, of = KNEE) => {
  const found = readLive(of, sites, { ...CHOICE, ...choice });
  return found.ok ? ('arc' in found ? found.arc : found.reading) : found.message;
};

describe('a reading from connected instruments', () => {
  it('stays marked where one of the instruments is simulated, and nowhere else', () => {
    expect(read([site({}, { kind: 'simulated' })])).toEqual({ start: 0, end: 47, simulated: true });
    expect(read([site({ held: 96 }), site({ held: 41 }, { kind: 'simulated' })], {}, LUMBAR)).toEqual(
      jasmine.objectContaining({ simulated: true }),
    );
    for (const kind of ['device', 'phone'] as const) expect(read([site({}, { kind })])).toEqual({ start: 0, end: 47 });
  });

  it('is what a hold would take, the way it went or was told to go, in whole degrees; or the furthest', () => {
    expect(read([site()])).toEqual({ start: 0, end: 47 });
    expect(read([site({ held: -47.4, way: -1 })])).toEqual({ start: 0, end: 47 });
    expect(read([site({ held: 12 })], { told: -1 })).toEqual({ start: 0, end: -12 });
    expect(read([site()], { peak: true })).toEqual({ start: 0, end: 53 });
    expect(read([site({ held: -0.3, way: null })])).toEqual({ start: 0, end: 0 });
  });

  it('at two sites is the upper with the lower taken out: 96 − 41 is 55', () => {
    // Two-inclinometer method, AMA Guides, 4th ed., from memory.
    const sites = [site({ held: 96.2 }), site({ held: 41.3 }, { name: 'second' })];
    const reading = read(sites, {}, LUMBAR);
    expect(reading).toEqual({ start: 0, end: 96, lower: { zero: 0, end: 41 } });
    expect(valueOfReading(LUMBAR, reading as never)).toBe(55);
    // Both are counted the way the upper went.
    expect(read([site({ held: -96, way: -1 }), site({ held: -41, way: null })], {}, LUMBAR)).toEqual(reading);
    expect(liveInstrument(LUMBAR, sites)).toBe('dualInclinometer');
    expect(read([site()], {}, LUMBAR)).toContain('connect a second inclinometer');
  });

  it('keeps a warning out of plane with the reading, and is refused where it would read too little', () => {
    expect(read([site({ outOfPlane: 9.9 })])).toEqual({ start: 0, end: 47 });
    expect(read([site({ outOfPlane: 12.4 })])).toEqual({ start: 0, end: 47, entered: '12° out of plane' });
    expect(read([site({ outOfPlane: 29.7 })])).toEqual({ start: 0, end: 47, entered: '30° out of plane' });
    expect(read([site({ outOfPlane: 34 })])).toBe('Inclinometer is 34° out of plane: it reads too little; allowed: under 30°.');
  });

  it('says why there is none: not connected, silent, stale, lost, without zero, with one of elsewhere, impossible', () => {
    const stale = { ...site(), isStale: true };
    expect(read([])).toContain('No instrument is connected');
    expect(read([{ ...site(), shows: null }])).toBe('Nothing came from Inclinometer yet.');
    expect(read([stale])).toContain('No signal from Inclinometer');
    expect(read([site({ lost: true })])).toContain('set zero again');
    expect(read([site({ zero: null, held: null })])).toContain('has no zero');
    expect(read([site()], { place: 'there' })).toContain('for another measurement');
    // Level is level wherever it was set.
    expect(read([site({ zero: 'level' })], { place: 'there' })).toEqual({ start: 0, end: 47 });
    expect(read([site({ held: 230 })])).toMatch(/allowed: -?[−\d]+ to \d+/);
  });

  it('reads a position against level or plumb only', () => {
    const position = PROTOCOLS.find(({ reads, instruments }) => reads === 'position' && instruments.includes('inclinometer'))!;
    expect(read([site({ held: 20 })], {}, position)).toContain('not from a start');
    expect(read([site({ held: 20, zero: 'plumb' })], {}, position)).toEqual({ start: 0, end: 20 });
  });

  it('is offered by nothing that gravity does not tell, for every way of measuring there is', () => {
    fc.assert(
      fc.property(fc.constantFrom(...PROTOCOLS), fc.boolean(), fc.boolean(), (of, two, phone) => {
        const one = site({}, phone ? { kind: 'phone' } : {});
        const found = liveInstrument(of, two ? [one, one] : [one]);
        return typeof found === 'string'
          ? of.instruments.includes(found) && of.swing !== 'horizontal'
          : found.why.length > 20 && (of.swing !== 'vertical' || !of.instruments.includes(phone ? 'phone' : 'inclinometer') || two);
      }),
      { numRuns: 1500 },
    );
  });
});
