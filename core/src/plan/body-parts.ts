import type { Joint } from '../terms.js';

export type BodyPart = 'neck' | 'thorax' | 'back' | 'shoulder' | 'elbow' | 'hand' | 'hip' | 'knee' | 'foot';

/** Joints of each part of the body that cautions speak of. */
export const REGIONS_OF_BODY: Readonly<Record<BodyPart, readonly Joint[]>> = {
  neck: ['cervical'],
  thorax: ['thoracic', 'thoracolumbar'],
  back: ['lumbar', 'thoracolumbar'],
  shoulder: ['shoulder'],
  elbow: ['elbow', 'forearm'],
  hand: ['wrist', 'thumbCmc', 'thumbMcp', 'thumbIp', 'fingerMcp', 'fingerPip', 'fingerDip'],
  hip: ['hip'],
  knee: ['knee'],
  foot: ['ankle', 'subtalar', 'greatToeMtp', 'greatToeIp'],
};
