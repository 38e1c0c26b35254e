import { readFileSync } from 'node:fs';
import { findMotion, isJoint, MOTIONS } from '../../catalogue/index.js';
import { allowedDoing, PRECAUTION_KINDS, type Precaution } from '../../precaution/index.js';
import { DRILLS, LEAVE_RULES } from '../../program/index.js';
import type { MotionId, Side } from '../../terms.js';
import { DONE_THINGS, enteredLines, enteredRows, isKnownRow, type DoneThing } from '../../testing/done-second-entry.js';
import { DONE_TRAITS, jointOfRow, type DoneTrait, type Imposition } from '../index.js';
import { DEMANDED_IDS } from './index.js';
import { rowsOf } from './read.js';
import type { Demands } from './types.js';

const read = (file: string): string => readFileSync(new URL(`./${file}`, import.meta.url), 'utf8');
const ENTERED = enteredLines(read('second-entry.csv'));
const ENTERED_TRAITS = enteredLines(read('second-entry-traits.csv')) as [string, DoneTrait][];

/** Every precaution that could meet a row: each kind, in each mode, at figures around it. */
function precautionsAbout(row: Imposition): Precaution[] {
  const joint = jointOfRow(row);
  const set = { until: null, source: 'surgeon' };
  if (row.what === 'bears' || row.what === 'touches') {
    const of = MOTIONS.find((one) => one.joint === joint)!.id;
    return [{ motion: of, kind: 'weight', limit: null, ...set }];
  }
  const motions = [row.motion, findMotion(row.motion)?.opposite].filter((id): id is MotionId => Boolean(id && findMotion(id)));
  const far = row.what === 'works' ? [] : [row.degrees === 'full' ? findMotion(row.motion)!.limits.max : row.degrees];
  // Where straight is zero, a limit may lie short of it: below zero.
  const about = findMotion(row.motion);
  const min = about?.endsNearZero ? about.limits.min : 0;
  const figures = far.flatMap((at) => [at - 1, at - 6, at - 30, at * 0.6].map((figure) => Math.max(min, figure)));
  return motions.flatMap((motion) =>
    ([undefined, 'active', 'passive'] as const).flatMap((mode) => [
      ...PRECAUTION_KINDS.filter((kind) => kind !== 'weight' && kind !== 'single-leg').map((kind) => ({
        motion,
        kind,
        mode,
        limit: null,
        ...set,
      })),
      ...figures.map((limit) => ({ motion, mode, limit, ...set })),
    ]),
  );
}

const isOut = (thing: DoneThing, imposes: readonly Imposition[], side: Side, by: Precaution): boolean =>
  allowedDoing({ ...thing, imposes, is: [] }, side, { precautions: [by], cautions: [], on: null }).kind === 'forbidden';

/** What came after the second entry. */
const SINCE = ['half-kneel-sink', 'split-rear-fold'] as const;

/** Items that are asked in another way now: all that the second entry says of the old one holds for them, but for what is not done any more. */
const AS_BEFORE: readonly (readonly [now: string, before: string, isGone: (row: Imposition) => boolean, why: string])[] = [
  ['loadingReadiness.chestRaise', 'loadingReadiness.pressUp', () => false, 'the same movement'],
  [
    'loadingReadiness.kneeToWallKneeling',
    'loadingReadiness.kneeToWall',
    (row) => row.limb === 'other',
    'the other leg kneels and does not stand',
  ],
  [
    'hipSixWays.legBack',
    'hipSixWays.wallExtension',
    (row) => 'motion' in row && row.motion === 'cervical.rotation',
    'the face is not beside a wall',
  ],
  [
    'hipSixWays.pelvisOverLeg',
    'hipSixWays.pelvisTurn',
    (row) => row.what === 'moves' && !row.motion.startsWith('thoracic') && !row.motion.startsWith('lumbar'),
    'the back leg is looked at, not the front one',
  ],
  ['hipSixWays.kneeDownCrossed', 'hipSixWays.ankleOnKnee', () => false, 'the same seat, pressed down besides'],
  ...(['', 'Out', 'Bent'] as const).map(
    (which) =>
      [
        `tableExam.proneLift${which}`,
        `tableExam.legLift${which}`,
        (row: Imposition) => ['shoulder', 'elbow', 'wrist'].includes(jointOfRow(row)),
        'the forehead does not lie on the hands',
      ] as const,
  ),
  ['tableExam.armsLiftUp', 'tableExam.armsOverhead', () => false, 'the same, both at once'],
  ['tableExam.armsLiftWide', 'tableExam.armsOut', () => false, 'the same, both at once'],
  ['tableExam.armsLiftLow', 'tableExam.armsByHips', () => false, 'the same, both at once'],
];

