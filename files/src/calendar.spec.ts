import ICAL from 'ical.js';
import { calendarText, type CalendarEntry } from './calendar.js';

const MADE = new Date('2026-11-20T10:15:00Z');
const read = (entries: readonly CalendarEntry[]) => {
  const text = calendarText('Saltmarsh Lane', entries, MADE);
  const events = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
  return { text, events };
};

describe('a calendar file', () => {
  it('is read back by a second reader: day, words, and every day of a drill up to the recheck', () => {
    const { text, events } = read([
      { uid: 'recheck-1', on: '2026-12-18', title: 'Recheck; "knee", left', details: 'four weeks\nbring shorts, Ärmel' },
      { uid: 'drill-1', on: '2026-11-20', title: 'Heel slides', details: '', repeats: { daysAWeek: 3, until: '2026-12-04' } },
      { uid: 'drill-2', on: '2026-11-20', title: 'Circles', details: '', repeats: { daysAWeek: 7, until: '2026-11-24' } },
    ]);
    const [recheck, three, daily] = events as [ICAL.Event, ICAL.Event, ICAL.Event];
    expect([recheck.uid, recheck.summary, recheck.description]).toEqual([
      'recheck-1',
      'Recheck; "knee", left',
      'four weeks\nbring shorts, Ärmel',
    ]);
    expect([recheck.startDate.isDate, recheck.startDate.toString()]).toEqual([true, '2026-12-18']);
    const days = (event: ICAL.Event) => {
      const iterator = event.iterator();
      const found: string[] = [];
      for (let next = iterator.next(); next && found.length < 100; next = iterator.next()) found.push(next.toString());
      return found;
    };
    expect(days(three)).toEqual(['2026-11-20', '2026-11-23', '2026-11-25', '2026-11-27', '2026-11-30', '2026-12-02']);
    expect(days(daily)).toEqual(['2026-11-20', '2026-11-21', '2026-11-22', '2026-11-23']);
    expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBeTrue();
  });

  it('leaves out what has no day left, and numbers a later file higher', () => {
    expect(read([{ uid: 'x', on: '2026-11-20', title: 'x', details: '', repeats: { daysAWeek: 2, until: '2026-11-20' } }]).events).toEqual(
      [],
    );
    const sequence = (at: Date) =>
      /SEQUENCE:(\d+)/.exec(calendarText('x', [{ uid: 'x', on: '2026-11-20', title: 'x', details: '' }], at))![1];
    expect(Number(sequence(new Date('2026-11-20T10:20:00Z')))).toBeGreaterThan(Number(sequence(MADE)));
  });
});
