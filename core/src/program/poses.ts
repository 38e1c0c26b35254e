import { drawFigure, drawScene, protocolOfId, type Drawing } from '../catalogue/index.js';
import type { Pose } from './drills/types.js';

/** A drill as it is drawn: the end in front, and the start behind it where both lie in one scene. */
export interface DrawnPoses {
  readonly bodies: readonly { readonly drawing: Drawing; readonly isStart: boolean }[];
  readonly end: Drawing;
}

/**
 * Bodies from two scenes lie nowhere near each other: only what turns in one
 * scene is drawn twice.
 */
export function drawPoses(from: Pose, to: Pose): DrawnPoses {
  const [start, end] = [drawn(from), drawn(to)];
  const isSame = JSON.stringify(from) === JSON.stringify(to);
  const isOneScene = start.seenFrom === end.seenFrom && 'protocol' in from && 'protocol' in to;
  return { bodies: [...(isSame || !isOneScene ? [] : [{ drawing: start, isStart: true }]), { drawing: end, isStart: false }], end };
}

const drawn = (pose: Pose): Drawing => ('scene' in pose ? drawScene(pose.scene) : drawFigure(protocolOfId(pose.protocol)!, pose.value));
