import { seededRandom } from '../error/index.js';
import type { Side } from '../terms.js';
import { about, FREE, answersOf, factsFrom, itemOf, known, madeFor, NOTHING_KNOWN, valueOf, type MadeFacts } from '../testing/answering.js';
import { passive } from './define.js';
import { BREAKDOWNS, breakdownOf, testsFor, type Breakdown, type Choosing, type Reasoned } from './index.js';

describe('a pattern seen as a whole', () => {
  const whole = (facts: MadeFacts, pattern: Breakdown['pattern'] = 'squat.pelvisTucks') => about(breakdownOf(pattern), facts, 'midline');
  const bend = (side: Side, degrees: number) => valueOf(passive('hip.flexion/supine'), side, degrees);
  const candidate = (reasoned: Reasoned, id: string) => reasoned.candidates.find((c) => c.id === id)!;

  it('rules nothing out by a sound limb: the other one is asked about, and then both speak', () => {
    const one = whole({ values: [bend('left', 125)], items: [] });
    expect(candidate(one, 'glutealTissue').state).toBe('open');
    expect(one.next!.test.side).not.toBe('left');
    const both = whole({ values: [bend('left', 125), bend('right', 125)], items: [] });
    expect(candidate(both, 'glutealTissue').state).toBe('speaksAgainst');
  });

  it('asks a question that waits only of the limb that was answered so', () => {
    const facts = {
      values: [
        bend('left', 125),
        bend('right', 95),
        valueOf(passive('muscleLength.straightLegRaise/supine'), 'left', 60),
        valueOf(passive('muscleLength.straightLegRaise/supine'), 'right', 94),
      ],
      items: [],
    };
    const bent = whole(facts).questions.find(({ question }) => question.id === 'bendTheKnee')!;
    expect(bent.answers.map(({ answered }) => answered.side)).toEqual(['right']);
  });

  it('is answered for both limbs by what has no side', () => {
    const seen = itemOf({ screen: 'squatCheck', item: 'squat', view: 'side' }, 'midline', { faults: ['pelvisTucksEarly'] });
    const early = candidate(whole({ values: [], items: [seen] }), 'depthPastRange');
    expect([early.state, early.limbs.map(({ state: s }) => s)]).toEqual(['speaksAgainst', ['speaksAgainst', 'speaksAgainst']]);
  });

  it('never says of a limb what an answer about the other says: any pattern, any answers', () => {
    const random = seededRandom(11);
    for (const breakdown of BREAKDOWNS)
      for (let round = 0; round < 25; round += 1) {
        const about1 = breakdown.questions.filter(() => random() < 0.5);
        const facts = about1.reduce((sum: MadeFacts, question) => {
          const all = answersOf(question);
          return known(sum, madeFor(question.look, all[Math.floor(random() * all.length)]!, 'left'));
        }, NOTHING_KNOWN);
        for (const { id, limbs, for: pro, against } of about(breakdown, facts, 'midline').candidates)
          for (const limb of limbs) {
            const here = [...pro, ...against].filter(({ answered }) => [limb.side, 'midline'].includes(answered.side));
            expect(limb.spokenOf)
              .withContext(`${breakdown.pattern} ${id} ${limb.side}`)
              .toBe(here.length > 0);
          }
      }
  });
});

describe('what a test takes', () => {
  it('counts the turn to a pair once: both are done lying face down', () => {
    const question = breakdownOf('hipRotation').questions.find(({ id }) => id === 'inward')!;
    const from = (station: Choosing['station']) =>
      testsFor(question, factsFrom(NOTHING_KNOWN), 'left', { ...FREE, station }).find(
        (test) => test.kind === 'measurement' && test.way.protocol === 'hip.internalRotation/prone',
      )!;
    const [there, away] = [from('prone'), from('standing')];
    const turn = away.seconds - there.seconds;
    expect(turn).toBeGreaterThan(0);
    expect(away.secondsToAnswer - there.secondsToAnswer).toBeCloseTo(turn, 9);
  });

  it('counts the turn between two tests that need one', () => {
    const question = breakdownOf('kneeAfterInjury').questions.find(({ id }) => id === 'hipBent')!;
    const [bend] = testsFor(question, factsFrom(NOTHING_KNOWN), 'left', { ...FREE, station: 'prone' });
    const each = (tests: readonly { seconds: number }[]) => tests.reduce((sum, { seconds }) => sum + seconds, 0);
    expect(bend!.together!.map(({ position }) => position)).toEqual(['prone', 'supine']);
    expect(bend!.secondsToAnswer).toBeCloseTo(each(bend!.together!), 9);
    // From lying on the back: turned over, and back again.
    const [lying] = testsFor(question, factsFrom(NOTHING_KNOWN), 'left', { ...FREE, station: 'supine' });
    expect(lying!.secondsToAnswer).toBeGreaterThan(each(lying!.together!));
  });
});
