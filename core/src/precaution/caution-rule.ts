import type { DoneTrait, ImposedLoad } from '../imposes/index.js';
import type { Joint } from '../terms.js';

/** Where a rule holds: anywhere; at the part that the answer is about; at the neck or the hip only. */
export type RuleAt = 'anywhere' | 'asked' | 'neck' | 'hip';

interface Ruled {
  readonly at: RuleAt;
  /** `gentle`: to where it goes by itself; what cannot be stopped there is left out. */
  readonly kind: 'forbidden' | 'gentle';
}

/** What an answer to a caution leaves out. */
export type Rule =
  | (Ruled & { readonly when: 'trait'; readonly trait: DoneTrait })
  | (Ruled & {
      readonly when: 'row';
      readonly joint: Joint | '*';
      /** A direction, weight, or any. */
      readonly direction: string;
      readonly from: number | 'full' | null;
      readonly load: ImposedLoad | '*';
    })
  | (Ruled & { readonly when: 'everything'; readonly of: 'all' | 'part' | 'standing' });

const trait =
  (kind: Ruled['kind']) =>
  (of: DoneTrait, at: RuleAt = 'anywhere'): Rule => ({ when: 'trait', trait: of, at, kind });

const row =
  (kind: Ruled['kind']) =>
  (joint: Joint | '*', direction: string, from: number | 'full' | null, load: ImposedLoad | '*', at: RuleAt = 'anywhere'): Rule => ({
    when: 'row',
    ...{ joint, direction, from, load, at, kind },
  });

export const no = trait('forbidden');
export const gentle = trait('gentle');
export const noRow = row('forbidden');
export const gentleRow = row('gentle');
/** Everything; everything of the part asked about; everything done standing. */
export const everything = (of: 'all' | 'part' | 'standing' = 'all'): Rule => ({
  when: 'everything',
  of,
  at: of === 'part' ? 'asked' : 'anywhere',
  kind: 'forbidden',
});
