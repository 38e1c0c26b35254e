import { limited } from '../testing/limits.js';
import { readFileSync } from 'node:fs';
import { motion, MOTIONS, PROTOCOLS, protocolOfId } from '../catalogue/index.js';
import { allowedSides } from '../catalogue/check.js';
import { MODES, type Mode, type MotionId, type Side } from '../terms.js';
import { itemsOfSheet, planExam } from '../plan/index.js';
import { allowedFor, isPast, precautionWords, PRECAUTION_KINDS, type Precaution } from './index.js';

const limit = (id: MotionId, at: number | null, more: Partial<Precaution> = {}): Precaution => ({
  motion: id,
  limit: at,
  until: null,
  source: 'surgeon',
  ...more,
});
const said = (precautions: readonly Precaution[], protocol: string, side: Side = 'left', mode: Mode = 'passive') => {
  const { motion: id, modes } = protocolOfId(protocol)!;
  const as = motion(id).sides === 'midline' ? 'midline' : side;
  return allowedFor({ protocol, motion: id, side: as, mode: modes.includes(mode) ? mode : modes[0]! }, limited(precautions));
};

/** What went through while precautions were a list of names, and what has to be said. */
const LET_THROUGH: readonly (readonly [what: Precaution, side: Side, ...protocols: string[]])[] = [
  [
    limit('knee.flexion', 30),
    'left',
    'muscleLength.kneeDrop/supine',
    'muscleLength.hipExtensionDrop/supine',
    'distance.heelToButtock/prone',
    'check.heelTouchesButtock/prone',
    'check.squatHeelsDown/standing',
  ],
  [limit('hip.flexion', 90, { side: 'right' }), 'left', 'muscleLength.hipExtensionDrop/supine', 'muscleLength.kneeDrop/supine'],
  [limit('hip.flexion', 90, { side: 'right' }), 'left', 'distance.fingerToFloor/standing'],
  [limit('hip.adduction', 0), 'left', 'muscleLength.sideLyingLegDrop/sidelying', 'muscleLength.sideLyingLegDrop/sidelying-knee-straight'],
  [limit('ankle.dorsiflexion', null), 'left', 'muscleLength.calfKneeStraight/supine', 'muscleLength.calfKneeBent/supine'],
  [
    limit('lumbar.flexion', null),
    'midline',
    'distance.fingerToFloor/standing',
    'thoracolumbar.flexion/standing',
    'distance.schober15/standing',
    'distance.schoberModified/standing',
  ],
  [limit('lumbar.extension', null), 'midline', 'lumbar.extension/prone-press-up', 'thoracolumbar.extension/prone-press-up'],
  [limit('cervical.flexion', null), 'midline', 'check.chinToChest/sitting', 'distance.chinToSternum/sitting'],
  [
    limit('shoulder.flexion', 90),
    'left',
    'muscleLength.latissimus/supine',
    'check.armsOverhead/supine',
    'distance.handsBehindBack/standing',
    'distance.handBehindBackFromAbove/standing',
  ],
  [limit('shoulder.internalRotation', 30), 'left', 'distance.handBehindBackFromBelow/standing', 'thoracolumbar.rotation/sitting'],
  [limit('shoulder.internalRotation', 30, { side: 'right' }), 'left', 'distance.handsBehindBack/standing'],
];

