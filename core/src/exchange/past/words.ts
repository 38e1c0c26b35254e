import { isJoint, MOTIONS, type Motion } from '../../catalogue/index.js';
import { INSTRUMENTS, MODES, POSITIONS, type Instrument, type Mode, type MotionId, type Position, type Side } from '../../terms.js';
import { INSTRUMENT_WORDS } from '../../words/instruments.js';

/** Short forms that lists of readings use, and what they stand for. @see common practice, no source */
const SHORT: Readonly<Record<string, string>> = {
  ...{ l: 'left', lt: 'left', r: 'right', rt: 'right' },
  ...{ arom: 'active', act: 'active', prom: 'passive', pass: 'passive' },
  ...{ flex: 'flexion', fl: 'flexion', ext: 'extension', abd: 'abduction', add: 'adduction' },
  ...{ ir: 'internal rotation', er: 'external rotation', mr: 'internal rotation', lr: 'external rotation', rot: 'rotation' },
  ...{
    medial: 'internal',
    lateral: 'external',
    inward: 'internal',
    outward: 'external',
    int: 'internal',
    inner: 'internal',
    outer: 'external',
  },
  ...{ df: 'dorsiflexion', pf: 'plantarflexion', inv: 'inversion', ev: 'eversion', sup: 'supination', pro: 'pronation', pron: 'pronation' },
  ...{ rd: 'radial deviation', ud: 'ulnar deviation', sb: 'lateral flexion', sidebending: 'lateral flexion' },
  ...{
    sh: 'shoulder',
    shldr: 'shoulder',
    gh: 'shoulder',
    cervical: 'neck',
    cx: 'neck',
    lx: 'lumbar',
    back: 'lumbar',
    slr: 'straight leg raise',
  },
  ...{ toe: 'toe', hallux: 'great toe', ftf: 'finger to floor', ktw: 'knee to wall' },
};

/** Lower case, without accents and signs, short forms spelled out: "R. Hip IR (PROM)" → right hip internal rotation passive. */
function plainWords(text: string): string[] {
  const words = text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  // "lateral flexion" is what the spine does; "lateral rotation" is outward.
  return words.flatMap((word, at) =>
    word === 'lateral' && words[at + 1]?.startsWith('flex') ? [word] : Object.hasOwn(SHORT, word) ? SHORT[word]!.split(' ') : [word],
  );
}

interface Named {
  readonly motion: Motion;
  readonly words: readonly string[];
}

/** By their names, the longest first, so that "straight leg raise" is not taken for less. */
const NAMED: readonly Named[] = MOTIONS.map((motion) => ({ motion, words: plainWords(motion.name) })).sort(
  (a, b) => b.words.length - a.words.length,
);
/** Motions of joints that only one joint makes, by the motion alone: pronation, dorsiflexion. */
const ALONE: ReadonlyMap<string, Motion> = new Map(
  [...grouped(MOTIONS.filter(({ joint }) => isJoint(joint)))].flatMap(([name, own]) =>
    own.length === 1 ? [[name, own[0]!] as const] : [],
  ),
);

function grouped(motions: readonly Motion[]): Map<string, Motion[]> {
  const groups = new Map<string, Motion[]>();
  for (const motion of motions) {
    const name = plainWords(motion.id.split('.')[1]!.replace(/([A-Z])/g, ' $1')).join(' ');
    groups.set(name, [...(groups.get(name) ?? []), motion]);
  }
  return groups;
}

/** What a text says of what was measured. What it does not say is left out. */
export interface Told {
  readonly motion?: MotionId;
  readonly side?: Side;
  readonly mode?: Mode;
  readonly position?: Position;
}

/** Reads a heading or a cell: "L knee flex AROM" → left, knee.flexion, active. */
export function told(text: string): Told {
  const id = MOTIONS.find((motion) => motion.id.toLowerCase() === text.trim().toLowerCase())?.id;
  const words = plainWords(text);
  const has = (all: readonly string[]) => all.every((word) => words.includes(word));
  const named = NAMED.filter((one) => has(one.words));
  const longest = named.filter((one) => one.words.length === named[0]?.words.length);
  const alone = [...ALONE].find(([name]) => has(name.split(' ')))?.[1];
  const motion = id ?? (longest.length === 1 ? longest[0]!.motion.id : longest.length === 0 ? alone?.id : undefined);
  const left = words.includes('left');
  const right = words.includes('right');
  const side = left !== right ? (left ? 'left' : 'right') : undefined;
  const mode = MODES.find((one) => words.includes(one));
  const position = POSITIONS.find((one) => words.includes(one.toLowerCase()));
  return { ...(motion && { motion }), ...(side && { side }), ...(mode && { mode }), ...(position && { position }) };
}

/** A side as a cell says it; also of the middle. */
export function sideOf(text: string): Side | undefined {
  const words = plainWords(text);
  if (['midline', 'middle', 'both', 'mid'].some((word) => words.includes(word))) return words.includes('both') ? undefined : 'midline';
  return told(text).side;
}

export function modeOf(text: string): Mode | undefined {
  const [word, ...more] = plainWords(text);
  if (more.length === 0 && (word === 'a' || word === 'p')) return word === 'a' ? 'active' : 'passive';
  return told(text).mode;
}

export function instrumentOf(text: string): Instrument | undefined {
  const words = plainWords(text).join(' ');
  return INSTRUMENTS.find((one) => words === one.toLowerCase() || words === plainWords(INSTRUMENT_WORDS[one]).join(' '));
}
