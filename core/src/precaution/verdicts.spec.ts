import { MOTIONS } from '../catalogue/index.js';
import { answeredOf, CAUTIONS } from '../plan/index.js';
import { DRILLS } from '../program/index.js';
import { SCREENS } from '../screen/index.js';
import { limited } from '../testing/limits.js';
import { hashOf, recordedLines } from '../testing/recorded.js';
import type { Side } from '../terms.js';
import {
  allowedDoing,
  allowedFor,
  alikePrecautions,
  asksWhere,
  forbiddenWords,
  leftOutWords,
  precautionWords,
  PRECAUTION_KINDS,
  type Allowed,
  type Limits,
  type Precaution,
} from './index.js';

const ON = '2026-11-20';
const SIDES: readonly Side[] = ['left', 'right'];

/** Everything that can be measured or done, on the limited limb and on the other. */
function judged(limits: Limits): readonly (readonly [name: string, allowed: Allowed])[] {
  const of = (side: Side, sides: string): Side => (sides === 'midline' || sides === 'none' ? 'midline' : side);
  return SIDES.flatMap((side) => [
    ...MOTIONS.flatMap(({ id: motion, sides, protocols }) =>
      protocols.flatMap(({ id: protocol, modes }) =>
        modes.map(
          (mode) => [`${protocol} ${side} ${mode}`, allowedFor({ protocol, motion, side: of(side, sides), mode }, limits)] as const,
        ),
      ),
    ),
    ...SCREENS.flatMap(({ id, items }) =>
      items.map((item) => [`${id}.${item.id} ${side}`, allowedDoing(item, of(side, item.sides), limits)] as const),
    ),
    ...DRILLS.map((drill) => [`${drill.id} ${side}`, allowedDoing(drill, of(side, drill.sides), limits)] as const),
  ]);
}

/** How many are held, and a mark that changes with any verdict, its place or its words. */
function verdictLine(name: string, limits: Limits): string {
  const verdicts = judged(limits);
  const count = (kind: Allowed['kind']) => verdicts.filter(([, allowed]) => allowed.kind === kind).length;
  const each = verdicts.map(([of, allowed]) => {
    if (allowed.kind === 'free') return `${of} free`;
    return `${of} ${allowed.kind} ${allowed.kind === 'stop' ? allowed.at : ''} ${allowed.row ? JSON.stringify(allowed.row) : ''} ${forbiddenWords(allowed)}`;
  });
  return `${name} | ${count('forbidden')} forbidden, ${count('stop')} stop, ${count('gentle')} gentle | ${hashOf(each.join('\n')).slice(0, 10)}`;
}

const FIGURES = [null, 0, 30, 90] as const;
const ALONE: readonly Precaution[] = MOTIONS.flatMap(({ id: motion, limits: { min, max } }) =>
  PRECAUTION_KINDS.flatMap((kind) =>
    FIGURES.filter((limit) => limit === null || ((kind === 'range' || kind === 'weight') && limit >= min && limit <= max)).map(
      (limit): Precaution => ({ motion, kind, side: 'left', limit, until: null, source: 'surgeon' }),
    ),
  ),
);
const COMBINED: readonly Precaution[] = [
  { motion: 'shoulder.externalRotation', with: ['shoulder.abduction'], limit: null, until: null, source: 'surgeon' },
  { motion: 'shoulder.externalRotation', with: ['shoulder.abduction'], side: 'left', limit: 45, until: null, source: 'surgeon' },
  { motion: 'hip.flexion', with: ['hip.adduction', 'hip.internalRotation'], side: 'left', limit: 90, until: null, source: 'surgeon' },
  {
    motion: 'ankle.dorsiflexion',
    with: ['knee.extension'],
    side: 'right',
    mode: 'active',
    limit: null,
    until: '2026-12-01',
    source: 'surgeon',
  },
  { motion: 'knee.flexion', mode: 'active', limit: 60, until: '2026-11-19', source: 'run out' },
  {
    motion: 'muscleLength.straightLegRaise',
    protocol: 'muscleLength.straightLegRaise/supine',
    limit: null,
    until: null,
    source: 'surgeon',
  },
];

/**
 * What the judge of limits says, for each limit of everything there is, as it
 * was recorded from the program. A line that changes names the limit whose
 * verdicts have changed. It shows change, not correctness: the second entries
 * show that.
 */
describe('verdicts of the judge of limits', () => {
  it('are those that were recorded', () => {
    const lines = [
      ...CAUTIONS.flatMap(({ id }) => [
        verdictLine(`${id}, asks where ${asksWhere(id)}: ${leftOutWords([{ id, joints: null }]).join('; ')}`, {
          precautions: [],
          cautions: answeredOf({ yes: [id] }),
          on: ON,
        }),
        verdictLine(`${id} of the knee`, { precautions: [], cautions: answeredOf({ yes: [id], where: { [id]: ['knee'] } }), on: ON }),
      ]),
      ...COMBINED.map((by) =>
        verdictLine(`${by.motion} with ${by.with?.join(' ') ?? 'nothing'}: ${precautionWords(by)}`, limited([by], ON)),
      ),
      ...ALONE.map((by) => verdictLine(`${by.motion} ${by.kind} ${by.limit}`, limited([by], ON))),
    ];
    expect(lines).toEqual(recordedLines(new URL('verdicts.txt', import.meta.url), lines));
  });

  it('of several limits are the strictest of each', () => {
    const ORDER = { free: 0, gentle: 1, stop: 2, forbidden: 3 };
    const two: readonly Precaution[] = [
      { motion: 'knee.flexion', side: 'left', limit: 90, until: null, source: 'surgeon' },
      { motion: 'knee.flexion', side: 'left', limit: 60, until: null, source: 'therapist' },
    ];
    const [first, second] = two.map((by) => judged(limited([by], ON)));
    const stop = judged(limited(two, ON));
    stop.forEach(([name, allowed], at) => {
      const strictest = Math.max(ORDER[first![at]![1].kind], ORDER[second![at]![1].kind]);
      expect(ORDER[allowed.kind]).withContext(name).toBe(strictest);
      if (allowed.kind === 'stop') expect(allowed.at).withContext(name).toBe(60);
    });
  });

  it('joins limits that say the same of several motions', () => {
    const at = (motion: Precaution['motion'], limit: number | null): Precaution => ({ motion, limit, until: null, source: 'surgeon' });
    expect(
      alikePrecautions([at('hip.flexion', 90), at('knee.flexion', 90), at('hip.extension', 90), at('hip.abduction', 30)]).map((alike) =>
        alike.map(({ motion }) => motion),
      ),
    ).toEqual([['hip.flexion', 'hip.extension'], ['knee.flexion'], ['hip.abduction']]);
  });
});
