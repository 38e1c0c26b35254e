import { cut, endFeel, gain, item, passive, value, when } from './define.js';
import type { Question } from './types.js';

/*
 * Questions about the ankle that several breakdowns ask. Common practice, no source.
 */
const KNEE_TO_WALL = [item('loadingReadiness', 'kneeToWall'), item('loadingReadiness', 'kneeToWallKneeling')];

/** Bent less straight: the muscle that crosses the knee. */
export const BENT_AND_STRAIGHT: Question = {
  id: 'bentAndStraight',
  asks: 'Does the ankle come further up with the knee bent than straight?',
  look: gain(
    10,
    [passive('muscleLength.calfKneeStraight/supine'), passive('muscleLength.calfKneeBent/supine')],
    [passive('muscleLength.calfKneeStraight/supine'), passive('ankle.dorsiflexion/prone')],
    [passive('ankle.dorsiflexion/supine'), passive('ankle.dorsiflexion/sitting')],
    [
      { protocol: 'ankle.dorsiflexion/standing-loaded-straight', mode: 'active' },
      { protocol: 'ankle.dorsiflexion/standing-loaded', mode: 'active' },
    ],
  ),
  answers: [
    when('gains', 'more with the knee bent: the calf muscle that crosses the knee holds', ['calf'], ['soleus', 'ankleJoint']),
    when('same', 'no more with the knee bent', [], ['calf']),
  ],
};

export const ANKLE_END: Question = {
  id: 'ankleEnd',
  asks: 'How does the end of dorsiflexion feel, knee bent?',
  look: endFeel(passive('muscleLength.calfKneeBent/supine'), passive('ankle.dorsiflexion/prone'), passive('ankle.dorsiflexion/sitting')),
  after: [{ question: 'bentAndStraight', answers: ['same'] }],
  answers: [
    when('hard', 'a hard end', ['ankleJoint'], ['soleus']),
    when('firm', 'a firm stretch', ['soleus'], ['ankleJoint']),
    when('soft', 'a soft end', [], []),
    when(['empty', 'springy', 'spasm'], 'an end that is no stretch', [], [], {
      refer: 'An empty, springy or guarded end: have it looked at.',
    }),
  ],
};

export const FOOT_TURNS_OUT: Question = {
  id: 'eversion',
  asks: 'How far does the foot turn outward?',
  look: value(cut(10), passive('subtalar.eversion/sitting'), passive('subtalar.eversion/prone')),
  answers: [
    when('below', 'the foot turns out less than 10°', ['footMobility']),
    when('from', 'the foot turns out 10° or more', [], ['footMobility']),
  ],
};

export const WHERE_IT_PULLS: Question = {
  id: 'pinchInFront',
  asks: 'At the knee to wall, does it pinch in front of the ankle?',
  look: { look: 'fault', of: KNEE_TO_WALL, fault: ['pinchInFront'] },
  answers: [when('seen', 'it pinches in front', ['ankleJoint'], []), when('not-seen', 'no pinch in front', [], [])],
};
