import fc from 'fast-check';
import { motion, PROTOCOLS, protocolOfId } from '../catalogue/index.js';
import { seededRandom } from '../error/bootstrap.js';
import { reliability } from '../error/index.js';
import { planView } from '../plan/index.js';
import {
  bestFigure,
  cardsOf,
  cardWords,
  drawnFor,
  dueOf,
  exercise,
  EXERCISES,
  mostMoved,
  READ_IN_DEGREES,
  rightPlace,
  ROUND,
  roundOf,
  scoreOf,
  seemsAt,
  shownIn,
  SLIP_WORDS,
  SLIPS,
  spreadOf,
  studyTableOf,
  sumOf,
  taskOf,
  toldAfter,
  type AnswerOf,
  type ExerciseId,
  type SlipId,
  type TaskOf,
} from './index.js';
import { MOVES_SEEN } from './moves-seen.js';
import { END_FEEL_TOLD, SUBSTITUTIONS_TOLD } from './told.js';

const seeds = fc.integer({ min: 0, max: 4_294_967_295 });
const anyTask = <K extends ExerciseId>(id: K) =>
  fc.tuple(fc.constantFrom(...cardsOf(id)), seeds).map(([card, seed]) => ({ card, seed, task: taskOf(id, { card, seed }) }));

/** How far to turn so that it lies in plane at the end. */
const inPlane = (task: TaskOf<'plane'>): AnswerOf<'plane'> => ({ moved: 1, by: -(task.turned + task.rolls) });

/** The answer of somebody who knows. */
const KNOWN: { readonly [K in ExerciseId]: (task: TaskOf<K>) => AnswerOf<K> } = {
  read: ({ truth }) => ({ degrees: truth, eye: 0 }),
  place: rightPlace,
  side: ({ side }) => ({ side }),
  name: ({ protocol }) => ({ motion: protocol.motion }),
  plane: inPlane,
  feel: ({ truth, feel, protocol, substitution }) => ({
    degrees: truth,
    feel,
    isUsual: protocol.endFeel.includes(feel),
    substitution: substitution?.id ?? null,
  }),
  examiners: (task) => ({ apart: task.apart, degrees: bestFigure(task) }),
};

/** What each slip looks like, by the exercise in which it is made. */
const slips = <K extends ExerciseId>(id: K, task: TaskOf<K>, answer: AnswerOf<K>): readonly SlipId[] =>
  exercise(id).score(task, answer).slips;

