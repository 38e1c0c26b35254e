import { arcPath, around, facingFor, onDial, ringPath, sectorBox, ticks } from './geometry';

describe('dial geometry', () => {
  const up = { zeroAt: 0, sense: 1 } as const;
  const near = (p: { x: number; y: number }, x: number, y: number) => {
    expect(p.x).toBeCloseTo(x, 6);
    expect(p.y).toBeCloseTo(y, 6);
  };

  it('puts zero where the view says and turns with its sense', () => {
    near(onDial(up, 0, 10), 0, -10);
    near(onDial(up, 90, 10), 10, 0);
    near(onDial({ zeroAt: 0, sense: -1 }, 90, 10), -10, 0);
    near(onDial({ zeroAt: 270, sense: 1 }, 90, 10), 0, -10);
  });

  it('mirrors the right side: the same angle lands at the same height across the middle', () => {
    for (const view of [up, { zeroAt: 270, sense: 1 }, { zeroAt: 90, sense: -1 }, { zeroAt: 180, sense: -1 }] as const) {
      for (const angle of [-20, 0, 35, 120]) {
        const left = onDial(facingFor(view, 'left'), angle, 10);
        near(onDial(facingFor(view, 'right'), angle, 10), -left.x, left.y);
      }
    }
  });

  it('draws the arc the way the motion goes, the long way round past half a turn', () => {
    expect(arcPath(up, 0, 90, 10)).toBe('M0.00 -10.00A10 10 0 0 1 10.00 0.00');
    expect(arcPath({ zeroAt: 0, sense: -1 }, 0, 90, 10)).toContain('0 0 0 -10.00');
    expect(arcPath(up, 0, 190, 10)).toContain('A10 10 0 1 1');
    expect(arcPath(up, 90, 0, 10)).toContain('A10 10 0 0 0');
    expect(ringPath(up, 0, 90, 5, 10).endsWith('Z')).toBeTrue();
  });

  it('engraves every degree, longer at five and ten', () => {
    const all = ticks(up, -2, 10, 100);
    expect(all.length).toBe(13);
    const length = (angle: number) => {
      const t = all.find((tick) => tick.angle === angle)!;
      return Math.hypot(t.from.x - t.to.x, t.from.y - t.to.y);
    };
    expect(length(10)).toBeGreaterThan(length(5));
    expect(length(5)).toBeGreaterThan(length(4));
  });

  it('boxes a sector with its pivot, and several boxes together', () => {
    const box = sectorBox(up, -90, 90, 10, 1);
    expect(box.x).toBeCloseTo(-11, 6);
    expect(box.width).toBeCloseTo(22, 6);
    expect(box.height).toBeCloseTo(12, 6);
    expect(around([box, { x: 30, y: 0, width: 5, height: 1 }]).width).toBeCloseTo(46, 6);
  });
});
