import { TestBed } from '@angular/core/testing';
import type { Shows, VisitRecord } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { Lines } from '../live/line';
import { FakeLines } from '../testing/fake-lines';
import { FakeQueue } from '../testing/fake-queue';
import { visitRecord } from '../testing/records';
import { Exam, EXAM } from './exam';
import { readingWords } from './reading-words';

const [A, B] = ['a0000000-0000-4000-8000-000000000001', 'b0000000-0000-4000-8000-000000000002'];

describe('an exam read by connected instruments', () => {
  let exam: Exam;
  let queue: FakeQueue;
  let lines: FakeLines;

  const open = (over: Partial<VisitRecord> = {}) => exam.commands.open(visitRecord(over));
  const settle = () => TestBed.tick();
  const hear = (said: object) => lines.last.in.next(said);
  const told = (k: string) => lines.last.out.map(({ said }) => said as { k: string }).filter((said) => said.k === k);
  const asked = () => told('asks').at(-1) as unknown as { for: string; place: string; words: string };
  const shown = (held: number, over: Partial<Shows> = {}): Shows => ({
    ...{ t: 5, degrees: held, held, peak: held, outOfPlane: 3, still: 1, way: held < 0 ? -1 : 1, lost: false, zero: 'start' },
    zeroedAt: asked().place,
    ...over,
  });
  const shows = (held: number, over: Partial<Shows> = {}, device = A) =>
    hear({ k: 'from', device, said: { k: 'shows', shows: shown(held, over) } });
  const connect = (kind: 'device' | 'phone' = 'device') => {
    exam.live.connect();
    settle();
    hear({ k: 'here', device: A, kind, name: 'Inclinometer' });
    settle();
  };
  const heldThere = (id: string, held: number, over: { for?: string } = {}) => {
    hear({ k: 'from', device: A, said: { k: 'held', id, for: asked().for, shows: shown(held), ...over } });
    settle();
  };
  const answered = () => told('answer') as unknown as { taken: boolean; words: string }[];
  const body = () => queue.next().body as unknown as Record<string, unknown>;

  const create = async () => {
    TestBed.resetTestingModule();
    localStorage.clear();
    queue = new FakeQueue();
    lines = new FakeLines();
    TestBed.configureTestingModule({
      providers: [EXAM, { provide: CommandQueue, useValue: queue }, { provide: Lines, useValue: lines }],
    });
    exam = TestBed.inject(Exam);
    await open();
  };

  beforeEach(create);
  afterEach(() => {
    // What was begun on the test's time ends on it.
    TestBed.resetTestingModule();
    jasmine.clock().uninstall();
  });

  it('moves the needle with the limb, and holds where it stands, taken with what measured', () => {
    connect();
    shows(104.4);
    expect([exam.sources.isLive(), exam.sources.value()]).toEqual([true, 104]);
    expect(readingWords(exam)).toContain('inclinometer · Space holds');
    exam.commands.hold();
    expect(body()).toEqual(jasmine.objectContaining({ instrument: 'inclinometer', start: 0, end: 104, side: 'left' }));
    expect(exam.record.place().side).toBe('right');
  });

  it('is told what is measured and never whose it is, again at every place', () => {
    connect();
    expect(asked().words).toBe('left hip flexion, active');
    const before = told('asks').length;
    for (let degrees = 0; degrees < 20; degrees += 1) {
      shows(degrees);
      settle();
    }
    expect(told('asks').length).toBe(before);
    exam.course.otherSide();
    settle();
    expect(asked().words).toBe('right hip flexion, active');
    const { givenName, familyName } = exam.record.visit()!.patient;
    expect(JSON.stringify(lines.last.out)).not.toMatch(new RegExp(`${givenName}|${familyName}`));
  });

  it('takes what is typed before what is shown', () => {
    connect();
    shows(104);
    exam.typed.text.set('99');
    expect(exam.sources.value()).toBe(99);
    exam.commands.hold();
    expect(body()).toEqual(jasmine.objectContaining({ instrument: 'goniometer', end: 99 }));
  });

  it('holds nothing that is stale, gone, out of plane or zeroed elsewhere, and says which', () => {
    connect();
    shows(40, { outOfPlane: 34 });
    expect(exam.commands.hold()).toBeFalse();
    expect(exam.course.problem()).toContain('34° out of plane');
    shows(40, { zeroedAt: 'elsewhere' });
    exam.commands.hold();
    expect(exam.course.problem()).toContain('Zero was set for another measurement');
    shows(40);
    hear({ k: 'gone', device: A });
    expect(exam.sources.value()).toBeNull();
    exam.commands.hold();
    expect(exam.course.problem()).toContain('No signal from Inclinometer');
    expect(queue.commands.length).toBe(0);
  });

  it('goes stale by itself when nothing more is heard', async () => {
    TestBed.resetTestingModule();
    jasmine.clock().install();
    let now = performance.now();
    spyOn(performance, 'now').and.callFake(() => now);
    await create();
    connect();
    shows(40);
    now += 900;
    jasmine.clock().tick(900);
    expect(exam.live.instruments()[0]!.isStale).toBeTrue();
    expect(exam.sources.value()).toBeNull();
    shows(41);
    expect(exam.sources.value()).toBe(41);
  });

  it('held at the instrument is what it showed then, under its own id, once', () => {
    connect('phone');
    shows(80);
    heldThere(B, 104);
    expect(body()).toEqual(jasmine.objectContaining({ id: B, instrument: 'phone', end: 104 }));
    expect(answered()).toEqual([jasmine.objectContaining({ taken: true, words: '104°' })]);
    // Its answer was lost: it says so again.
    heldThere(B, 104, { for: 'whatever' });
    expect(queue.commands.length).toBe(0);
    expect(answered().length).toBe(2);
    expect(answered().every(({ taken }) => taken)).toBeTrue();
  });

  it('held at the instrument and taken back does not come back when the instrument asks again', () => {
    connect('phone');
    shows(80);
    heldThere(B, 104);
    exam.commands.undo();
    const count = queue.commands.length;
    heldThere(B, 104, { for: asked().for });
    expect(queue.commands.length).toBe(count);
    expect(answered().map(({ taken }) => taken)).toEqual([true, true]);
  });

  it('held for another measurement than the one in hand is refused, and told so', () => {
    connect();
    shows(80);
    heldThere(B, 80, { for: 'another' });
    expect(answered()[0]).toEqual(jasmine.objectContaining({ taken: false }));
    expect(answered()[0]!.words).toContain('at another measurement');
    expect(queue.commands.length).toBe(0);
  });

  it('past a limit waits for the reason with what was read then, though the limb goes on', async () => {
    const limit = { motion: 'hip.flexion', side: 'left', limit: 90, until: null, source: 'surgeon' } as const;
    await open({ episode: { ...visitRecord().episode, precautions: [limit] } });
    connect();
    shows(95);
    heldThere(B, 95);
    expect(answered()[0]).toEqual(jasmine.objectContaining({ taken: false }));
    expect(exam.commands.pastStop()).toEqual(jasmine.objectContaining({ value: 95 }));
    shows(20);
    exam.commands.holdPast('went there by mistake');
    expect(body()).toEqual(jasmine.objectContaining({ id: B, end: 95, pastLimit: { limit: 90, why: 'went there by mistake' } }));
  });

  it('makes no trials of one measurement with two tools', () => {
    exam.course.setTrials(2);
    exam.typed.text.set('100');
    exam.commands.hold();
    connect();
    shows(104);
    expect(exam.commands.hold()).toBeFalse();
    expect(exam.course.problem()).toContain('two tools make no trials of one measurement');
  });

  it('counts the other way round when it is told, at this place', () => {
    connect();
    shows(-30);
    expect(exam.sources.value()).toBe(30);
    exam.live.flip();
    settle();
    expect(exam.sources.value()).toBe(-30);
    expect(lines.last.out.at(-1)!['said']).toEqual(jasmine.objectContaining({ k: 'asks', way: 1 }));
    exam.course.otherSide();
    settle();
    shows(-30);
    expect(exam.sources.value()).toBe(30);
  });

  it('holds by itself once it is still for the time that was chosen, and again only after it has moved', () => {
    connect();
    exam.live.change({ holdAfter: 1 });
    exam.course.setTrials(3);
    const moves = (held: number, still: number) => {
      shows(held, { still });
      settle();
    };
    moves(2, 3);
    moves(40, 0.1);
    moves(104, 0.6);
    expect(queue.commands.length).toBe(0);
    moves(104, 1);
    moves(104, 2);
    expect(queue.commands.length).toBe(1);
    moves(90, 0);
    moves(100, 1.1);
    expect(queue.commands.length).toBe(2);
  });

  it('takes the furthest in place of where it is, where that was chosen', () => {
    connect();
    exam.live.change({ peak: true });
    shows(20, { peak: 111 });
    exam.commands.hold();
    expect(body()['end']).toBe(111);
  });

  it('reads two sites with two instruments, either way round', async () => {
    await open({ sheet: [{ protocol: 'lumbar.flexion/standing' }] });
    connect();
    expect(exam.live.suits()).toBeFalse();
    hear({ k: 'here', device: B, kind: 'device', name: 'second' });
    settle();
    shows(96);
    shows(41, {}, B);
    expect(exam.sources.value()).toBe(55);
    expect(readingWords(exam)).toContain('96 − 41');
    exam.live.swap();
    // The wrong way round it is more than a back can lack.
    expect(exam.sources.value()).toBeNull();
    expect(readingWords(exam)).toContain('allowed:');
    exam.live.swap();
    exam.commands.hold();
    expect(body()).toEqual(jasmine.objectContaining({ instrument: 'dualInclinometer', end: 96, lower: { zero: 0, end: 41 } }));
  });

  it('is connected again after a reload, and not after it was let be', async () => {
    connect();
    await open();
    expect(lines.opened.length).toBe(2);
    expect(lines.last.hello).toEqual({ as: 'bench', visit: exam.record.visit()!.visit.id });
    exam.live.disconnect();
    await open();
    expect(lines.opened.length).toBe(2);
    expect(lines.opened.map(({ listeners }) => listeners)).toEqual([0, 0]);
  });

  it('says when it is read at another screen, or the server took no connection', () => {
    connect();
    hear({ k: 'elsewhere' });
    expect(exam.live.trouble()).toContain('at another screen');
    exam.live.connect();
    lines.last.refused.set(4404);
    expect(exam.live.trouble()).toContain('does not know this visit');
    exam.live.connect();
    lines.last.isOpen.set(false);
    expect(exam.live.trouble()).toContain('Typed readings are kept');
  });
});
