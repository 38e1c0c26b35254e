import { limited } from '../testing/limits.js';
import fc from 'fast-check';
import { motion, MOTIONS } from '../catalogue/index.js';
import type { Precaution } from '../precaution/index.js';
import type { Imposition } from '../imposes/index.js';
import { DRILL_STAGES, type DrillStage } from './drills/types.js';
import { POSITIONS } from '../terms.js';
import { made, ON } from '../testing/programs.js';
import {
  asDrill,
  drillProblems,
  DRILLS,
  drillsWith,
  findDrill,
  forbiddenDrill,
  isOwnDrill,
  laddersWith,
  ownBeside,
  OWN_DRILL_ID,
  ownDrillId,
  walkLadder,
  type OwnDrill,
} from './index.js';

const OWN: OwnDrill = {
  id: 'own-heel-slide-towel',
  version: 1,
  name: 'Heel slide on a towel',
  stage: 'mobilise',
  serves: ['knee.flexion'],
  sides: 'each',
  position: 'supine',
  equipment: ['towel'],
  cues: ['Heel on a towel.', 'Slide it to the seat.', 'Help with both hands.'],
  cheat: 'the hip rolls out',
  dose: { sets: 1, reps: 12, seconds: null, timesADay: 2, daysAWeek: 7 },
  easier: 'heel-slide',
  harder: 'heel-slide-strap',
  mode: 'passive',
  imposes: [],
  notWith: { lax: true, pain: null, healingWeeks: 0 },
  stop: 'Stop at sharp pain.',
  moves: [{ protocol: 'knee.flexion/supine', mode: 'passive' }],
  start: { protocol: 'knee.flexion/supine', value: 20 },
  end: { protocol: 'knee.flexion/supine', value: 110 },
};
const limit = (over: Partial<Precaution>): Precaution => ({ motion: 'knee.flexion', limit: 30, until: null, source: 'surgeon', ...over });
const moved = (rows: readonly Imposition[]) => rows.flatMap((row) => (row.what === 'moves' ? [`${row.motion} ${row.degrees}`] : []));

