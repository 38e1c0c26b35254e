import * as fc from 'fast-check';
import { ASSUMED_HAND } from '../angle/hands.js';
import { showOn } from '../angle/scale.js';
import { PROTOCOLS, protocolOfId, type Protocol } from '../catalogue/index.js';
import type { Instrument } from '../terms.js';
import { checkReading, readArc, readAtDial, sitesInOrder, splitTyped, twoSiteExample, valueOfReading, type Tool } from './index.js';

const protocol = (id: string): Protocol => protocolOfId(id)!;
const tool = (instrument: Instrument, more: Partial<Tool> = {}): Tool => ({
  instrument,
  scale: null,
  hands: 'two',
  unit: null,
  widths: ASSUMED_HAND,
  ...more,
});
const HIP = protocol('hip.flexion/supine');
const LUMBAR = protocol('lumbar.flexion/standing');
const value = (text: string, by: Protocol, held: Tool): number | string => {
  const read = readAtDial(text, by, held);
  if (!read.ok) return read.message;
  return 'arc' in read ? read.arc : valueOfReading(by, read.reading);
};

describe('what was typed', () => {
  it('may carry a side or a unit, before or behind', () => {
    expect(splitTyped('l45')).toEqual({ side: 'left', isArc: false, unit: null, body: '45' });
    expect(splitTyped('45 R')).toEqual({ side: 'right', isArc: false, unit: null, body: '45' });
    expect(splitTyped('left 10/45')).toEqual({ side: 'left', isArc: false, unit: null, body: '10/45' });
    expect(splitTyped('30lb')).toEqual({ side: null, isArc: false, unit: 'lb', body: '30' });
    expect(splitTyped('r 12 in')).toEqual({ side: 'right', isArc: false, unit: 'in', body: '12' });
    expect(splitTyped('45°')).toEqual({ side: null, isArc: false, unit: 'deg', body: '45' });
    expect(splitTyped('r15').side).toBe('right');
    expect(splitTyped('R:15-0-40').isArc).toBeTrue();
    expect(splitTyped('s 0-15-120').isArc).toBeTrue();
  });

  it('tells a side from a figure, whichever comes first and however it ends', () => {
    const parts = (text: string) => [splitTyped(text).side, splitTyped(text).body];
    expect(parts('l45')).toEqual(['left', '45']);
    expect(parts('left 12.5')).toEqual(['left', '12.5']);
    expect(parts('45r')).toEqual(['right', '45']);
    expect(parts('30+ r')).toEqual(['right', '30+']);
    expect(parts('10/45 left')).toEqual(['left', '10/45']);
    expect(parts('r 30+')).toEqual(['right', '30+']);
    expect(parts('R-5')).toEqual(['right', '-5']);
    expect(parts('4r5')).toEqual([null, '4r5']);
  });

  it('is a start and an end of a goniometer', () => {
    expect(value('10/95', HIP, tool('goniometer'))).toBe(95);
    expect(value('-15', HIP, tool('goniometer'))).toBe(-15);
    expect(value('31.5', HIP, tool('goniometer'))).toContain('finer than the instrument reads');
  });

  it('is a zero and an end of an inclinometer that was not set', () => {
    expect(value('350/20', HIP, tool('inclinometer', { scale: '360' }))).toBe(30);
    expect(value('-170/170', HIP, tool('inclinometer', { scale: '180' }))).toBe(20);
    expect(value('0/30+', HIP, tool('inclinometer', { scale: 'quadrant' }))).toBe(150);
    // A device of another scale does not count round a corner.
    expect(value('0/30+', HIP, tool('inclinometer', { scale: '360' }))).toContain('30+');
    expect(value('0/30', HIP, tool('inclinometer', { scale: 'quadrant' }))).toBe(30);
    expect(value('0/95', HIP, tool('inclinometer', { scale: 'quadrant' }))).toContain('allowed: 0 to 90');
    expect(readAtDial('350', HIP, tool('inclinometer', { scale: '360' }))).toEqual(jasmine.objectContaining({ ok: false, next: 'end' }));
    expect(value('95', HIP, tool('inclinometer'))).toBe(95);
  });

  it('offers the other way round where the motion can have gone both ways', () => {
    const shoulder = protocol('shoulder.flexion/supine');
    const read = readAtDial('0/190', shoulder, tool('inclinometer', { scale: '360' }));
    if (!read.ok || 'arc' in read) throw new Error('not read');
    expect(valueOfReading(shoulder, read.reading)).toBe(190);
    expect(valueOfReading(shoulder, read.other!)).toBe(170);
  });

  // Common practice, no source.
  it('is a figure of a device with corners: a + for each that was passed, and none on a device without', () => {
    const quadrant = tool('inclinometer', { scale: 'quadrant' });
    const read = (text: string, held: Tool) => {
      const made = readAtDial(text, HIP, held);
      return made.ok && 'reading' in made ? [made.reading.start, made.reading.end] : made;
    };
    expect(read('0/30', quadrant)).toEqual([0, 30]);
    expect(read('0/60+', quadrant)).toEqual([0, 120]);
    expect(read('10+/30+', quadrant)).toEqual([170, 150]);
    expect(read('350/104', tool('inclinometer', { scale: '360' }))).toEqual([350, 104]);
  });

  it('names every unit that would do', () => {
    expect(value('12 s', protocol('distance.kneeToWall/standing'), tool('tape'))).toBe(
      '"12 s" is in s, which does not measure this; allowed: cm, in.',
    );
    expect(value('12 kg', protocol('hip.flexion/supine'), tool('goniometer'))).not.toBe(12);
  });

  it('is two sites, less one another: invented', () => {
    const two = tool('dualInclinometer');
    expect(value('86/34', LUMBAR, two)).toBe(52);
    expect(value('99/86', protocol('thoracic.flexion/standing'), two)).toBe(13);
    expect(value('14/14', protocol('lumbar.extension/standing'), two)).toBe(0);
    expect(value('44/29', protocol('thoracic.extension/standing'), two)).toBe(15);
    expect(value('30/41', LUMBAR, two)).toBe(-11);
  });

  it('shows by an example that fits the motion and reads as what it should', () => {
    for (const { protocol: of, scale, hands, shown } of [
      { protocol: 'lumbar.flexion/standing', scale: null, hands: 'two', shown: '86/34' },
      { protocol: 'lumbar.extension/standing', scale: null, hands: 'two', shown: '29/12' },
      { protocol: 'lumbar.flexion/standing', scale: '360', hands: 'one', shown: '353/79/8/42' },
      { protocol: 'lumbar.flexion/standing', scale: '360', hands: 'two', shown: '353/8/79/42' },
      { protocol: 'lumbar.extension/standing', scale: '360', hands: 'one', shown: '353/22/8/20' },
    ] as const) {
      const example = twoSiteExample(protocol(of).motion, { scale, hands });
      expect(example).toBe(shown);
      expect(readAtDial(example, protocol(of), tool('dualInclinometer', { scale, hands })).ok).toBeTrue();
    }
    for (const way of PROTOCOLS.filter(({ instruments }) => instruments.includes('dualInclinometer')))
      for (const hands of ['one', 'two'] as const)
        for (const scale of [null, '360'] as const) {
          const example = twoSiteExample(way.motion, { scale, hands });
          expect(value(example, way, tool('dualInclinometer', { scale, hands })))
            .withContext(`${way.id} ${example}`)
            .toEqual(jasmine.any(Number));
        }
  });

  it('asks for the sites in the order of the hands', () => {
    const two = tool('dualInclinometer', { scale: '360' });
    const one = tool('dualInclinometer', { scale: '360', hands: 'one' });
    expect(sitesInOrder(two)).toEqual(['upper zero', 'lower zero', 'upper end', 'lower end']);
    expect(sitesInOrder(one)).toEqual(['upper zero', 'upper end', 'lower zero', 'lower end']);
    expect(value('353/8/79/42', LUMBAR, two)).toBe(52);
    expect(value('353/79/8/42', LUMBAR, one)).toBe(52);
    expect(value('5/86 3/34', LUMBAR, tool('dualInclinometer'))).toBe(50);
    expect(readAtDial('353/79', LUMBAR, one)).toEqual(jasmine.objectContaining({ ok: false, next: 'lower zero' }));
    expect(readAtDial('86', LUMBAR, tool('dualInclinometer'))).toEqual(jasmine.objectContaining({ ok: false, next: 'lower end' }));
  });

  it('says what is wrong with a pair of sites, and what is allowed', () => {
    const two = tool('dualInclinometer');
    expect(readAtDial(' 353/79  8,5/42 ', LUMBAR, tool('dualInclinometer', { scale: '360', hands: 'one' }))).toEqual(
      jasmine.objectContaining({ ok: true, reading: jasmine.objectContaining({ start: 353, end: 79, lower: { zero: 8.5, end: 42 } }) }),
    );
    expect(value('', LUMBAR, two)).toContain('Type a reading first');
    expect(value('86/', LUMBAR, two)).toContain('is half a reading; now the lower end');
    expect(value('1/2/3', LUMBAR, two)).toContain('is half a reading');
    expect(value('1/2/3/4/5', LUMBAR, two)).toContain('has 5 figures; allowed: upper end/lower end, as 86/34');
    expect(value('a/34', LUMBAR, two)).toBe('"a" is not a figure of the device; allowed: degrees, as 96 or 12.5.');
    expect(value('a/34', LUMBAR, tool('dualInclinometer', { scale: 'quadrant' }))).toBe(
      '"a" is not a figure of the device; allowed: degrees, with a + for every corner passed, as 30+.',
    );
    expect(value('30+/34', LUMBAR, two)).toContain('"30+" is not a figure of the device');
  });

  it('comes to the same whatever the zeros of the two devices are', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 30, max: 105 }),
        fc.integer({ min: 0, max: 29 }),
        (zeroU, zeroL, upper, lower) => {
          const typed = [zeroU, zeroL, showOn(zeroU + upper, '360'), showOn(zeroL + lower, '360')].join('/');
          expect(value(typed, LUMBAR, tool('dualInclinometer', { scale: '360' }))).toBe(upper - lower);
        },
      ),
    );
  });

  it('is a position where the protocol reads one', () => {
    const knee = protocol('muscleLength.activeKneeExtension/supine');
    expect(knee.reads).toBe('position');
    expect(value('10/25', knee, tool('goniometer'))).toContain('read as a position');
    expect(typeof value('25', knee, tool('inclinometer', { scale: '360' }))).toBe('number');
  });

  it('is an amount in its own unit or another, kept as it was entered', () => {
    const push = protocol('strength.kneeExtension/sitting');
    const read = readAtDial('31.9lb', push, tool('dynamometer'));
    // 31.9 × 4.448 221 615 260 5, NIST SP 811 (from memory)
    expect(read).toEqual(jasmine.objectContaining({ reading: { start: 0, end: 141.9, entered: '31.9 lb' } }));
    expect(value('31.9', push, tool('dynamometer', { unit: 'lb' }))).toBe(141.9);
    expect(value('4 in', protocol('distance.kneeToWall/standing'), tool('tape'))).toBe(10.2);
    expect(value('4 kg', protocol('distance.kneeToWall/standing'), tool('tape'))).toContain('does not measure this');
    expect(value('12', protocol('balance.singleLegStanceEyesOpen/standing'), tool('stopwatch'))).toBe(12);
  });

  it('is fists and fingers, with the widths they were taken for', () => {
    const wall = protocol('distance.kneeToWall/standing');
    const read = readAtDial('1f2', wall, tool('visual'));
    expect(read).toEqual(jasmine.objectContaining({ reading: { start: 0, end: 12.3, entered: '1 fist 2 fingers (8.5 and 1.9 cm)' } }));
    expect(value('0f3', wall, tool('visual', { widths: { fist: 9, finger: 2 } }))).toBe(6);
    expect(value('1f2', wall, tool('tape'))).toContain('choose that as the instrument');
    expect(value('0f6', wall, tool('visual'))).toContain('allowed: 0 to 4');
  });

  it('is a fist and up to four fingers', () => {
    const eye = tool('visual');
    const wall = protocol('distance.kneeToWall/standing');
    expect(value('1f4', wall, eye)).toBe(16.1);
    expect(value('1f5', wall, eye)).toBe('5 fingers are more than a fist; allowed: 0 to 4 beside the fists, as 1f2.');
  });

  it('is yes or no', () => {
    const squat = protocol('check.squatHeelsDown/standing');
    expect(value('y', squat, tool('visual'))).toBe(1);
    expect(value('No', squat, tool('visual'))).toBe(0);
    expect(value('7', squat, tool('visual'))).toContain('allowed: y for yes');
  });
});

