import { kindOf, type Judgement } from '../finding/index.js';
import type { GradedItem, PatternId } from '../screen/index.js';
import type { Side } from '../terms.js';
import { answersTo, limbsOf, type Answered } from './answer.js';
import type { CandidateId } from './candidates.js';
import { factsOf, type Facts } from './facts.js';
import { BREAKDOWNS, breakdownOf } from './list.js';
import { testsFor, type Choosing, type Test } from './tests.js';
import type { Answer, AnswerId, Breakdown, Question } from './types.js';

export const STATES = ['open', 'pointsTo', 'speaksAgainst'] as const;
export type CandidateState = (typeof STATES)[number];

/** One answer, and what it says of a candidate. */
export interface CandidateEvidence {
  readonly question: Question;
  readonly answered: Answered;
  readonly says: Answer;
}

/** How a candidate stands on one limb: an answer about the other limb says nothing of it. */
export interface CandidateOnLimb {
  readonly side: Side;
  readonly state: CandidateState;
  /** Whether any answer speaks of it. */
  readonly spokenOf: boolean;
}

export interface Candidate {
  readonly id: CandidateId;
  /** Of the whole pattern: pointed to where one limb is, ruled out only where every limb is. */
  readonly state: CandidateState;
  readonly limbs: readonly CandidateOnLimb[];
  readonly for: readonly CandidateEvidence[];
  readonly against: readonly CandidateEvidence[];
}

/** How one question of a breakdown stands. */
export interface QuestionState {
  readonly question: Question;
  /** `waits`: another answer has to come first. `undecided`: looked at, inside the error. */
  readonly state: 'answered' | 'undecided' | 'open' | 'waits';
  readonly answers: readonly CandidateEvidence[];
  readonly undecided: readonly Answered[];
}

/** The test that is expected to rule out most in a minute. */
export interface NextTest {
  readonly test: Test;
  readonly question: Question;
  /** Candidates that it can tell apart. */
  readonly tells: readonly CandidateId[];
  /** Candidates ruled out on average over its answers, each as likely as the other; on one of two limbs counts half. */
  readonly rulesOut: number;
}

export interface Reasoned {
  readonly breakdown: Breakdown;
  readonly side: Side;
  readonly candidates: readonly Candidate[];
  readonly questions: readonly QuestionState[];
  readonly next: NextTest | null;
  readonly advice: readonly string[];
  readonly refer: readonly string[];
}

/** A pattern that fell short, and on which side it was seen. */
export interface OpenPattern {
  readonly pattern: PatternId;
  readonly side: Side;
}

/** What falls short, from screens and from measurements: each pattern once a side. What hurts opens nothing: it is looked at first. */
export function openPatterns(graded: readonly GradedItem[], judgement: Pick<Judgement, 'findings'> | null): OpenPattern[] {
  const open: OpenPattern[] = graded.flatMap((one) => one.opens.map((pattern) => ({ pattern, side: one.side })));
  const losses = judgement?.findings.filter(({ kind }) => kindOf(kind)?.opens) ?? [];
  const hurts = new Set(judgement?.findings.filter(({ kind }) => kind === 'painful').map(({ motion, side }) => `${motion}|${side}`));
  for (const { pattern, openedBy } of BREAKDOWNS)
    for (const { motion, side } of losses) if (openedBy.includes(motion) && !hurts.has(`${motion}|${side}`)) open.push({ pattern, side });
  const seen = new Set<string>();
  return open.filter(({ pattern, side }) => !seen.has(`${pattern}|${side}`) && seen.add(`${pattern}|${side}`));
}

/** What is known, for every breakdown: screens, measurements and their findings. */
export interface Known {
  readonly graded: readonly GradedItem[];
  readonly judgement: Pick<Judgement, 'measurements' | 'findings'> | null;
}

