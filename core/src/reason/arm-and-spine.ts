import { COMMON_PRACTICE } from '../terms.js';
import { active, cut, gain, inMode, passive, value, when } from './define.js';
import type { Breakdown, Look, Question } from './types.js';

const CAPSULE = {
  id: 'order',
  asks: 'Are the losses of the shoulder in the order of its capsule?',
  look: {
    look: 'finding',
    kinds: ['capsular-pattern'],
    motions: ['shoulder.externalRotation', 'shoulder.abduction', 'shoulder.internalRotation'],
    toFind: [],
  },
  answers: [when('found', 'external rotation, then abduction, then internal rotation: the order of the capsule', ['shoulderCapsule'])],
} as const satisfies Question;

/** Turning while sitting: of chest and low back together from 40°, of the chest alone from 30°. */
const TRUNK_TURN: Look = {
  ...value(cut(40), active('thoracolumbar.rotation/sitting'), active('thoracic.rotation/sitting')),
  otherCuts: { 'thoracic.rotation/sitting': cut(30) },
};

/** Shoulder, forearm, wrist, neck and trunk. @see common practice, no source */
export const ARM_AND_SPINE_BREAKDOWNS: readonly Breakdown[] = [
  {
    pattern: 'overheadReach',
    name: 'Arms do not reach overhead',
    candidates: ['endRangeControl', 'thoracicSpine', 'shoulderCapsule', 'latissimus'],
    openedBy: ['shoulder.flexion', 'check.armsOverhead'],
    questions: [
      {
        id: 'lying',
        asks: 'Lying, do the arms reach overhead?',
        look: value(cut(160), passive('shoulder.flexion/supine'), active('shoulder.flexion/supine')),
        answers: [
          when('from', 'full when lying: chest and ribs were in the way', ['thoracicSpine'], ['shoulderCapsule', 'latissimus']),
          when('below', 'short when lying too: the shoulder', [], ['thoracicSpine']),
        ],
      },
      {
        id: 'own',
        asks: 'Do the arms come up as far by their own strength as by hand?',
        look: gain(
          10,
          ...(['supine', 'sitting', 'standing'] as const).map(
            (at) => [active(`shoulder.flexion/${at}`), passive(`shoulder.flexion/${at}`)] as const,
          ),
        ),
        answers: [
          when('gains', 'by hand much further than by their own strength', ['endRangeControl']),
          when('same', 'by their own strength as far as by hand', [], ['endRangeControl']),
        ],
      },
      {
        id: 'turnedOut',
        asks: 'How far do the arms come with the elbows turned outward, back flat?',
        look: value(
          cut(160),
          ...inMode('passive', 'muscleLength.latissimus/supine'),
          ...inMode('active', 'muscleLength.latissimus/supine'),
        ),
        answers: [
          when('below', 'short with the arms turned out', ['latissimus']),
          when('from', 'full with the arms turned out', [], ['latissimus']),
        ],
      },
      CAPSULE,
      {
        id: 'turnsOut',
        asks: 'How far does the shoulder turn outward by hand?',
        look: value(cut(60), passive('shoulder.externalRotation/supine'), passive('shoulder.externalRotation/prone')),
        answers: [
          when('below', 'less than 60° outward', ['shoulderCapsule']),
          when('from', '60° outward or more', [], ['shoulderCapsule']),
        ],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'handBehindBack',
    name: 'Hand does not reach up or down the back',
    candidates: ['shoulderCapsule', 'endRangeControl', 'thoracicSpine'],
    openedBy: [
      'shoulder.internalRotation',
      'distance.handBehindBackFromAbove',
      'distance.handBehindBackFromBelow',
      'distance.handsBehindBack',
    ],
    questions: [
      {
        id: 'turnsIn',
        asks: 'How far does the shoulder turn inward by hand?',
        look: value(cut(50), passive('shoulder.internalRotation/supine'), passive('shoulder.internalRotation/prone')),
        answers: [
          when('below', 'less than 50° inward', ['shoulderCapsule'], ['thoracicSpine']),
          when('from', '50° inward or more', [], ['shoulderCapsule']),
        ],
      },
      {
        id: 'own',
        asks: 'Does it turn inward as far by its own strength as by hand?',
        look: gain(
          10,
          ...(['supine', 'prone'] as const).map(
            (at) => [active(`shoulder.internalRotation/${at}`), passive(`shoulder.internalRotation/${at}`)] as const,
          ),
        ),
        answers: [
          when('gains', 'by hand much further than by its own strength', ['endRangeControl']),
          when('same', 'by its own strength as far as by hand', [], ['endRangeControl']),
        ],
      },
      CAPSULE,
      {
        id: 'chest',
        asks: 'How far does the chest bend back?',
        look: value(cut(15), active('thoracic.extension/standing')),
        answers: [
          when('below', 'the chest bends back less than 15°', ['thoracicSpine']),
          when('from', 'the chest bends back 15° or more', [], ['thoracicSpine']),
        ],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'neckTurn',
    name: 'Neck moves too little',
    candidates: ['neckControl', 'thoracicSpine'],
    openedBy: ['cervical.rotation', 'cervical.flexion', 'cervical.extension', 'cervical.lateralFlexion'],
    questions: [
      {
        id: 'lying',
        asks: 'Does the head turn further lying than sitting?',
        look: gain(
          10,
          [active('cervical.rotation/sitting'), active('cervical.rotation/supine')],
          [active('cervical.rotation/sitting'), passive('cervical.rotation/supine')],
        ),
        answers: [
          when('gains', 'further when lying: posture or control', ['neckControl'], []),
          when('same', 'no further when lying', [], ['neckControl']),
        ],
      },
      {
        id: 'chest',
        asks: 'How far does the chest turn, sitting?',
        look: TRUNK_TURN,
        answers: [
          when('below', 'the chest turns too little', ['thoracicSpine']),
          when('from', 'the chest turns far enough', [], ['thoracicSpine']),
        ],
      },
    ],
    advice: ['Ask about dizziness, double vision, fainting, speech and swallowing before the neck is turned or bent back further.'],
    refer: ['Unfamiliar neck pain, numbness of the face, dizziness: stop and refer.'],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'trunkTurn',
    name: 'Trunk turns too little',
    candidates: ['hips', 'thoracicSpine'],
    openedBy: ['thoracic.rotation', 'thoracolumbar.rotation'],
    questions: [
      {
        id: 'sitting',
        asks: 'How far does the trunk turn, sitting?',
        look: TRUNK_TURN,
        answers: [
          when('from', 'full when sitting: the hips were in the way', ['hips'], ['thoracicSpine']),
          when('below', 'short when sitting too: the chest', ['thoracicSpine'], ['hips']),
        ],
      },
      {
        id: 'hipsTurn',
        asks: 'How far does the hip turn inward by hand?',
        look: value(cut(20), passive('hip.internalRotation/prone'), passive('hip.internalRotation/sitting')),
        answers: [when('below', 'the hip turns in less than 20°', ['hips']), when('from', 'the hip turns in 20° or more', [], [])],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'gripTurn',
    name: 'Forearm turns too little',
    candidates: ['forearmRotation'],
    openedBy: ['forearm.pronation', 'forearm.supination'],
    questions: [
      {
        id: 'palmDown',
        asks: 'How far does the palm turn down, elbow at the side?',
        look: value(
          cut(70),
          ...inMode('passive', 'forearm.pronation/sitting', 'forearm.pronation/standing', 'forearm.pronation/supine'),
          ...inMode('active', 'forearm.pronation/sitting', 'forearm.pronation/standing', 'forearm.pronation/supine'),
        ),
        answers: [
          when('below', 'the palm turns down less than 70°', ['forearmRotation'], [], {
            advice: 'An overhand grip is not the right grip now: use a neutral one.',
          }),
          when('from', 'the palm turns down 70° or more', [], ['forearmRotation']),
        ],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
  {
    pattern: 'palmLean',
    name: 'Palms do not hold flat',
    candidates: ['wristJoint', 'forearmRotation'],
    openedBy: ['wrist.extension'],
    questions: [
      {
        id: 'loaded',
        asks: 'How far does the wrist bend back under load?',
        look: value(cut(90), active('wrist.extension/quadruped-loaded')),
        answers: [
          when('below', 'less than 90° under load', [], [], { advice: 'No push-up on the flat hand now: use fists or handles.' }),
          when('from', '90° or more under load', [], ['wristJoint']),
        ],
      },
      {
        id: 'unloaded',
        asks: 'How far does the wrist bend back by hand, without load?',
        look: value(cut(70), passive('wrist.extension/sitting')),
        answers: [
          when('below', 'less than 70° without load', ['wristJoint']),
          when('from', '70° or more without load', [], ['wristJoint']),
        ],
      },
      {
        id: 'palmDown',
        asks: 'How far does the palm turn down?',
        look: value(cut(70), ...inMode('passive', 'forearm.pronation/sitting'), ...inMode('active', 'forearm.pronation/sitting')),
        answers: [
          when('below', 'the palm turns down less than 70°', ['forearmRotation']),
          when('from', 'the palm turns down 70° or more', [], ['forearmRotation']),
        ],
      },
    ],
    advice: [],
    refer: [],
    source: COMMON_PRACTICE,
  },
];