describe('a clinic’s own drill', () => {
  it('takes what it serves as far as it goes where nothing was said of it, and lies as its position does', () => {
    const rows = asDrill(OWN).imposes;
    expect(moved(rows)).toContain('knee.flexion full');
    expect(moved(rows)).toContain('hip.extension 0');
    const said = asDrill({
      ...OWN,
      imposes: [{ what: 'moves', limb: 'measured', motion: 'knee.flexion', degrees: 60, load: 'none', by: 'passive', isFigure: false }],
    });
    expect(moved(said.imposes)).toContain('knee.flexion 60');
    expect(moved(said.imposes)).not.toContain('knee.flexion full');
    expect(asDrill(OWN).source.cite).toBe('this clinic');
  });

  it('that tells how far the other limb goes has said nothing of the one that works', () => {
    const other = {
      what: 'moves',
      limb: 'other',
      motion: 'knee.flexion',
      degrees: 20,
      load: 'none',
      by: 'passive',
      isFigure: false,
    } as const;
    const drill = asDrill({ ...OWN, imposes: [other] });
    expect(drill.imposes).toContain(jasmine.objectContaining({ limb: 'measured', motion: 'knee.flexion', degrees: 'full' }));
    expect(forbiddenDrill(drill, 'left', limited([limit({ limit: 30, side: 'left' })], ON))).not.toBeNull();
    expect(forbiddenDrill(drill, 'right', limited([limit({ limit: 30, side: 'left' })], ON))).toBeNull();
  });

  it('that moves the whole trunk moves the chest and the low back: limits of either hold', () => {
    const turning = asDrill({ ...OWN, serves: ['thoracolumbar.rotation'], position: 'sitting', mode: 'active' });
    expect(moved(turning.imposes)).toEqual(jasmine.arrayContaining(['thoracic.rotation full', 'lumbar.rotation full']));
    expect(forbiddenDrill(turning, 'midline', limited([limit({ motion: 'lumbar.rotation', limit: null })], ON))).not.toBeNull();
  });

  // Whatever a clinic leaves out, what it serves is never given past a limit.
  it('that says nothing of joints is kept from every limit of what it serves, in every stage and position', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...MOTIONS.filter(({ joint }) => !['girth', 'check', 'strength', 'balance'].includes(joint)).map(({ id }) => id)),
        fc.constantFrom<DrillStage>(...DRILL_STAGES),
        fc.constantFrom(...POSITIONS),
        fc.constantFrom('active' as const, 'passive' as const),
        (id, stage, position, mode) => {
          const drill = asDrill({ ...OWN, serves: [id], stage, position, mode });
          const side = motion(id).sides === 'limb' ? 'left' : 'midline';
          return forbiddenDrill(drill, side, limited([limit({ motion: id, limit: null })], ON)) !== null;
        },
      ),
      { numRuns: 400 },
    );
  });

  it('is chosen like any other, and left out by a limit', () => {
    const readings = [
      { motion: 'knee.flexion', side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer', trials: [{ end: 85 }] },
      { motion: 'knee.flexion', side: 'right', mode: 'passive', position: 'supine', instrument: 'goniometer', trials: [{ end: 135 }] },
    ] as const;
    const drills = [asDrill({ ...OWN, easier: null, harder: null })];
    const chosen = made([...readings], { drills });
    expect(chosen.drills.map(({ drill, side }) => [drill.id, side])).toEqual([['own-heel-slide-towel', 'left']]);
    const kept = made([...readings], { drills, limits: limited([limit({ limit: 90, side: 'left' })], ON) });
    expect([kept.drills.length, kept.leftOut[0]!.why.why]).toEqual([0, 'forbidden']);
  });

  it('stands on a ladder between its neighbours, and is walked to and from', () => {
    const ground = { side: 'left', limits: limited([], ON), equipment: ['towel', 'strap'], tolerated: 3, on: ON, givenOn: ON } as const;
    const day = (n: number, over = {}) => ({
      on: `2026-11-0${n}`,
      done: true,
      easy: true,
      pain: 1,
      swelling: false,
      worse: false,
      ...over,
    });
    const drills = drillsWith([OWN]);
    const ladders = laddersWith([OWN]);
    expect(ladders.at(-1)!.steps).toEqual(jasmine.arrayContaining(['heel-slide', OWN.id, 'heel-slide-strap']));
    const walked = (from: string, days: ReturnType<typeof day>[]) => walkLadder(from, days, { ...ground, drills }, ladders).drill;
    expect(walked(OWN.id, [day(1), day(2)])).toBe('heel-slide-strap');
    expect(walked(OWN.id, [day(1, { swelling: true })])).toBe('heel-slide');
    expect(walkLadder(OWN.id, [day(1)], ground).rests)
      .withContext('by who does not know it')
      .toBeTrue();
    expect(laddersWith([]).some(({ id }) => id === OWN.id)).toBeFalse();
    expect(laddersWith([{ ...OWN, easier: null, harder: null }]).length).toBe(laddersWith([]).length);
  });

  it('is told by its version: what was given as it was then, any other as it stands, and none that was taken out of use', () => {
    const [two, other] = [
      { ...OWN, version: 2, name: 'Newer' },
      { ...OWN, id: 'own-other' },
    ];
    const versions = [
      { drill: OWN, inUse: true },
      { drill: two, inUse: true },
      { drill: other, inUse: false },
    ];
    const named = (given: { drill: string; version?: number }[] = []) =>
      ownBeside(versions, given).map(({ id, version }) => `${id} ${version}`);
    expect(named()).toEqual(['own-heel-slide-towel 2']);
    expect(named([{ drill: OWN.id, version: 1 }])).toEqual(['own-heel-slide-towel 1']);
    expect(named([{ drill: 'own-other', version: 1 }])).toEqual(['own-heel-slide-towel 2', 'own-other 1']);
    expect(named([{ drill: OWN.id, version: 9 }])).toEqual(['own-heel-slide-towel 2']);
    expect(findDrill(OWN.id, drillsWith(ownBeside(versions)))!.name).toBe('Newer');
  });

  it('has an id that no drill that ships has, whatever its name', () => {
    expect(DRILLS.filter(({ id }) => isOwnDrill(id))).toEqual([]);
    expect([ownDrillId('Wall slide, with a towel!'), ownDrillId('Øvelse é'), ownDrillId('肩')]).toEqual([
      'own-wall-slide-with-a-towel',
      'own-velse-e',
      'own-drill',
    ]);
    fc.assert(
      fc.property(
        fc.string({ maxLength: 80, unit: 'grapheme' }),
        (name) => OWN_DRILL_ID.test(ownDrillId(name)) && ownDrillId(name).length <= 44,
      ),
    );
  });
});

