import { findMotion } from '../catalogue/index.js';
import type { Dose, DrillSide } from '../program/index.js';
import type { MotionId, Side } from '../terms.js';
import { formatNumber } from '../words/figures.js';
import { say, sayCount } from '../words/say.js';

/**
 * What is moved or measured, as it is told to the person it was measured at.
 * `{side}` is their left or right. Every motion of which more or less is
 * better has its words: a test sees to that.
 */
const PLAIN: Readonly<Record<string, string>> = {
  'shoulder.flexion': 'lifting your {side} arm to the front',
  'shoulder.extension': 'moving your {side} arm to the back',
  'shoulder.abduction': 'lifting your {side} arm to the side',
  'shoulder.adduction': 'pulling your {side} arm in',
  'shoulder.internalRotation': 'turning your {side} arm in',
  'shoulder.externalRotation': 'turning your {side} arm out',
  'shoulder.horizontalAdduction': 'moving your {side} arm across your chest',
  'shoulder.horizontalAbduction': 'opening your {side} arm to the side',
  'elbow.flexion': 'bending your {side} elbow',
  'elbow.extension': 'making your {side} elbow straight',
  'forearm.pronation': 'turning your {side} palm down',
  'forearm.supination': 'turning your {side} palm up',
  'wrist.flexion': 'bending your {side} wrist down',
  'wrist.extension': 'bending your {side} wrist up',
  'wrist.radialDeviation': 'tilting your {side} hand to the thumb side',
  'wrist.ulnarDeviation': 'tilting your {side} hand to the small finger side',
  'thumbCmc.flexion': 'moving your {side} thumb across the palm',
  'thumbCmc.extension': 'moving your {side} thumb out flat',
  'thumbCmc.abduction': 'moving your {side} thumb up from the palm',
  'thumbCmc.adduction': 'moving your {side} thumb back to the palm',
  'thumbMcp.flexion': 'bending the big joint of your {side} thumb',
  'thumbMcp.extension': 'making the big joint of your {side} thumb straight',
  'thumbIp.flexion': 'bending the tip of your {side} thumb',
  'thumbIp.extension': 'making the tip of your {side} thumb straight',
  'fingerMcp.flexion': 'bending a {side} finger at its big joint',
  'fingerMcp.extension': 'making a {side} finger straight at its big joint',
  'fingerMcp.abduction': 'moving a {side} finger out',
  'fingerMcp.adduction': 'moving a {side} finger in',
  'fingerPip.flexion': 'bending a {side} finger in the middle',
  'fingerPip.extension': 'making a {side} finger straight in the middle',
  'fingerDip.flexion': 'bending the tip of a {side} finger',
  'fingerDip.extension': 'making the tip of a {side} finger straight',
  'hip.flexion': 'bending your {side} hip',
  'hip.extension': 'moving your {side} leg to the back',
  'hip.abduction': 'moving your {side} leg out',
  'hip.adduction': 'moving your {side} leg across',
  'hip.internalRotation': 'turning your {side} thigh in',
  'hip.externalRotation': 'turning your {side} thigh out',
  'knee.flexion': 'bending your {side} knee',
  'knee.extension': 'making your {side} knee straight',
  'ankle.dorsiflexion': 'pulling your {side} foot up',
  'ankle.plantarflexion': 'pointing your {side} foot down',
  'subtalar.inversion': 'tilting your {side} foot in',
  'subtalar.eversion': 'tilting your {side} foot out',
  'greatToeMtp.flexion': 'bending your {side} big toe down',
  'greatToeMtp.extension': 'bending your {side} big toe up',
  'greatToeIp.flexion': 'bending the tip of your {side} big toe',
  'greatToeIp.extension': 'making the tip of your {side} big toe straight',
  'cervical.flexion': 'bending your head down',
  'cervical.extension': 'looking up',
  'cervical.lateralFlexion': 'tilting your head to the {side}',
  'cervical.rotation': 'turning your head to the {side}',
  'thoracic.flexion': 'rounding your upper back',
  'thoracic.extension': 'arching your upper back',
  'thoracic.lateralFlexion': 'bending your upper back to the {side}',
  'thoracic.rotation': 'turning your upper back to the {side}',
  'thoracolumbar.flexion': 'bending your back to the front',
  'thoracolumbar.extension': 'bending your back to the back',
  'thoracolumbar.lateralFlexion': 'bending your back to the {side}',
  'thoracolumbar.rotation': 'turning your trunk to the {side}',
  'lumbar.flexion': 'bending your low back to the front',
  'lumbar.extension': 'arching your low back',
  'lumbar.lateralFlexion': 'bending your low back to the {side}',
  'lumbar.rotation': 'turning your low back to the {side}',
  'muscleLength.straightLegRaise': 'lifting your straight {side} leg',
  'muscleLength.activeKneeExtension': 'what your {side} knee lacks with the hip bent',
  'muscleLength.hipExtensionDrop': 'letting your {side} thigh hang down',
  'muscleLength.kneeDrop': 'bending your {side} knee at the edge of the table',
  'muscleLength.hipDropAbduction': 'how far your {side} thigh drifts out',
  'muscleLength.proneKneeBend': 'bending your {side} knee face down',
  'muscleLength.calfKneeStraight': 'the stretch of your {side} calf, knee straight',
  'muscleLength.calfKneeBent': 'the stretch of your {side} calf, knee bent',
  'muscleLength.sideLyingLegDrop': 'letting your {side} leg sink down',
  'muscleLength.latissimus': 'lifting your {side} arm with a flat back',
  'muscleLength.pectoralisMajorSternal': 'the stretch of your low {side} chest',
  'muscleLength.pectoralisMajorClavicular': 'the stretch of your high {side} chest',
  'muscleLength.adductorsKneeStraight': 'opening your straight {side} leg',
  'muscleLength.adductorsKneeBent': 'opening your bent {side} leg',
  'muscleLength.fingerIntrinsicsMcpExtended': 'bending a {side} finger in the middle, big joint straight',
  'muscleLength.fingerIntrinsicsMcpFlexed': 'bending a {side} finger in the middle, big joint bent',
  'distance.kneeToWall': 'how far your {side} foot is from the wall',
  'distance.heelToButtock': 'from your {side} heel to your seat',
  'distance.heelHeightDifference': 'how far one heel is above the other',
  'distance.fingerToFloor': 'from your finger tips to the floor',
  'distance.lateralFingertipTravel': 'how far your hand slides down your {side} leg',
  'distance.handsBehindBack': 'how far your hands pass, {side} hand on top',
  'distance.handBehindBackFromAbove': 'from your {side} hand to the far shoulder blade, from the top',
  'distance.handBehindBackFromBelow': 'from your {side} hand to the far shoulder blade, from below',
  'distance.schober15': 'how much your low back opens',
  'distance.schoberModified': 'how much your low back opens',
  'distance.tragusToWall': 'from your ear to the wall',
  'distance.occiputToWall': 'from the back of your head to the wall',
  'distance.chestExpansion': 'how much your chest opens as you breathe in',
  'distance.chinToSternum': 'from your chin to your chest',
  'distance.intermalleolar': 'how far you can open your legs',
  'distance.acromionToTable': 'from your {side} shoulder to the table',
  'distance.thumbOpposition': 'from your {side} thumb to the far side of the palm',
  'distance.pulpToCrease': 'from a {side} finger tip to the palm',
  'strength.shoulderFlexion': 'how hard your {side} arm lifts to the front',
  'strength.shoulderAbduction': 'how hard your {side} arm lifts to the side',
  'strength.shoulderInternalRotation': 'how hard your {side} arm turns in',
  'strength.shoulderExternalRotation': 'how hard your {side} arm turns out',
  'strength.elbowFlexion': 'how hard your {side} elbow bends',
  'strength.elbowExtension': 'how hard your {side} elbow pushes',
  'strength.wristExtension': 'how hard your {side} wrist lifts',
  'strength.wristFlexion': 'how hard your {side} wrist pulls',
  'strength.hipFlexion': 'how hard your {side} thigh lifts',
  'strength.hipExtension': 'how hard your {side} leg pushes back',
  'strength.hipAbduction': 'how hard your {side} leg lifts out',
  'strength.hipAdduction': 'how hard your {side} leg pulls in',
  'strength.hipInternalRotation': 'how hard your {side} thigh turns in',
  'strength.hipExternalRotation': 'how hard your {side} thigh turns out',
  'strength.kneeExtension': 'how hard your {side} knee pushes',
  'strength.kneeFlexion': 'how hard your {side} knee pulls',
  'strength.ankleDorsiflexion': 'how hard your {side} foot pulls up',
  'strength.anklePlantarflexion': 'how hard your {side} foot pushes down',
  'strength.footInversion': 'how hard your {side} foot tilts in',
  'strength.footEversion': 'how hard your {side} foot tilts out',
  'balance.singleLegStanceEyesOpen': 'standing on your {side} leg',
  'balance.singleLegStanceEyesClosed': 'standing on your {side} leg with your eyes shut',
};

