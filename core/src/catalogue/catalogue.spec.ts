import { JOINT_PLANES } from '../notation/planes.js';
import { findMotion, findProtocol, motion, MOTIONS } from './index.js';

describe('catalogue', () => {
  for (const m of MOTIONS) {
    describe(m.id, () => {
      it('has protocols that say everything the hands need', () => {
        expect(m.protocols.length).toBeGreaterThan(0);
        for (const p of m.protocols) {
          expect(p.id).toBe(`${m.id}/${p.position}`);
          expect(p.motion).toBe(m.id);
          expect(findProtocol(m.id, p.position)).toBe(p);
          for (const text of [p.startingPosition, p.axis, p.stationaryArm, p.movingArm, p.stabilise, p.source.cite]) {
            expect(text.length).toBeGreaterThan(3);
          }
          for (const list of [p.modes, p.instruments, p.endFeel, p.substitutions]) expect(list.length).toBeGreaterThan(0);
          expect(new Set(p.substitutions.map((s) => s.id)).size).toBe(p.substitutions.length);
        }
      });

      it('stands in a plane of its joint and points back from its opposite', () => {
        const pair = JOINT_PLANES[m.joint][m.plane];
        const name = m.id.split('.')[1];
        expect([pair?.first, pair?.last]).toContain(name as never);
        if (m.opposite) expect(motion(m.opposite).opposite).toBe(m.id);
        expect(m.limits.min).toBeLessThan(m.limits.max);
      });
    });
  }

  it('names the trap of every hip rotation: by the bone, not by the foot', () => {
    const traps = MOTIONS.filter((m) => m.joint === 'hip' && m.plane === 'R').flatMap((m) => m.protocols.map((p) => p.namingTrap));
    expect(traps.length).toBe(4);
    expect(traps.every((trap) => trap?.includes('not by the foot'))).toBeTrue();
  });

  it('turns the dial the way the limb goes: in prone the foot swings out, to the examiner’s left for a left hip', () => {
    expect(findProtocol('hip.internalRotation', 'prone')?.dial).toEqual(jasmine.objectContaining({ zeroAt: 0, sense: -1 }));
    expect(findProtocol('hip.internalRotation', 'sitting')?.dial).toEqual(jasmine.objectContaining({ zeroAt: 180, sense: -1 }));
  });

  it('never offers an inclinometer for a movement across the table', () => {
    for (const id of ['hip.abduction', 'hip.adduction'] as const) {
      expect(findProtocol(id, 'supine')?.instruments).toEqual(['goniometer', 'visual']);
    }
  });

  it('does not know what it does not hold', () => {
    expect(findMotion('hip.swing')).toBeUndefined();
    expect(() => motion('knee.flexion')).toThrowError(/knee.flexion/);
  });
});