/** What could limit everything that fell short. */
export function reason(known: Known, choosing: Choosing): Reasoned[] {
  const facts = factsOf(known.judgement?.measurements ?? [], known.graded, known.judgement?.findings ?? []);
  return openPatterns(known.graded, known.judgement).map(({ pattern, side }) => reasonAbout(breakdownOf(pattern), side, facts, choosing));
}

/**
 * Which candidates of one pattern are still open, what speaks for and against
 * each, and the next best test. Nothing is concluded from a test that was not
 * done; what spoke against once keeps a candidate from being pointed to on that
 * limb. A pattern seen as a whole has two limbs, and each is judged by its own
 * answers: a sound limb says nothing of the other one.
 */
export function reasonAbout(breakdown: Breakdown, side: Side, facts: Facts, choosing: Choosing): Reasoned {
  const questions = questionStates(breakdown, facts, side);
  const evidence = questions.flatMap(({ answers }) => answers);
  const candidates = breakdown.candidates.map((id) => candidateOf(id, evidence, side));
  return {
    breakdown,
    side,
    candidates,
    questions,
    next: nextTest(breakdown, side, questions, candidates, facts, choosing),
    advice: [...breakdown.advice, ...said(evidence, 'advice')],
    refer: [...said(evidence, 'refer'), ...breakdown.refer],
  };
}

const said = (evidence: readonly CandidateEvidence[], what: 'advice' | 'refer'): string[] => [
  ...new Set(evidence.flatMap(({ says }) => says[what] ?? [])),
];

function questionStates(breakdown: Breakdown, facts: Facts, side: Side): QuestionState[] {
  const states: QuestionState[] = [];
  for (const question of breakdown.questions) {
    const on = limbsAsked(question, states, side);
    if (on.length === 0) {
      states.push({ question, state: 'waits', answers: [], undecided: [] });
      continue;
    }
    const answered = answersTo(question, facts, side).filter(({ side: of }) => concerns(of, on));
    const answers = answered.flatMap((one): CandidateEvidence[] => {
      const says = one.answer && answerOf(question, one.answer);
      return says ? [{ question, answered: one, says }] : [];
    });
    const undecided = answered.filter(({ answer }) => answer === null);
    states.push({ question, state: answers.length > 0 ? 'answered' : undecided.length > 0 ? 'undecided' : 'open', answers, undecided });
  }
  return states;
}

/** Whether what is done on a side says something of one of these limbs: what has no side speaks of all. */
const concerns = (side: Side, limbs: readonly Side[]): boolean => side === 'midline' || limbs.includes(side);

/** Limbs on which a question is asked: where it waits for another answer, those that were answered so. */
function limbsAsked({ after }: Question, states: readonly QuestionState[], side: Side): readonly Side[] {
  const limbs = limbsOf(side);
  if (!after) return limbs;
  const met = after.flatMap(({ question, answers }) =>
    (states.find((s) => s.question.id === question)?.answers ?? [])
      .filter(({ answered }) => answers.includes(answered.answer!))
      .map(({ answered }) => answered.side),
  );
  return limbs.filter((limb) => met.some((of) => concerns(of, [limb])));
}

const answerOf = ({ answers }: Question, id: AnswerId): Answer | undefined => answers.find(({ answer }) => answer.includes(id));

function candidateOf(id: CandidateId, evidence: readonly CandidateEvidence[], side: Side): Candidate {
  const pro = evidence.filter(({ says }) => says.for?.includes(id));
  const contra = evidence.filter(({ says }) => says.against?.includes(id));
  const about = (all: readonly CandidateEvidence[], limb: Side) => all.filter(({ answered }) => concerns(answered.side, [limb])).length;
  const limbs = limbsOf(side).map((limb): CandidateOnLimb => {
    const [speakFor, speakAgainst] = [about(pro, limb), about(contra, limb)];
    return { side: limb, state: stateOf(speakFor, speakAgainst), spokenOf: speakFor + speakAgainst > 0 };
  });
  return { id, state: wholeState(limbs), limbs, for: pro, against: contra };
}