describe('what exercises and items do to the body', () => {
  // Clinical knowledge, from memory, no source: each limit by itself rules it out on that side.
  it('rules out what came since under the limits that speak against it', () => {
    const out = (id: string, by: Omit<Precaution, 'source' | 'until'>, side: Side = 'left') => {
      const thing = DONE_THINGS.find((one) => one.id === id)!;
      return isOut(thing, thing.imposes, side, { ...by, source: 'surgeon', until: null });
    };
    const bent: Omit<Precaution, 'source' | 'until'> = { motion: 'knee.flexion', side: 'left', limit: 90 };
    for (const id of SINCE) {
      expect(out(id, bent)).withContext(id).toBeTrue();
      expect(out(id, { motion: 'knee.flexion', kind: 'weight', side: 'left', limit: null }))
        .withContext(id)
        .toBeTrue();
      expect(out(id, { motion: 'knee.extension', kind: 'resisted', side: 'right', limit: null }))
        .withContext(`${id}: the front leg`)
        .toBeTrue();
      expect(out(id, { motion: 'ankle.plantarflexion', kind: 'end-range', side: 'left', limit: null }))
        .withContext(id)
        .toBeTrue();
      expect(out(id, { motion: 'shoulder.flexion', kind: 'weight', side: 'left', limit: null }))
        .withContext(id)
        .toBeTrue();
    }
    expect(out('split-rear-fold', { motion: 'hip.extension', side: 'left', limit: 0 })).toBeTrue();
    expect(out('split-rear-fold', { motion: 'hip.extension', kind: 'single-leg', side: 'right', limit: null })).toBeTrue();
    expect(out('half-kneel-sink', { motion: 'cervical.rotation', limit: null })).toBeFalse();
  });

  it('holds for an item that is asked in another way now, but for what is not done any more', () => {
    const looser: string[] = [];
    for (const [now, before, isGone, why] of AS_BEFORE) {
      const thing = DONE_THINGS.find(({ id }) => id === now)!;
      const rows = ENTERED.filter(([id]) => id === before)
        .flatMap(enteredRows)
        .filter((row) => isKnownRow(row) && jointOfRow(row) !== ('any' as never) && !isGone(row));
      expect(rows.length).withContext(`${now}: ${why}`).toBeGreaterThan(3);
      for (const row of rows)
        for (const by of precautionsAbout(row))
          for (const limb of ['left', 'right'] as const) {
            const one = { ...by, side: limb };
            if (isOut({ ...thing, traits: new Set() }, [row], 'left', one) && !isOut(thing, thing.imposes, 'left', one))
              looser.push(`${now}: ${JSON.stringify(row)} under ${JSON.stringify(one)}`);
          }
    }
    expect(looser).toEqual([]);
  });

  // Clinical knowledge, from memory, no source.
  it('names the knee that is knelt on, and the leg over which the pelvis turns', () => {
    const out = (id: string, by: Omit<Precaution, 'source' | 'until' | 'limit'>) => {
      const thing = DONE_THINGS.find((one) => one.id === id)!;
      return isOut(thing, thing.imposes, 'left', { ...by, limit: null, source: 'surgeon', until: null });
    };
    expect(out('loadingReadiness.kneeToWallKneeling', { motion: 'knee.flexion', kind: 'weight', side: 'right' })).toBeTrue();
    expect(out('loadingReadiness.kneeToWallKneeling', { motion: 'ankle.dorsiflexion', kind: 'weight', side: 'right' })).toBeFalse();
    expect(out('hipSixWays.pelvisOverLeg', { motion: 'hip.internalRotation', side: 'left' })).toBeTrue();
    expect(out('hipSixWays.pelvisOverLeg', { motion: 'hip.internalRotation', side: 'right' })).toBeFalse();
    expect(out('hipSixWays.kneeDownCrossed', { motion: 'hip.externalRotation', kind: 'against-gravity', side: 'left' })).toBeTrue();
    expect(out('tableExam.proneLift', { motion: 'shoulder.abduction', side: 'left' })).toBeFalse();
    expect(out('tableExam.legLift', { motion: 'shoulder.abduction', side: 'left' })).toBeTrue();
  });

  it('is declared by every one of them, and by none that there is not', () => {
    const advised = LEAVE_RULES.map(({ id }) => `instead.${id}`);
    expect([...DEMANDED_IDS].sort()).toEqual([...DONE_THINGS.map(({ id }) => id), ...advised].sort());
    const before = new Set(ENTERED.map(([id]) => id));
    expect(
      DONE_THINGS.map(({ id }) => id)
        .filter((id) => !before.has(id))
        .sort(),
    ).toEqual([...SINCE, ...AS_BEFORE.map(([now]) => now)].sort());
    expect([...before].filter((id) => !DONE_THINGS.some((thing) => thing.id === id))).toEqual([]);
    expect(ENTERED.length).toBe(2519);
  });

  it('is nowhere looser than the second entry: whatever limit its row meets, ours meets too', () => {
    let asked = 0;
    const looser: string[] = [];
    for (const thing of DONE_THINGS) {
      const sides: readonly Side[] = thing.sides === 'none' ? ['midline'] : ['left', 'right'];
      for (const line of ENTERED.filter(([id]) => id === thing.id))
        for (const row of enteredRows(line).filter(isKnownRow)) {
          if (jointOfRow(row) === ('any' as never)) continue;
          for (const by of precautionsAbout(row))
            for (const limb of ['left', 'right'] as const)
              for (const side of sides) {
                asked += 1;
                const one = { ...by, side: limb };
                if (isOut({ ...thing, traits: new Set() }, [row], side, one) && !isOut(thing, thing.imposes, side, one))
                  looser.push(`${thing.id} ${side}: ${line.join(' ')} under ${JSON.stringify(one)}`);
              }
        }
    }
    expect(asked).toBeGreaterThan(100_000);
    expect(looser).toEqual([]);
  });

  it('stands on one leg wherever the second entry does: that is of all its weights together', () => {
    const alone: string[] = [];
    for (const thing of DONE_THINGS) {
      const rows = ENTERED.filter(([id]) => id === thing.id)
        .flatMap(enteredRows)
        .filter((row) => row.what === 'bears');
      for (const side of thing.sides === 'none' ? (['midline'] as const) : (['left', 'right'] as const))
        for (const limb of ['left', 'right'] as const) {
          const by: Precaution = {
            motion: 'ankle.dorsiflexion',
            kind: 'single-leg',
            side: limb,
            limit: null,
            until: null,
            source: 'surgeon',
          };
          if (!isOut({ ...thing, traits: new Set() }, rows, side, by)) continue;
          alone.push(`${thing.id} ${side}`);
          expect(isOut(thing, thing.imposes, side, by))
            .withContext(`${thing.id} ${side} ${limb}`)
            .toBeTrue();
        }
    }
    expect(alone.length).toBeGreaterThan(10);
  });

  it('names the strain that no motion of the catalogue has', () => {
    const strains = ENTERED.flatMap((line) => enteredRows(line).map((row) => [line[0]!, row] as const)).filter(
      ([, row]) => !isKnownRow(row) && jointOfRow(row) !== ('any' as never),
    );
    expect(strains.length).toBeGreaterThan(30);
    for (const [id, row] of strains) {
      const { imposes } = DONE_THINGS.find((thing) => thing.id === id)!;
      expect(imposes.some((one) => 'motion' in one && 'motion' in row && one.motion === row.motion))
        .withContext(`${id} ${JSON.stringify(row)}`)
        .toBeTrue();
    }
  });

  it('asks of the whole person all that the second entry says', () => {
    expect(ENTERED_TRAITS.length).toBe(946);
    const missing = ENTERED_TRAITS.filter(([id, trait]) => !DONE_THINGS.find((thing) => thing.id === id)!.traits.has(trait));
    expect(missing).toEqual([]);
    expect([...new Set(ENTERED_TRAITS.map(([, trait]) => trait))].filter((trait) => !DONE_TRAITS.includes(trait))).toEqual([]);
  });

  it('takes what an exercise serves and does not name to the end of its range', () => {
    for (const { id, serves, imposes } of DRILLS)
      for (const of of serves.filter((one) => isJoint(findMotion(one)!.joint))) {
        const parts = of.startsWith('thoracolumbar.')
          ? [of, of.replace('thoracolumbar', 'thoracic'), of.replace('thoracolumbar', 'lumbar')]
          : [of];
        expect(imposes.some((row) => row.what === 'moves' && parts.includes(row.motion)))
          .withContext(`${id} ${of}`)
          .toBeTrue();
      }
  });

  it('knows an effort from a position: a straight knee that works is both', () => {
    const raise = DONE_THINGS.find(({ id }) => id === 'loadingReadiness.legRaise')!;
    const by = (over: Partial<Precaution>): Precaution => ({
      motion: 'knee.extension',
      limit: null,
      until: null,
      source: 'surgeon',
      ...over,
    });
    expect(isOut(raise, raise.imposes, 'left', by({ kind: 'against-gravity' }))).toBeTrue();
    expect(isOut(raise, raise.imposes, 'left', by({ mode: 'active' }))).toBeTrue();
    // Kept bent by 30 or more.
    expect(isOut(raise, raise.imposes, 'left', by({ limit: -30 }))).toBeTrue();
    const effort: Imposition = { what: 'works', limb: 'measured', motion: 'knee.extension', load: 'resisted', by: 'active' };
    expect(isOut(raise, [effort], 'left', by({ limit: -30 }))).toBeFalse();
    expect(isOut(raise, [effort], 'left', by({}))).toBeTrue();
  });

  it('is refused with its place where a word means nothing', () => {
    const none = { working: '', helping: '', both: '' };
    const demands: Demands = {
      ...none,
      neck: '',
      chest: '',
      lowBack: '',
      effort: { ...none, trunk: '' },
      weight: none,
      grip: 'none',
      traits: [],
    };
    const read = (over: Partial<Demands>) => rowsOf('x', { ...demands, ...over });
    expect(read({ working: 'hip.flexion 90 body active', grip: 'helping' }).length).toBe(8);
    for (const over of [
      { working: 'hip.flexion' },
      { working: 'hip.flexion far' },
      { working: 'hip.bending 90' },
      { working: 'lumbar.flexion 20' },
      { lowBack: 'hip.flexion 20' },
      { working: 'hip.flexion 90 heavy' },
      { working: 'hip.flexion 90 body active twice' },
      { effort: { ...none, working: 'hip.flexion 90', trunk: '' } },
      { weight: { ...none, both: 'kneecap' } },
      { weight: { ...none, both: 'knee light' } },
    ] satisfies Partial<Demands>[])
      expect(() => read(over))
        .withContext(JSON.stringify(over))
        .toThrowError(RangeError, /^x declares ".+"; allowed: as /);
  });
});
