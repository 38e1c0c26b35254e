import { DIAL_ACTIONS, dialKey, KEY_MAP } from './key-map';

const pressed = (key: string, over: object = {}) => dialKey({ key, ctrlKey: false, altKey: false, metaKey: false, ...over });

describe('the keys of the dial', () => {
  const keys = KEY_MAP.flatMap((line) => line.keys);

  it('do everything there is to do, each key one thing, and every one stands in the help', () => {
    expect(DIAL_ACTIONS.filter((action) => !keys.some(({ does }) => does === action))).toEqual([]);
    expect(new Set(keys.map(({ key }) => key)).size).toBe(keys.length);
    const SHOWN: Readonly<Record<string, string>> = { ArrowDown: '↓', ArrowUp: '↑', Escape: 'Esc', 'Control+z': 'Ctrl z', ' ': 'Space' };
    for (const { shown, keys: own } of KEY_MAP)
      for (const { key } of own)
        expect(shown)
          .withContext(key)
          .toContain(SHOWN[key] ?? key);
    expect(new Set(KEY_MAP.map(({ shown }) => shown)).size).toBe(KEY_MAP.length);
  });

  it('are none of the dial’s together with another key, but for undo', () => {
    expect([pressed('o')?.does, pressed('Enter')?.does, pressed('z', { ctrlKey: true })?.does]).toEqual(['otherSide', 'enter', 'undo']);
    expect([pressed('o', { altKey: true }), pressed('u', { metaKey: true }), pressed('o', { ctrlKey: true }), pressed('q')]).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
  });
});
