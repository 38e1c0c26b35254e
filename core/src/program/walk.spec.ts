import { limited } from '../testing/limits.js';
import fc from 'fast-check';
import { LADDERS, ladderOf, walkedWords, walkLadder, type LoggedDay, type WalkGround } from './index.js';

const day = (n: number, over: Partial<LoggedDay> = {}): LoggedDay => ({
  ...{ on: `2026-11-${String(n).padStart(2, '0')}`, done: true, easy: true, pain: 1, swelling: false, worse: false },
  ...over,
});
const GROUND: WalkGround = {
  side: 'left',
  limits: limited(),
  equipment: ['strap', 'towel', 'pillow', 'chair', 'step', 'bike'],
  tolerated: 3,
  on: '2026-11-20',
  givenOn: '2026-10-30',
};

describe('walking a ladder', () => {
  it('steps up after two easy days, and asks for two more before the next step', () => {
    const up = walkLadder('heel-slide', [day(1), day(2), day(3)], GROUND);
    expect([up.drill, up.last?.on, up.next?.why, up.rests]).toEqual(['heel-slide-strap', '2026-11-02', 'not-yet', false]);
    expect(walkedWords(up)).toBe('easy twice, little pain, no more swelling: a step up');
    expect(walkLadder('heel-slide', [day(1), day(2), day(3), day(4)], GROUND).drill).toBe('knee-rock-back');
    expect(walkLadder('heel-slide', [day(4), day(1), day(3), day(2)], GROUND).drill)
      .withContext('in any order')
      .toBe('knee-rock-back');
  });

  it('steps down the day swelling or symptoms grew, and rests where there is nothing easier', () => {
    const down = walkLadder('heel-slide-strap', [day(1), day(2, { swelling: true })], GROUND);
    expect([down.drill, down.last?.why]).toEqual(['heel-slide', 'swelling']);
    const bottom = walkLadder('heel-slide', [day(1, { worse: true })], GROUND);
    expect([bottom.drill, bottom.rests]).toEqual(['heel-slide', true]);
    expect(walkedWords(bottom)).toContain('leave it for now and ask');
    // It rests until a day says that it is over.
    expect(walkLadder('heel-slide', [day(1, { worse: true }), day(2)], GROUND).rests).toBeFalse();
  });

  it('never goes where a limit, healing or missing equipment stand against it, and says which', () => {
    const two = [day(1), day(2)];
    const why = (over: Partial<WalkGround>, from = 'heel-slide-strap') => {
      const { drill, next } = walkLadder(from, two, { ...GROUND, ...over });
      return [drill, next?.why];
    };
    expect(why({})).toEqual(['knee-rock-back', 'easy-twice']);
    expect(why({ limits: limited([{ motion: 'knee.flexion', kind: 'weight', limit: null, until: null, source: 'surgeon' }]) })).toEqual([
      'heel-slide-strap',
      'forbidden',
    ]);
    const early = { operation: { id: 'knee-replacement', on: '2026-11-15' } };
    expect(why(early, 'knee-press')).toEqual(['knee-press', 'healing']);
    expect(why({}, 'knee-press')).toEqual(['step-up', 'easy-twice']);
    expect(why({ equipment: [] }, 'heel-slide')).toEqual(['heel-slide', 'equipment']);
    expect(walkedWords(walkLadder('heel-slide', two, { ...GROUND, equipment: [] }))).toBe('the next step needs what is not at hand: stay');
    expect(
      walkLadder('heel-slide', [], { ...GROUND, limits: limited([{ motion: 'knee.flexion', limit: 30, until: null, source: 'surgeon' }]) })
        .rests,
    ).toBeTrue();
  });

  it('is not raised by the end of a limit: somebody looks first, and gives a programme again', () => {
    const two = [day(18), day(19)];
    const ended = limited([{ motion: 'knee.flexion', kind: 'weight', limit: null, until: '2026-11-15', source: 'surgeon' }], '2026-11-20');
    const walked = walkLadder('heel-slide-strap', two, { ...GROUND, limits: ended });
    expect([walked.drill, walked.next?.why, walked.rests]).toEqual(['heel-slide-strap', 'limit-ended', false]);
    expect(walkedWords(walked)).toBe('a limit of the next step has run out: stay until somebody has looked');
    const givenSince = walkLadder('heel-slide-strap', two, { ...GROUND, limits: ended, givenOn: '2026-11-16' });
    expect(givenSince.drill).toBe('knee-rock-back');
    // A step down stays open: it is the safer one.
    const worse = walkLadder('knee-rock-back', [day(19, { swelling: true })], {
      ...GROUND,
      limits: limited([{ motion: 'knee.flexion', limit: 30, until: '2026-11-15', source: 'surgeon' }], '2026-11-20'),
    });
    expect(worse.drill).toBe('heel-slide-strap');
  });

  it('waits for healing where the day of the operation is not known', () => {
    const walked = walkLadder('knee-press', [day(1), day(2)], { ...GROUND, operation: { id: 'knee-replacement', on: null } });
    expect([walked.drill, walked.next?.why]).toEqual(['knee-press', 'healing-unknown']);
    expect(walkedWords(walked)).toContain('the day of the operation is not known');
  });

  it('leaves a drill without a ladder as it was given, and lets it rest when it made things worse', () => {
    const alone = walkLadder('neck-nod', [day(1), day(2)], GROUND);
    expect([alone.drill, alone.next, alone.rests]).toEqual(['neck-nod', null, false]);
    expect(walkLadder('neck-nod', [day(1), day(2, { worse: true })], GROUND).rests).toBeTrue();
  });

  it('stays on its ladder whatever is logged, and never steps up on what was not said', () => {
    const said = fc.record({
      on: fc.integer({ min: 1, max: 28 }),
      done: fc.boolean(),
      easy: fc.option(fc.boolean()),
      pain: fc.option(fc.integer({ min: 0, max: 10 })),
      swelling: fc.option(fc.boolean()),
      worse: fc.option(fc.boolean()),
    });
    fc.assert(
      fc.property(fc.constantFrom(...LADDERS.flatMap(({ steps }) => steps)), fc.array(said, { maxLength: 20 }), (given, days) => {
        const logged = days.map(({ on, ...rest }) => day(on, rest));
        const ladder = ladderOf(given)!;
        const { drill } = walkLadder(given, logged, GROUND);
        expect(ladder.steps).toContain(drill);
        const silent = logged.map((one) => ({ ...one, easy: null }));
        expect(ladder.steps.indexOf(walkLadder(given, silent, GROUND).drill)).toBeLessThanOrEqual(ladder.steps.indexOf(given));
      }),
    );
  });
});
