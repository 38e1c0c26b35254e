import { limited } from '../testing/limits.js';
import { protocolOfId } from '../catalogue/index.js';
import { seededRandom } from '../error/index.js';
import { imposesOf } from '../imposes/index.js';
import type { Precaution } from '../precaution/index.js';
import { findItem, findScreen, PATTERNS } from '../screen/index.js';
import { about, FREE, answersOf, factsFrom, known, madeFor, NOTHING_KNOWN, valueOf } from '../testing/answering.js';
import { COMMON_PRACTICE, JOINTS, MOTION_NAMES } from '../terms.js';
import { findMotion } from '../catalogue/index.js';
import { answersTo, cutsOf } from './answer.js';
import { cut, passive, value, when } from './define.js';
import { BREAKDOWNS, breakdownOf, CANDIDATE_IDS, testsFor, undecidedWords, type Breakdown, type Choosing } from './index.js';
import type { ItemWay, Look, Question, Way } from './types.js';

const waysIn = (look: Look): readonly Way[] =>
  'ways' in look ? look.ways : look.look === 'gain' ? look.pairs.flat() : look.look === 'finding' ? look.toFind : [];
const itemsIn = (look: Look): readonly ItemWay[] =>
  look.look === 'fault' || look.look === 'item' ? look.of : look.look === 'itemGain' || look.look === 'clears' ? [look.of] : [];
const EACH = BREAKDOWNS.flatMap((breakdown) => breakdown.questions.map((question) => ({ breakdown, question })));

describe('breakdowns as data', () => {
  it('are there for every pattern, once', () => {
    expect(BREAKDOWNS.map(({ pattern }) => pattern).sort()).toEqual([...PATTERNS].sort());
  });

  it('ask only for what is there: ways of measuring in a mode they have, items with the faults that are looked for', () => {
    for (const { breakdown, question } of EACH) {
      const where = `${breakdown.pattern} ${question.id}`;
      for (const { protocol, mode } of waysIn(question.look))
        expect(protocolOfId(protocol)?.modes).withContext(`${where} ${protocol}`).toContain(mode);
      for (const { screen, item, view } of itemsIn(question.look)) {
        const found = findItem(findScreen(screen)!, item)!;
        expect(found).withContext(`${where} ${screen}.${item}`).toBeDefined();
        if ('fault' in question.look)
          for (const fault of question.look.fault) {
            const there = found.faults.find(({ id }) => id === fault);
            // A question may name faults of other views: what is not seen from here is not found.
            if (there && view && there.views.length > 0 && question.look.look === 'fault')
              expect(there.views).withContext(`${where} ${fault}`).toContain(view);
          }
        if ('fault' in question.look)
          expect(found.faults.some(({ id }) => (question.look as { fault: readonly string[] }).fault.includes(id)))
            .withContext(where)
            .toBeTrue();
      }
    }
  });

  it('have a source beside every threshold', () => {
    for (const { breakdown, question } of EACH) {
      expect(breakdown.source.cite).not.toBe('');
      const { look } = question;
      if (look.look === 'value') expect(look.cut.source.cite).withContext(question.id).not.toBe('');
      if ('least' in look || 'share' in look) expect(look.source.cite).withContext(question.id).not.toBe('');
    }
  });

  it('speak of their own candidates alone, and let each be pointed to and spoken against', () => {
    for (const { pattern, candidates, questions, onlyBlamed = [] } of BREAKDOWNS) {
      const named = questions.flatMap(({ answers }) => answers.flatMap((answer) => [...(answer.for ?? []), ...(answer.against ?? [])]));
      for (const id of named)
        if (!candidates.includes(id))
          expect(named.filter((n) => candidates.includes(n)).length)
            .withContext(`${pattern}: ${id}`)
            .toBeGreaterThan(0);
      for (const id of candidates) {
        expect(questions.some(({ answers }) => answers.some((answer) => answer.for?.includes(id))))
          .withContext(`${pattern}: points to ${id}`)
          .toBe(!onlyBlamed.includes(id));
        expect(questions.some(({ answers }) => answers.some((answer) => answer.against?.includes(id))))
          .withContext(`${pattern}: nothing speaks against ${id}`)
          .toBeTrue();
      }
    }
    expect(CANDIDATE_IDS.filter((id) => !BREAKDOWNS.some(({ candidates }) => candidates.includes(id)))).toEqual([]);
  });

  it('cut a way of measuring at one figure for one candidate, in every pattern', () => {
    const cuts = new Map<string, Set<string>>();
    for (const { breakdown, question } of EACH) {
      if (question.look.look !== 'value') continue;
      const named = new Set(question.answers.flatMap(({ for: pro = [], against = [] }) => [...pro, ...against]));
      for (const { way, cut: at } of cutsOf(question.look))
        for (const id of named) {
          const key = `${way.protocol} ${id}`;
          cuts.set(key, (cuts.get(key) ?? new Set()).add(`${at.below}–${at.from}`));
          expect(at.unit)
            .withContext(`${breakdown.pattern} ${key}`)
            .toBe(findMotion(protocolOfId(way.protocol)!.motion)!.unit);
        }
    }
    expect([...cuts].filter(([, figures]) => figures.size > 1).map(([key, figures]) => `${key}: ${[...figures].join(', ')}`)).toEqual([]);
    expect(cuts.size).toBeGreaterThan(40);
  });

  it('wait only for a question before, and for an answer it has', () => {
    for (const { breakdown, question } of EACH) {
      if (!question.after) continue;
      for (const { question: before, answers } of question.after) {
        const at = breakdown.questions.findIndex(({ id }) => id === before);
        expect(at).withContext(question.id).toBeGreaterThanOrEqual(0);
        expect(at).toBeLessThan(breakdown.questions.indexOf(question));
        for (const answer of answers) expect(answersOf(breakdown.questions[at]!)).toContain(answer);
      }
    }
  });

  it('have every answer in reach', () => {
    for (const { breakdown, question } of EACH) {
      if (question.look.look === 'finding') continue;
      for (const answer of answersOf(question)) {
        const facts = factsFrom(madeFor(question.look, answer, 'left'));
        expect(answersTo(question, facts, 'left').map((a) => a.answer))
          .withContext(`${breakdown.pattern} ${question.id} ${answer}`)
          .toContain(answer);
      }
    }
  });
});

