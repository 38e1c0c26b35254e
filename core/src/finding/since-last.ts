import { isLoss, type Change } from './change.js';
import { found, motionOf, sizeOf } from './make.js';
import { readings } from './steps.js';
import type { Evidence, Found } from './types.js';

/** What lies between this reading and the one of the last visit. */
export interface SinceLast extends Pick<Change, 'before' | 'change' | 'mdc' | 'verdict'> {
  readonly on: string;
}

/** How much a reading changed since the last visit, for its words. */
export const sizeOfChange = (f: Found<SinceLast>) => ({ size: sizeOf(f, Math.abs(f.facts.change)) });

/** What a change comes to: within measuring error, a real loss, or another real change. */
export type ChangeKind = 'within-error' | 'loss' | 'other';

const kindOfChange = (change: Change): ChangeKind => {
  if (change.verdict === 'within-error') return 'within-error';
  return isLoss(change) ? 'loss' : 'other';
};

/** Readings that were taken the same way last time, held against that: those whose change is of one kind. */
export function sinceLast({ measured, previous, sinceLast: changes }: Evidence, kind: ChangeKind): Found<SinceLast>[] {
  if (!previous) return [];
  return measured.flatMap((m) => {
    const c = changes.get(m.key);
    if (!c) return [];
    if (kindOfChange(c) !== kind) return [];
    const { id } = motionOf(m);
    return [
      found(m, {
        severity: kind === 'loss' ? 'mild' : 'note',
        expected: c.before,
        timesError: Math.abs(c.change) / c.mdc,
        facts: { on: previous.on, before: c.before, change: c.change, mdc: c.mdc, verdict: c.verdict },
        steps: [
          readings(m),
          { step: 'before', motion: id, on: previous.on, value: c.before },
          {
            step: 'difference',
            motion: id,
            from: m.value,
            take: c.before,
            is: c.change,
            signed: true,
            mdc: c.mdc,
            source: c.errorSource,
          },
          ...c.caveats.map((caveat) => ({ step: 'caveat', caveat }) as const),
        ],
      }),
    ];
  });
}
