import { protocolOfId } from '../catalogue/index.js';
import { hurts, painAdvice, type GradedItem } from '../screen/index.js';
import { evidenceWords, tellsWords, testWords, undecidedWords, type NextTest, type Reasoned } from '../reason/index.js';

const minutes = (seconds: number): number => Math.round(seconds / 6) / 10;

/**
 * What could limit each pattern, as the terminal prints it.
 *
 * @param graded items of the screens: what hurts is held back and told
 */
export function reasonReport(reasoned: readonly Reasoned[], graded: readonly GradedItem[]) {
  return {
    heldBack: graded
      .filter(hurts)
      .map(({ screen, item, side, pain }) => ({ item: `${screen}.${item.id}`, side, why: 'hurts' as const, pain, advice: painAdvice() })),
    breakdowns: reasoned.map(({ breakdown, side, candidates, questions, next, advice, refer }) => ({
      pattern: breakdown.pattern,
      name: breakdown.name,
      side,
      candidates: candidates.map((c) => ({
        id: c.id,
        state: c.state,
        limbs: c.limbs.map((limb) => ({ side: limb.side, state: limb.state })),
        for: c.for.map(evidenceWords),
        against: c.against.map(evidenceWords),
      })),
      questions: questions.map(({ question, state, answers, undecided }) => ({
        id: question.id,
        asks: question.asks,
        state,
        answers: answers.map(({ answered }) => ({ side: answered.side, answer: answered.answer })),
        undecided: undecided.map(undecidedWords),
      })),
      next: next && nextReport(next),
      advice,
      refer,
      schools: breakdown.schools ?? [],
      source: breakdown.source.cite,
    })),
  };
}

function nextReport(next: NextTest) {
  const { test, question, tells, rulesOut } = next;
  const what =
    test.kind === 'measurement'
      ? { motion: protocolOfId(test.way.protocol)!.motion, protocol: test.way.protocol }
      : {
          item: `${test.of.screen}.${test.of.item}`,
          ...(test.of.view ? { view: test.of.view } : {}),
          ...(test.of.with?.length ? { with: test.of.with } : {}),
        };
  return {
    ...what,
    side: test.side,
    mode: test.mode,
    position: test.position,
    minutes: minutes(test.seconds),
    question: question.id,
    asks: question.asks,
    tells,
    rulesOut: Math.round(rulesOut * 100) / 100,
    words: `${testWords(test)}: ${tellsWords(next)}`,
  };
}
