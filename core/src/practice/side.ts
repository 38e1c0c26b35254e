import { planView, STATIONS, type Standpoint, type Station } from '../plan/index.js';
import type { Side } from '../terms.js';
import { oneOf, type Exercise } from './types.js';

/** A limb of a patient who has turned, as the examiner sees it. */
export interface SideTask {
  /** How they lay before. */
  readonly before: Station;
  readonly station: Station;
  readonly standpoint: Standpoint;
  /** Their side, which is to be told. */
  readonly side: Exclude<Side, 'midline'>;
  /** Where the marked limb is for whoever looks. */
  readonly marked: 'your left' | 'your right' | 'up' | 'on the table';
}

export interface SideAnswer {
  readonly side: Exclude<Side, 'midline'>;
}

const lies = (station: Station): boolean => station.startsWith('sidelying');

/** Telling their left from their right, after they have turned. */
export const SIDE: Exercise<SideTask, SideAnswer> = {
  id: 'side',
  cards: STATIONS.flatMap((station) => (['foot', 'head'] as const).map((standpoint) => `${station}/${standpoint}`)),
  make: (card, random) => {
    const [station, standpoint] = card.split('/') as [Station, Standpoint];
    const side = oneOf(random, ['left', 'right'] as const);
    const isUpper = (station === 'sidelying-on-left') === (side === 'right');
    const isOnLeft = planView(station, standpoint).leftIsLeft === (side === 'left');
    return {
      before: oneOf(
        random,
        STATIONS.filter((one) => one !== station),
      ),
      station,
      standpoint,
      side,
      marked: lies(station) ? (isUpper ? 'up' : 'on the table') : isOnLeft ? 'your left' : 'your right',
    };
  },
  score: (task, { side }) =>
    side === task.side ? { mark: 'right', off: null, slips: [] } : { mark: 'wrong', off: null, slips: ['otherSide'] },
  read: () => null,
  truth: () => null,
};
