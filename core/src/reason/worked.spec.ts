import type { FaultId, Modification, View } from '../screen/index.js';
import type { EndFeel } from '../terms.js';
import { about, itemOf, valueOf, type MadeFacts } from '../testing/answering.js';
import { passive } from './define.js';
import { breakdownOf, CANDIDATE_IDS, evidenceWords, pointedLimbs, stateWords, undecidedWords, type Reasoned } from './index.js';
import type { ItemWay } from './types.js';

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
    const squatting = about(breakdownOf('squat.pelvisTucks'), { values, items: [] });
    expect([state(squatting, 'hamstrings'), state(squatting, 'glutealTissue')]).toEqual(['open', 'pointsTo']);
  });

  it('a hip that bends further with the knee bent: not the hamstrings of a squat, and void where the pelvis had rolled', () => {
    const raise = valueOf(passive('muscleLength.straightLegRaise/supine'), 'left', 50);
    const bend = valueOf(passive('hip.flexion/supine'), 'left', 96);
    const squatting = about(breakdownOf('squat.pelvisTucks'), { values: [raise, bend], items: [] });
    expect([state(squatting, 'hamstrings'), state(squatting, 'hipFlexionRange')]).toEqual(['speaksAgainst', 'pointsTo']);
    expect(CANDIDATE_IDS).toContain('hamstrings');
    expect(state(about(breakdownOf('legRaise'), { values: [raise, bend], items: [] }), 'hamstrings')).toBe('pointsTo');
    const rolled = { ...raise, measurement: { ...raise.measurement, substitutions: ['pelvis-rolls'] } };
    const again = about(breakdownOf('squat.pelvisTucks'), { values: [rolled, bend], items: [] });
    expect(state(again, 'hamstrings')).toBe('open');
    const { undecided } = again.questions.find(({ question }) => question.id === 'bendTheKnee')!;
    expect(undecidedWords(undecided[0]!)).toBe('left: straight-leg raise was helped along: it decides nothing, measure again');
  });

  it('a firm end of a hip that turns freely points to nothing', () => {
    const turned = (degrees: number, endFeel: EndFeel) =>
      about(breakdownOf('hipRotation'), {
        values: [valueOf(passive('hip.internalRotation/sitting'), 'left', degrees, endFeel)],
        items: [],
      });
    expect(state(turned(45, 'firm'), 'hipCapsule')).toBe('open');
    expect(turned(45, 'firm').questions.find(({ question }) => question.id === 'turnEnd')!.state).toBe('waits');
    expect(state(turned(8, 'firm'), 'hipCapsule')).toBe('pointsTo');
  });

  it('a knee that rolls in although the ankle is free: hip and foot, not the ankle', () => {
    const wall = { values: [valueOf({ protocol: 'distance.kneeToWall/standing', mode: 'active' }, 'left', 14)], items: [] };
    const reasoned = about(breakdownOf('squat.kneeRollsIn'), wall);
    expect(['hipStrength', 'footPosture', 'ankleDorsiflexion'].map((id) => state(reasoned, id))).toEqual([
      'pointsTo',
      'pointsTo',
      'speaksAgainst',
    ]);
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
    expect(stateWords(range)).toBe('points to it, right');
    expect(range.limbs).toEqual([
      { side: 'left', state: 'speaksAgainst', spokenOf: true },
      { side: 'right', state: 'pointsTo', spokenOf: true },
    ]);
    expect([range.state, pointedLimbs(range)]).toEqual(['pointsTo', ['right']]);
    expect([evidenceWords(range.for[0]!).slice(0, 6), evidenceWords(range.against[0]!).slice(0, 5)]).toEqual(['right:', 'left:']);
  });
});