describe('reasoning', () => {
  const random = seededRandom(7);
  const any = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;

  it('comes to an end whatever the answers, asks nothing twice, and never takes back what speaks against', () => {
    for (const breakdown of BREAKDOWNS)
      for (let round = 0; round < 40; round += 1) {
        let facts = NOTHING_KNOWN;
        const asked = new Set<string>();
        let before = about(breakdown, facts);
        for (let step = 0; before.next; step += 1) {
          expect(step).withContext(`${breakdown.pattern} does not end`).toBeLessThan(30);
          const { question } = before.next;
          expect(asked.has(question.id)).withContext(`${breakdown.pattern} asks ${question.id} twice`).toBeFalse();
          asked.add(question.id);
          facts = known(facts, madeFor(question.look, any(answersOf(question)), 'left'));
          const after = about(breakdown, facts);
          before.candidates.forEach((candidate, i) => {
            if (candidate.state === 'speaksAgainst')
              expect(after.candidates[i]!.state).withContext(`${breakdown.pattern} ${candidate.id}`).not.toBe('pointsTo');
            expect(after.candidates[i]!.against.length).toBeGreaterThanOrEqual(candidate.against.length);
          });
          before = after;
        }
      }
  });

  it('proposes, step by step, what an exhaustive search finds on small trees: each test, each answer, who is ruled out, by the minute', () => {
    const ids = CANDIDATE_IDS.slice(0, 5);
    const ways = [
      'hip.flexion/supine',
      'knee.flexion/prone',
      'hip.internalRotation/sitting',
      'subtalar.eversion/sitting',
      'shoulder.abduction/standing',
    ].map(passive);
    const some = () => ids.filter(() => random() < 0.4);
    for (let round = 0; round < 150; round += 1) {
      const questions = ways.slice(0, 2 + Math.floor(random() * 4)).map((way, at): Question => {
        const [pro, contra] = [some(), some()];
        return {
          id: `q${at}`,
          asks: '',
          look: value(cut(50), way),
          answers: [
            when(
              'below',
              '',
              pro,
              some().filter((id) => !pro.includes(id)),
            ),
            when('from', '', [], contra),
          ],
        };
      });
      const tree: Breakdown = {
        pattern: 'legRaise',
        name: '',
        candidates: ids,
        questions,
        openedBy: [],
        advice: [],
        refer: [],
        source: COMMON_PRACTICE,
      };
      let facts = NOTHING_KNOWN;
      for (let step = 0; step <= questions.length; step += 1) {
        const station = any(['standing', 'supine', 'prone', null] as const);
        const choosing: Choosing = { ...FREE, station };
        const now = about(tree, facts, 'left', choosing);
        const worths = questions.flatMap((question) =>
          testsFor(question, factsFrom(facts), 'left', choosing).map((test) => {
            const ruledOut = question.answers.map(({ answer }) => {
              const then = about(tree, known(facts, madeFor(question.look, answer[0]!, 'left')), 'left', choosing);
              return then.candidates.filter(({ state }, i) => state === 'speaksAgainst' && now.candidates[i]!.state === 'open').length;
            });
            return ruledOut.reduce((a, b) => a + b, 0) / ruledOut.length / (test.seconds / 60);
          }),
        );
        const chosen = now.next ? now.next.rulesOut / (now.next.test.seconds / 60) : 0;
        expect(chosen)
          .withContext(`round ${round}, step ${step}`)
          .toBeCloseTo(Math.max(0, ...worths), 9);
        if (!now.next) break;
        facts = known(facts, madeFor(now.next.question.look, any(answersOf(now.next.question)), 'left'));
      }
    }
  });

  it('counts the turn it takes from where the patient lies', () => {
    const toe = breakdownOf('toeTouch');
    const from = (station: Choosing['station']) => about(toe, NOTHING_KNOWN, 'left', { ...FREE, station }).next!;
    expect(from('supine').test.seconds).toBeLessThan(from('standing').test.seconds);
    expect(from('supine').test.position).toBe('supine');
  });

  it('never proposes what a precaution forbids', () => {
    const motions = JOINTS.flatMap((joint) => MOTION_NAMES.map((name) => `${joint}.${name}` as const)).filter(findMotion);
    for (const motion of motions) {
      const precaution: Precaution = { motion, limit: null, until: null, source: 'the surgeon' };
      for (const breakdown of BREAKDOWNS) {
        const { next } = about(breakdown, NOTHING_KNOWN, 'left', { ...FREE, limits: limited([precaution]) });
        if (!next) continue;
        const { test } = next;
        const rows =
          test.kind === 'measurement' ? imposesOf(test.way.protocol) : findItem(findScreen(test.of.screen)!, test.of.item)!.imposes;
        const does = rows.some((row) => row.what === 'moves' && row.motion === motion && (row.degrees === 'full' || row.degrees > 0));
        expect(does)
          .withContext(`${breakdown.pattern}: ${JSON.stringify(test)} under no ${motion}`)
          .toBeFalse();
      }
    }
  });

  it('does not measure to a limit that stops it before it could tell', () => {
    const stops = (limit: number): Choosing => ({
      ...FREE,
      limits: limited([{ motion: 'hip.flexion', limit, until: null, source: 'the surgeon' }]),
    });
    const proposed = (choosing: Choosing) =>
      testsFor(
        breakdownOf('squat.pelvisTucks').questions.find(({ id }) => id === 'hipFlexion')!,
        factsFrom(NOTHING_KNOWN),
        'left',
        choosing,
      );
    expect(proposed(stops(90))).toEqual([]);
    expect(proposed(stops(120)).length).toBe(1);
  });

  it('decides nothing by a value inside its error of the line', () => {
    const hipFlexion = (value: number) =>
      about(breakdownOf('squat.pelvisTucks'), { values: [valueOf(passive('hip.flexion/supine'), 'left', value)], items: [] });
    for (const value of [105, 108, 110, 112, 115]) {
      const { candidates, questions } = hipFlexion(value);
      expect(candidates.every(({ state }) => state === 'open'))
        .withContext(String(value))
        .toBeTrue();
      const asked = questions.find(({ question }) => question.id === 'hipFlexion')!;
      expect(asked.state).toBe('undecided');
      expect(undecidedWords(asked.undecided[0]!)).toBe(`left: ${value}° ± 5.9, the line is at 110°: inside its error, it decides nothing`);
    }
    expect(hipFlexion(100).candidates.find(({ id }) => id === 'hipFlexionRange')!.state).toBe('pointsTo');
  });
});
