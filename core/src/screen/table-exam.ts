import { amount, atLeast, defineScreen, type ItemSpec } from './define.js';
import type { ItemAnswered, Felt } from './types.js';

const felt = (wanted: readonly Felt[], unwanted: readonly Felt[]): ItemAnswered => ({ by: 'felt', wanted, unwanted });
const FRONT = felt(['thighFront', 'hipFront', 'trunk'], ['backOfThigh']);
const OUTER = felt(['outerThigh', 'hipFront', 'trunk'], ['backOfThigh']);
const BACK = felt(['seat', 'backOfThigh', 'oppositeBack', 'sideOfTrunk'], ['calf', 'thighFront', 'sameSideBack']);
const BACK_BENT = felt(['seat', 'oppositeBack', 'sideOfTrunk'], ['calf', 'thighFront', 'sameSideBack', 'backOfThigh']);

const LICENSED = 'By hand at the end of range: for licensed people only.';

/** An arm held against a push in one of four directions. */
const held = (id: string, way: string): ItemSpec => ({
  id,
  name: `Arm held against a push ${way}`,
  setUp: 'Face up, knees bent, the straight arm up at a right angle.',
  say: 'Hold your arm where it is. Do not let me move it.',
  meets: 'the arm holds and the trunk does not shift',
  chain: 'front',
  pain: 'Does it hurt, and where?',
  faults: ['trunkShifts', 'weaker'],
  sides: 'each',
  at: 'supine',
  figure: 'lyingUpArmOut',
});

/** A straight leg raised and held face up; a leg lifted face down. */
const lift = (id: string, name: string, say: string, answered: ItemAnswered, figure: string, prone = false): ItemSpec => ({
  id,
  name,
  setUp: prone ? 'Face down, forehead on the hands.' : 'Face up, the other leg flat. The raised leg is pushed down by hand.',
  say,
  meets: 'it holds, and the work is felt where it is wanted',
  answered,
  chain: prone ? 'back' : 'front',
  pain: 'Does it hurt, and where? And where do you feel the work?',
  faults: prone ? ['lowBackArches', 'pelvisTwists', 'kneesBend'] : ['weaker', 'tires', 'kneesBend'],
  sides: 'each',
  at: prone ? 'prone' : 'supine',
  figure,
});

const tender = (id: string, where: string): ItemSpec => ({
  id,
  name: `Touch: ${where}`,
  setUp: 'Face down, relaxed; the same firm touch on both sides.',
  say: 'What do you feel here: nothing much, does it tickle, or does it hurt?',
  meets: 'nothing much is felt',
  chain: 'back',
  answered: {
    by: 'choice',
    choices: [
      { id: 'nothing', label: 'nothing', meets: true },
      { id: 'tickles', label: 'tickles', meets: null },
      { id: 'hurts', label: 'hurts', meets: false },
    ],
  },
  sides: 'each',
  tries: 1,
  at: 'prone',
  figure: 'lyingDown',
});

/** Arms lifted off the floor face down, three times; what counts is the mean height. */
const arms = (id: string, name: string, setUp: string): ItemSpec => ({
  id,
  name,
  setUp: `Face down, head straight, forehead padded up so that the arms can drop below. ${setUp}`,
  say: 'Lift your arms, hold, and let them down. Three times.',
  meets: 'they lift clear of the floor without a shrug, both alike',
  chain: 'back',
  answered: amount('cm', 0, 60, 'tape', 'mean'),
  faults: ['shoulderLifts', 'dragsOnFloor', 'elbowsBend'],
  sides: 'each',
  tries: 3,
  at: 'prone',
  figure: 'lyingDown',
});

/** A leg lifted face down with the arms beside the body, so that nothing is held up by the shoulders. */
const proneLift = (id: string, formerly: string, name: string, say: string, answered: ItemAnswered, figure = 'lyingDown'): ItemSpec => ({
  id,
  formerly,
  name,
  setUp: 'Face down, arms along the body, head straight, the forehead on a flat pad.',
  say,
  meets: 'the back stays quiet, and the work is felt where it is wanted',
  answered,
  chain: 'back',
  pain: 'Does it hurt, and where? And where do you feel the work?',
  faults: ['lowBackArches', 'pelvisTwists', 'kneesBend'],
  sides: 'each',
  at: 'prone',
  figure,
});

