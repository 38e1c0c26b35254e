import { MOTIONS } from './index.js';
import { allowedSides, checkValue, checkWay } from './check.js';

describe('checks of what comes from outside', () => {
  const way = { motion: 'hip.flexion', mode: 'passive', position: 'supine', instrument: 'goniometer' } as const;

  it('accepts what the catalogue measures, every way of it', () => {
    for (const m of MOTIONS) {
      for (const p of m.protocols) {
        for (const instrument of p.instruments) {
          const digit = m.perDigit ? 3 : undefined;
          expect(
            checkWay({
              motion: m.id,
              mode: p.modes[0]!,
              position: p.position,
              protocol: p.id,
              instrument,
              digit,
              side: allowedSides(m)[0],
            }),
          )
            .withContext(p.id)
            .toBeUndefined();
        }
      }
    }
    expect(checkValue('hip.flexion', 'goniometer', 120)).toBeUndefined();
    expect(checkValue('hip.flexion', 'inclinometer', 120.3)).toBeUndefined();
  });

  it('names the field that does not fit and what is allowed', () => {
    expect(checkWay({ ...way, motion: 'hip.swing' })).toEqual({
      field: 'motion',
      message: jasmine.stringContaining('hip.flexion, hip.extension') as never,
    });
    expect(checkWay({ ...way, position: 'prone' })).toEqual({
      field: 'position',
      message: 'hip flexion is not measured in "prone"; allowed: supine, standing',
    });
    expect(checkWay({ ...way, motion: 'lumbar.flexion', position: 'standing' })?.field).toBe('mode');
    expect(checkWay({ ...way, instrument: 'tape' })?.message).toContain('allowed: goniometer, inclinometer, phone, picture, visual');
    expect(checkWay({ ...way, protocol: 'hip.flexion/standing' })?.message).toContain('allowed: hip.flexion/supine');
    expect(checkWay({ ...way, side: 'midline' })).toEqual({
      field: 'side',
      message: '"midline" does not fit hip.flexion; allowed: left, right',
    });
  });

  it('says why gravity cannot read a turn about a plumb axis', () => {
    const neck = { motion: 'cervical.rotation', mode: 'active', position: 'sitting', instrument: 'inclinometer' } as const;
    expect(checkWay(neck)?.message).toContain('gravity cannot tell');
    expect(checkWay({ ...neck, position: 'supine' })).toBeUndefined();
  });

  it('wants a finger for the joints of the fingers, and none elsewhere', () => {
    const finger = { ...way, motion: 'fingerPip.flexion', position: 'sitting' } as const;
    expect(checkWay(finger)?.message).toContain('is missing; allowed: 1, 2, 3, 4, 5');
    expect(checkWay({ ...finger, digit: 6 })?.field).toBe('digit');
    expect(checkWay({ ...finger, digit: 2 })).toBeUndefined();
    expect(checkWay({ ...way, digit: 2 })?.message).toContain('does not belong');
    expect(checkWay({ ...finger, motion: 'thumbMcp.flexion', digit: 1 })).toBeUndefined();
  });

  it('knows the range of the joint and the fineness of the instrument', () => {
    expect(checkValue('hip.flexion', 'goniometer', 171)).toBe('171° is more than hip flexion can hold; allowed: −60 to 170°');
    expect(checkValue('hip.flexion', 'goniometer', 90.5)).toContain('steps of 1°');
    expect(checkValue('hip.flexion', 'inclinometer', 90.55)).toContain('steps of 0.1°');
    expect(checkValue('distance.kneeToWall', 'tape', 45)).toBe('45 cm is more than knee to wall can hold; allowed: 0 to 30 cm');
    expect(checkValue('distance.kneeToWall', 'tape', 7.55)).toContain('steps of 0.1 cm');
  });
});
