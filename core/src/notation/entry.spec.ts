import { parseDualEntry, parseEntry } from './entry.js';

describe('entry at the dial', () => {
  it('reads an end, a start and an end, a lack, and a decimal', () => {
    expect(parseEntry('31')).toEqual({ ok: true, start: 0, end: 31 });
    expect(parseEntry(' 10 / 45 ')).toEqual({ ok: true, start: 10, end: 45 });
    expect(parseEntry('-15')).toEqual({ ok: true, start: 0, end: -15 });
    expect(parseEntry('12,5')).toEqual({ ok: true, start: 0, end: 12.5 });
  });

  for (const [text, words] of [
    ['', 'Type a reading'],
    ['10/', 'half a reading'],
    ['1/2/3', 'more than one slash'],
    ['3-1', 'not an angle'],
    ['10000', 'not an angle'],
    ['abc', 'not an angle'],
  ]) {
    it(`refuses "${text}" and says why`, () => {
      expect(parseEntry(text!)).toEqual({ ok: false, message: jasmine.stringContaining(words!) as never });
    });
  }
});

describe('typed readings at two sites', () => {
  it('reads upper and lower ends, with or without their zeros', () => {
    expect(parseDualEntry('104/49')).toEqual({ ok: true, upper: { zero: 0, end: 104 }, lower: { zero: 0, end: 49 } });
    expect(parseDualEntry(' 350/94  3,5/49 ')).toEqual({ ok: true, upper: { zero: 350, end: 94 }, lower: { zero: 3.5, end: 49 } });
  });

  it('says what is wrong and what is allowed', () => {
    const message = (text: string) => {
      const entry = parseDualEntry(text);
      return entry.ok ? '' : entry.message;
    };
    expect(message('')).toContain('Type both sites first');
    expect(message('104')).toContain('is not a reading at two sites; allowed: upper/lower, as 104/49');
    expect(message('104/')).toContain('is half a reading');
    expect(message('1/2/3')).toContain('is not a reading at two sites');
    expect(message('a/49')).toContain('"a" is not an angle');
  });
});
