import { hipRunSheet } from './hip-run-sheet.js';

describe('hip run sheet', () => {
  it('turns the patient once and measures each of six motions both ways', () => {
    const blocks = hipRunSheet('left');
    expect(blocks.map((b) => b.position)).toEqual(['supine', 'prone']);
    expect(blocks.flatMap((b) => b.rows).length).toBe(12);
    expect(new Set(blocks.flatMap((b) => b.rows.map((r) => r.motion))).size).toBe(6);
  });

  it('goes active before passive, and the side that is not involved first', () => {
    const rows = hipRunSheet('right').flatMap((b) => b.rows);
    for (let i = 0; i < rows.length; i += 2) {
      expect(rows[i]!.motion).toBe(rows[i + 1]!.motion);
      expect([rows[i]!.mode, rows[i + 1]!.mode]).toEqual(['active', 'passive']);
    }
    expect(rows[0]!.sides).toEqual(['left', 'right']);
    expect(hipRunSheet('left')[0]!.rows[0]!.sides).toEqual(['right', 'left']);
    expect(hipRunSheet(null)[0]!.rows[0]!.sides).toEqual(['right', 'left']);
  });
});
