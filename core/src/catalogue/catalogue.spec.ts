import { errorOf, errorSourceWords } from '../error/index.js';
import { JOINT_PLANES } from '../notation/planes.js';
import { FAMILIES, INSTRUMENTS, JOINTS, MODES, POSITIONS, type Instrument } from '../terms.js';
import {
  drawFigure,
  findMotion,
  findProtocol,
  isJoint,
  motion,
  MOTIONS,
  placementLines,
  protocolName,
  protocolOf,
  protocolOfId,
  PROTOCOLS,
} from './index.js';

const GRAVITY: readonly Instrument[] = ['inclinometer', 'dualInclinometer', 'phone'];

describe('catalogue', () => {
  for (const m of MOTIONS) {
    it(`${m.id}: every protocol says what the hands need, with an end feel, an error and a source`, () => {
      expect(m.protocols.length).toBeGreaterThan(0);
      for (const p of m.protocols) {
        expect(p.id).toBe(`${m.id}/${p.position}${p.variant ? `-${p.variant}` : ''}`);
        expect(p.motion).toBe(m.id);
        expect(protocolOfId(p.id)).toBe(p);
        for (const text of [p.startingPosition, p.stabilise, p.label, p.source.cite]) expect(text.length).toBeGreaterThan(3);
        expect(placementLines(p).length).withContext(p.id).toBeGreaterThan(0);
        for (const line of placementLines(p)) expect(line.text.length).toBeGreaterThan(2);
        for (const list of [p.modes, p.instruments, p.substitutions]) expect(list.length).toBeGreaterThan(0);
        expect(new Set(p.substitutions.map((s) => s.id)).size).toBe(p.substitutions.length);
        expect(p.trials.count).toBeGreaterThan(0);
        // Nothing is taken to an end in a girth, a leg's length, a push, a stance or a look.
        const hasEnd = !['girth', 'strength', 'balance', 'check'].includes(m.joint) && !m.id.startsWith('distance.legLength');
        expect(p.endFeel.length > 0)
          .withContext(p.id)
          .toBe(hasEnd);
        for (const instrument of p.instruments) {
          const error = errorOf({ motion: m.id, instrument, protocol: p.id, value: m.limits.max });
          expect(error.sem > 0)
            .withContext(`${p.id} ${instrument}`)
            .toBe(m.unit !== 'yesNo');
          expect(errorSourceWords(error.source).length).toBeGreaterThan(10);
        }
      }
    });

    it(`${m.id}: stands in a plane of its joint, points back from its opposite, and can hold something`, () => {
      expect(m.limits.min).toBeLessThan(m.limits.max);
      if (!isJoint(m.joint)) return void expect(m.plane).toBeNull();
      const pair = JOINT_PLANES[m.joint][m.plane!];
      expect([pair?.first, pair?.last]).toContain(m.id.split('.')[1] as never);
      if (m.opposite) expect(motion(m.opposite).opposite).toBe(m.id);
    });
  }

  it('measures every joint, in every motion of its planes but those that nobody can', () => {
    const missing = JOINTS.flatMap((joint) =>
      Object.values(JOINT_PLANES[joint]).flatMap((pair) => [pair.first, pair.last].map((name) => `${joint}.${name}`)),
    ).filter((id) => !findMotion(id));
    expect([...new Set(missing)]).toEqual([]);
    for (const family of FAMILIES)
      expect(MOTIONS.some((m) => m.joint === family))
        .withContext(family)
        .toBeTrue();
  });

  it('holds at least 110 protocols, each distinct in words from the others of its motion', () => {
    expect(PROTOCOLS.length).toBeGreaterThanOrEqual(110);
    expect(new Set(PROTOCOLS.map((p) => p.id)).size).toBe(PROTOCOLS.length);
    expect(new Set(PROTOCOLS.map(protocolName)).size).toBe(PROTOCOLS.length);
  });

  it('uses every mode, position and instrument of the vocabulary', () => {
    expect(MODES.every((mode) => PROTOCOLS.some((p) => p.modes.includes(mode)))).toBeTrue();
    expect(POSITIONS.filter((position) => !PROTOCOLS.some((p) => p.position === position))).toEqual([]);
    expect(INSTRUMENTS.filter((instrument) => !PROTOCOLS.some((p) => p.instruments.includes(instrument)))).toEqual([]);
  });

  // Gravity cannot tell a turn about a plumb axis (physics; common practice)
  it('offers what reads gravity only where the movement lies in a vertical plane', () => {
    const wrong = PROTOCOLS.filter((p) => p.swing !== 'vertical' && p.instruments.some((i) => GRAVITY.includes(i)));
    expect(wrong.map((p) => p.id)).toEqual([]);
    for (const id of [
      'cervical.rotation/sitting',
      'thoracolumbar.rotation/sitting',
      'shoulder.externalRotation/sitting-at-side',
      'hip.abduction/supine',
    ])
      expect(protocolOfId(id)?.instruments.some((i) => GRAVITY.includes(i)))
        .withContext(id)
        .toBeFalse();
    expect(protocolOfId('cervical.rotation/supine')?.instruments).toContain('inclinometer');
    const planeOf = (id: string) => placementLines(protocolOfId(id)!).find((line) => line.label === 'Plane')?.text;
    expect(planeOf('cervical.rotation/supine')).toContain('vertical');
    expect(planeOf('cervical.rotation/sitting')).toContain('gravity cannot read it');
    expect(planeOf('girth.calf/supine')).toBeUndefined();
  });

  it('names the trap of every limb rotation: by the bone, not by the foot or the hand', () => {
    const turning = MOTIONS.filter((m) => ['hip', 'shoulder'].includes(m.joint) && m.plane === 'R').flatMap((m) => m.protocols);
    expect(turning.length).toBeGreaterThan(10);
    for (const p of turning)
      expect(p.namingTrap)
        .withContext(p.id)
        .toMatch(/not by the (foot|hand)/);
  });

  it('tells ways apart that must not be compared, and says so', () => {
    for (const id of ['hip.internalRotation', 'muscleLength.straightLegRaise', 'shoulder.externalRotation', 'cervical.rotation'] as const) {
      const protocols = motion(id).protocols;
      expect(protocols.length).toBeGreaterThan(1);
      expect(protocols.every((p) => /never compare/i.test(p.notThisWay ?? '')))
        .withContext(id)
        .toBeTrue();
    }
  });

  it('asks about the neck before it is moved, and reads the missing knee extension as a position', () => {
    for (const p of PROTOCOLS.filter((q) => q.motion.startsWith('cervical'))) expect(p.caution).toContain('dizziness');
    expect(protocolOfId('muscleLength.activeKneeExtension/supine')?.reads).toBe('position');
  });

  it('turns the dial the way the limb goes: in prone the foot swings out, to the examiner’s left for a left hip', () => {
    expect(findProtocol('hip.internalRotation', 'prone')?.dial).toEqual(jasmine.objectContaining({ zeroAt: 0, sense: -1 }));
    expect(findProtocol('hip.internalRotation', 'sitting')?.dial).toEqual(jasmine.objectContaining({ zeroAt: 180, sense: -1 }));
    for (const m of MOTIONS.filter((x) => x.unit === 'deg')) for (const p of m.protocols) expect(p.dial).withContext(p.id).toBeDefined();
  });

  it('turns opposite motions of one position opposite ways from the same zero', () => {
    for (const m of MOTIONS.filter((x) => x.opposite !== null)) {
      for (const p of m.protocols) {
        const twin = motion(m.opposite!).protocols.find((q) => q.position === p.position && q.variant === p.variant);
        if (!twin?.dial || twin.dial.seenFrom !== p.dial?.seenFrom) continue;
        expect([p.dial.zeroAt, p.dial.sense])
          .withContext(p.id)
          .toEqual([twin.dial.zeroAt, -twin.dial.sense as 1 | -1]);
      }
    }
  });

  it('finds the usual protocol of a position, and refuses one that does not belong', () => {
    expect(findProtocol('shoulder.externalRotation', 'supine')?.variant).toBeNull();
    expect(protocolOf({ motion: 'ankle.dorsiflexion', position: 'standing' }).variant).toBe('loaded');
    expect(() => protocolOf({ motion: 'hip.flexion', position: 'supine', protocol: 'hip.flexion/standing' })).toThrowError(/not measured/);
    expect(findMotion('hip.swing')).toBeUndefined();
    expect(() => motion('knee.rotation' as never)).toThrowError(/knee.rotation/);
  });
});

