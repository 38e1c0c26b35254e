import { parseEntry } from './entry.js';

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