/** Limbs on which it is pointed to; the whole, where that is every limb of a pattern that was seen as a whole. */
export function pointedLimbs({ limbs }: Pick<Candidate, 'limbs'>): readonly Side[] {
  const pointed = limbs.filter(({ state }) => state === 'pointsTo').map(({ side }) => side);
  return pointed.length > 1 && pointed.length === limbs.length ? ['midline'] : pointed;
}

/** Of a pattern with one limb or two. A limb that was not looked at keeps a candidate open. */
function wholeState(limbs: readonly CandidateOnLimb[]): CandidateState {
  if (limbs.some(({ state }) => state === 'pointsTo')) return 'pointsTo';
  return limbs.every(({ state }) => state === 'speaksAgainst') ? 'speaksAgainst' : 'open';
}

/** What both speaks for and against is open. */
export function stateOf(speakFor: number, speakAgainst: number): CandidateState {
  if (speakFor > 0 && speakAgainst > 0) return 'open';
  return speakFor > 0 ? 'pointsTo' : speakAgainst > 0 ? 'speaksAgainst' : 'open';
}

/** Candidates that nothing speaks of yet on a limb. */
const untold = (candidates: readonly Candidate[], limb: Side): CandidateId[] =>
  candidates.filter(({ limbs }) => limbs.some((one) => one.side === limb && !one.spokenOf)).map(({ id }) => id);

/** Of some candidates, those of which an answer would say that they are out. */
const ruledOutBy = ({ against = [], for: pro = [] }: Answer, ids: readonly CandidateId[]): CandidateId[] =>
  ids.filter((id) => against.includes(id) && !pro.includes(id));

const toldApartBy = ({ answers }: Question, ids: readonly CandidateId[]): CandidateId[] =>
  ids.filter((id) => answers.some((answer) => answer.for?.includes(id) || answer.against?.includes(id)));

/** What the answers of a question would tell, from a test on one side. */
function worthOf(question: Question, on: Side, asked: readonly Side[], candidates: readonly Candidate[], side: Side) {
  const limbs = asked.filter((limb) => concerns(on, [limb]));
  const open = limbs.map((limb) => untold(candidates, limb));
  const share = 1 / limbsOf(side).length;
  const out = question.answers.map((answer) => share * open.reduce((sum, ids) => sum + ruledOutBy(answer, ids).length, 0));
  return {
    tells: candidates.map(({ id }) => id).filter((id) => open.some((ids) => toldApartBy(question, ids).includes(id))),
    rulesOut: out.reduce((sum, one) => sum + one, 0) / out.length,
  };
}

/**
 * The test with the largest expected number of candidates ruled out per minute,
 * each answer taken as equally likely. What rules out nothing comes after by
 * what it could point to; what tells nothing apart is not proposed.
 */
function nextTest(
  { questions: all }: Breakdown,
  side: Side,
  states: readonly QuestionState[],
  candidates: readonly Candidate[],
  facts: Facts,
  choosing: Choosing,
): NextTest | null {
  let best: (NextTest & { readonly worth: number; readonly tellsPerMinute: number }) | null = null;
  for (const question of all) {
    const state = states.find((s) => s.question === question)!;
    // Undecided is not asked again today; a side that is still missing is.
    if (state.state === 'waits') continue;
    const asked = limbsAsked(question, states, side);
    for (const test of testsFor(question, facts, side, choosing)) {
      if (!concerns(test.side, asked)) continue;
      const { tells, rulesOut } = worthOf(question, test.side, asked, candidates, side);
      if (tells.length === 0) continue;
      const minutes = Math.max(test.secondsToAnswer, 1) / 60;
      const worth = rulesOut / minutes;
      const tellsPerMinute = tells.length / minutes;
      if (!best || worth > best.worth || (worth === best.worth && tellsPerMinute > best.tellsPerMinute))
        best = { test, question, tells, rulesOut, worth, tellsPerMinute };
    }
  }
  if (!best) return null;
  const { test, question, tells, rulesOut } = best;
  return { test, question, tells, rulesOut };
}