describe('figures', () => {
  it('are drawn for every protocol, inside their frame', () => {
    for (const p of PROTOCOLS) {
      const { frame, limbs, turn, tape, ring, push } = drawFigure(p);
      expect(limbs.length).withContext(p.id).toBeGreaterThan(0);
      expect(frame.width >= 230 && frame.height >= 150)
        .withContext(p.id)
        .toBeTrue();
      for (const { from, to } of limbs) {
        for (const [x, y] of [from, to]) {
          expect(x >= frame.x && x <= frame.x + frame.width && y >= frame.y && y <= frame.y + frame.height)
            .withContext(p.id)
            .toBeTrue();
        }
      }
      if (p.reads !== 'time' && p.reads !== 'answer') expect([turn, tape, ring, push].filter(Boolean).length).withContext(p.id).toBe(1);
    }
  });

  it('turn the moving arm from zero by the value, the way the dial turns', () => {
    const angleOf = ([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]) =>
      (Math.atan2(x2 - x1, y1 - y2) * 180) / Math.PI;
    for (const p of PROTOCOLS.filter((q) => q.figure.kind === 'turn')) {
      const { axis, zero, end } = drawFigure(p, 30).turn!;
      const moved = ((((angleOf(axis, end) - angleOf(axis, zero)) % 360) + 540) % 360) - 180;
      expect(moved)
        .withContext(p.id)
        .toBeCloseTo(30 * p.dial!.sense, 6);
      expect(drawFigure(p, 30).limbs.some((limb) => limb.moves) || drawFigure(p, 30).head?.moves)
        .withContext(p.id)
        .toBeTrue();
    }
  });

  it('refuse a value where nothing turns about an axis that is not there', () => {
    const p = protocolOfId('girth.thigh/supine')!;
    expect(drawFigure(p).turn).toBeNull();
    expect(() => drawFigure({ ...p, figure: { kind: 'ring', scene: 'moon', at: 'x', width: 1, tilt: 0 } })).toThrowError(/moon/);
    expect(() => drawFigure({ ...p, figure: { kind: 'ring', scene: 'front', at: 'tail', width: 1, tilt: 0 } })).toThrowError(/tail/);
  });
});
