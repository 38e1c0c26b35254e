import { checkAngle, checkWay } from './check.js';

describe('checks of what comes from outside', () => {
  const way = { motion: 'hip.flexion', mode: 'passive', position: 'supine', instrument: 'goniometer' } as const;

  it('accepts what the catalogue measures', () => {
    expect(checkWay(way)).toBeUndefined();
    expect(checkAngle('hip.flexion', 'goniometer', 120)).toBeUndefined();
    expect(checkAngle('hip.flexion', 'inclinometer', 120.3)).toBeUndefined();
  });

  it('names the field that does not fit and what is allowed', () => {
    expect(checkWay({ ...way, motion: 'hip.swing' })).toEqual({
      field: 'motion',
      message: jasmine.stringContaining('hip.flexion, hip.extension') as never,
    });
    expect(checkWay({ ...way, position: 'prone' })).toEqual({
      field: 'position',
      message: 'hip flexion is not measured in "prone"; allowed: supine',
    });
    expect(checkWay({ ...way, motion: 'lumbar.flexion', position: 'standing' })?.field).toBe('mode');
    expect(checkWay({ ...way, instrument: 'tape' })?.message).toContain('allowed: goniometer, inclinometer, visual');
  });

  it('knows the range of the joint and the fineness of the instrument', () => {
    expect(checkAngle('hip.flexion', 'goniometer', 171)).toBe('171° is more than hip flexion can hold; allowed: −60 to 170°');
    expect(checkAngle('hip.flexion', 'goniometer', 90.5)).toContain('steps of 1°');
    expect(checkAngle('hip.flexion', 'inclinometer', 90.55)).toContain('steps of 0.1°');
  });
});
