import { motion } from '../catalogue/index.js';
import type { MotionId, Unit } from '../terms.js';
import { formatNumber, suffixOf } from '../words/figures.js';
import { listed, lower, say, sayCount } from '../words/say.js';
import { FAULT_SIGNS, FAULTS, type FaultId } from './faults.js';
import type { Sector } from './result.js';
import type { Felt, Modification, Threshold, View } from './types.js';

/** Why an item is graded as it is: data; the words are made when somebody reads them. */
export type ItemReason =
  | { readonly kind: 'amount'; readonly value: number; readonly threshold: Threshold; readonly meets: boolean; readonly within: boolean }
  | { readonly kind: 'told'; readonly meets: boolean }
  | { readonly kind: 'faults'; readonly faults: readonly FaultId[]; readonly view: View | null }
  | { readonly kind: 'noted'; readonly faults: readonly FaultId[]; readonly with: readonly Modification[] }
  | { readonly kind: 'none-seen'; readonly view: View | null }
  | { readonly kind: 'circle'; readonly sector: Sector | null; readonly missing: readonly MotionId[] }
  | { readonly kind: 'felt'; readonly right: readonly Felt[]; readonly wrong: readonly Felt[] }
  | { readonly kind: 'choice'; readonly label: string }
  | { readonly kind: 'tries'; readonly of: number; readonly counts: 'best' }
  | { readonly kind: 'pain'; readonly pain: number; readonly where: string }
  | { readonly kind: 'not-judged'; readonly why: 'not-told' | 'no-threshold' | 'no-try' | 'skipped'; readonly said: string };

export const VIEW_WORDS: Readonly<Record<View, string>> = { front: 'from the front', side: 'from the side', behind: 'from behind' };

export const MODIFICATION_WORDS: Readonly<Record<Modification, string>> = {
  feetUnderHips: 'feet under the hips',
  heelsRaised: 'heels raised',
  handsOnHips: 'hands on the hips',
  oneSideLoaded: 'one side loaded',
  kneeStraight: 'the knee straightened',
};

export const FELT_WORDS: Readonly<Record<Felt, string>> = {
  thighFront: 'front of the thigh',
  hipFront: 'front of the hip',
  trunk: 'trunk',
  outerThigh: 'outer thigh',
  seat: 'seat',
  backOfThigh: 'back of the thigh',
  oppositeBack: 'opposite low back',
  sameSideBack: 'low back of the same side',
  sideOfTrunk: 'side of the trunk',
  calf: 'calf',
};

export const faultWords = (fault: FaultId): string => say(FAULTS[fault]);
/** How it is told; empty where its name says it. */
export const faultSign = (fault: FaultId): string => (FAULT_SIGNS[fault] ? say(FAULT_SIGNS[fault]) : '');
const faultList = (faults: readonly FaultId[]): string => listed(faults.map(faultWords));
const feltList = (muscles: readonly Felt[]): string => listed(muscles.map((muscle) => say(FELT_WORDS[muscle])));

/** "12.5 cm", "70°" */
export const amountWords = (value: number, unit: Unit): string => `${formatNumber(value)}${suffixOf(unit)}`;

/** "8.5 cm or more (common practice, no source)" */
export function thresholdWords({ value, unit, at, source }: Threshold): string {
  const amount = amountWords(value, unit);
  return `${at === 'least' ? say('{amount} or more', { amount }) : say('{amount} or less', { amount })} (${source.cite})`;
}

type Reason<K extends ItemReason['kind']> = Extract<ItemReason, { kind: K }>;

function amountReason({ value, threshold, meets, within }: Reason<'amount'>): string {
  const parts = { value: amountWords(value, threshold.unit), wanted: thresholdWords(threshold) };
  const said = meets ? say('{value}; wanted: {wanted}', parts) : say('{value}, short of {wanted}', parts);
  return within ? say('{said}; the difference is inside the error of the reading', { said }) : said;
}

function circleReason({ sector, missing }: Reason<'circle'>): string {
  if (sector === null) return say('the circle is whole');
  const motions = missing.length > 0 ? ` (${listed(missing.map((id) => lower(motion(id).name)))})` : '';
  return say('cut off from {from} to {to} o’clock{motions}', { from: sector.from, to: sector.to, motions });
}

function feltReason({ right, wrong }: Reason<'felt'>): string {
  const parts = { right: feltList(right), wrong: feltList(wrong) };
  if (wrong.length === 0) return right.length > 0 ? say('felt in the {right}', parts) : say('felt nowhere where it is wanted');
  return right.length > 0
    ? say('felt in the {right}, and in the {wrong}, where it is not wanted', parts)
    : say('felt in the {wrong}, where it is not wanted', parts);
}

function faultsReason({ view, faults }: Reason<'faults'>): string {
  const list = faultList(faults);
  return view ? say('seen {view}: {faults}', { view: say(VIEW_WORDS[view]), faults: list }) : say('seen: {faults}', { faults: list });
}

function notedReason({ with: changes, faults }: Reason<'noted'>): string {
  const list = faultList(faults);
  if (changes.length === 0) return say('noted, and no fault by itself: {faults}', { faults: list });
  const change = listed(changes.map((one) => say(MODIFICATION_WORDS[one])));
  return say('noted, and no fault by itself with {change}: {faults}', { change, faults: list });
}

function painReason({ pain, where }: Reason<'pain'>): string {
  const amount = formatNumber(pain);
  return where ? say('hurts, {pain} of 10: {where}', { pain: amount, where }) : say('hurts, {pain} of 10', { pain: amount });
}

/** A reason in a sentence without its full stop. */
export function itemReasonWords(reason: ItemReason): string {
  switch (reason.kind) {
    case 'amount':
      return amountReason(reason);
    case 'told':
      return reason.meets ? say('meets, as the examiner says') : say('falls short, as the examiner says');
    case 'faults':
      return faultsReason(reason);
    case 'noted':
      return notedReason(reason);
    case 'none-seen':
      return reason.view ? say('looked at {view}: no fault seen', { view: say(VIEW_WORDS[reason.view]) }) : say('looked at: no fault seen');
    case 'circle':
      return circleReason(reason);
    case 'felt':
      return feltReason(reason);
    case 'choice':
      return say('told: {label}', { label: say(reason.label) });
    case 'tries':
      return sayCount(reason.of, 'one try', 'the better of {count} tries counts');
    case 'pain':
      return painReason(reason);
    case 'not-judged':
      return NOT_JUDGED[reason.why](reason.said);
  }
}

const NOT_JUDGED: Readonly<Record<Extract<ItemReason, { kind: 'not-judged' }>['why'], (said: string) => string>> = {
  'not-told': () => say('not judged: nothing was told of how it went'),
  'no-threshold': () => say('not judged by itself: compared with the next time'),
  'no-try': () => say('not judged: not done'),
  skipped: (said) => say('not judged: left out, {why}', { why: said }),
};

/** Advice that goes with pain, whatever the quality. */
export const painAdvice = (): string => say('Hurts: have it looked at before it is worked on');
