import { limited } from '../testing/limits.js';
import { findProcedure, usualPrecautions } from '../procedure/index.js';
import { DRILLS, forbiddenDrill } from '../program/index.js';
import { PROTOCOLS } from '../catalogue/index.js';
import { allowedFor } from '../precaution/index.js';
import { POSITIONS, type MotionId } from '../terms.js';
import { imposedByPosition, imposesOf, inPosition, jointOfRow, type Imposition } from './index.js';

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

  it('is part of what a way of measuring demands: a motion is never read from less than it begins with', () => {
    let compared = 0;
    for (const { id, position } of PROTOCOLS) {
      const rows = imposesOf(id);
      const read = rows.filter((row) => row.what === 'moves' && row.isFigure);
      for (const start of imposedByPosition(position)) {
        if (start.what !== 'moves' || start.limb !== 'measured' || typeof start.degrees !== 'number' || start.degrees < 60) continue;
        if (!read.some((row) => row.what === 'moves' && row.motion === start.motion)) continue;
        compared += 1;
        const begins = rows.some(
          (row) =>
            row.what === 'moves' &&
            !row.isFigure &&
            row.motion === start.motion &&
            row.limb !== 'other' &&
            typeof row.degrees === 'number' &&
            row.degrees >= Number(start.degrees),
        );
        expect(begins).withContext(`${id} begins at ${start.motion} ${start.degrees}`).toBeTrue();
      }
    }
    expect(compared).toBeGreaterThan(0);
  });

  it('rules out what begins past a limit: the knee hangs at about a right angle at the edge of the table', () => {
    const says = (protocol: string, motion: MotionId, limit: number) =>
      allowedFor(
        { protocol, motion, side: 'left', mode: 'passive' },
        limited([{ motion: 'knee.flexion', limit, until: null, source: 'surgeon' }]),
      ).kind;
    expect(says('knee.flexion/sitting', 'knee.flexion', 30)).toBe('forbidden');
    expect(says('knee.flexion/sitting', 'knee.flexion', 100)).toBe('stop');
    expect(says('knee.flexion/supine', 'knee.flexion', 30)).toBe('stop');
    expect(says('muscleLength.kneeDrop/supine', 'muscleLength.kneeDrop', 30)).toBe('forbidden');
    expect(says('muscleLength.hipExtensionDrop/supine', 'muscleLength.hipExtensionDrop', 30)).toBe('forbidden');
    expect(says('knee.extension/sitting', 'knee.extension', 30)).toBe('forbidden');
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
