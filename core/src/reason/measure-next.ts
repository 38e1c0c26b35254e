import type { Measurement } from '../assessment.js';
import { motion, protocolOf, protocolOfId } from '../catalogue/index.js';
import { allowedFor } from '../precaution/index.js';
import { itemOf, type ItemOutcome } from '../screen/index.js';
import type { Mode, Side } from '../terms.js';
import type { Choosing } from './tests.js';

/** A measurement that puts a number to what fell short on a screen. */
export interface MeasureNext {
  readonly protocol: string;
  readonly mode: Mode;
  readonly side: Side;
  /** The item that asks for it. */
  readonly because: ItemOutcome;
}

/**
 * What to measure next: the measurements and muscle-length tests that items
 * stand near which fell short without pain. What was measured already is not
 * asked again, and nothing that a precaution forbids is asked at all.
 */
export function measureNext(
  outcomes: readonly ItemOutcome[],
  measured: readonly Pick<Measurement, 'motion' | 'side' | 'mode' | 'position' | 'protocol' | 'digit'>[],
  { limits, screens }: Pick<Choosing, 'limits' | 'screens'>,
): MeasureNext[] {
  const known = new Set(measured.map((m) => [protocolOf(m).id, m.mode, m.side].join('|')));
  const next = new Map<string, MeasureNext>();
  for (const one of outcomes) {
    if (one.quality !== 'short' || (one.pain ?? 0) > 0) continue;
    for (const { protocol: id, mode } of itemOf(one, screens)?.near ?? []) {
      const protocol = protocolOfId(id)!;
      const { sides } = motion(protocol.motion);
      const limbs: readonly Side[] = sides === 'midline' ? ['midline'] : one.side === 'midline' ? ['left', 'right'] : [one.side];
      for (const side of limbs) {
        const key = [id, mode, side].join('|');
        const allowed = allowedFor({ protocol: id, motion: protocol.motion, side, mode }, limits);
        if (known.has(key) || next.has(key) || allowed.kind === 'forbidden') continue;
        next.set(key, { protocol: id, mode, side, because: one });
      }
    }
  }
  return [...next.values()];
}
