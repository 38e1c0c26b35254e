import { motion, protocolName, protocolOfId } from '../catalogue/index.js';
import { say } from '../words/say.js';
import { formatNumber, formatSigned } from '../words/figures.js';
import type { Apart } from './examiners.js';
import type { AnswerOf, TaskOf } from './exercises.js';
import { stationWords, type Station } from '../plan/index.js';
import { MOST_PARALLAX } from './read.js';
import type { ExerciseId, SlipId } from './types.js';

/** What an exercise is called, and what it asks. */
export const EXERCISE_WORDS: Readonly<Record<ExerciseId, { readonly name: string; readonly asks: string; readonly trains: string }>> = {
  read: { name: 'Read the goniometer', asks: 'What does it read?', trains: 'which ring, half degrees, the eye square above the line' },
  place: {
    name: 'Place the goniometer',
    asks: 'Lay axis, still arm and moving arm.',
    trains: 'axis and arms on the figures of the library',
  },
  side: { name: 'Their left, their right', asks: 'Which of THEIR sides is marked?', trains: 'the side after a turn' },
  name: { name: 'Name the motion', asks: 'Which motion is it?', trains: 'by the bone that turns, not by foot or hand' },
  plane: {
    name: 'Hold it in plane',
    asks: 'Take the limb to its honest end, keep the inclinometer in plane, hold.',
    trains: 'a simulated inclinometer on a simulated limb',
  },
  feel: {
    name: 'End feel and substitution',
    asks: 'What was it, and where was the honest end?',
    trains: 'end feel and substitution as they are told',
  },
  examiners: { name: 'Three examiners', asks: 'Does one of them stand apart?', trains: 'telling bias and scatter from chance' },
};

/** What went wrong, in a few words. */
export const SLIP_WORDS: Readonly<Record<SlipId, string>> = {
  otherRing: 'read on the other ring',
  wrongWay: 'counted from the wrong ten',
  tens: 'ten degrees off',
  parallax: 'the eye was not square above the line',
  half: 'half a degree',
  misread: 'misread',
  axis: 'axis off the joint',
  stillArm: 'still arm off its line',
  movingArm: 'moving arm off its line',
  armsSwapped: 'still and moving arm swapped',
  otherSide: 'the other side',
  byFarEnd: 'named by the far end, not by the bone',
  otherMotion: 'another motion',
  outOfPlane: '10° or more out of plane',
  refused: '30° or more out of plane: nothing could be read',
  tooEarly: 'held before the end',
  pastEnd: 'past the honest end: the neighbour was counted in',
  endFeel: 'another end feel',
  unusualMissed: 'an unusual end taken for usual',
  usualDoubted: 'a usual end taken for unusual',
  substitutionMissed: 'substitution not seen',
  substitutionInvented: 'substitution where there was none',
  otherSubstitution: 'another substitution',
  chanceCalled: 'chance taken for a difference',
  apartMissed: 'the one who stands apart not seen',
  otherExaminer: 'another examiner',
  otherHow: 'bias and scatter mixed up',
  estimate: 'best figure off',
};

export const APART_WORDS: Readonly<Record<Apart, string>> = {
  higher: 'reads higher than the others',
  lower: 'reads lower than the others',
  unsteady: 'scatters more than the others',
};

export const examinerName = (who: number): string => say('Examiner {letter}', { letter: 'ABC'.charAt(who) });

/** What was right, and why: said once an answer is given. */
const TOLD: { readonly [K in ExerciseId]: (task: TaskOf<K>, answer: AnswerOf<K>) => string } = {
  read: ({ truth, ring }, { eye }) => {
    const it = say('It reads {degrees}° on the {ring} ring, which counts from the still arm.', {
      degrees: formatNumber(truth),
      ring: say(ring),
    });
    const seemed = MOST_PARALLAX * eye;
    return Math.abs(seemed) < 0.5
      ? it
      : `${it} ${say('From where the eye was, the line seemed to lie {off}° off.', { off: formatSigned(seemed) })}`;
  },
  place: ({ protocol }) => {
    const { placement } = protocol;
    if (placement.how !== 'arms') return protocolName(protocol);
    return say('{protocol}. Axis: {axis}. Still arm: {still}. Moving arm: {moving}.', {
      protocol: protocolName(protocol),
      axis: placement.axis,
      still: placement.still,
      moving: placement.moving,
    });
  },
  side: ({ side, marked }) => say('It is their {side} side: the one that is {where}.', { side: say(side), where: markedWords(marked) }),
  name: ({ protocol }) =>
    protocol.namingTrap
      ? say('{name}. {trap}', { name: motion(protocol.motion).name, trap: protocol.namingTrap })
      : say('{name}.', { name: motion(protocol.motion).name }),
  plane: ({ truth, substitution }) =>
    substitution
      ? say('The joint itself goes {degrees}°. From there on: {substitution}.', {
          degrees: formatNumber(truth),
          substitution: substitution.label,
        })
      : say('The joint goes {degrees}° and stops there.', { degrees: formatNumber(truth) }),
  feel: ({ protocol, feel, substitution, truth }) =>
    [
      say('The end was {feel}; usual here: {usual}.', { feel: say(feel), usual: protocol.endFeel.map((one) => say(one)).join(', ') }),
      substitution
        ? say('From {degrees}° on: {substitution}. The honest reading is {degrees}°.', { degrees: truth, substitution: substitution.label })
        : say('Nothing gave; the reading is {degrees}°.', { degrees: truth }),
    ].join(' '),
  examiners: ({ apart, truth }) =>
    [
      apart
        ? say('{who} {how}.', { who: examinerName(apart.who), how: APART_WORDS[apart.how] })
        : say('Nobody stands apart: what differs is chance.'),
      say('The limb goes {degrees}°.', { degrees: formatNumber(truth) }),
    ].join(' '),
};

export function toldAfter<K extends ExerciseId>(id: K, task: TaskOf<K>, answer: AnswerOf<K>): string {
  return TOLD[id](task, answer);
}

/** Where a marked limb is, for whoever looks. */
export function markedWords(marked: TaskOf<'side'>['marked']): string {
  switch (marked) {
    case 'your left':
      return say('on your left');
    case 'your right':
      return say('on your right');
    case 'up':
      return say('up');
    case 'on the table':
      return say('on the table');
  }
}

/** What a card trains, in words. */
export function cardWords(id: ExerciseId, card: string): string {
  const protocol = protocolOfId(card);
  if (protocol) return protocolName(protocol);
  const [first, second, third] = card.split('/');
  switch (id) {
    case 'read':
      return say('{step}, {eye}, {ring} ring', {
        step: first === 'half' ? say('half degrees') : say('whole degrees'),
        eye: second === 'askew' ? say('eye askew') : say('eye square'),
        ring: say(third ?? ''),
      });
    case 'side':
      return say('{station}, seen from the {end}', { station: stationWords(first as Station), end: say(second ?? '') });
    case 'plane':
      return say('{hold}, {end}', {
        hold: first === 'rolls' ? say('turns while it moves') : say('lies askew'),
        end: second === 'gives' ? say('a neighbour gives') : say('the joint stops'),
      });
    case 'feel':
      return say('{feel}, {end}', { feel: say(first ?? ''), end: second === 'gives' ? say('with a substitution') : say('nothing gives') });
    default:
      return card === 'alike' ? say('nobody stands apart') : APART_WORDS[card as Apart];
  }
}
