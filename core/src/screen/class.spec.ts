import {
  backTo,
  drillAnswers,
  drillTally,
  findItem,
  findScreen,
  gradeItem,
  standingOf,
  type AfterDrill,
  type DrillAnswer,
  type ItemTry,
} from './index.js';

describe('a class that retests itself', () => {
  const said = (...answers: [string, AfterDrill][]) => answers.map(([drill, answer]): DrillAnswer => ({ drill, answer }));

  it('takes whoever got worse back to the last drill that helped', () => {
    expect(backTo(said(['rock back', 'better'], ['bridge', 'same'], ['long hold', 'worse']))).toEqual({
      madeWorse: 'long hold',
      drill: 'rock back',
    });
    expect(backTo(said(['rock back', 'better'], ['bridge', 'better'], ['long hold', 'worse']))!.drill).toBe('bridge');
    expect(backTo(said(['rock back', 'same'], ['long hold', 'worse']))).toEqual({ madeWorse: 'long hold', drill: null });
    expect(backTo(said(['long hold', 'better'], ['long hold', 'worse'])))
      .withContext('what made it worse now')
      .toEqual({ madeWorse: 'long hold', drill: null });
    expect(backTo(said(['long hold', 'worse'], ['rock back', 'better'])))
      .withContext('did not end on worse')
      .toBeNull();
    expect(backTo([])).toBeNull();
  });

  it('knows what helped most of them and whom it made worse', () => {
    expect(
      drillTally([
        said(['rock back', 'better'], ['bridge', 'worse']),
        said(['rock back', 'better'], ['bridge', 'same']),
        said(['rock back', 'same']),
      ]),
    ).toEqual([
      { drill: 'rock back', better: 2, same: 1, worse: 0 },
      { drill: 'bridge', better: 0, same: 1, worse: 1 },
    ]);
  });

  it('reads the answers out of the tries, and who stands how', () => {
    expect(
      drillAnswers([
        { answer: 'better', note: 'rock back' },
        { answer: 'odd', note: 'x' },
        { answer: 'worse' },
        { answer: 'same', note: 'bridge' },
      ]),
    ).toEqual(said(['rock back', 'better'], ['bridge', 'same']));
    const patterns = findScreen('patterns')!;
    const stands = (one: ItemTry | null) =>
      standingOf(gradeItem(patterns, findItem(patterns, 'leanBack')!, { item: 'leanBack', tries: one ? [one] : [] }));
    expect([
      stands({ meets: true }),
      stands({ meets: false }),
      stands({ meets: true, pain: 3 }),
      stands({}),
      stands(null),
      standingOf(undefined),
    ]).toEqual(['meets', 'short', 'hurts', 'open', 'open', 'open']);
  });
});