describe('precautions are held against what is imposed', () => {
  for (const [precaution, side, ...protocols] of LET_THROUGH)
    it(`${precautionWords(precaution)}: ${protocols.join(', ')}`, () => {
      for (const protocol of protocols)
        expect(said([precaution], protocol, side).kind)
          .withContext(protocol)
          .toBe('forbidden');
    });

  it('the other side is free where nothing is imposed on the limited one', () => {
    const knee = [limit('knee.flexion', 30, { side: 'left' })];
    expect(said(knee, 'knee.flexion/supine', 'right').kind).toBe('free');
    expect(said(knee, 'knee.flexion/supine', 'left')).toEqual(jasmine.objectContaining({ kind: 'stop', at: 30 }));
    expect(said(knee, 'knee.flexion/sitting', 'right').kind)
      .withContext('both knees hang over the edge')
      .toBe('forbidden');
    // Hugging the right knee: the left drop is out for a limit of the right hip, the right one is not.
    expect(said([limit('hip.flexion', 90, { side: 'right' })], 'muscleLength.hipExtensionDrop/supine', 'right').kind).toBe('free');
  });

  it('a nominal right angle reaches a limit of 90 and does not pass it', () => {
    expect(said([limit('hip.flexion', 90)], 'hip.internalRotation/sitting').kind).toBe('free');
    expect(said([limit('hip.flexion', 80)], 'hip.internalRotation/sitting').kind).toBe('forbidden');
  });

  it('kept bent, nothing lies straight', () => {
    const bent = [limit('knee.extension', -30)];
    expect(said(bent, 'girth.thigh/supine').kind).toBe('forbidden');
    expect(said(bent, 'knee.extension/supine')).toEqual(jasmine.objectContaining({ kind: 'stop', at: -30 }));
    expect(said([limit('knee.extension', 0)], 'girth.thigh/supine').kind).toBe('free');
  });

  it('of a mode hold in that mode; a position that muscles hold is of both', () => {
    const active = [limit('shoulder.abduction', null, { mode: 'active' })];
    expect(said(active, 'shoulder.abduction/supine', 'left', 'active').kind).toBe('forbidden');
    expect(said(active, 'shoulder.abduction/supine', 'left', 'passive').kind).toBe('free');
    expect(said(active, 'shoulder.internalRotation/supine').kind).withContext('the arm rests on the table').toBe('free');
    expect(said(active, 'shoulder.horizontalAdduction/sitting').kind).withContext('the arm is held up').toBe('forbidden');
  });

  it('tell range, end of range, gravity, resistance, weight and one leg apart', () => {
    const of = (kind: Precaution['kind'], id: MotionId, protocol: string, mode: Mode = 'active', at: number | null = null) =>
      said([limit(id, at, { kind })], protocol, 'left', mode).kind;
    expect(of('resisted', 'knee.extension', 'strength.kneeExtension/sitting')).toBe('forbidden');
    expect(of('resisted', 'knee.extension', 'knee.extension/sitting')).toBe('free');
    expect(of('resisted', 'knee.extension', 'check.stepDown/standing'))
      .withContext('body weight loads the same muscle')
      .toBe('forbidden');
    expect(of('against-gravity', 'hip.abduction', 'hip.abduction/sidelying')).toBe('forbidden');
    expect(of('against-gravity', 'hip.abduction', 'hip.abduction/sidelying', 'passive')).toBe('free');
    expect(of('against-gravity', 'hip.abduction', 'hip.abduction/supine')).toBe('free');
    expect(of('end-range', 'knee.flexion', 'knee.flexion/supine', 'passive')).toBe('gentle');
    expect(of('end-range', 'knee.flexion', 'distance.heelToButtock/prone')).toBe('forbidden');
    expect(of('weight', 'ankle.dorsiflexion', 'shoulder.flexion/standing')).toBe('forbidden');
    expect(of('weight', 'ankle.dorsiflexion', 'shoulder.flexion/sitting')).toBe('free');
    expect(of('weight', 'knee.flexion', 'check.squatHeelsDown/standing', 'active', 90)).toBe('forbidden');
    expect(of('weight', 'knee.flexion', 'check.stepDown/standing', 'active', 90)).toBe('free');
    expect(of('single-leg', 'hip.flexion', 'balance.singleLegStanceEyesOpen/standing')).toBe('forbidden');
    expect(of('single-leg', 'hip.flexion', 'shoulder.flexion/standing')).toBe('free');
    // The other leg is lifted: this one stands alone.
    expect(said([limit('hip.flexion', null, { kind: 'single-leg', side: 'right' })], 'hip.abduction/standing', 'left').kind).toBe(
      'forbidden',
    );
    // No range is lost by it, and a range is no resistance.
    expect(said([limit('knee.extension', 0)], 'strength.kneeExtension/sitting').kind).toBe('free');
    expect(said([limit('knee.extension', null, { mode: 'active' })], 'strength.kneeExtension/sitting').kind).toBe('forbidden');
  });

  it('of combined positions hold where all are done at once', () => {
    const slips = [limit('shoulder.externalRotation', null, { with: ['shoulder.abduction'] })];
    expect(said(slips, 'shoulder.externalRotation/supine').kind).toBe('forbidden');
    expect(said(slips, 'shoulder.externalRotation/supine-at-side').kind).toBe('free');
    const so = [limit('shoulder.externalRotation', 45, { with: ['shoulder.abduction'] })];
    expect(said(so, 'shoulder.externalRotation/supine')).toEqual(jasmine.objectContaining({ kind: 'stop', at: 45 }));
    const calf = [limit('ankle.dorsiflexion', null, { with: ['knee.extension'] })];
    expect(said(calf, 'muscleLength.calfKneeStraight/supine').kind).toBe('forbidden');
    expect(said(calf, 'muscleLength.calfKneeBent/supine').kind).toBe('free');
    expect(precautionWords(so[0]!)).toBe('shoulder external rotation with shoulder abduction: not past 45°');
  });

  it('may name a way of measuring', () => {
    const raise = [limit('muscleLength.straightLegRaise', null, { protocol: 'muscleLength.straightLegRaise/supine' })];
    expect(said(raise, 'muscleLength.straightLegRaise/supine').kind).toBe('forbidden');
    expect(said(raise, 'muscleLength.straightLegRaise/supine-thigh').kind).toBe('free');
  });

  it('run the right way round where less is better: the larger distance is the stricter limit', () => {
    const floor = said([limit('distance.fingerToFloor', 20), limit('distance.fingerToFloor', 10)], 'distance.fingerToFloor/standing');
    expect(floor).toEqual(jasmine.objectContaining({ kind: 'stop', at: 20 }));
    expect([5, 20, 40].map((cm) => isPast(floor, cm, 'distance.fingerToFloor'))).toEqual([true, false, false]);
    expect(precautionWords(limit('distance.fingerToFloor', 20))).toContain('not below 20 cm');
  });
});

