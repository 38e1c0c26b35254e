import { POSITION_WORDS, protocolOfId, motion } from '../catalogue/index.js';
import { findItem, findScreen, faultWords, MODIFICATION_WORDS, VIEW_WORDS, amountWords, type ScreenItem } from '../screen/index.js';
import type { Side } from '../terms.js';
import { formatNumber, formatSigned, suffixOf } from '../words/figures.js';
import { listed, lower, say, upper } from '../words/say.js';
import type { Answered } from './answer.js';
import { CANDIDATES, type CandidateId } from './candidates.js';
import type { Candidate, CandidateState, CandidateEvidence, NextTest } from './reason.js';
import type { Test } from './tests.js';

export const candidateWords = (id: CandidateId): string => say(CANDIDATES[id]);

/** "could be", "points to it", "speaks against it": never more than that. Of one limb of a pattern that was seen as a whole: "points to it, right". */
export function stateWords({ state, limbs }: Pick<Candidate, 'state' | 'limbs'>): string {
  const words = STATE_WORDS[state];
  const alike = limbs.filter((limb) => limb.state === state);
  return limbs.length > 1 && alike.length === 1 && state === 'pointsTo'
    ? say('{state}, {side}', { state: say(words), side: say(alike[0]!.side) })
    : say(words);
}

const STATE_WORDS: Readonly<Record<CandidateState, string>> = {
  open: 'could be',
  pointsTo: 'points to it',
  speaksAgainst: 'speaks against it',
};

const sideWord = (side: Side): string => (side === 'midline' ? '' : `${say(side)}: `);

/** The figure behind an answer, with its error. */
export function figureWords({ figure }: Answered): string {
  if (!figure) return '';
  switch (figure.kind) {
    case 'value': {
      const { value, band, cut } = figure;
      const suffix = suffixOf(cut.unit);
      const parts = {
        value: formatNumber(value),
        band: formatNumber(Math.round(band * 10) / 10),
        at: formatNumber(cut.below),
        upTo: formatNumber(cut.from),
        suffix,
      };
      return cut.below === cut.from
        ? say('{value}{suffix} ± {band}, the line is at {at}{suffix}', parts)
        : say('{value}{suffix} ± {band}, the line lies from {at} to {upTo}{suffix}', parts);
    }
    case 'gain':
      return say('{from} to {to}{suffix}, {gain} with an error of {mdc}', {
        from: formatNumber(figure.from),
        to: formatNumber(figure.to),
        suffix: suffixOf(figure.unit),
        gain: formatSigned(figure.gain),
        mdc: formatNumber(Math.round(figure.mdc * 10) / 10),
      });
    case 'other-side':
      return say('{value} against {other}, error {mdc}', {
        value: amountWords(figure.value, figure.unit),
        other: amountWords(figure.other, figure.unit),
        mdc: formatNumber(Math.round(figure.mdc * 10) / 10),
      });
    case 'helped':
      return say('{name} was helped along', { name: lower(motion(figure.motion).name) });
    case 'faults':
      return figure.seen.length > 0 ? listed(figure.seen.map(faultWords)) : '';
    case 'item':
      return figure.value === null || figure.unit === null ? '' : amountWords(figure.value, figure.unit);
    case 'end-feel':
      return say(figure.endFeel);
  }
}

/** "left: the knee does not reach the wall from one fist away (4 cm ± 1, the line is at 8.5 cm)" */
export function evidenceWords({ answered, says }: CandidateEvidence): string {
  const figure = figureWords(answered);
  return `${sideWord(answered.side)}${say(says.says)}${figure ? ` (${figure})` : ''}`;
}

/** Why something that was looked at decides nothing. */
export function undecidedWords(answered: Answered): string {
  const parts = { side: sideWord(answered.side), figure: figureWords(answered) };
  return answered.figure?.kind === 'helped'
    ? say('{side}{figure}: it decides nothing, measure again', parts)
    : say('{side}{figure}: inside its error, it decides nothing', parts);
}

/** The item of a test. */
export function itemOfTest(test: Extract<Test, { kind: 'item' }>): ScreenItem | undefined {
  const screen = findScreen(test.of.screen);
  return screen && findItem(screen, test.of.item);
}

/** "Left knee to wall, standing": what to do next. */
export function testWords(test: Test): string {
  return upper(wordsOf(test));
}

function wordsOf(test: Test): string {
  const side = test.side === 'midline' ? '' : `${say(test.side)} `;
  if (test.kind === 'measurement') {
    const protocol = protocolOfId(test.way.protocol)!;
    const { name, unit } = motion(protocol.motion);
    return [`${side}${lower(name)}`, unit === 'deg' ? say(test.way.mode) : '', protocol.label].filter(Boolean).join(', ');
  }
  const { view, with: changes = [] } = test.of;
  return [
    `${side}${lower(itemOfTest(test)?.name ?? test.of.item)}`,
    view ? say(VIEW_WORDS[view]) : '',
    ...changes.map((change) => say(MODIFICATION_WORDS[change])),
    say(POSITION_WORDS[test.position]),
  ]
    .filter(Boolean)
    .join(', ');
}

/** "calf, soleus and ankle joint": what the next test tells apart. */
export const tellsWords = ({ tells }: NextTest): string => listed(tells.map(candidateWords));
