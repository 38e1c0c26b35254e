import type { CandidateId, QuestionState, Reasoned } from '@dial-gauge/core';
import { candidateWords, evidenceWords, stateWords, testWords, undecidedWords } from '@dial-gauge/core';

/** A box of the drawing. */
export interface PathBox {
  readonly id: string;
  readonly kind: 'pattern' | 'question' | 'candidate';
  readonly state: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly title: readonly string[];
  readonly lines: readonly string[];
  readonly label: string;
}

/** A line between two boxes: taken, open, or spoken against. */
export interface PathLine {
  readonly id: string;
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly kind: 'taken' | 'open' | 'against';
  readonly word: string;
}

export interface Path {
  readonly boxes: readonly PathBox[];
  readonly lines: readonly PathLine[];
  readonly width: number;
  readonly height: number;
}

const WIDE = { pattern: 150, question: 250, candidate: 230 };
const AT = { pattern: 8, question: 206, candidate: 574 };
const GAP = 16;
const WIDTH = 812;

/** Words in lines no longer than so many letters. */
export function wrapped(text: string, letters: number): string[] {
  const lines: string[] = [''];
  for (const word of text.split(' ')) {
    const last = lines[lines.length - 1]!;
    if (last !== '' && `${last} ${word}`.length > letters) lines.push(word);
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`;
  }
  return lines;
}

const STATE_OF_QUESTION: Readonly<Record<QuestionState['state'], string>> = {
  answered: '',
  undecided: 'looked at: inside its error',
  open: 'not asked yet',
  waits: 'waits for another answer',
};

/** The path of a breakdown: the pattern, its questions one below the other, and what they speak for and against. */
export function pathOf(reasoned: Reasoned): Path {
  const { breakdown, side, questions, candidates, next } = reasoned;
  const boxes: PathBox[] = [];
  let y = 8;
  for (const state of questions) {
    const isNext = next?.question.id === state.question.id;
    const title = wrapped(state.question.asks, 34);
    const said = state.answers.map(({ says, answered }) => `${answered.side === 'midline' ? '' : `${answered.side}: `}${says.says}`);
    const more = said.length > 0 ? said : [isNext && next ? testWords(next.test) : STATE_OF_QUESTION[state.state]];
    const lines = more.flatMap((line) => wrapped(line, 38));
    const height = 16 + title.length * 17 + lines.length * 16;
    boxes.push({
      id: state.question.id,
      kind: 'question',
      state: isNext ? 'next' : state.state,
      x: AT.question,
      y,
      width: WIDE.question,
      height,
      title,
      lines,
      label: [...title, ...lines].join(' '),
    });
    y += height + GAP;
  }
  const below = y;
  const tall = candidates.map((c) => {
    const title = wrapped(candidateWords(c.id), 30);
    const lines = [`${stateWords(c)}${c.for.length + c.against.length > 0 ? `: ${c.for.length} for, ${c.against.length} against` : ''}`];
    return { c, title, lines, height: 16 + title.length * 17 + lines.length * 16 };
  });
  const whole = tall.reduce((sum, { height }) => sum + height + GAP, 0);
  let at = Math.max(8, (below - whole) / 2);
  for (const { c, title, lines, height } of tall) {
    boxes.push({
      id: c.id,
      kind: 'candidate',
      state: c.state,
      x: AT.candidate,
      y: at,
      width: WIDE.candidate,
      height,
      title,
      lines,
      label: [...title, ...lines].join(' '),
    });
    at += height + GAP;
  }
  const height = Math.max(below, at);
  const title = wrapped(`${breakdown.name}${side === 'midline' ? '' : `, ${side}`}`, 19);
  const tallest = 16 + title.length * 17;
  boxes.unshift({
    id: 'pattern',
    kind: 'pattern',
    state: 'answered',
    x: AT.pattern,
    y: Math.max(8, boxes[0]!.y + boxes[0]!.height / 2 - tallest / 2),
    width: WIDE.pattern,
    height: tallest,
    title,
    lines: [],
    label: title.join(' '),
  });
  return { boxes, lines: linesOf(reasoned, boxes), width: WIDTH, height: height + 8 };
}

function linesOf({ questions }: Reasoned, boxes: readonly PathBox[]): PathLine[] {
  const box = (id: string) => boxes.find((b) => b.id === id)!;
  const right = (b: PathBox): [number, number] => [b.x + b.width, b.y + b.height / 2];
  const left = (b: PathBox): [number, number] => [b.x, b.y + b.height / 2];
  const pattern = box('pattern');
  return questions.flatMap(({ question, state, answers }): PathLine[] => {
    const asked = box(question.id);
    const to: PathLine[] = [
      { id: `p-${question.id}`, from: right(pattern), to: left(asked), kind: state === 'answered' ? 'taken' : 'open', word: '' },
    ];
    const pro = new Set<CandidateId>(answers.flatMap(({ says }) => says.for ?? []));
    const contra = new Set<CandidateId>(answers.flatMap(({ says }) => says.against ?? []));
    for (const b of boxes.filter(({ kind }) => kind === 'candidate')) {
      const id = b.id as CandidateId;
      const kind = pro.has(id) ? 'taken' : contra.has(id) ? 'against' : null;
      const couldTell = question.answers.some((answer) => answer.for?.includes(id) || answer.against?.includes(id));
      if (kind) to.push({ id: `${question.id}-${id}`, from: right(asked), to: left(b), kind, word: kind === 'taken' ? '+' : '−' });
      else if (answers.length === 0 && couldTell && state !== 'waits')
        to.push({ id: `${question.id}-${id}`, from: right(asked), to: left(b), kind: 'open', word: '' });
    }
    return to;
  });
}

/** Everything for and against one candidate, in lines. */
export const linesFor = ({ candidates }: Reasoned, id: CandidateId): { pro: string[]; contra: string[] } => {
  const c = candidates.find((one) => one.id === id);
  return { pro: c?.for.map(evidenceWords) ?? [], contra: c?.against.map(evidenceWords) ?? [] };
};

/** What was looked at and decides nothing. */
export const undecidedLines = ({ questions }: Reasoned): string[] => questions.flatMap(({ undecided }) => undecided.map(undecidedWords));