describe('an arc typed in one go', () => {
  it('is of the side in hand, of the spine’s middle, or of both ways where both are told', () => {
    expect(readArc('S:10-0-120', 'knee.flexion', 'right')).toEqual([
      { motion: 'knee.extension', side: 'right', end: 10 },
      { motion: 'knee.flexion', side: 'right', end: 120 },
    ]);
    expect(readArc('S:40-0-45', 'cervical.flexion', 'left')).toEqual([
      { motion: 'cervical.extension', side: 'midline', end: 40 },
      { motion: 'cervical.flexion', side: 'midline', end: 45 },
    ]);
  });

  it('fills both directions', () => {
    expect(readArc('S:0-15-120', 'knee.flexion', 'left')).toEqual([
      { motion: 'knee.extension', side: 'left', end: -15 },
      { motion: 'knee.flexion', side: 'left', end: 120 },
    ]);
    expect(readArc('S:0-30', 'knee.extension', 'right')).toEqual(
      jasmine.arrayContaining([
        { motion: 'knee.flexion', side: 'right', end: 30 },
        { motion: 'knee.extension', side: 'right', end: -30 },
      ]),
    );
    expect(readArc('R:40-0-45', 'cervical.rotation', 'left')).toEqual([
      { motion: 'cervical.rotation', side: 'left', end: 40 },
      { motion: 'cervical.rotation', side: 'right', end: 45 },
    ]);
  });

  it('says what is wrong', () => {
    expect(readArc('S:5-10-15', 'knee.flexion', 'left')).toContain('S:5-10-15');
    expect(readArc('S:0-0-90', 'distance.kneeToWall', 'left')).toContain('not the angle of one joint');
  });
});

describe('a reading that is checked', () => {
  it('has its start before its end, where it is no difference of a device', () => {
    const knee = protocolOfId('knee.flexion/supine')!;
    const checked = (start: number, end: number) => checkReading(knee, { instrument: 'goniometer' }, { start, end });
    expect(checked(10, 5)).toBe('The start, 10, lies after the end, 5; allowed: start/end, as 10/45.');
    expect([checked(5, 10), checked(0, -5)]).toEqual([undefined, undefined]);
  });
});
