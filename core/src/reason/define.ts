import type { FaultId, Modification } from '../screen/index.js';
import { COMMON_PRACTICE, type Mode, type Source, type Unit } from '../terms.js';
import type { CandidateId } from './candidates.js';
import type { Answer, AnswerId, Cut, ItemWay, Look, Way } from './types.js';

/** `passive('hip.flexion/supine')` */
export const passive = (protocol: string): Way => ({ protocol, mode: 'passive' });
export const active = (protocol: string): Way => ({ protocol, mode: 'active' });
export const inMode = (mode: Mode, ...protocols: readonly string[]): Way[] => protocols.map((protocol) => ({ protocol, mode }));

export const cut = (at: number, unit: Unit = 'deg', from = at, source: Source = COMMON_PRACTICE): Cut => ({
  below: at,
  from,
  unit,
  source,
});
export const value = (at: Cut, ...ways: readonly Way[]): Extract<Look, { look: 'value' }> => ({ look: 'value', ways, cut: at });
export const gain = (least: number, ...pairs: readonly (readonly [Way, Way])[]): Look => ({
  look: 'gain',
  pairs,
  least,
  source: COMMON_PRACTICE,
});
export const endFeel = (...ways: readonly Way[]): Look => ({ look: 'endFeel', ways });
export const weaker = (...protocols: readonly string[]): Look => ({
  look: 'otherSide',
  ways: inMode('active', ...protocols),
  share: 0.1,
  source: COMMON_PRACTICE,
});

const SQUAT = { screen: 'squatCheck', item: 'squat' };
export const squat = (view: 'front' | 'side' | 'behind', ...changes: readonly Modification[]): ItemWay =>
  changes.length > 0 ? { ...SQUAT, view, with: changes } : { ...SQUAT, view };
export const item = (screen: string, id: string): ItemWay => ({ screen, item: id });
export const clears = (view: 'front' | 'side' | 'behind', ...fault: readonly FaultId[]): Look => ({
  look: 'clears',
  of: squat(view),
  fault,
  change: 'heelsRaised',
});
export const fault = (of: ItemWay, ...ids: readonly FaultId[]): Look => ({ look: 'fault', of: [of], fault: ids });

/** An answer with what it says; who is named first it points to, who is named second it speaks against. */
export const when = (
  answer: AnswerId | readonly AnswerId[],
  says: string,
  pointsTo: readonly CandidateId[],
  against: readonly CandidateId[] = [],
  more: Pick<Answer, 'advice' | 'refer'> = {},
): Answer => ({ answer: typeof answer === 'string' ? [answer] : answer, says, for: pointsTo, against, ...more });
