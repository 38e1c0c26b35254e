import { COMMON_PRACTICE } from '../terms.js';
import { active, cut, endFeel, fault, gain, item, passive, value, when } from './define.js';
import type { Breakdown, Question } from './types.js';

const RAISE = passive('muscleLength.straightLegRaise/supine');

const nerve: Question = {
  id: 'nerve',
  asks: 'Leg raised: does the pull change with the ankle or the neck?',
  look: { look: 'item', of: [item('tableExam', 'raiseAnkleUp')] },
  answers: [
    when('short', 'the pull changes with ankle or neck', ['neural'], [], { advice: 'Do not stretch what behaves like a nerve.' }),
    when('meets', 'the pull does not change with ankle or neck', ['hamstrings'], ['neural']),
  ],
};

const ownRaise: Question = {
  id: 'ownRaise',
  asks: 'Does the leg rise as far by its own strength as by hand?',
  look: gain(10, [active('muscleLength.straightLegRaise/supine'), RAISE]),
  answers: [
    when('gains', 'by hand much further than by its own strength', ['endRangeControl']),
    when('same', 'by its own strength as far as by hand', [], ['endRangeControl']),
  ],
};

/** What is short at the back and the front of the leg. @see common practice, no source */
export const LEG_LENGTH_BREAKDOWNS: readonly Breakdown[] = [
  {
    pattern: 'toeTouch',
    name: 'Toe touch is short',
    candidates: ['hamstrings', 'neural', 'backMobility', 'endRangeControl'],
    openedBy: ['distance.fingerToFloor'],
    questions: [
      {
        id: 'raise',
        asks: 'Lying, how far does the straight leg rise by hand?',
        look: value(cut(70), RAISE, passive('muscleLength.straightLegRaise/supine-thigh')),
        answers: [
          when(
            'from',
            'the leg rises to 70° or more: the hamstrings are long enough, it is the back or control',
            ['backMobility', 'endRangeControl'],
            ['hamstrings', 'neural'],
          ),
          when('below', 'the leg rises to less than 70°: hamstrings or nerve', [], []),
        ],
      },
      nerve,
      ownRaise,
      {
        id: 'lumbar',
        asks: 'How far does the low back bend forward?',
        look: value(cut(40), active('lumbar.flexion/standing')),
        answers: [
          when('below', 'the low back bends less than 40°', ['backMobility']),
          when('from', 'the low back bends 40° or more', [], ['backMobility']),
        ],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'legRaise',
    name: 'Straight-leg raise is short',
    candidates: ['hamstrings', 'neural', 'endRangeControl'],
    openedBy: ['muscleLength.straightLegRaise'],
    questions: [
      {
        id: 'raise',
        asks: 'How far does it rise by hand?',
        look: value(cut(70), RAISE, passive('muscleLength.straightLegRaise/supine-thigh')),
        answers: [
          when('from', '70° or more by hand: long enough', [], ['hamstrings', 'neural']),
          when('below', 'less than 70° by hand', [], []),
        ],
      },
      {
        id: 'kneeBent',
        asks: 'Does the hip bend further once the knee is bent?',
        look: gain(10, [RAISE, passive('hip.flexion/supine')]),
        answers: [
          when('gains', 'the hip bends further with the knee bent', ['hamstrings'], []),
          when('same', 'bending the knee gains nothing: not the hamstrings', [], ['hamstrings']),
        ],
      },
      nerve,
      ownRaise,
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'edgeDrop',
    name: 'Hip extension at the edge of the table is short',
    candidates: ['hipFlexors', 'thighFront', 'lateralBand'],
    openedBy: ['muscleLength.hipExtensionDrop', 'hip.extension'],
    questions: [
      {
        id: 'thigh',
        asks: 'Does the thigh come level, the other knee held?',
        look: value(cut(0), passive('muscleLength.hipExtensionDrop/supine')),
        answers: [
          when('below', 'the thigh stays above level', ['hipFlexors']),
          when('from', 'the thigh comes level or below', [], ['hipFlexors']),
        ],
      },
      {
        id: 'straighten',
        asks: 'Does the thigh drop when the knee is straightened?',
        look: { look: 'itemGain', of: item('hipSixWays', 'edgeDrop'), change: 'kneeStraight', least: 5, source: COMMON_PRACTICE },
        answers: [
          when('gains', 'the thigh drops with the knee straightened', ['thighFront'], []),
          when('same', 'the thigh stays where it was with the knee straightened', [], ['thighFront']),
        ],
      },
      {
        id: 'knee',
        asks: 'To how many degrees does the knee hang bent?',
        look: value(cut(80, 'deg', 90), passive('muscleLength.kneeDrop/supine')),
        answers: [
          when('below', 'the knee hangs at less than 80°', ['thighFront']),
          when('from', 'the knee hangs at 90° or more', [], ['thighFront']),
        ],
      },
      {
        id: 'drift',
        asks: 'Does the thigh drift outward?',
        look: fault(item('hipSixWays', 'edgeDrop'), 'thighDriftsOut'),
        answers: [when('seen', 'the thigh drifts out', ['lateralBand']), when('not-seen', 'the thigh does not drift', [], ['lateralBand'])],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'kneeAfterInjury',
    name: 'Knee bends too little',
    candidates: ['thighFront', 'endRangeControl'],
    openedBy: ['knee.flexion', 'distance.heelToButtock'],
    questions: [
      {
        id: 'hipBent',
        asks: 'Does the knee bend further with the hip bent than face down?',
        look: gain(
          10,
          [passive('muscleLength.proneKneeBend/prone'), passive('knee.flexion/supine')],
          [passive('knee.flexion/prone'), passive('knee.flexion/supine')],
        ),
        answers: [
          when('gains', 'the knee bends further with the hip bent', ['thighFront']),
          when('same', 'the knee bends no further with the hip bent', [], ['thighFront']),
        ],
      },
      {
        id: 'ownBend',
        asks: 'Does it bend as far by its own strength as by hand?',
        look: gain(
          10,
          ...(['supine', 'prone', 'sitting'] as const).map((at) => [active(`knee.flexion/${at}`), passive(`knee.flexion/${at}`)] as const),
        ),
        answers: [
          when('gains', 'by hand much further than by its own strength', ['endRangeControl']),
          when('same', 'by its own strength as far as by hand', [], ['endRangeControl']),
        ],
      },
      {
        id: 'kneeEnd',
        asks: 'How does the end of knee flexion feel?',
        look: endFeel(passive('knee.flexion/supine'), passive('knee.flexion/prone')),
        answers: [
          when(['soft', 'firm'], 'a usual end', [], []),
          when('hard', 'a hard end', [], ['thighFront'], { refer: 'A hard end of knee flexion: have it looked at.' }),
          when(['empty', 'springy', 'spasm'], 'an end that is no stretch', [], [], {
            refer: 'An empty, springy or guarded end: have it looked at.',
          }),
        ],
      },
    ],
    advice: [
      'The target is the other side, about 135°, heel to the buttock. After a joint replacement it is lower: ask the surgeon.',
      'A loss of extension matters more for walking than a loss of flexion: report it first.',
    ],
    refer: [],
    source: COMMON_PRACTICE,
  },
];
