/*
 * What is to be seen of a motion whose name is easily read backwards, by
 * protocol: what stays, and where the far end goes. It never names the motion.
 *
 * @see common practice, no source; it follows from starting position and trap of each protocol
 */
const HAND_DOWN = 'The upper arm stays out to the side; the forearm tips forward until the palm goes towards the feet.';
const HAND_UP = 'The upper arm stays out to the side; the forearm tips back until the back of the hand goes towards the head.';
const AWAY = 'The elbow stays at the side; the hand swings away from the body.';
const FOOT_OUT = 'The thigh stays where it is; the foot swings outward, away from the other leg.';
const FOOT_IN = 'The thigh stays where it is; the foot swings inward, towards and past the other leg.';
const PALM_DOWN = 'The elbow stays at the side, the thumb is up to begin with; then the palm turns to face down.';
const PALM_UP = 'The elbow stays at the side, the thumb is up to begin with; then the palm turns to face up.';
const FOOT_NEARS = 'The shin stays; the toes come nearer to the shin.';
const FOOT_LEAVES = 'The shin stays; the toes go away from the shin.';
const SOLE_IN = 'The shin stays; the sole turns towards the other foot.';
const SOLE_OUT = 'The shin stays; the sole turns away from the other foot.';
const HAND_TO_THUMB = 'The forearm stays; the hand goes sideways, towards the thumb.';
const HAND_TO_LITTLE = 'The forearm stays; the hand goes sideways, towards the little finger.';
const KNEE_FORWARD = 'The foot stays on the floor; the knee travels forward over it.';

export const MOVES_SEEN: Readonly<Record<string, string>> = {
  'shoulder.internalRotation/supine': HAND_DOWN,
  'shoulder.internalRotation/supine-scapula-held': HAND_DOWN,
  'shoulder.internalRotation/prone': 'The upper arm stays out to the side, the forearm hangs; the palm goes back and up, towards the feet.',
  'shoulder.externalRotation/supine': HAND_UP,
  'shoulder.externalRotation/prone':
    'The upper arm stays out to the side, the forearm hangs; the back of the hand goes forward and up, towards the head.',
  'shoulder.externalRotation/supine-at-side': AWAY,
  'shoulder.externalRotation/sitting-at-side': AWAY,
  'forearm.pronation/sitting': PALM_DOWN,
  'forearm.pronation/standing': PALM_DOWN,
  'forearm.pronation/supine': 'The elbow stays at the side, the thumb is up to begin with; then the palm turns to face the feet.',
  'forearm.supination/sitting': PALM_UP,
  'forearm.supination/standing': PALM_UP,
  'forearm.supination/supine': 'The elbow stays at the side, the thumb is up to begin with; then the palm turns to face the head.',
  'wrist.radialDeviation/sitting': HAND_TO_THUMB,
  'wrist.radialDeviation/sitting-thumb-up': HAND_TO_THUMB,
  'wrist.ulnarDeviation/sitting': HAND_TO_LITTLE,
  'wrist.ulnarDeviation/sitting-thumb-up': HAND_TO_LITTLE,
  'hip.internalRotation/prone': FOOT_OUT,
  'hip.internalRotation/sitting': FOOT_OUT,
  'hip.internalRotation/supine-hip-90': FOOT_OUT,
  'hip.externalRotation/prone': FOOT_IN,
  'hip.externalRotation/sitting': FOOT_IN,
  'hip.externalRotation/supine-hip-90': FOOT_IN,
  'hip.externalRotation/supine-combined': 'The thigh falls out to the side, and the foot comes in across the body.',
  'ankle.dorsiflexion/sitting': FOOT_NEARS,
  'ankle.dorsiflexion/supine': FOOT_NEARS,
  'ankle.dorsiflexion/prone': FOOT_NEARS,
  'ankle.dorsiflexion/standing-loaded': KNEE_FORWARD,
  'ankle.dorsiflexion/standing-loaded-straight': 'The foot stays on the floor behind, the knee straight; the shin tips forward over it.',
  'ankle.dorsiflexion/halfKneeling-loaded': KNEE_FORWARD,
  'ankle.plantarflexion/sitting': FOOT_LEAVES,
  'ankle.plantarflexion/supine': FOOT_LEAVES,
  'ankle.plantarflexion/prone': FOOT_LEAVES,
  'subtalar.inversion/sitting': SOLE_IN,
  'subtalar.inversion/prone': SOLE_IN,
  'subtalar.eversion/sitting': SOLE_OUT,
  'subtalar.eversion/prone': SOLE_OUT,
};
