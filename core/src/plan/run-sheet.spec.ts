import { motion, protocolOfId } from '../catalogue/index.js';
import { EXAM_SETS, findExamSet, runSheet, type RunRow } from './index.js';

const rowsOf = (set: string, involved: Parameters<typeof runSheet>[1] = null): RunRow[] =>
  runSheet(findExamSet(set)!.items, involved).flatMap((block) => block.rows);

describe('run sheet', () => {
  it('turns the patient of a hip exam once and measures each of six motions both ways', () => {
    const blocks = runSheet(findExamSet('hip')!.items, 'left');
    expect(blocks.map((b) => b.position)).toEqual(['supine', 'prone']);
    expect(blocks.flatMap((b) => b.rows).length).toBe(12);
  });

  it('goes active before passive, and the side that is not involved first', () => {
    const rows = rowsOf('hip', 'right');
    for (let i = 0; i < rows.length; i += 2) {
      expect(rows[i]!.motion).toBe(rows[i + 1]!.motion);
      expect([rows[i]!.mode, rows[i + 1]!.mode]).toEqual(['active', 'passive']);
    }
    expect(rows[0]!.sides).toEqual(['left', 'right']);
    expect(rowsOf('hip', 'left')[0]!.sides).toEqual(['right', 'left']);
    expect(rowsOf('hip')[0]!.sides).toEqual(['right', 'left']);
  });

  it('never comes back to a position, and goes from upright to face down', () => {
    for (const set of EXAM_SETS) {
      const positions = runSheet(set.items, null).map((b) => b.position);
      expect(new Set(positions).size).withContext(set.id).toBe(positions.length);
    }
    expect(runSheet(findExamSet('quick')!.items, null).map((b) => b.position)).toEqual(['standing', 'sitting', 'supine', 'prone']);
  });

  it('measures a length, a force or a time once, and the midline without a side', () => {
    const floor = rowsOf('low-back').filter((row) => row.motion === 'distance.fingerToFloor');
    expect(floor.map((row) => [row.mode, row.sides])).toEqual([['active', ['midline']]]);
    expect(rowsOf('wrist-hand').some((row) => row.digit === 2)).toBeTrue();
  });

  it('knows every protocol of every ready set, and refuses one that is not there', () => {
    for (const { id, items } of EXAM_SETS) {
      for (const { protocol, digit } of items) {
        const found = protocolOfId(protocol);
        expect(found).withContext(`${id} ${protocol}`).toBeDefined();
        expect(motion(found!.motion).perDigit)
          .withContext(protocol)
          .toBe(digit !== undefined);
      }
    }
    expect(() => runSheet([{ protocol: 'hip.swing/air' }], null)).toThrowError(/hip.swing/);
  });
});
