import { COMMON_PRACTICE } from '../terms.js';
import { active, cut, endFeel, fault, gain, item, passive, value, weaker, when } from './define.js';
import { ANKLE_END, BENT_AND_STRAIGHT, FOOT_TURNS_OUT, WHERE_IT_PULLS } from './ankle.js';
import type { Breakdown, Question } from './types.js';

const hipTurns = (id: 'inward' | 'outward'): Question => ({
  id,
  asks: `Does the hip turn ${id} as far by its own strength as by hand?`,
  look: gain(
    10,
    ...(['sitting', 'prone'] as const).map(
      (at) =>
        [
          active(`hip.${id === 'inward' ? 'internalRotation' : 'externalRotation'}/${at}`),
          passive(`hip.${id === 'inward' ? 'internalRotation' : 'externalRotation'}/${at}`),
        ] as const,
    ),
  ),
  answers: [
    when('gains', `much more ${id} by hand than by its own strength`, ['endRangeControl']),
    when('same', `${id} by its own strength as far as by hand`, [], ['endRangeControl']),
  ],
});

const inwardRange: Question = {
  id: 'inwardRange',
  asks: 'How far does the hip turn inward by hand?',
  look: value(
    cut(20),
    passive('hip.internalRotation/prone'),
    passive('hip.internalRotation/sitting'),
    passive('hip.internalRotation/supine-hip-90'),
  ),
  answers: [
    when('below', 'less than 20° inward', ['hipInternalRotation']),
    when('from', '20° inward or more', [], ['hipInternalRotation']),
  ],
};

