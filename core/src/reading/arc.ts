import { motion } from '../catalogue/index.js';
import { readSftr, SftrError } from '../notation/sftr.js';
import type { Joint, MotionId, Side } from '../terms.js';
import { JOINTS } from '../terms.js';

/** One end of an arc, as the reading of one motion. */
export interface ArcEnd {
  readonly motion: MotionId;
  readonly side: Side;
  readonly end: number;
}

/**
 * An arc typed at the dial as the readings of the motions it names: both ends
 * of a joint that moves, the one angle of a joint that is fixed.
 *
 * @param of the motion in hand; the arc has to be of its joint
 * @returns the ends, or a message
 * @example readArc('S:0-15-120', 'knee.flexion', 'left')
 *   // [{ motion: 'knee.extension', side: 'left', end: -15 }, { motion: 'knee.flexion', side: 'left', end: 120 }]
 */
export function readArc(text: string, of: MotionId, side: Side): readonly ArcEnd[] | string {
  const joint = JOINTS.find((j) => j === motion(of).joint) as Joint | undefined;
  if (!joint) return `"${text}" is an arc, but ${motion(of).name.toLowerCase()} is not the angle of one joint; allowed: one figure.`;
  try {
    const reading = readSftr(text, joint);
    const ends: ArcEnd[] = [];
    const put = (id: MotionId, value: number | { readonly left?: number; readonly right?: number }) => {
      if (typeof value === 'number') {
        ends.push({ motion: id, side: motion(id).sides === 'midline' ? 'midline' : side, end: value });
        return;
      }
      if (value.left !== undefined) ends.push({ motion: id, side: 'left', end: value.left });
      if (value.right !== undefined) ends.push({ motion: id, side: 'right', end: value.right });
    };
    for (const [id, value] of Object.entries(reading.motions ?? {})) put(id as MotionId, value);
    for (const [id, value] of Object.entries(reading.fixedAt ?? {})) {
      put(id as MotionId, value);
      const opposite = motion(id as MotionId).opposite;
      // A fixed joint ends both its motions at one place.
      if (typeof value === 'number' && opposite) put(opposite, -value);
    }
    return ends;
  } catch (error) {
    if (error instanceof SftrError) return error.message;
    throw error;
  }
}
