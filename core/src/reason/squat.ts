import { ASSUMED_HAND } from '../angle/hands.js';
import { COMMON_PRACTICE } from '../terms.js';
import type { FaultId } from '../screen/index.js';
import { ANKLE_END, BENT_AND_STRAIGHT, FOOT_TURNS_OUT, WHERE_IT_PULLS } from './ankle.js';
import type { CandidateId } from './candidates.js';
import { clears, cut, endFeel, fault, gain, item, passive, squat, value, weaker, when } from './define.js';
import type { Breakdown, Question } from './types.js';

const ANKLE: readonly CandidateId[] = ['ankleDorsiflexion', 'calf', 'soleus', 'ankleJoint'];
const HIP_FLEXION = passive('hip.flexion/supine');

/** Least passive hip flexion for any squat; about 125° is usual. */
const hipFlexion = (against: readonly CandidateId[] = ['hipFlexionRange'], full: readonly CandidateId[] = []): Question => ({
  id: 'hipFlexion',
  asks: 'How far does the hip bend by hand, lying?',
  look: value(cut(110), HIP_FLEXION),
  answers: [
    when('below', 'less hip flexion than any squat needs', ['hipFlexionRange']),
    when('from', 'enough hip flexion for a squat', full, against),
  ],
});

/** Raise the heels and look again. */
const heelsRaised = (faults: readonly FaultId[], view: 'front' | 'side' | 'behind'): Question => ({
  id: 'heelsRaised',
  asks: 'Does it clean up with the heels raised?',
  look: clears(view, ...faults),
  answers: [
    when('clears', 'it cleans up with the heels raised', ['ankleDorsiflexion']),
    when('stays', 'it stays with the heels raised', [], ANKLE),
  ],
});

const kneeToWall = (enough: readonly CandidateId[] = [], against: readonly CandidateId[] = ANKLE): Question => ({
  id: 'kneeToWall',
  asks: 'Does the knee reach the wall from one fist away, heel down?',
  look: value(
    cut(ASSUMED_HAND.fist, 'cm'),
    ...(['active', 'passive'] as const).map((mode) => ({ protocol: 'distance.kneeToWall/standing', mode })),
  ),
  answers: [
    when('below', 'the knee does not reach the wall from one fist away', ['ankleDorsiflexion']),
    when('from', 'the knee reaches the wall from a fist away or more', enough, against),
  ],
});

const hipPush: Question = {
  id: 'hipPush',
  asks: 'Is the push of the hip outward or turning out weaker than on the other side?',
  look: weaker('strength.hipAbduction/sidelying', 'strength.hipExternalRotation/sitting'),
  answers: [
    when('less', 'the hip pushes less than the other one', ['hipStrength']),
    when('alike', 'both hips push alike', [], ['hipStrength']),
  ],
};

const hipTurnsIn: Question = {
  id: 'hipTurnsIn',
  asks: 'How far does the hip turn inward by hand?',
  look: value(
    cut(20),
    passive('hip.internalRotation/prone'),
    passive('hip.internalRotation/sitting'),
    passive('hip.internalRotation/supine-hip-90'),
  ),
  answers: [
    when('below', 'less than 20° inward: expect the knee or the low back to take over past 90° of squat', ['hipInternalRotation']),
    when('from', 'enough turning inward', [], ['hipInternalRotation']),
  ],
};

const footRolls = (view: 'front' | 'behind'): Question => ({
  id: 'foot',
  asks: 'Does the arch flatten or the heel roll in the squat?',
  look: { look: 'fault', of: [squat(view)], fault: view === 'front' ? ['footFlattens'] : ['heelRolls'] },
  answers: [when('seen', 'the foot gives way', ['footPosture']), when('not-seen', 'the foot stays as it is', [], ['footPosture'])],
});

const PAST = 'A past injury of hip or low back is usual here: ask for it.';
const NO_CHANGE = 'No change after a fair trial of a programme: refer on.';

