import { readFileSync } from 'node:fs';
import { PROTOCOLS } from '../catalogue/index.js';
import { declaredInVain, directionOf, imposesOf, jointOf, type Imposition } from './index.js';

/** The second entry speaks of the thumb, the fingers and the great toe as one joint each. */
const LUMPED: Readonly<Record<string, string>> = {
  thumbCmc: 'thumb',
  thumbMcp: 'thumb',
  thumbIp: 'thumb',
  fingerMcp: 'fingers',
  fingerPip: 'fingers',
  fingerDip: 'fingers',
  greatToeMtp: 'greatToe',
  greatToeIp: 'greatToe',
};

const BY = { measurement: 'as', active: 'active', passive: 'passive', held: 'held' } as const;
const lump = (joint: string) => LUMPED[joint] ?? joint;

/** "measured hip.flexion" → "full limb as" */
const ours = (protocol: string): Map<string, Set<string>> =>
  byPlace(
    imposesOf(protocol)
      .filter((row): row is Exclude<Imposition, { what: 'touches' }> => row.what !== 'touches')
      .map((row) =>
        row.what === 'bears'
          ? [row.limb, `${lump(row.joint)}.weight`, `${row.load} ${BY[row.by]}`]
          : [
              row.limb,
              `${lump(jointOf(row.motion))}.${directionOf(row.motion)}`,
              `${row.what === 'works' ? 0 : row.degrees} ${row.load} ${BY[row.by]}`,
            ],
      ),
  );

/** A second entry, made apart from clinical knowledge: no field holds a comma. */
const ENTERED = readFileSync(new URL('./second-entry.csv', import.meta.url), 'utf8')
  .trim()
  .split('\n')
  .slice(1)
  .map((line) => {
    const [protocol, limb, joint, direction, degrees, load, mode] = line.split(',') as [
      string,
      string,
      string,
      string,
      string,
      string,
      string,
    ];
    return { protocol, limb, joint, direction, degrees, load, mode };
  });
const theirs = (protocol: string): Map<string, Set<string>> =>
  byPlace(
    ENTERED.filter((row) => row.protocol === protocol).map(({ limb, joint, direction, degrees, load, mode }) => [
      limb,
      `${joint}.${direction}`,
      direction === 'weight' ? `${load} ${mode}` : `${degrees} ${load} ${mode}`,
    ]),
  );

/** "both" stands for the measured and the other limb. */
function byPlace(rows: readonly string[][]): Map<string, Set<string>> {
  const places = new Map<string, Set<string>>();
  for (const [limb, what, how] of rows)
    for (const each of limb === 'both' ? ['measured', 'other'] : [limb]) {
      const place = `${each} ${what}`;
      places.set(place, (places.get(place) ?? new Set()).add(how!));
    }
  return places;
}

describe('what ways of measuring impose', () => {
  it('is declared by every one of them, and by none that there is not', () => {
    expect(new Set(ENTERED.map((row) => row.protocol)).size).toBe(216);
    for (const { id } of PROTOCOLS) expect(imposesOf(id).length).withContext(id).toBeGreaterThan(0);
    expect(declaredInVain()).toEqual([]);
    expect(() => imposesOf('hip.flexion/floating')).toThrowError(RangeError);
  });

  it('is what the second entry has, row by row, but for what is explained', () => {
    const before = new Set(ENTERED.map((row) => row.protocol));
    const since = PROTOCOLS.map(({ id }) => id).filter((id) => !before.has(id));
    expect(since).withContext('ways of measuring that came after the second entry').toEqual(['hip.externalRotation/supine-combined']);
    const differences = [...before].flatMap((id) => {
      const [a, b] = [ours(id), theirs(id)];
      const told = (of: Map<string, Set<string>>, place: string) => [...(of.get(place) ?? [])].sort().join(' + ');
      return [...new Set([...a.keys(), ...b.keys()])]
        .filter((place) => told(a, place) !== told(b, place))
        .map((place) => [`${id} ${place}`, told(a, place), told(b, place)]);
    });
    expect(differences.map(([at]) => at!).sort()).toEqual(Object.keys(EXPLAINED).sort());
    // No difference is looser than the second entry.
    for (const [at, mine, entered] of differences)
      if (entered) expect(mine).withContext(at!).toMatch(`${entered}|full`.replaceAll('+', '\\+'));
  });
});

const ON_PAST = 'the second entry writes a nominal figure and notes that it can go past it: for a limit at that figure it has to be out';
const CROSSES_HIP = 'the muscle in front of the thigh crosses the hip as well: a straight hip is drawn on, not just lain on';
const bothLegs = (protocols: readonly string[], why: string) =>
  Object.fromEntries(protocols.flatMap((id) => ['measured', 'other'].map((limb) => [`${id} ${limb} hip.flexion`, why])));
const TRUNK_ITSELF =
  'a limit of the whole trunk meets what is measured under that name; its parts, the chest and the low back, stand beside it in both';

/** Where the two entries differ, and why ours stands. */
const EXPLAINED: Readonly<Record<string, string>> = {
  ...bothLegs(
    [
      'thoracic.flexion/standing',
      'thoracolumbar.flexion/standing',
      'lumbar.flexion/standing',
      'distance.fingerToFloor/standing',
      'distance.schober15/standing',
      'distance.schoberModified/standing',
    ],
    ON_PAST,
  ),
  'check.heelTouchesButtock/prone measured hip.extension': CROSSES_HIP,
  'distance.heelToButtock/prone measured hip.extension': CROSSES_HIP,
  'knee.flexion/prone measured hip.extension': CROSSES_HIP,
  'muscleLength.proneKneeBend/prone measured hip.extension': CROSSES_HIP,
  'shoulder.extension/prone trunk cervical.rotation': 'the row of lying face down stands beside the further turn of this one',
  'knee.flexion/sitting measured knee.flexion': 'the shin hangs at the edge of the table before it is bent further',
  'muscleLength.kneeDrop/supine measured knee.flexion': 'the shin hangs so before anything is read: it cannot be stopped on the way',
  'wrist.extension/quadruped-loaded measured wrist.extension': 'the start on all fours stands beside the end of the movement',
  'wrist.extension/quadruped-loaded other wrist.extension': 'the start on all fours stands beside the end of the movement',
  'hip.extension/prone measured hip.extension': 'lying face down, the start, stands beside the end of the movement',
  'fingerDip.flexion/sitting measured fingers.flexion':
    'the middle joint is held bent at a right angle: a limit of it is met, which one row for all finger joints hides',
  'muscleLength.fingerIntrinsicsMcpFlexed/sitting measured fingers.flexion':
    'the knuckle is held bent near a right angle, beside the middle joint that is measured',
  'thoracolumbar.flexion/standing trunk thoracolumbar.flexion': TRUNK_ITSELF,
  'thoracolumbar.extension/standing trunk thoracolumbar.extension': TRUNK_ITSELF,
  'thoracolumbar.extension/prone-press-up trunk thoracolumbar.extension': TRUNK_ITSELF,
  'thoracolumbar.lateralFlexion/standing trunk thoracolumbar.lateralFlexion': TRUNK_ITSELF,
  'thoracolumbar.rotation/sitting trunk thoracolumbar.rotation': TRUNK_ITSELF,
};
