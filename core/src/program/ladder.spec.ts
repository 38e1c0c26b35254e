import { LADDERS, ladderOf, ladderWords, nextStep, type LoggedDay } from './index.js';

const KNEE = LADDERS.find(({ id }) => id === 'knee-bending')!;
const day = (on: number, over: Partial<LoggedDay> = {}): LoggedDay => ({
  on: `2026-11-${String(on).padStart(2, '0')}`,
  done: true,
  easy: true,
  pain: 1,
  swelling: false,
  worse: false,
  ...over,
});
const step = (days: LoggedDay[], drill = 'heel-slide-strap', tolerated = 3) => nextStep(KNEE, drill, days, tolerated);

// Common practice: up when the last step is easy for two sessions, pain no more than tolerated (3 of 10 unless said otherwise) and no
// added swelling next morning; down when swelling or symptoms grew.
describe('the ladder of bending the knee', () => {
  it('is climbed when it was easy twice, with little pain and no more swelling', () => {
    expect(step([day(1), day(2)])).toEqual({ move: 'up', why: 'easy-twice', drill: 'knee-rock-back' });
    expect(step([day(1)])).toEqual({ move: 'stay', why: 'not-yet', drill: 'heel-slide-strap' });
    expect(step([])).toEqual(jasmine.objectContaining({ move: 'stay', why: 'not-yet' }));
  });

  it('counts the last two times it was done, in the order of the days', () => {
    expect(step([day(1, { easy: false }), day(2), day(3)]).move).toBe('up');
    expect(step([day(3), day(1), day(2, { easy: false })]).move).toBe('stay');
    expect(step([day(1), day(2, { done: false, easy: null, pain: null, swelling: null }), day(3)]).move).toBe('up');
  });

  it('is not climbed on what was not said', () => {
    for (const over of [{ easy: null }, { pain: null }, { swelling: null }])
      expect(step([day(1), day(2, over)]))
        .withContext(JSON.stringify(over))
        .toEqual(jasmine.objectContaining({ move: 'stay', why: 'not-yet' }));
    expect(step([day(1, { worse: null }), day(2, { worse: null })]).move).toBe('up');
  });

  it('stays where it hurt more than is tolerated', () => {
    expect(step([day(1), day(2, { pain: 4 })])).toEqual(jasmine.objectContaining({ move: 'stay', why: 'pain' }));
    expect(step([day(1), day(2, { pain: 3 })]).move).toBe('up');
    expect(step([day(1), day(2, { pain: 4 })], 'heel-slide-strap', 5).move).toBe('up');
  });

  it('goes down when swelling or symptoms grew the last time, whatever else was said', () => {
    expect(step([day(1), day(2, { swelling: true })])).toEqual({ move: 'down', why: 'swelling', drill: 'heel-slide' });
    expect(step([day(1), day(2, { worse: true })])).toEqual({ move: 'down', why: 'worse', drill: 'heel-slide' });
    expect(step([day(1, { swelling: true }), day(2), day(3)]).move).toBe('up');
    // Swelling of an earlier time speaks against stepping up as long as it is among the last two.
    expect(step([day(1, { swelling: true }), day(2)]).move).toBe('stay');
  });

  it('has an end and a beginning', () => {
    expect(step([day(1), day(2)], 'heels-raised-squat')).toEqual(jasmine.objectContaining({ move: 'stay', why: 'at-the-top' }));
    expect(step([day(1, { swelling: true })], 'heel-slide')).toEqual(jasmine.objectContaining({ move: 'stay', why: 'at-the-bottom' }));
    expect(() => step([], 'neck-nod')).toThrowError(/is no step of knee-bending; allowed: heel-slide, /);
  });

  it('says why', () => {
    expect(ladderWords({ why: 'swelling' })).toBe('more swelling the next morning: a step down');
    expect(ladderOf('knee-rock-back')?.id).toBe('knee-bending');
    expect(ladderOf('neck-nod')).toBeUndefined();
  });
});
