import { limited } from '../testing/limits.js';
import { motion, PROTOCOLS } from '../catalogue/index.js';
import { touchOf } from '../imposes/index.js';
import type { MotionId } from '../terms.js';
import { cautionNow, cautionOutcome, CAUTIONS, cautionsFor, openEnds, withSigns, type PlanStep, type StepState } from './index.js';
import { allowedFor, isPast, type Precaution } from '../precaution/index.js';
import { addWeeks, weeksBetween } from '../days.js';

const limit = (id: MotionId, at: number | null, more: Partial<Precaution> = {}): Precaution => ({
  motion: id,
  limit: at,
  until: null,
  source: 'surgeon',
  ...more,
});
const moved = (id: MotionId, mode: 'active' | 'passive' = 'passive', side: 'left' | 'right' = 'left') => ({
  motion: id,
  mode,
  side,
  protocol: motion(id).protocols[0]!.id,
});

describe('precautions', () => {
  it('stop, forbid, or say nothing', () => {
    const all = [limit('knee.flexion', 90, { side: 'left' }), limit('knee.extension', null, { mode: 'passive' })];
    expect(allowedFor(moved('knee.flexion'), limited(all, null))).toEqual(jasmine.objectContaining({ kind: 'stop', at: 90, by: all[0]! }));
    expect(allowedFor(moved('knee.flexion', 'passive', 'right'), limited(all, null)).kind).toBe('free');
    expect(allowedFor(moved('knee.extension'), limited(all, null)).kind).toBe('forbidden');
    expect(allowedFor(moved('knee.extension', 'active'), limited(all, null)).kind).toBe('free');
  });

  it('the strictest counts, and one that has run out does not', () => {
    const all = [limit('knee.flexion', 90), limit('knee.flexion', 60, { until: '2026-12-01' })];
    expect(allowedFor(moved('knee.flexion'), limited(all, '2026-11-30'))).toEqual(jasmine.objectContaining({ at: 60 }));
    expect(allowedFor(moved('knee.flexion'), limited(all, '2026-12-01'))).toEqual(jasmine.objectContaining({ at: 90 }));
    expect(isPast(allowedFor(moved('knee.flexion'), limited(all, '2026-11-30')), 61, 'knee.flexion')).toBeTrue();
    expect(isPast(allowedFor(moved('knee.flexion'), limited(all, '2026-11-30')), 60, 'knee.flexion')).toBeFalse();
  });

  it('hold for other tests of the same movement; a tape cannot be held to degrees and is left out', () => {
    const all = [limit('knee.flexion', 90)];
    expect(allowedFor(moved('muscleLength.proneKneeBend'), limited(all, null))).toEqual(jasmine.objectContaining({ kind: 'stop', at: 90 }));
    expect(allowedFor(moved('distance.heelToButtock'), limited(all, null)).kind).toBe('forbidden');
  });

  it('a limit of zero forbids what starts at zero, not what may lack something of it', () => {
    expect(allowedFor(moved('hip.internalRotation'), limited([limit('hip.internalRotation', 0)], null)).kind).toBe('forbidden');
    expect(allowedFor(moved('knee.extension'), limited([limit('knee.extension', 0)], null)).kind).toBe('stop');
    expect(allowedFor(moved('ankle.dorsiflexion'), limited([limit('ankle.dorsiflexion', 0)], null)).kind).toBe('stop');
  });

  it('weeks are calendar weeks, over the change of the clocks and of the year', () => {
    expect(addWeeks('2026-10-20', 1)).toBe('2026-10-27');
    expect(addWeeks('2026-12-28', 1)).toBe('2027-01-04');
    expect(weeksBetween('2026-10-20', '2026-11-02')).toBe(1);
  });
});

