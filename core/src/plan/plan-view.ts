import type { Side } from '../terms.js';
import { stationWords, type Station } from './station.js';

/** Where the examiner stands: at the foot (or in front), or at the head (or behind). */
export type Standpoint = 'foot' | 'head';

/** How the patient appears to the examiner. */
export interface PlanView {
  /** True where the patient's left is on the examiner's left. */
  readonly leftIsLeft: boolean;
  /** Which way up the drawing is: at the head end the table is turned round. */
  readonly turned: boolean;
  readonly face: 'up' | 'down' | 'left' | 'right';
  readonly lying: boolean;
  /** "seen from the foot of the table" */
  readonly from: string;
  /** "their left is on your right" */
  readonly words: string;
}

const UPRIGHT: readonly Station[] = ['standing', 'sitting', 'halfKneeling'];

/** Whether one stands before or behind the patient, not at an end of the table. */
export function isUpright(station: Station): boolean {
  return UPRIGHT.includes(station);
}

/**
 * The patient as the examiner sees them: whose left is where. Face up and
 * seen from the feet, their left is on the examiner's right, as in a handshake;
 * face down it changes over; at the head end it changes over again.
 */
export function planView(station: Station, standpoint: Standpoint): PlanView {
  const upright = isUpright(station);
  const down = station === 'prone' || station === 'quadruped';
  const atHead = standpoint === 'head';
  const leftIsLeft = down !== atHead;
  const from = upright ? (atHead ? 'seen from behind' : 'facing you') : `seen from the ${atHead ? 'head' : 'foot'} of the table`;
  if (station === 'sidelying-on-left' || station === 'sidelying-on-right') {
    const [up, under] = station === 'sidelying-on-left' ? ['right', 'left'] : ['left', 'right'];
    const face = (station === 'sidelying-on-left') === !atHead ? 'right' : 'left';
    return { leftIsLeft: false, turned: atHead, face, lying: true, from, words: `their ${up} side is up, their ${under} on the table` };
  }
  return {
    leftIsLeft,
    turned: atHead && !upright,
    face: upright ? (atHead ? 'down' : 'up') : down ? 'down' : 'up',
    lying: !upright,
    from,
    words: `their left is on your ${leftIsLeft ? 'left' : 'right'}`,
  };
}

/** The drawing in words. */
export function planWords(station: Station, standpoint: Standpoint, side: Side): string {
  const { from, words } = planView(station, standpoint);
  const which = side === 'midline' ? '' : ` The ${side} side is in hand.`;
  return `Patient ${stationWords(station)}, ${from}: ${words}.${which}`;
}