/** What is seen in a squat. @see common practice, no source */
export const SQUAT_BREAKDOWNS: readonly Breakdown[] = [
  {
    pattern: 'squat.pelvisTucks',
    name: 'Squat: the pelvis tucks under',
    candidates: ['hipFlexionRange', 'hamstrings', 'glutealTissue', 'hipCapsule', 'hipShape', 'pelvicControl', 'depthPastRange'],
    onlyBlamed: ['hamstrings'],
    openedBy: [],
    questions: [
      {
        id: 'early',
        asks: 'Does it tuck early, almost as soon as the squat begins?',
        look: fault(squat('side'), 'pelvisTucksEarly'),
        answers: [when('seen', 'it tucks early', [], ['depthPastRange']), when('not-seen', 'it does not tuck early', [])],
      },
      {
        id: 'late',
        asks: 'Does it tuck only at the very bottom of a deep squat without a weight?',
        look: fault(squat('side'), 'pelvisTucksLate'),
        answers: [
          when('seen', 'it tucks only at the very bottom of a deep squat', ['depthPastRange'], [], {
            advice: 'Only at the very bottom of a deep squat without a weight it is normal. Shorten the depth if it is to be loaded.',
          }),
          when('not-seen', 'it does not tuck at the bottom', [], []),
        ],
      },
      hipFlexion(['hipFlexionRange', 'hamstrings', 'glutealTissue', 'hipCapsule', 'hipShape']),
      {
        id: 'bendTheKnee',
        asks: 'Does the hip bend further once the knee is bent, than with the leg straight?',
        look: gain(10, [passive('muscleLength.straightLegRaise/supine'), HIP_FLEXION]),
        after: [{ question: 'hipFlexion', answers: ['below'] }],
        answers: [
          when('gains', 'the hip bends further with the knee bent, as it is in a squat: not the hamstrings', [], ['hamstrings']),
          when('same', 'bending the knee gains nothing: the seat', ['glutealTissue']),
        ],
      },
      {
        id: 'hipEnd',
        asks: 'How does the end of hip flexion feel?',
        look: endFeel(HIP_FLEXION),
        after: [{ question: 'hipFlexion', answers: ['below'] }],
        answers: [
          when('firm', 'a firm stretch behind', ['glutealTissue'], ['hipShape']),
          when('hard', 'a hard end', ['hipShape'], ['glutealTissue'], {
            refer: 'A hard end of hip flexion: refer for assessment of joint and shape.',
          }),
          when('soft', 'a soft end', [], []),
          when(['empty', 'springy', 'spasm'], 'an end that is no stretch', [], [], {
            refer: 'An empty, springy or guarded end: have it looked at.',
          }),
        ],
      },
      {
        id: 'pinch',
        asks: 'Does it pinch in front of the hip, bent, across and turned in?',
        look: { look: 'fault', of: [item('tableExam', 'hipTurnIn')], fault: ['pinchInFront'] },
        answers: [
          when('seen', 'a pinch in front', ['hipCapsule', 'hipShape'], [], {
            refer: 'A pinch in front with flexion and inward turning: refer for assessment.',
          }),
          when('not-seen', 'no pinch in front', [], ['hipShape']),
        ],
      },
      {
        id: 'rockBack',
        asks: 'On hands and knees, does the low back stay still until the hips are bent to 110°?',
        look: { look: 'item', of: [item('squatCheck', 'rockBack')] },
        answers: [
          when('short', 'it tucks early on hands and knees too', ['pelvicControl'], ['depthPastRange']),
          when('meets', 'it holds to 110° or more without load', ['depthPastRange'], ['pelvicControl']),
        ],
      },
    ],
    advice: [PAST],
    refer: [NO_CHANGE],
    schools: [
      {
        about: 'Is tucking at the bottom a fault?',
        say: [
          'No: every pelvis tucks at the end of its hip flexion; only early or under load it counts.',
          'Yes: depth ends where the pelvis begins to tuck.',
        ],
      },
    ],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'squat.trunkTooUpright',
    name: 'Squat: the trunk stays too upright',
    candidates: ['forwardLeanAvoided', 'hipStrength', 'hipFlexionRange'],
    openedBy: [],
    questions: [
      {
        id: 'without',
        asks: 'Is the trunk too upright without a heel lift?',
        look: fault(squat('side'), 'trunkTooUpright'),
        answers: [
          when('seen', 'too upright with the heels on the floor', ['forwardLeanAvoided']),
          when('not-seen', 'not too upright with the heels on the floor', [], ['forwardLeanAvoided', 'hipStrength', 'hipFlexionRange']),
        ],
      },
      hipFlexion(),
      {
        id: 'hipExtensors',
        asks: 'Is the push of the hip backward weaker than on the other side?',
        look: weaker('strength.hipExtension/prone'),
        answers: [
          when('less', 'the hip pushes back less than the other one', ['hipStrength']),
          when('alike', 'both hips push back alike', [], ['hipStrength']),
        ],
      },
    ],
    advice: ['Look for past low back trouble.', 'With the heels raised an upright trunk says nothing.'],
    refer: [NO_CHANGE],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'squat.trunkFallsForward',
    name: 'Squat: the trunk falls forward',
    candidates: [...ANKLE, 'hipFlexionRange'],
    openedBy: [],
    questions: [heelsRaised(['trunkFallsForward'], 'side'), kneeToWall(), BENT_AND_STRAIGHT, ANKLE_END, hipFlexion()],
    advice: ['The ankle comes first, then the hip.'],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'squat.heelLifts',
    name: 'Squat: the heel lifts',
    candidates: [...ANKLE, 'hipFlexionRange'],
    openedBy: [],
    questions: [
      heelsRaised(['heelLifts', 'footTurnsOut', 'notDeep'], 'side'),
      kneeToWall(),
      BENT_AND_STRAIGHT,
      ANKLE_END,
      WHERE_IT_PULLS,
      hipFlexion(),
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'squat.notDeep',
    name: 'Squat: it does not reach depth',
    candidates: [...ANKLE, 'hipFlexionRange', 'endRangeControl'],
    openedBy: [],
    questions: [
      heelsRaised(['notDeep', 'heelLifts'], 'side'),
      kneeToWall(),
      BENT_AND_STRAIGHT,
      ANKLE_END,
      hipFlexion(['hipFlexionRange']),
      {
        id: 'kneeLift',
        asks: 'By its own strength, does the hip bend nearly as far as by hand?',
        look: gain(10, [{ protocol: 'hip.flexion/supine', mode: 'active' }, HIP_FLEXION]),
        answers: [
          when('gains', 'much more by hand than by its own strength', ['endRangeControl']),
          when('same', 'by its own strength as far as by hand', [], ['endRangeControl']),
        ],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'squat.leans',
    name: 'Squat: it leans to a side',
    candidates: [...ANKLE, 'hipFlexionRange', 'hipInternalRotation', 'hipStrength'],
    openedBy: [],
    questions: [
      heelsRaised(['pelvisShifts', 'hipDrops', 'oneSideDeeper'], 'behind'),
      kneeToWall(),
      BENT_AND_STRAIGHT,
      ANKLE_END,
      hipFlexion(),
      hipTurnsIn,
      hipPush,
    ],
    advice: ['Who runs out of ankle on one side turns the pelvis, drops a hip or rolls the knee in to win range: compare both ankles.'],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'squat.kneeRollsIn',
    name: 'Squat: the knee rolls in',
    candidates: [...ANKLE, 'hipStrength', 'footPosture', 'hipInternalRotation'],
    openedBy: [],
    questions: [
      heelsRaised(['kneeRollsIn'], 'front'),
      kneeToWall(['hipStrength', 'footPosture']),
      BENT_AND_STRAIGHT,
      ANKLE_END,
      hipPush,
      footRolls('front'),
      hipTurnsIn,
    ],
    advice: ['With too little dorsiflexion the knee is borrowing range; with enough, look at hip and foot.'],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'squat.footFlattens',
    name: 'Squat: the foot flattens',
    candidates: [...ANKLE, 'footPosture', 'footMobility', 'hipStrength'],
    openedBy: [],
    questions: [
      heelsRaised(['footFlattens'], 'front'),
      kneeToWall(['hipStrength', 'footPosture']),
      BENT_AND_STRAIGHT,
      ANKLE_END,
      {
        id: 'standing',
        asks: 'Is the arch flat already in quiet standing?',
        look: { look: 'fault', of: [item('posture', 'frontView')], fault: ['footFlattens'] },
        answers: [
          when('seen', 'flat already in quiet standing', ['footPosture']),
          when('not-seen', 'not flat in quiet standing', [], ['footPosture']),
        ],
      },
      FOOT_TURNS_OUT,
      hipPush,
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
];