/** Both arms lifted at once, three times in one row: the worst of the three is told. */
const armsLift = (id: string, formerly: string, name: string, setUp: string, more: ItemSpec['faults'] = []): ItemSpec => ({
  id,
  formerly,
  name,
  setUp: `Face down, head straight, forehead padded up so that the arms can drop below. ${setUp}`,
  say: 'Lift both arms at once, hold, and let them down. Three times.',
  meets: 'both lift clear of the floor and alike, three times, without a shrug',
  chain: 'back',
  answered: {
    by: 'choice',
    choices: [
      { id: 'even', label: 'clear and even', meets: true },
      { id: 'oneLower', label: 'clear, one lower', meets: false },
      { id: 'drags', label: 'drags on the floor', meets: false },
      { id: 'notLifted', label: 'does not lift', meets: false },
    ],
  },
  faults: ['shoulderLifts', 'elbowsBend', ...more],
  tries: 1,
  at: 'prone',
  figure: 'lyingDown',
});

/** What front and back of the body do on a table. @see common practice, no source */
export const TABLE_EXAM = defineScreen({
  id: 'tableExam',
  version: 2,
  name: 'Front and back on the table',
  purpose: 'Which chain holds and where the work is felt, face up and face down. Ends with a summary of front and back.',
  items: [
    lift('legHeld', 'Leg held up against a push', 'Raise the straight leg and hold it. Where do you feel it?', FRONT, 'lyingUp'),
    lift(
      'legHeldOut',
      'Leg held up and out against a push',
      'Raise the straight leg a little to the side and hold it. Where do you feel it?',
      OUTER,
      'lyingUp',
    ),
    {
      id: 'raiseAnkleUp',
      name: 'Leg raised, then the ankle pulled up',
      setUp:
        'Face up, the straight leg raised by hand to where it begins to pull; then the ankle is pulled up, then the chin brought to the chest.',
      say: 'Does the pull behind the leg change when the ankle or the neck moves?',
      meets: 'the pull does not change with the ankle or the neck',
      answered: {
        by: 'choice',
        choices: [
          { id: 'same', label: 'the pull stays the same', meets: true },
          { id: 'changes', label: 'the pull changes', meets: false },
        ],
      },
      sides: 'each',
      tries: 1,
      mode: 'passive',
      at: 'supine',
      opens: 'legRaise',
      caution: 'Stop at the first pins and needles: note it, do not press on.',
      figure: 'legRaised',
    },
    {
      id: 'kneeGive',
      name: 'Give of the knee, relaxed',
      setUp: 'Face up, the leg relaxed and straight; the shin is rocked gently by hand.',
      say: 'Let your leg go heavy.',
      meets: 'the knee gives no more than the other one',
      answered: {
        by: 'choice',
        choices: [
          { id: 'firm', label: 'firm', meets: true },
          { id: 'loose', label: 'loose', meets: false },
        ],
      },
      sides: 'each',
      tries: 1,
      mode: 'passive',
      at: 'supine',
      caution: LICENSED,
      figure: 'lyingUp',
    },
    {
      id: 'hipTurnOut',
      name: 'Hip turned outward, heel towards the groin',
      setUp: 'Face up, hip and knee bent; the heel is brought towards the groin by hand.',
      say: 'Let your leg go heavy.',
      meets: 'about 90° outward in the school that tests it combined like this; others test another way and expect less',
      threshold: atLeast(90, 'deg'),
      answered: amount('deg', 0, 130, 'goniometer'),
      faults: ['pelvisTwists', 'pinchInFront'],
      sides: 'each',
      mode: 'passive',
      at: 'supine',
      near: ['hip.externalRotation/supine-combined'],
      opens: 'hipRotation',
      minutes: 0.8,
      caution: LICENSED,
      figure: 'lyingUpKneeBent',
    },
    {
      id: 'hipTurnIn',
      name: 'Hip turned inward, hip and knee bent',
      setUp: 'Face up, hip and knee at right angles; the shin is taken outward by hand.',
      say: 'Let your leg go heavy.',
      meets: '20° to 30° inward in this school',
      threshold: atLeast(20, 'deg'),
      answered: amount('deg', 0, 90, 'goniometer'),
      faults: ['pelvisTwists', 'pinchInFront'],
      sides: 'each',
      mode: 'passive',
      at: 'supine',
      near: ['hip.internalRotation/supine-hip-90'],
      opens: 'hipRotation',
      minutes: 0.8,
      caution: LICENSED,
      figure: 'lyingUpHipBent',
    },
    held('armHeldDown', 'down'),
    held('armHeldUp', 'up'),
    held('armHeldOut', 'outward'),
    held('armHeldIn', 'inward'),
    {
      id: 'frontAgainstBack',
      name: 'The same push, front and back',
      setUp: 'The leg held against the same push face up and face down.',
      say: 'Hold against my hand, as long as you can.',
      meets: 'front and back hold alike',
      answered: {
        by: 'choice',
        choices: [
          { id: 'alike', label: 'alike', meets: true },
          { id: 'front', label: 'front is stronger', meets: false },
          { id: 'back', label: 'back is stronger', meets: false },
        ],
      },
      faults: ['tires', 'trunkShifts'],
      sides: 'each',
      at: 'prone',
      figure: 'lyingDown',
    },
    proneLift('proneLift', 'legLift', 'Straight leg lifted, face down', 'Lift one straight leg. Where do you feel the work?', BACK),
    proneLift(
      'proneLiftOut',
      'legLiftOut',
      'Leg lifted up and out, face down',
      'Lift one straight leg a little to the side. Where do you feel the work?',
      BACK,
    ),
    proneLift(
      'proneLiftBent',
      'legLiftBent',
      'Bent leg lifted, face down',
      'Bend your knee and lift the sole towards the ceiling. Where do you feel the work?',
      BACK_BENT,
      'lyingDownKneeBent',
    ),
    tender('touchPelvis', 'back of the pelvis'),
    tender('touchSeat', 'seat'),
    tender('touchThigh', 'back of the thigh'),
    tender('touchHip', 'outer hip'),
    armsLift('armsLiftUp', 'armsOverhead', 'Both arms lifted overhead, face down', 'Arms beside the ears, thumbs to the ceiling.'),
    armsLift(
      'armsLiftWide',
      'armsOut',
      'Both arms lifted sideways, face down',
      'Straight arms at shoulder height, thumbs to the ceiling.',
      ['sinksToArmpit'],
    ),
    armsLift(
      'armsLiftLow',
      'armsByHips',
      'Both arms lifted beside the hips, face down',
      'Arms beside the hips, palms up; the blades are drawn together and down.',
    ),
  ],
  former: [
    lift('legLift', 'Leg lifted straight, face down', 'Lift one straight leg. Which muscles work?', BACK, 'lyingDown', true),
    lift('legLiftOut', 'Leg lifted up and out, face down', 'Lift one straight leg a little to the side.', BACK, 'lyingDown', true),
    lift(
      'legLiftBent',
      'Leg lifted with the knee bent, face down',
      'Bend the knee and lift the sole towards the ceiling.',
      BACK_BENT,
      'lyingDownKneeBent',
      true,
    ),
    arms('armsOverhead', 'Arms lifted overhead', 'Arms straight beside the ears, thumbs to the ceiling.'),
    arms('armsOut', 'Arms lifted out to the sides', 'Straight arms out to the sides, thumbs to the ceiling.'),
    arms('armsByHips', 'Arms lifted by the hips', 'Arms by the hips, palms up, squeezing the blades together.'),
  ],
});
