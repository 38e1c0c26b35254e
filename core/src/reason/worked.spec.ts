import type { FaultId, Modification, View } from '../screen/index.js';
import type { Side } from '../terms.js';
import { factsFrom, itemOf, valueOf, type MadeFacts } from '../testing/answering.js';
import { limited } from '../testing/limits.js';
import { passive } from './define.js';
import { breakdownOf, evidenceWords, pointedLimbs, reasonAbout, type Breakdown, type Choosing, type Reasoned } from './index.js';
import type { ItemWay } from './types.js';

const FREE: Choosing = { limits: limited([], '2026-11-20'), station: null };
const about = (breakdown: Breakdown, facts: MadeFacts, side: Side = 'left', choosing = FREE): Reasoned =>
  reasonAbout(breakdown, side, factsFrom(facts), choosing);

describe('worked cases (common practice, no source)', () => {
  const state = (reasoned: Reasoned, id: string) => reasoned.candidates.find((c) => c.id === id)!.state;
  const squat = (faults: readonly FaultId[], changes: readonly Modification[] = [], view: View = 'side') =>
    itemOf({ screen: 'squatCheck', item: 'squat', view, with: changes }, 'left', { faults });

  it('hip flexion 125 with a deep late tuck: depth, and not a fault', () => {
    const late = squat(['pelvisTucksLate']);
    expect(late.quality).toBe('meets');
    const reasoned = about(breakdownOf('squat.pelvisTucks'), {
      values: [valueOf(passive('hip.flexion/supine'), 'left', 125)],
      items: [late],
    });
    expect(state(reasoned, 'depthPastRange')).toBe('pointsTo');
    for (const id of ['hipFlexionRange', 'hamstrings', 'glutealTissue', 'hipCapsule', 'hipShape'])
      expect(state(reasoned, id)).withContext(id).toBe('speaksAgainst');
    expect(reasoned.advice.join(' ')).toContain('it is normal');
    expect(reasoned.breakdown.schools!.length).toBe(1);
  });

  it('a straight-leg raise that gains nothing when the knee bends: not the hamstrings', () => {
    const values = [
      valueOf(passive('muscleLength.straightLegRaise/supine'), 'left', 50),
      valueOf(passive('hip.flexion/supine'), 'left', 54),
    ];
    expect(state(about(breakdownOf('legRaise'), { values, items: [] }), 'hamstrings')).toBe('speaksAgainst');
    expect(state(about(breakdownOf('squat.pelvisTucks'), { values, items: [] }), 'hamstrings')).toBe('speaksAgainst');
  });

  it('a clean squat with raised heels: the ankle', () => {
    const reasoned = about(breakdownOf('squat.heelLifts'), { values: [], items: [squat(['heelLifts']), squat([], ['heelsRaised'])] });
    expect(state(reasoned, 'ankleDorsiflexion')).toBe('pointsTo');
    const stays = about(breakdownOf('squat.heelLifts'), {
      values: [],
      items: [squat(['heelLifts']), squat(['heelLifts'], ['heelsRaised'])],
    });
    expect(state(stays, 'ankleDorsiflexion')).toBe('speaksAgainst');
  });

  it('ten degrees more with the knee bent: the calf muscle that crosses the knee', () => {
    const ankles = (straight: number, bent: number): MadeFacts => ({
      values: [
        valueOf(passive('muscleLength.calfKneeStraight/supine'), 'left', straight),
        valueOf(passive('muscleLength.calfKneeBent/supine'), 'left', bent),
      ],
      items: [],
    });
    expect(state(about(breakdownOf('squat.heelLifts'), ankles(2, 12)), 'calf')).toBe('pointsTo');
    expect(state(about(breakdownOf('squat.heelLifts'), ankles(2, 4)), 'calf')).toBe('speaksAgainst');
    expect(state(about(breakdownOf('squat.heelLifts'), ankles(2, 11)), 'calf')).toBe('open');
  });

  it('a short toe touch with a raise of 70 or more: the back, or control', () => {
    const reasoned = about(breakdownOf('toeTouch'), {
      values: [valueOf(passive('muscleLength.straightLegRaise/supine'), 'left', 82)],
      items: [],
    });
    expect(reasoned.candidates.map(({ id, state: s }) => [id, s])).toEqual([
      ['hamstrings', 'speaksAgainst'],
      ['neural', 'speaksAgainst'],
      ['backMobility', 'pointsTo'],
      ['endRangeControl', 'pointsTo'],
    ]);
    expect(evidenceWords(reasoned.candidates[2]!.for[0]!)).toContain('left: the leg rises to 70° or more');
  });

  it('overhead short sitting, full lying: the thorax', () => {
    const reasoned = about(breakdownOf('overheadReach'), { values: [valueOf(passive('shoulder.flexion/supine'), 'left', 175)], items: [] });
    expect(state(reasoned, 'thoracicSpine')).toBe('pointsTo');
    expect(state(reasoned, 'shoulderCapsule')).toBe('speaksAgainst');
  });

  it('an edge drop that changes when the knee straightens: the two-joint thigh muscle', () => {
    const drop = (value: number, changes: ItemWay['with']) =>
      itemOf({ screen: 'hipSixWays', item: 'edgeDrop', with: changes }, 'left', { value });
    const at = (value: number) => about(breakdownOf('edgeDrop'), { values: [], items: [drop(-12, []), drop(value, ['kneeStraight'])] });
    expect(state(at(2), 'thighFront')).toBe('pointsTo');
    expect(state(at(-11), 'thighFront')).toBe('speaksAgainst');
  });

  it('an upright trunk with raised heels says nothing', () => {
    const raised = squat(['trunkTooUpright'], ['heelsRaised']);
    expect(raised.opens).toEqual([]);
    expect(raised.quality).not.toBe('short');
    expect(squat(['trunkTooUpright']).opens).toEqual(['squat.trunkTooUpright']);
    const reasoned = about(breakdownOf('squat.trunkTooUpright'), { values: [], items: [raised] });
    expect(reasoned.candidates.every(({ state: s }) => s === 'open')).toBeTrue();
  });

  it('a pattern seen as a whole takes answers of both sides and says of which', () => {
    const one = { values: [valueOf(passive('hip.flexion/supine'), 'left', 125)], items: [] };
    const both = { values: [...one.values, valueOf(passive('hip.flexion/supine'), 'right', 95)], items: [] };
    expect(state(about(breakdownOf('squat.pelvisTucks'), one, 'midline'), 'hipFlexionRange')).toBe('open');
    const reasoned = about(breakdownOf('squat.pelvisTucks'), both, 'midline');
    const range = reasoned.candidates.find(({ id }) => id === 'hipFlexionRange')!;
    expect(range.limbs).toEqual([
      { side: 'left', state: 'speaksAgainst', spokenOf: true },
      { side: 'right', state: 'pointsTo', spokenOf: true },
    ]);
    expect([range.state, pointedLimbs(range)]).toEqual(['pointsTo', ['right']]);
    expect([evidenceWords(range.for[0]!).slice(0, 6), evidenceWords(range.against[0]!).slice(0, 5)]).toEqual(['right:', 'left:']);
  });
});
