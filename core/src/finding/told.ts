import { motion } from '../catalogue/index.js';
import type { MotionId } from '../terms.js';
import { describeEnd } from '../words/figures.js';
import { say } from '../words/say.js';
import type { Told } from './steps.js';

/** What the surgeon is told of: "below 90°". */
export function toldWords(id: MotionId, { when, at }: Told): string {
  const about = motion(id);
  const size = describeEnd(about, at);
  if (when === 'below') return say('below {size}', { size });
  if (when === 'at-most') return say('{size} or more', { size });
  return say('{size} or more beyond the other side', { size });
}