/** Hip and foot, standing on one leg, the path to the floor. @see common practice, no source */
export const LEG_BREAKDOWNS: readonly Breakdown[] = [
  {
    pattern: 'dorsiflexionStuck',
    name: 'Ankle dorsiflexion is short',
    candidates: ['calf', 'soleus', 'ankleJoint', 'footMobility', 'greatToe'],
    openedBy: ['ankle.dorsiflexion', 'distance.kneeToWall', 'muscleLength.calfKneeStraight', 'muscleLength.calfKneeBent'],
    questions: [
      BENT_AND_STRAIGHT,
      ANKLE_END,
      WHERE_IT_PULLS,
      {
        id: 'inversion',
        asks: 'How far does the foot turn inward?',
        look: value(cut(20), passive('subtalar.inversion/sitting'), passive('subtalar.inversion/prone')),
        answers: [
          when('below', 'the foot turns in less than 20°', ['footMobility']),
          when('from', 'the foot turns in 20° or more', [], []),
        ],
      },
      FOOT_TURNS_OUT,
      {
        id: 'greatToe',
        asks: 'How far does the great toe come up?',
        look: value(cut(60), passive('greatToeMtp.extension/sitting'), passive('greatToeMtp.extension/supine')),
        answers: [
          when('below', 'the great toe comes up less than 60°', ['greatToe']),
          when('from', 'the great toe comes up 60° or more', [], ['greatToe']),
        ],
      },
    ],
    advice: ['Long work on dorsiflexion without a change: test how the foot turns, and the great toe.'],
    refer: ['No change after a fair trial of a programme: refer on.'],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'hipRotation',
    name: 'Hip turns or opens too little',
    candidates: ['hipInternalRotation', 'hipCapsule', 'hipShape', 'endRangeControl'],
    openedBy: ['hip.internalRotation', 'hip.externalRotation', 'hip.abduction', 'hip.adduction'],
    questions: [
      inwardRange,
      hipTurns('inward'),
      hipTurns('outward'),
      {
        id: 'inwardShort',
        asks: 'Is turning inward by hand short of what is expected, or of the other side?',
        look: {
          look: 'finding',
          kinds: ['short-of-normal', 'short-of-other-side'],
          motions: ['hip.internalRotation'],
          mode: 'passive',
          toFind: [],
        },
        answers: [when('found', 'turning inward by hand is short', [])],
      },
      {
        // A firm end is the usual one: of a hip that turns freely it says nothing.
        id: 'turnEnd',
        asks: 'How does the end of turning inward feel?',
        after: [
          { question: 'inwardRange', answers: ['below'] },
          { question: 'inwardShort', answers: ['found'] },
        ],
        look: endFeel(
          passive('hip.internalRotation/prone'),
          passive('hip.internalRotation/sitting'),
          passive('hip.internalRotation/supine-hip-90'),
        ),
        answers: [
          when('firm', 'a firm end', ['hipCapsule'], ['hipShape']),
          when('hard', 'a hard end', ['hipShape'], ['hipCapsule'], { refer: 'A hard end of turning the hip: refer for assessment.' }),
          when('soft', 'a soft end', [], []),
          when(['empty', 'springy', 'spasm'], 'an end that is no stretch', [], [], {
            refer: 'An empty, springy or guarded end: have it looked at.',
          }),
        ],
      },
      {
        id: 'order',
        asks: 'Are the losses of the hip in the order of its capsule?',
        look: {
          look: 'finding',
          kinds: ['capsular-pattern'],
          motions: ['hip.internalRotation', 'hip.flexion', 'hip.abduction'],
          toFind: [],
        },
        answers: [when('found', 'the losses are in the order of the capsule', ['hipCapsule'])],
      },
    ],
    advice: ['Below about 20° inward expect the knee or the low back to take over past 90° of squat.'],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'oneLegStance',
    name: 'Standing on one leg is short',
    candidates: ['hipStrength', 'footPosture', 'footMobility', 'ankleDorsiflexion'],
    openedBy: ['balance.singleLegStanceEyesOpen', 'balance.singleLegStanceEyesClosed'],
    questions: [
      {
        id: 'hipPush',
        asks: 'Is the push of the hip outward weaker than on the other side?',
        look: weaker('strength.hipAbduction/sidelying'),
        answers: [
          when('less', 'the hip pushes less than the other one', ['hipStrength']),
          when('alike', 'both hips push alike', [], ['hipStrength']),
        ],
      },
      {
        id: 'hipDrops',
        asks: 'Does the hip drop while standing on one leg?',
        look: { look: 'fault', of: [item('posture', 'stanceOpen'), item('posture', 'stanceClosed')], fault: ['hipDrops'] },
        answers: [when('seen', 'the hip drops', ['hipStrength']), when('not-seen', 'the hip does not drop', [], [])],
      },
      {
        id: 'arch',
        asks: 'Is the arch flat in quiet standing?',
        look: fault(item('posture', 'frontView'), 'footFlattens'),
        answers: [when('seen', 'the arch is flat', ['footPosture']), when('not-seen', 'the arch is not flat', [], ['footPosture'])],
      },
      FOOT_TURNS_OUT,
      {
        id: 'ankle',
        asks: 'How far does the ankle come up, standing?',
        look: value(cut(8.5, 'cm'), active('distance.kneeToWall/standing')),
        answers: [
          when('below', 'the knee does not reach the wall from one fist away', ['ankleDorsiflexion']),
          when('from', 'the knee reaches the wall from a fist away or more', [], ['ankleDorsiflexion']),
        ],
      },
    ],
    advice: ['Dizziness and hearing belong to balance too: ask.'],
    refer: ['Falls, or a sudden change: have it looked at.'],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'floorPath',
    name: 'Floor path breaks',
    candidates: ['endRangeControl', 'hipInternalRotation', 'hipFlexionRange'],
    openedBy: [],
    questions: [
      inwardRange,
      {
        ...hipTurns('inward'),
        answers: [
          when(
            'gains',
            'plenty of turning by hand, little by its own strength: range without strength',
            ['endRangeControl'],
            ['hipInternalRotation'],
          ),
          when('same', 'by its own strength as far as by hand', [], ['endRangeControl']),
        ],
      },
      {
        id: 'outToSide',
        asks: 'Does the leg go out to the side as far by its own strength as by hand?',
        look: gain(
          10,
          ...(['supine', 'sidelying'] as const).map((at) => [active(`hip.abduction/${at}`), passive(`hip.abduction/${at}`)] as const),
        ),
        answers: [
          when('gains', 'much further out by hand than by its own strength', ['endRangeControl']),
          when('same', 'out to the side by its own strength as far as by hand', [], []),
        ],
      },
      {
        id: 'hipFlexion',
        asks: 'How far does the hip bend by hand, lying?',
        look: value(cut(110), passive('hip.flexion/supine')),
        answers: [
          when('below', 'less than 110° of hip flexion', ['hipFlexionRange']),
          when('from', '110° of hip flexion or more', [], ['hipFlexionRange']),
        ],
      },
    ],
    advice: ['Plenty of range and a lean or hands on the floor: range without strength.'],
    refer: [],
    source: COMMON_PRACTICE,
  },
];
