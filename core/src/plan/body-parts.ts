import type { Joint } from '../terms.js';

export const BODY_PARTS = ['neck', 'thorax', 'back', 'shoulder', 'elbow', 'hand', 'hip', 'knee', 'foot'] as const;
export type BodyPart = (typeof BODY_PARTS)[number];

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
