import { isJoint, motion, protocolOfId } from '../catalogue/index.js';
import { demandsOf } from '../imposes/done/index.js';
import { COMMON_PRACTICE, type Instrument, type Mode, type Position, type Source, type Unit } from '../terms.js';
import type { FaultId } from './faults.js';
import type { PatternId } from './pattern-ids.js';
import type { ItemAnswered, ItemFault, Modification, Screen, ScreenItem, Threshold, View } from './types.js';

/** An item as a screen's file writes it; the rest follows. */
export interface ItemSpec {
  readonly id: string;
  readonly name: string;
  readonly setUp: string;
  readonly say: string;
  readonly meets: string;
  readonly threshold?: Threshold;
  readonly answered?: ItemAnswered;
  readonly views?: readonly View[];
  readonly modifications?: readonly Modification[];
  /** Those of an item without views, that open nothing of their own. */
  readonly faults?: readonly (FaultId | ItemFault)[];
  readonly sides?: ScreenItem['sides'];
  readonly pain?: string;
  readonly tries?: number;
  readonly at: Position;
  readonly mode?: Mode;
  readonly near?: readonly string[];
  readonly opens?: PatternId;
  readonly chain?: ScreenItem['chain'];
  readonly minutes?: number;
  readonly atHome?: boolean;
  readonly caution?: string;
  /** Scene that it is drawn on. */
  readonly figure: string;
  readonly figureFrom?: ScreenItem['figureFrom'];
  readonly source?: Source;
  readonly orElse?: string;
  readonly formerly?: string;
}

export const atLeast = (value: number, unit: Unit, source: Source = COMMON_PRACTICE): Threshold => ({ value, unit, at: 'least', source });
export const atMost = (value: number, unit: Unit, source: Source = COMMON_PRACTICE): Threshold => ({ value, unit, at: 'most', source });

/** An amount, with what can be read at all. */
export const amount = (unit: Unit, min: number, max: number, instrument: Instrument, counts: 'best' | 'mean' = 'best'): ItemAnswered => ({
  by: 'amount',
  unit,
  min,
  max,
  with: instrument,
  counts,
});
/** Centimetres that are left to where it should reach; past it counts down. */
export const leftOver = (max = 100, min = -30): ItemAnswered => amount('cm', min, max, 'tape');

/** Faults seen from one view; `opens` where they ask a question of their own. */
export const seenFrom = (view: View, faults: Readonly<Partial<Record<FaultId, PatternId | null>>>): ItemFault[] =>
  Object.entries(faults).map(([id, opens]) => ({ id: id as FaultId, views: [view], opens, counts: true }));

/** Faults of an item without views that ask a question of their own. */
export const seen = (faults: Readonly<Partial<Record<FaultId, PatternId | null>>>): ItemFault[] =>
  Object.entries(faults).map(([id, opens]) => ({ id: id as FaultId, views: [], opens, counts: true }));

const LOOK: ItemAnswered = { by: 'look' };
const LAST: Readonly<Record<ItemAnswered['by'], number>> = { amount: 0.7, look: 0.5, circle: 1, felt: 0.8, choice: 0.4 };

/** What an item says nothing of. */
const UNSAID = {
  threshold: null,
  answered: LOOK,
  views: [],
  modifications: [],
  sides: 'none',
  tries: 2,
  opens: null,
  chain: null,
  atHome: false,
  caution: null,
  figureFrom: {},
  source: COMMON_PRACTICE,
  mode: 'active',
  orElse: null,
  formerly: null,
} satisfies Partial<ScreenItem>;

function itemOf(screen: string, { at, pain, faults = [], near = [], ...spec }: ItemSpec): ScreenItem {
  const { answered = UNSAID.answered, mode = UNSAID.mode } = spec;
  const beside = near.map((protocol) => {
    const found = protocolOfId(protocol);
    if (!found) throw new RangeError(`${spec.id} stands near "${protocol}", which the catalogue does not hold`);
    return { protocol, motion: found.motion, mode: found.modes.includes(mode) ? mode : found.modes[0]! };
  });
  return {
    ...UNSAID,
    minutes: LAST[answered.by],
    ...spec,
    painQuestion: pain ?? 'Does it hurt, and where? A stretch or a pull is no pain.',
    position: at,
    faults: faults.map((fault) => (typeof fault === 'string' ? { id: fault, views: [], opens: null, counts: true } : fault)),
    ...demandsOf(`${screen}.${spec.id}`, at, mode),
    is: [...new Set(beside.map((one) => one.motion))].filter((id) => !isJoint(motion(id).joint)),
    near: beside.map(({ protocol, mode: by }) => ({ protocol, mode: by })),
  };
}

/** A screen from its data. */
export function defineScreen({
  items,
  former = [],
  ...spec
}: Omit<Screen, 'items' | 'former'> & { readonly items: readonly ItemSpec[]; readonly former?: readonly ItemSpec[] }): Screen {
  return {
    ...spec,
    items: items.map((item) => itemOf(spec.id, item)),
    former: former.map((item) => itemOf(spec.id, { ...item, name: `${item.name} (as asked before)` })),
  };
}