/** The second entry, read as it was entered: what it says of a way of measuring knows nothing of ours. */
const ENTERED = readFileSync(new URL('../imposes/second-entry.csv', import.meta.url), 'utf8')
  .trim()
  .split('\n')
  .slice(1)
  .map((line) => line.split(','));
const LUMPED: readonly (readonly [RegExp, string])[] = [
  [/^thumb(Cmc|Mcp|Ip)$/, 'thumb'],
  [/^finger(Mcp|Pip|Dip)$/, 'fingers'],
  [/^greatToe(Mtp|Ip)$/, 'greatToe'],
];

/** Whether the second entry says that a step goes past a plain limit of degrees on any joint: `stopAt` ends what is measured. */
function enteredPast(step: { protocol: string; side: Side; mode: Mode; stopAt?: number }, by: Precaution): boolean {
  const [region, direction] = by.motion.split('.') as [string, string];
  const joint = LUMPED.find(([is]) => is.test(region))?.[1] ?? region;
  const of = motion(protocolOfId(step.protocol)!.motion);
  const opposite = { left: 'right', right: 'left', midline: 'midline' }[step.side];
  const rows = ENTERED.filter(
    ([protocol, , j, d, degrees]) => protocol === step.protocol && j === joint && d === direction && degrees !== '',
  ).filter(() => joint === region || of.id === by.motion);
  return rows.some(([, limb, , , degrees, load, mode]) => {
    const isBoth = limb === 'both' || limb === 'trunk' || of.sides !== 'limb';
    const sides = isBoth ? ['left', 'right'] : [limb === 'measured' ? step.side : opposite];
    if (by.side && !sides.includes(by.side)) return false;
    // What is measured itself ends at the limit, where the run sheet says so.
    if (mode === 'as' && (of.id === by.motion || of.joint === 'muscleLength') && step.stopAt !== undefined) return step.stopAt > by.limit!;
    if (!isOfMode({ load, mode }, by.mode, step.mode) || (load === 'resisted' && degrees === '0')) return false;
    return degrees === 'full' || Number(degrees) > by.limit!;
  });
}

/** Whether a row of the second entry is done in the mode that a precaution is of. */
function isOfMode({ load, mode }: { load: string | undefined; mode: string | undefined }, of: Mode | undefined, step: Mode): boolean {
  if (!of) return true;
  if (mode === 'held') return of !== 'active' || !(load === 'none' || load === 'stretch');
  return (mode === 'as' ? step : mode) === of;
}

describe('whatever the limits', () => {
  const joints = MOTIONS.filter(({ unit, joint }) => unit === 'deg' && joint !== 'muscleLength' && joint !== 'thoracolumbar');
  const everything = itemsOfSheet(
    PROTOCOLS.map(({ id, motion: of }) => ({ protocol: id, ...(motion(of).perDigit ? { digit: 3 as const } : {}) })),
  );
  let seed = 12;
  const random = (n: number) => (seed = (seed * 48271) % 2147483647) % n;

  it('no plan holds a step that imposes more than they allow', () => {
    let held = 0;
    for (let round = 0; round < 150; round++) {
      const precautions = Array.from({ length: 1 + random(3) }, (): Precaution => {
        const about = joints[random(joints.length)]!;
        const sides = allowedSides(about).filter((side) => side !== 'midline' && about.sides === 'limb');
        return limit(about.id, 5 + random(Math.max(1, about.limits.max - 5)), {
          ...(random(2) && sides.length ? { side: sides[random(sides.length)]! } : {}),
          ...(random(3) === 0 ? { mode: MODES[random(2)]! } : {}),
        });
      });
      const items = everything.filter(() => random(12) === 0);
      const { steps, leftOut } = planExam({ items, involved: null, limits: limited(precautions) });
      held += leftOut.length;
      for (const step of steps)
        for (const by of precautions)
          expect(enteredPast(step, by))
            .withContext(`${JSON.stringify(step)} under ${JSON.stringify(by)}`)
            .toBeFalse();
    }
    expect(held).toBeGreaterThan(150);
  });

  it('every kind of precaution forbids something and leaves something', () => {
    for (const kind of PRECAUTION_KINDS)
      for (const id of ['knee.flexion', 'shoulder.flexion'] as const) {
        if (kind === 'single-leg' && id === 'shoulder.flexion') continue;
        const kinds = new Set(
          everything.map((item) => allowedFor({ ...item, protocol: item.protocols[0]! }, limited([limit(id, null, { kind })])).kind),
        );
        expect([...kinds])
          .withContext(`${kind} ${id}`)
          .toContain('forbidden');
        expect([...kinds])
          .withContext(`${kind} ${id}`)
          .toContain('free');
      }
  });
});
