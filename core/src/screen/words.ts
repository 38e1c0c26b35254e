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

/** A reason in a sentence without its full stop. */
export function itemReasonWords(reason: ItemReason): string {
  switch (reason.kind) {
    case 'amount': {
      const parts = { value: amountWords(reason.value, reason.threshold.unit), wanted: thresholdWords(reason.threshold) };
      const said = reason.meets ? say('{value}; wanted: {wanted}', parts) : say('{value}, short of {wanted}', parts);
      return reason.within ? say('{said}; the difference is inside the error of the reading', { said }) : said;
    }
    case 'told':
      return reason.meets ? say('meets, as the examiner says') : say('falls short, as the examiner says');
    case 'faults':
      return reason.view
        ? say('seen {view}: {faults}', { view: say(VIEW_WORDS[reason.view]), faults: faultList(reason.faults) })
        : say('seen: {faults}', { faults: faultList(reason.faults) });
    case 'noted':
      return reason.with.length > 0
        ? say('noted, and no fault by itself with {change}: {faults}', {
            change: listed(reason.with.map((change) => say(MODIFICATION_WORDS[change]))),
            faults: faultList(reason.faults),
          })
        : say('noted, and no fault by itself: {faults}', { faults: faultList(reason.faults) });
    case 'none-seen':
      return reason.view ? say('looked at {view}: no fault seen', { view: say(VIEW_WORDS[reason.view]) }) : say('looked at: no fault seen');
    case 'circle':
      return reason.sector === null
        ? say('the circle is whole')
        : say('cut off from {from} to {to} o’clock{motions}', {
            from: reason.sector.from,
            to: reason.sector.to,
            motions: reason.missing.length > 0 ? ` (${listed(reason.missing.map((id) => lower(motion(id).name)))})` : '',
          });
    case 'felt':
      if (reason.wrong.length > 0)
        return reason.right.length > 0
          ? say('felt in the {right}, and in the {wrong}, where it is not wanted', {
              right: feltList(reason.right),
              wrong: feltList(reason.wrong),
            })
          : say('felt in the {wrong}, where it is not wanted', { wrong: feltList(reason.wrong) });
      return reason.right.length > 0
        ? say('felt in the {right}', { right: feltList(reason.right) })
        : say('felt nowhere where it is wanted');
    case 'choice':
      return say('told: {label}', { label: say(reason.label) });
    case 'tries':
      return sayCount(reason.of, 'one try', 'the better of {count} tries counts');
    case 'pain':
      return reason.where
        ? say('hurts, {pain} of 10: {where}', { pain: formatNumber(reason.pain), where: reason.where })
        : say('hurts, {pain} of 10', { pain: formatNumber(reason.pain) });
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
