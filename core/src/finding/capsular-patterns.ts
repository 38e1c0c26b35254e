import type { Joint, MotionId, Source } from '../terms.js';

/** The order in which a joint's capsule is taught to lose its motions. */
export interface CapsularPattern {
  readonly joint: Joint;
  /** Most limited first; motions of one step are limited alike. */
  readonly steps: readonly (readonly MotionId[])[];
  /** True where the motions of one step are taught to be equal; false where authors differ about their order. */
  readonly equalWithin: boolean;
  readonly words: string;
  /** Ways of measuring beside the usual ones: a stiff shoulder cannot be brought to a right angle. Protocol ids. */
  readonly also?: readonly string[];
  readonly source: Source;
}

const TAUGHT: Source = { cite: 'Cyriax, Textbook of Orthopaedic Medicine, as taught', fromMemory: true };
const pattern = (joint: Joint, words: string, equalWithin: boolean, ...steps: (readonly MotionId[])[]): CapsularPattern => ({
  joint,
  steps,
  equalWithin,
  words,
  source: TAUGHT,
});

/**
 * Patterns with an order. An order needs at least three motions, so joints
 * with two alone (elbow, knee, ankle, fingers, toes) cannot be scored; their
 * patterns stand here all the same, for the reader.
 */
export const CAPSULAR_PATTERNS: readonly CapsularPattern[] = [
  {
    ...pattern(
      'shoulder',
      'external rotation › abduction › internal rotation',
      false,
      ['shoulder.externalRotation'],
      ['shoulder.abduction'],
      ['shoulder.internalRotation'],
    ),
    also: ['shoulder.externalRotation/supine-at-side', 'shoulder.externalRotation/sitting-at-side'],
  },
  pattern(
    'hip',
    'internal rotation, flexion and abduction most › extension a little › external rotation spared',
    false,
    ['hip.internalRotation', 'hip.flexion', 'hip.abduction'],
    ['hip.extension'],
    ['hip.externalRotation'],
  ),
  pattern(
    'cervical',
    'side-bending = rotation › extension › flexion usually full',
    true,
    ['cervical.lateralFlexion', 'cervical.rotation'],
    ['cervical.extension'],
    ['cervical.flexion'],
  ),
  pattern(
    'thoracic',
    'side-bending = rotation › extension',
    true,
    ['thoracic.lateralFlexion', 'thoracic.rotation'],
    ['thoracic.extension'],
  ),
  pattern('lumbar', 'side-bending = rotation › extension', true, ['lumbar.lateralFlexion', 'lumbar.rotation'], ['lumbar.extension']),
  pattern('thumbCmc', 'abduction › extension › flexion full', false, ['thumbCmc.abduction'], ['thumbCmc.extension'], ['thumbCmc.flexion']),
  pattern('wrist', 'flexion = extension', true, ['wrist.flexion', 'wrist.extension']),
  pattern('elbow', 'flexion › extension', false, ['elbow.flexion'], ['elbow.extension']),
  pattern('knee', 'flexion much more than extension', false, ['knee.flexion'], ['knee.extension']),
  pattern('ankle', 'plantarflexion › dorsiflexion, where the calf is not short', false, ['ankle.plantarflexion'], ['ankle.dorsiflexion']),
  pattern('greatToeMtp', 'extension much more than flexion', false, ['greatToeMtp.extension'], ['greatToeMtp.flexion']),
];

/** An order says something from this many motions on. */
export const LEAST_MOTIONS = 3;