describe('practice', () => {
  it('has a truth in every task: who knows it is right, on every card and seed', () => {
    const holds = <K extends ExerciseId>(id: K) =>
      fc.assert(
        fc.property(anyTask(id), ({ card, seed, task }) => {
          const answer = KNOWN[id](task);
          const { mark, slips: own, read, truth } = scoreOf(id, { card, seed }, answer);
          expect([id, card, seed, mark, own.join()]).toEqual([id, card, seed, 'right', '']);
          expect(read !== null && truth !== null).toBe(READ_IN_DEGREES.includes(id));
          expect(toldAfter(id, task, answer)).not.toMatch(/undefined|NaN|\{/);
        }),
        { numRuns: 150 },
      );
    for (const id of EXERCISES) holds(id);
    for (const id of EXERCISES)
      for (const card of cardsOf(id))
        expect(cardWords(id, card))
          .withContext(card)
          .not.toMatch(/undefined|\{|^$/);
    expect(() => taskOf('read', { card: 'nothing', seed: 1 })).toThrowError(RangeError);
  });

  it('makes the same task of the same card and seed, and another of another seed', () => {
    const one = { card: 'half/askew/inner', seed: 7 };
    expect(taskOf('read', one)).toEqual(taskOf('read', one));
    const truths = new Set(Array.from({ length: 40 }, (_, seed) => taskOf('read', { ...one, seed }).truth));
    expect(truths.size).toBeGreaterThan(25);
  });

  it('tells slips of reading apart', () => {
    // By hand: a goniometer at 37°, the eye askew by three quarters of 4°.
    const task: TaskOf<'read'> = { truth: 37, stillAt: 0, sense: 1, ring: 'outer', eye: 0.75 };
    const read = (degrees: number, eye = 0) => exercise('read').score(task, { degrees, eye });
    expect(read(37)).toEqual({ mark: 'right', off: 0, slips: [] });
    expect(read(37.5)).toEqual({ mark: 'near', off: 0.5, slips: ['half'] });
    expect(read(143).slips).toEqual(['otherRing']);
    expect(read(43).slips).toEqual(['wrongWay']);
    expect(read(23).slips).toEqual(['wrongWay']);
    expect(read(47).slips).toEqual(['tens']);
    expect(read(40, 0.75).slips).toEqual(['parallax']);
    expect(read(40, 0).slips).toEqual(['misread']);
    expect(read(38)).toEqual({ mark: 'near', off: 1, slips: ['misread'] });
    expect(seemsAt(37, 0.75)).toBe(40);
    // At a right angle both rings say the same.
    expect(exercise('read').score({ ...task, truth: 91 }, { degrees: 89, eye: 0 }).slips).not.toContain('otherRing');
  });

  it('tells where axis and arms lie wrong, and what it does to the angle', () => {
    fc.assert(
      fc.property(anyTask('place'), ({ task }) => {
        const right = rightPlace(task);
        const swapped = { ...right, still: right.moving, moving: right.still };
        const moved = ([x, y]: readonly [number, number]) => [x + 30, y] as const;
        expect(slips('place', task, { axis: moved(right.axis), still: moved(right.still), moving: moved(right.moving) })).toEqual(['axis']);
        const apart = exercise('place').truth(task)!;
        if (apart > 20) expect(slips('place', task, swapped)).toEqual(['armsSwapped']);
        // Nothing is read where an arm has no length.
        expect(exercise('place').score(task, { ...right, still: right.axis }).off).toBeNull();
      }),
    );
    // By hand: the knee of a lying leg; the moving arm 20° too far along its circle.
    const knee = taskOf('place', { card: 'knee.flexion/supine', seed: 3 });
    const { axis, still, moving } = rightPlace(knee);
    const by = (20 * Math.PI) / 180;
    const [x, y] = [moving[0] - axis[0], moving[1] - axis[1]];
    const turned = [axis[0] + x * Math.cos(by) - y * Math.sin(by), axis[1] + x * Math.sin(by) + y * Math.cos(by)] as const;
    const scored = exercise('place').score(knee, { axis, still, moving: turned });
    expect(scored.slips).toEqual(['movingArm']);
    expect(Math.abs(scored.off!)).toBeCloseTo(20, 6);
  });

  it('draws the right limb as the left one turned over, with the same angle', () => {
    const left = { protocol: protocolOfId('hip.internalRotation/prone')!, value: 30, mirrored: false };
    const right = { ...left, mirrored: true };
    expect(exercise('place').truth(right)).toBeCloseTo(exercise('place').truth(left)!, 9);
    const [l, r] = [drawnFor(left), drawnFor(right)];
    expect(l.limbs.map(({ from }) => from[0])).toEqual(r.limbs.map(({ from }) => 360 - from[0]));
    expect(r.turn!.arrow.clockwise).toBe(!l.turn!.arrow.clockwise);
  });

  it('marks the limb where it is for whoever looks', () => {
    fc.assert(
      fc.property(anyTask('side'), ({ task }) => {
        if (task.station.startsWith('sidelying')) {
          const lower = task.station === 'sidelying-on-left' ? 'left' : 'right';
          expect(task.marked).toBe(task.side === lower ? 'on the table' : 'up');
        } else expect(task.marked === 'your left').toBe(planView(task.station, task.standpoint).leftIsLeft === (task.side === 'left'));
        expect(task.before).not.toBe(task.station);
        expect(slips('side', task, { side: task.side === 'left' ? 'right' : 'left' })).toEqual(['otherSide']);
      }),
    );
    // By hand: face down, seen from the feet, their left is on my left.
    const prone = Array.from({ length: 20 }, (_, seed) => taskOf('side', { card: 'prone/foot', seed }));
    for (const { side, marked } of prone) expect(marked).toBe(side === 'left' ? 'your left' : 'your right');
  });

  it('asks for every motion whose name is read backwards, and never gives the name away', () => {
    const trapped = PROTOCOLS.filter(
      (protocol) =>
        protocol.namingTrap &&
        protocol.figure.kind === 'turn' &&
        motion(protocol.motion).opposite !== null &&
        protocol.reads === 'excursion',
    ).filter(({ motion: id }) => motion(id).sides === 'limb');
    expect(trapped.length).toBeGreaterThan(15);
    expect(trapped.map(({ id }) => id).filter((id) => !MOVES_SEEN[id])).toEqual([]);
    // Where one protocol of a motion is asked for, all of its kind are.
    const motions = new Set(Object.keys(MOVES_SEEN).map((id) => protocolOfId(id)!.motion));
    const all = PROTOCOLS.filter(({ motion: id, figure }) => motions.has(id) && figure.kind === 'turn').map(({ id }) => id);
    expect(all.filter((id) => !MOVES_SEEN[id])).toEqual([]);
    for (const [id, seen] of Object.entries(MOVES_SEEN)) {
      const protocol = protocolOfId(id)!;
      const { opposite, short } = motion(protocol.motion);
      expect(seen.toLowerCase()).withContext(id).not.toContain(short.toLowerCase());
      const { options } = taskOf('name', { card: id, seed: 1 });
      expect(options).toContain(protocol.motion);
      expect(options).toContain(opposite!);
      expect(slips('name', taskOf('name', { card: id, seed: 1 }), { motion: opposite! })).toEqual(['byFarEnd']);
    }
    // What is told of a motion is not what is told of its opposite.
    for (const id of motions) {
      const told = (of: string) =>
        Object.entries(MOVES_SEEN)
          .filter(([one]) => protocolOfId(one)!.motion === of)
          .map(([, words]) => words);
      expect(told(id).filter((words) => told(motion(id).opposite!).includes(words))).toEqual([]);
    }
  });

  it('shows ever less than it goes out of plane, refuses from 30°, and tells an end that was not the end', () => {
    fc.assert(
      fc.property(anyTask('plane'), fc.integer({ min: -60, max: 60 }), ({ task }, by) => {
        const at = shownIn(task, { moved: 1, by: by - task.turned - task.rolls });
        if (Math.abs(by) >= 32 && Math.abs(task.truth - 90) <= 15) expect(at.verdict).toBe('refused');
        if (by === 0) expect(at.degrees).toBe(task.truth);
        const { by: right } = inPlane(task);
        expect(slips('plane', task, { moved: 0.8, by: right })).toContain('tooEarly');
        if (mostMoved(task) > 1) expect(slips('plane', task, { moved: 1.2, by: right })).toContain('pastEnd');
        expect(mostMoved(task) > 1).toBe(task.substitution !== null);
      }),
    );
    // By hand: a limb at 90° with the inclinometer turned 31° about it: sin 31° of gravity goes sideways.
    const task: TaskOf<'plane'> = { protocol: PROTOCOLS[0]!, truth: 90, substitution: null, turned: 31, rolls: 0 };
    expect(shownIn(task, { moved: 1, by: 0 }).outOfPlane).toBeCloseTo(31, 9);
    expect(exercise('plane').score(task, { moved: 1, by: 0 })).toEqual({ mark: 'wrong', off: null, slips: ['refused'] });
    expect(exercise('plane').read(task, { moved: 1, by: 0 })).toBeNull();
    expect(slips('plane', task, { moved: 1, by: -16 })).toEqual(['outOfPlane']);
  });

  it('tells end feels and substitutions without their names, from the library', () => {
    const labels = new Set(PROTOCOLS.flatMap(({ substitutions }) => substitutions.map(({ label }) => label)));
    for (const [label, told] of Object.entries(SUBSTITUTIONS_TOLD)) {
      expect(labels.has(label)).withContext(label).toBeTrue();
      expect(told).withContext(label).not.toContain(label);
    }
    for (const [feel, told] of Object.entries(END_FEEL_TOLD)) {
      expect(told.length).withContext(feel).toBeGreaterThan(1);
      expect(told.join(' ').toLowerCase())
        .withContext(feel)
        .not.toMatch(new RegExp(`\\b${feel}\\b`));
    }
    const task = taskOf('feel', { card: 'springy/gives', seed: 5 });
    const known = KNOWN.feel(task);
    expect(slips('feel', task, { ...known, degrees: task.comesTo })).toEqual(['pastEnd']);
    expect(slips('feel', task, { ...known, isUsual: true })).toEqual(['unusualMissed']);
    expect(slips('feel', task, { ...known, substitution: null })).toEqual(['substitutionMissed']);
    expect(slips('feel', task, { ...known, feel: 'soft', degrees: known.degrees - 9 })).toEqual(['misread', 'endFeel']);
    const clean = taskOf('feel', { card: 'firm/alone', seed: 5 });
    expect(slips('feel', clean, { ...KNOWN.feel(clean), substitution: clean.protocol.substitutions[0]!.id })).toEqual([
      'substitutionInvented',
    ]);
  });

  it('lets nobody stand apart by chance, and whoever does stands out', () => {
    fc.assert(
      fc.property(anyTask('examiners'), ({ task }) => {
        const means = task.readings.map((own) => own.reduce((sum, one) => sum + one, 0) / own.length);
        const apart = Math.max(...means) - Math.min(...means);
        if (!task.apart) expect(apart).toBeLessThanOrEqual(2.5);
        else if (task.apart.how !== 'unsteady')
          expect(means.indexOf(task.apart.how === 'higher' ? Math.max(...means) : Math.min(...means))).toBe(task.apart.who);
        const none = { apart: null, degrees: bestFigure(task) };
        expect(slips('examiners', task, none)).toEqual(task.apart ? ['apartMissed'] : []);
      }),
    );
    const task = taskOf('examiners', { card: 'higher', seed: 11 });
    const [who, other] = [task.apart!.who, (task.apart!.who + 1) % 3];
    expect(slips('examiners', task, { apart: { who: other, how: 'higher' }, degrees: task.truth })).toEqual(['otherExaminer']);
    expect(slips('examiners', task, { apart: { who, how: 'unsteady' }, degrees: task.truth })).toEqual(['otherHow']);
    expect(slips('examiners', taskOf('examiners', { card: 'alike', seed: 2 }), { apart: { who, how: 'lower' }, degrees: 0 })).toEqual([
      'chanceCalled',
      'estimate',
    ]);
  });

  it('has words for every slip', () => {
    expect(SLIPS.filter((slip) => !SLIP_WORDS[slip])).toEqual([]);
    expect(new Set(Object.values(SLIP_WORDS)).size).toBe(SLIPS.length);
  });
});

describe('what comes back', () => {
  const DAY = 86_400_000;
  const at = Date.UTC(2026, 0, 5, 9);

  it('is soon where it went wrong, ever later where it was right', () => {
    const [again, good] = dueOf([
      { card: 'a', at, mark: 'wrong' },
      { card: 'b', at, mark: 'right' },
    ]);
    expect(again!.at).toBeLessThan(good!.at);
    expect(again).toEqual(jasmine.objectContaining({ card: 'a', answers: 1, wrong: 1 }));
    let next = at;
    const waits: number[] = [];
    const answers: { card: string; at: number; mark: 'right' }[] = [];
    for (let times = 0; times < 6; times += 1) {
      answers.push({ card: 'a', at: next, mark: 'right' });
      const [due] = dueOf(answers);
      waits.push(due!.at - next);
      next = due!.at;
    }
    expect(waits).toEqual([...waits].sort((a, b) => a - b));
    expect(waits.at(-1)!).toBeGreaterThan(30 * DAY);
    // The library's own published defaults: with nine in ten remembered, the first learned interval of a "good" card is two to three days.
    expect(waits[1]! / DAY).toBeGreaterThanOrEqual(2);
    expect(waits[1]! / DAY).toBeLessThanOrEqual(3);
  });

  it('comes first in a round, longest overdue first; then what was never asked; nothing is left out for ever', () => {
    const due = [
      { card: 'half/square/outer', at: at - DAY, answers: 2, wrong: 1 },
      { card: 'half/askew/outer', at: at - 3 * DAY, answers: 2, wrong: 1 },
      { card: 'whole/square/outer', at: at + DAY, answers: 2, wrong: 0 },
    ];
    const round = roundOf('read', due, at, seededRandom(4));
    expect(round.length).toBe(ROUND);
    expect(round.slice(0, 2).map(({ card }) => card)).toEqual(['half/askew/outer', 'half/square/outer']);
    expect(round[7]!.card).toBe('whole/square/outer');
    expect(new Set(round.map(({ card }) => card)).size).toBe(cardsOf('read').length);
    expect(new Set(round.map(({ seed }) => seed)).size).toBe(ROUND);
    for (const id of EXERCISES) expect(roundOf(id, [], at, seededRandom(9)).every(({ card }) => cardsOf(id).includes(card))).toBeTrue();
    // A card of an older version is none of this one's.
    expect(
      roundOf('read', [{ card: 'gone', at: 0, answers: 1, wrong: 1 }], at, seededRandom(1)).some(({ card }) => card === 'gone'),
    ).toBeFalse();
  });
});

describe('a class that did one round', () => {
  it('lies apart by as much as it does', () => {
    const people = [
      { who: 'a', read: [40, 90, null] },
      { who: 'b', read: [44, 96, 30] },
    ];
    const { tasks, people: each } = spreadOf([41, 92, 31], people);
    // By hand: 40 and 44 lie √8 apart as a standard deviation of two.
    expect(tasks[0]).toEqual({ truth: 41, mean: 42, sd: Math.sqrt(8), readers: 2 });
    expect(tasks[2]).toEqual({ truth: 31, mean: 30, sd: null, readers: 1 });
    expect(each[0]).toEqual({ who: 'a', bias: -1.5, scatter: Math.SQRT1_2, read: 2 });
    expect(spreadOf([null], [{ who: 'c', read: [null] }]).people[0]).toEqual({ who: 'c', bias: null, scatter: null, read: 0 });
  });

  it('is a table for a study, without what one of them could not read', () => {
    const people = [
      { who: 'a', read: [40, 90, null, 61, 20] },
      { who: 'b', read: [44, 96, 30, 60, 21] },
    ];
    expect(studyTableOf(5, people)).toEqual({
      table: [
        [40, 44],
        [90, 96],
        [61, 60],
        [20, 21],
      ],
      leftOut: 1,
    });
    expect(reliability(studyTableOf(5, people).table).sem.agreement).toBeGreaterThan(0);
    expect(studyTableOf(2, [{ who: 'a', read: [] }])).toEqual({ table: [], leftOut: 2 });
  });

  it('and one’s own answers are counted by slip, the most frequent first', () => {
    expect(
      sumOf([
        { mark: 'wrong', off: -6, slips: ['axis', 'stillArm'] },
        { mark: 'wrong', off: 4, slips: ['stillArm'] },
        { mark: 'right', off: null, slips: [] },
      ]),
    ).toEqual({
      answers: 3,
      right: 1,
      near: 0,
      meanOff: 5,
      slips: [
        { slip: 'stillArm', times: 2 },
        { slip: 'axis', times: 1 },
      ],
    });
    expect(sumOf([]).meanOff).toBeNull();
  });
});
