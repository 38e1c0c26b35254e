/** What a key does at the dial. */
export const DIAL_ACTIONS = [
  'enter',
  'next',
  'back',
  'clear',
  'showKeys',
  'otherSide',
  'otherMode',
  'undo',
  'correct',
  'endFeel',
  'pain',
  'substitutions',
  'notDone',
  'note',
  'tool',
  'standpoint',
  'add',
  'library',
  'holdLive',
  'zero',
  'flip',
  'instruments',
] as const;
export type DialAction = (typeof DIAL_ACTIONS)[number];

interface DialKey {
  /** As the browser names it; `Control+z` with the key held. */
  readonly key: string;
  readonly does: DialAction;
  /** Works whatever is typed; any other is text where it may belong to a figure. */
  readonly always?: true;
}

/** One line of the help: keys, and what they do; or what may be typed. */
export interface KeyHelp {
  /** As they are shown. */
  readonly shown: string;
  readonly words: string;
  readonly keys: readonly DialKey[];
}

/** Every key of the dial with its help, in the order in which it is shown. */
export const KEY_MAP: readonly KeyHelp[] = [
  { shown: '0–9 Enter', words: 'hold a reading', keys: [{ key: 'Enter', does: 'enter', always: true }] },
  {
    shown: '10/45 Enter',
    words: 'start and end, when the start was not zero; zero and end of a device that was not set',
    keys: [],
  },
  { shown: '-15 Enter', words: 'a lack: zero was not reached', keys: [] },
  { shown: '86/34 Enter', words: 'two sites, in the order of the hands; Enter after a figure goes to the next', keys: [] },
  { shown: 'l45 or 45r', words: 'with the side said: one that disagrees with the drawing is caught', keys: [] },
  { shown: 'S:0-15-120 Enter', words: 'an arc: fills both directions', keys: [] },
  { shown: '32lb or 1f2', words: 'another unit; one fist and two fingers', keys: [] },
  { shown: 'y or n', words: 'an answer, where one is asked', keys: [] },
  { shown: 'o', words: 'other side', keys: [{ key: 'o', does: 'otherSide' }] },
  { shown: 'm', words: 'active / passive of the same motion', keys: [{ key: 'm', does: 'otherMode' }] },
  {
    shown: '↓ or n',
    words: 'next on the run sheet',
    keys: [
      { key: 'ArrowDown', does: 'next', always: true },
      { key: 'n', does: 'next' },
    ],
  },
  {
    shown: '↑ or b',
    words: 'back on the run sheet',
    keys: [
      { key: 'ArrowUp', does: 'back', always: true },
      { key: 'b', does: 'back' },
    ],
  },
  { shown: 'Enter', words: 'the patient is turned, where a turn is asked (Esc: not yet)', keys: [] },
  {
    shown: 'u or Ctrl z',
    words: 'undo: withdraw the reading held last',
    keys: [
      { key: 'u', does: 'undo' },
      { key: 'Control+z', does: 'undo', always: true },
    ],
  },
  { shown: 'z', words: 'correct the last reading of this motion; the old value stays on record', keys: [{ key: 'z', does: 'correct' }] },
  { shown: 'e', words: 'end feel (arrows, Space; Esc returns)', keys: [{ key: 'e', does: 'endFeel' }] },
  { shown: 'p', words: 'pain, 0 to 10 (Enter returns)', keys: [{ key: 'p', does: 'pain' }] },
  { shown: 'x', words: 'what faked the range (arrows, Space; Esc returns)', keys: [{ key: 'x', does: 'substitutions' }] },
  { shown: 'k', words: 'not done: left out, refused, not possible', keys: [{ key: 'k', does: 'notDone' }] },
  { shown: 'c', words: 'a note', keys: [{ key: 'c', does: 'note' }] },
  { shown: 'g', words: 'instrument, device scale, units', keys: [{ key: 'g', does: 'tool' }] },
  { shown: 'd', words: 'connected instruments: phone, simulated inclinometer', keys: [{ key: 'd', does: 'instruments' }] },
  { shown: 'Space', words: 'hold what a connected instrument shows', keys: [{ key: ' ', does: 'holdLive' }] },
  { shown: 'w', words: 'set zero of the connected instrument where it is', keys: [{ key: 'w', does: 'zero' }] },
  { shown: 't', words: 'it counts the other way round', keys: [{ key: 't', does: 'flip' }] },
  { shown: 'v', words: 'where you stand: foot or head of the table', keys: [{ key: 'v', does: 'standpoint' }] },
  { shown: 'a', words: 'add any way of measuring to the run sheet', keys: [{ key: 'a', does: 'add' }] },
  { shown: 'i', words: 'library: figure, norms of all sets, measuring error', keys: [{ key: 'i', does: 'library' }] },
  { shown: 'Esc', words: 'clear what is typed', keys: [{ key: 'Escape', does: 'clear', always: true }] },
  { shown: '?', words: 'this list', keys: [{ key: '?', does: 'showKeys', always: true }] },
];

const BY_KEY: ReadonlyMap<string, DialKey> = new Map(KEY_MAP.flatMap(({ keys }) => keys.map((one) => [one.key, one] as const)));

/** What a pressed key does: nothing where it is none of the dial's, or held together with another. */
export function dialKey({
  key,
  ctrlKey,
  altKey,
  metaKey,
}: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'altKey' | 'metaKey'>): DialKey | undefined {
  return altKey || metaKey ? undefined : BY_KEY.get(ctrlKey ? `Control+${key}` : key);
}
