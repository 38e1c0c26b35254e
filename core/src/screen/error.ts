import { motion, protocolOfId } from '../catalogue/index.js';
import { defaultError, errorOf, mdc95 } from '../error/index.js';
import type { ErrorContext } from '../error/own.js';
import type { ItemTry } from './result.js';
import type { ScreenItem } from './types.js';

/**
 * Standard error of measurement of an item's amount: that of the measurement
 * it stands near where both are read in the same unit by the same instrument;
 * otherwise the instrument's default. What was read off a picture carries its
 * own error, and never less than a picture has.
 */
export function itemError(item: ScreenItem, value: number, context?: ErrorContext, tries: readonly ItemTry[] = []): number {
  if (item.answered.by !== 'amount') return 0;
  const { unit, with: instrument } = item.answered;
  const near = item.near
    .map(({ protocol }) => protocolOfId(protocol)!)
    .find((p) => motion(p.motion).unit === unit && p.instruments.includes(instrument));
  const usual = near
    ? errorOf({ motion: near.motion, instrument, protocol: near.id, value }, true, context).sem
    : defaultError(instrument).sameExaminer;
  const pictured = tries.flatMap(({ picture }) => (picture ? [picture.error ?? 0] : []));
  if (pictured.length === 0) return usual;
  return Math.max(usual, unit === 'deg' ? defaultError('picture').sameExaminer : 0, ...pictured);
}

/** The smallest change of an item's amount that is larger than its error. */
export const itemMdc = (item: ScreenItem, value: number, context?: ErrorContext): number => mdc95(itemError(item, value, context));
