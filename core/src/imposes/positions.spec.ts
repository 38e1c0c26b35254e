import { limited } from '../testing/limits.js';
import { findProcedure, usualPrecautions } from '../procedure/index.js';
import { DRILLS, forbiddenDrill } from '../program/index.js';
import { POSITIONS } from '../terms.js';
import { imposedByPosition, inPosition, jointOfRow, type Imposition } from './index.js';

describe('a position', () => {
  it('imposes something by itself, each limb told apart', () => {
    for (const position of POSITIONS) {
      const rows = imposedByPosition(position);
      expect(rows.length).withContext(position).toBeGreaterThan(0);
      expect(rows.filter(({ limb }) => limb === 'both')).toEqual([]);
    }
  });

  it('is added where nothing is said of a joint, and gives way where something is', () => {
    const bent: Imposition = {
      what: 'moves',
      limb: 'measured',
      motion: 'hip.flexion',
      degrees: 40,
      load: 'none',
      by: 'held',
      isFigure: false,
    };
    const rows = inPosition('sitting', [bent]);
    const hip = rows.filter((row) => jointOfRow(row) === 'hip').map((row) => [row.limb, row.what === 'moves' && row.degrees]);
    expect(hip).toEqual([
      ['measured', 40],
      ['other', 90],
    ]);
    expect(rows.filter((row) => jointOfRow(row) === 'knee').length).toBe(2);
    const oneLeg: Imposition = { what: 'bears', limb: 'measured', joint: 'knee', load: 'body', by: 'active' };
    expect(inPosition('standing', [oneLeg]))
      .withContext('where the weight goes is said')
      .toEqual([oneLeg]);
    const palm: Imposition = { ...oneLeg, joint: 'wrist' };
    expect(inPosition('standing', [palm]).filter((row) => jointOfRow(row) === 'knee').length)
      .withContext('of an arm it says nothing of the legs')
      .toBe(2);
  });

  it('is in every drill: none imposes less than the position it is done in', () => {
    for (const { id, position, imposes } of DRILLS) {
      const said = (row: Imposition) =>
        imposes.some(
          (one) =>
            one.what === row.what &&
            (row.what === 'bears' || jointOfRow(one) === jointOfRow(row)) &&
            [row.limb, 'both', 'trunk'].concat(row.what === 'bears' ? ['measured', 'other'] : []).includes(one.limb),
        );
      expect(imposedByPosition(position).filter((row) => !said(row)))
        .withContext(id)
        .toEqual([]);
    }
  });

  // Common practice, no source: no weight on the leg at first. An arm is not exercised on it either.
  it('keeps whoever may not stand on a leg from every drill that is done standing on both', () => {
    const limits = usualPrecautions(findProcedure('achilles-repair')!, 'left', '2026-11-13', '2026-11-20');
    const standing = DRILLS.filter(
      ({ position, imposes }) =>
        position === 'standing' && imposes.some((row) => row.what === 'bears' && row.limb !== 'other' && jointOfRow(row) === 'ankle'),
    );
    expect(standing.length).toBeGreaterThan(10);
    expect(standing.some(({ serves }) => serves.some((id) => id.startsWith('shoulder.')))).toBeTrue();
    for (const drill of standing)
      expect(forbiddenDrill(drill, drill.sides === 'none' ? 'midline' : 'left', limited(limits, '2026-11-20')))
        .withContext(drill.id)
        .not.toBeNull();
  });
});