/** "bending your left knee"; undefined where no way is better, so that nothing is to be told. */
export function plainMotion(id: MotionId, side: Side): string | undefined {
  const words = PLAIN[id];
  return words === undefined ? undefined : say(words, { side: say(side) });
}

/** A figure with its unit as it is spoken: "95 degrees", "7.5 cm". */
export function plainFigure(id: MotionId, value: number): string {
  const about = findMotion(id)!;
  if (about.unit === 'deg' && about.zeroIs === 'straight' && Math.round(value) === 0) return say('all the way straight');
  const size = formatNumber(about.unit === 'deg' || about.unit === 'N' ? Math.round(Math.abs(value)) : Math.abs(value));
  const unit = { deg: 'degrees', cm: 'cm', N: 'newtons', s: 'seconds', yesNo: '' }[about.unit];
  const words = say(`{size} ${unit}`, { size });
  if (value >= 0 || size === '0') return words;
  return about.unit === 'deg' ? say('{words} short of {zero}', { words, zero: say(about.zeroIs) }) : say('{words} past it', { words });
}

/** How much and how often, in short sentences. */
export function plainDose({ sets, reps, seconds, timesADay, daysAWeek }: Dose): string {
  const once =
    reps === null
      ? sayCount(seconds ?? 0, 'Keep on for {count} second', 'Keep on for {count} seconds')
      : seconds === null
        ? sayCount(reps, 'Do it {count} time', 'Do it {count} times')
        : say('Do it {reps} times and hold each for {seconds} seconds', { reps, seconds });
  const long = reps === null && seconds !== null && seconds >= 60 && seconds % 60 === 0;
  const first = long ? sayCount(seconds / 60, 'Keep on for {count} minute', 'Keep on for {count} minutes') : once;
  return [
    sets > 1 ? say('{first}, then rest. Do {sets} rounds.', { first, sets }) : `${first}.`,
    timesADay === 1 ? say('Once a day.') : say('{count} times a day.', { count: timesADay }),
    daysAWeek === 7 ? say('Each day.') : sayCount(daysAWeek, '{count} day a week.', '{count} days a week.'),
  ].join(' ');
}

export const plainSide = (side: DrillSide): string => (side === 'both' ? say('left and right') : side === 'midline' ? '' : say(side));
