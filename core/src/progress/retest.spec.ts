import { finishOf, judgeMarker, judgeRetest, markerWords, memoryWords, rememberDrills, roundVerdict, type Marker } from './index.js';

describe('retest within the session', () => {
  it('says nothing of the baseline: a drill answers from the first round on', () => {
    const rounds = judgeRetest(
      [hip],
      [
        { drill: '', values: [96] },
        { drill: 'a drill', values: [106] },
        { drill: 'another', values: [84] },
      ],
    );
    expect(rounds.map(({ verdict, overall }) => [verdict, overall])).toEqual([
      [null, null],
      ['better', 'better'],
      ['worse', 'worse'],
    ]);
  });

  const hip: Marker = { motion: 'hip.flexion', side: 'left', mode: 'passive', protocol: 'hip.flexion/supine', instrument: 'goniometer' };
  const floor: Marker = {
    motion: 'distance.fingerToFloor',
    side: 'midline',
    mode: 'active',
    protocol: 'distance.fingerToFloor/standing',
    instrument: 'tape',
  };

  it('calls a marker better, same or worse by its own error, whichever way is good', () => {
    const same = judgeMarker(hip, 96, 101);
    expect(same).toEqual(jasmine.objectContaining({ change: 5, verdict: 'same' }));
    expect(markerWords(same, 'hip.flexion')).toBe('96 → 101, +5°: same (a change counts from 8.4°)');
    expect([judgeMarker(hip, 96, 106).verdict, judgeMarker(hip, 96, 84).verdict]).toEqual(['better', 'worse']);
    expect([judgeMarker(floor, 24, 8).verdict, judgeMarker(floor, 8, 24).verdict, judgeMarker(floor, 24, 20).verdict]).toEqual([
      'better',
      'worse',
      'same',
    ]);
  });

  it('warns before finishing on worse and offers the drill that helped', () => {
    const rounds = judgeRetest(
      [hip, floor],
      [
        { drill: '', values: [96, 24] },
        { drill: 'Rock back', values: [107, 24] },
        { drill: 'Long hold', values: [97, 24] },
      ],
    );
    expect(rounds.map((r) => r.verdict)).toEqual([null, 'better', 'worse']);
    expect(finishOf(rounds)).toEqual({ kind: 'worse', why: '“Long hold” made it worse', goBackTo: 'Rock back' });
    expect(finishOf(rounds.slice(0, 2))).toEqual({ kind: 'good' });
  });

  it('offers what helped at earlier visits where nothing helped today', () => {
    const rounds = judgeRetest(
      [hip],
      [
        { drill: '', values: [96] },
        { drill: 'Long hold', values: [80] },
      ],
    );
    const memory = [
      { drill: 'Long hold', better: 3, same: 0, worse: 0 },
      { drill: 'Rock back', better: 2, same: 1, worse: 0 },
    ];
    expect(finishOf(rounds, memory)).toEqual(jasmine.objectContaining({ kind: 'worse', goBackTo: 'Rock back' }));
    expect(finishOf(rounds))
      .withContext('nothing is remembered')
      .toEqual({ kind: 'worse', why: '“Long hold” made it worse', goBackTo: null });
  });

  it('is open while readings are missing or nothing was tried', () => {
    expect(finishOf(judgeRetest([hip], [{ drill: '', values: [96] }])).kind).toBe('open');
    expect(
      finishOf(
        judgeRetest(
          [hip],
          [
            { drill: '', values: [96] },
            { drill: 'Rock back', values: [null] },
          ],
        ),
      ).kind,
    ).toBe('open');
  });

  it('all alike is the same; of drills that helped the last one is gone back to', () => {
    const verdicts = (...all: ('better' | 'same' | 'worse')[]) => roundVerdict(all.map((verdict) => ({ verdict })));
    expect([verdicts('same', 'same'), verdicts('same', 'better'), verdicts('better', 'worse'), verdicts()]).toEqual([
      'same',
      'better',
      'worse',
      null,
    ]);
    const values = [
      ['', 96],
      ['Rock back', 107],
      ['Bridge', 118],
      ['Long hold', 97],
    ] as const;
    const rounds = judgeRetest(
      [hip],
      values.map(([drill, value]) => ({ drill, values: [value] })),
    );
    expect(finishOf(rounds)).toEqual(jasmine.objectContaining({ kind: 'worse', goBackTo: 'Bridge' }));
  });

  it('one worse marker outweighs a better one', () => {
    const [, round] = judgeRetest(
      [hip, floor],
      [
        { drill: '', values: [96, 8] },
        { drill: 'Rock back', values: [110, 24] },
      ],
    );
    expect(round!.verdict).toBe('worse');
  });

  it('remembers what each drill did to this patient', () => {
    const session = judgeRetest(
      [hip],
      [
        { drill: '', values: [96] },
        { drill: 'Rock back', values: [107] },
        { drill: 'Long hold', values: [95] },
        { drill: 'rock  back', values: [106] },
      ],
    );
    const memory = rememberDrills([session, session]);
    expect(memory.map((m) => [m.drill, m.better, m.worse])).toEqual([
      ['Rock back', 4, 0],
      ['Long hold', 0, 2],
    ]);
    expect(memory.map(memoryWords)).toEqual(['helped 4 of 4 times', 'helped 0 of 2 times, made it worse 2 times']);
  });
});