describe('what is wrong with a drill', () => {
  const paths = (over: Partial<OwnDrill>, others = DRILLS) => drillProblems({ ...OWN, ...over }, others).map(({ path }) => path);
  const row = (over: object) => [
    {
      what: 'moves',
      limb: 'measured',
      motion: 'knee.flexion',
      degrees: 60,
      load: 'none',
      by: 'passive',
      isFigure: false,
      ...over,
    } as Imposition,
  ];

  it('is told with its place and what is allowed', () => {
    expect(paths({})).toEqual([]);
    expect(paths({ id: 'heel-slide', easier: null })).toEqual(['id']);
    expect(paths({ name: 'HEEL SLIDE ' })).toEqual(['name']);
    expect(paths({ serves: ['knee.flexion', 'knee.bending' as never, 'knee.flexion'] })).toEqual(['serves.1', 'serves.2']);
    expect(
      paths({
        moves: [
          { protocol: 'knee.flexion/nowhere', mode: 'active' },
          { screen: 'patterns', item: 'none' },
          { screen: 'none', item: 'x' },
        ],
      }),
    ).toEqual(['moves.0', 'moves.1', 'moves.2']);
    expect(paths({ moves: [{ screen: 'patterns', item: 'toeTouch' }] })).toEqual([]);
    expect(paths({ start: { scene: 'moon' }, end: { protocol: 'knee.flexion/supine', value: 400 } })).toEqual(['start', 'end']);
    expect(paths({ imposes: row({ motion: 'muscleLength.hamstrings' }) })).toEqual(['imposes.0.motion']);
    expect(paths({ imposes: row({ limb: 'trunk' }) })).toEqual(['imposes.0.limb']);
    expect(paths({ imposes: row({ motion: 'lumbar.flexion' }) })).toEqual(['imposes.0.limb']);
    expect(paths({ imposes: row({ degrees: 361 }) })).toEqual(['imposes.0.degrees']);
    expect(paths({ imposes: row({ what: 'bears', joint: 'tail' }) })).toEqual(['imposes.0.joint']);
    for (const { message } of drillProblems({ ...OWN, id: 'x', name: 'Heel slide', serves: ['a' as never], start: { scene: 'b' } }, DRILLS))
      expect(message).toContain('; allowed: ');
  });

  it('is a neighbour that is not there, is itself, or leads back in a circle', () => {
    expect(paths({ easier: 'nothing' })).toEqual(['easier']);
    expect(paths({ harder: OWN.id })).toEqual(['harder']);
    const back = asDrill({ ...OWN, id: 'own-back', name: 'Back', harder: OWN.id });
    expect(paths({ harder: 'own-back' }, [...DRILLS, back])).toEqual(['harder']);
    const gone = asDrill({ ...OWN, id: 'own-back', name: 'Back', harder: 'own-gone' });
    expect(paths({ harder: 'own-back' }, [...DRILLS, gone]))
      .withContext('what is wrong elsewhere is told there')
      .toEqual([]);
  });
});