describe('caution questions', () => {
  const asked = (...protocols: string[]) =>
    cautionsFor(touchOf(protocols.map((protocol) => ({ protocol, mode: 'passive' as const })))).map((q) => q.id);

  it('end with referring, with care, or with measuring', () => {
    expect(cautionOutcome([])).toBe('measure');
    expect(cautionOutcome(['thin-bones'])).toBe('measure-with-care');
    expect(cautionOutcome(['thin-bones', 'thin-bones-signs'])).toBe('refer');
    expect(cautionOutcome(['thin-bones', 'clot-leg'])).toBe('refer');
  });

  it('are asked by what is touched, not by the name of the sheet', () => {
    expect(asked('knee.flexion/supine')).toContain('clot-leg');
    expect(asked('knee.flexion/supine')).not.toContain('neck-artery');
    expect(asked('shoulder.flexion/supine')).toContain('clot-arm');
    for (const protocol of [
      'cervical.rotation/sitting',
      'distance.chinToSternum/sitting',
      'check.chinToChest/sitting',
      'lumbar.extension/standing',
      'hip.extension/prone',
    ])
      expect(asked(protocol)).withContext(protocol).toContain('neck-artery');
    for (const protocol of ['distance.fingerToFloor/standing', 'check.squatHeelsDown/standing', 'strength.hipExtension/prone'])
      expect(asked(protocol)).withContext(protocol).toContain('cauda-equina');
    for (const protocol of ['distance.legLength/supine', 'girth.thigh/supine', 'strength.kneeExtension/sitting', 'check.stepDown/standing'])
      expect(asked(protocol)).withContext(protocol).toContain('child-hip');
    expect(asked('girth.calf/supine')).toContain('clot-leg');
    expect(asked('girth.upperArm/sitting')).toContain('clot-arm');
    expect(asked('balance.singleLegStanceEyesClosed/standing')).toEqual(
      jasmine.arrayContaining(['falls', 'seizure', 'dizzy-standing', 'myelopathy']),
    );
    for (const protocol of PROTOCOLS)
      expect(asked(protocol.id))
        .withContext(protocol.id)
        .toEqual(jasmine.arrayContaining(['fracture', 'limb-blood', 'consent', 'fever']));
  });

  it('each is asked before something that can be measured, and each sign follows its question', () => {
    const all = new Set(PROTOCOLS.flatMap(({ id }) => asked(id)));
    expect(CAUTIONS.filter(({ id, follows }) => !follows && !all.has(id))).toEqual([]);
    expect(new Set(CAUTIONS.map((question) => question.id)).size).toBe(CAUTIONS.length);
    for (const { id, follows, ifYes } of CAUTIONS) {
      if (!follows) continue;
      expect(ifYes).withContext(id).toBe('refer');
      const [question] = CAUTIONS.filter((q) => q.id === follows);
      expect(withSigns([question!], [follows]).map((q) => q.id)).toEqual([follows, id]);
      expect(withSigns([question!], []).map((q) => q.id)).toEqual([follows]);
    }
  });

  it('that were answered under a former name still count', () => {
    expect(cautionOutcome(['clot'])).toBe('refer');
    expect(cautionOutcome(['bone'])).toBe('measure-with-care');
    for (const id of ['infection', 'clot', 'neck-vessels', 'loose']) expect(CAUTIONS.map((q) => q.id)).toContain(cautionNow(id));
  });
});

describe('before the patient is turned', () => {
  const step = (mode: 'active' | 'passive', side: 'left' | 'right' = 'left'): PlanStep => ({
    protocol: 'hip.abduction/supine',
    mode,
    side,
    seconds: 20,
  });
  const state = (over: Partial<StepState>): StepState => ({ readings: 1, notDone: false, value: 30, mdc: 8, consistent: null, ...over });
  const PRONE: PlanStep = { protocol: 'hip.extension/prone', mode: 'active', side: 'left', seconds: 20 };

  it('says what is still open in this position', () => {
    const ends = openEnds([step('active'), step('passive'), PRONE], 'supine', ({ mode }) => state({ readings: mode === 'active' ? 1 : 0 }));
    expect(ends.map((end) => end.words)).toEqual(['Passive left hip abduction still open in supine']);
  });

  it('is content with what was said not to be done', () => {
    expect(openEnds([step('passive')], 'supine', () => state({ readings: 0, notDone: true }))).toEqual([]);
  });

  it('points at active beyond passive, and at readings that do not agree', () => {
    const odd = openEnds([step('active'), step('passive')], 'supine', ({ mode }) =>
      state({ value: mode === 'active' ? 45 : 30, consistent: mode === 'active' ? null : false }),
    );
    expect(odd.map((end) => [end.kind, end.words])).toEqual([
      ['odd', 'Active left hip abduction goes 15° further than passive: measure both again'],
      ['odd', 'Passive left hip abduction: the readings do not agree'],
    ]);
    // A twin is of the same way, side and finger, and was done by hand.
    const far = ({ mode }: PlanStep) => state({ value: mode === 'active' ? 60 : 30 });
    const beyond = (twin: PlanStep) => openEnds([step('active'), twin], 'supine', far).filter(({ kind }) => kind === 'odd').length;
    expect(beyond(step('passive'))).toBe(1);
    expect(beyond(step('passive', 'right'))).toBe(0);
    expect(beyond({ ...step('passive'), protocol: 'hip.flexion/supine' })).toBe(0);
    expect(beyond({ ...step('passive'), digit: 2 })).toBe(0);
    // A difference of just the error is none.
    const apart =
      (active: number) =>
      ({ mode }: PlanStep) =>
        state({ value: mode === 'active' ? active : 30, mdc: 8 });
    expect([38, 38.1].map((active) => openEnds([step('active'), step('passive')], 'supine', apart(active)).length)).toEqual([0, 1]);
    const girth: PlanStep = { ...step('passive'), protocol: 'girth.calf/supine' };
    expect(openEnds([girth], 'supine', () => state({ readings: 0 }))[0]!.words).toMatch(/^Left calf girth.* still open in supine$/);
    expect(openEnds([step('active'), step('passive')], 'supine', ({ mode }) => state({ value: mode === 'active' ? 36 : 30 }))).toEqual([]);
  });
});
