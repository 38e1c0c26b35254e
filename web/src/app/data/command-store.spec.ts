import { TestBed } from '@angular/core/testing';
import { READINGS } from '@dial-gauge/contract';
import { SOME_ID } from '../testing/records';
import { CommandStore } from './command-store';
import { COMMANDS, readCommand, type Command, type CommandKind, type WaitingCommand } from './commands';
import { overlay } from './overlay';

const USER = '33333333-3333-4333-8333-333333333333';
const command = (words: string): Command => ({
  id: crypto.randomUUID(),
  userId: USER,
  visitId: SOME_ID,
  target: SOME_ID,
  words,
  route: 'withdrawReading',
  body: {},
});

describe('where commands wait', () => {
  let store: CommandStore;
  const words = async () => (await store.of(USER)).map((waiting) => waiting.words);
  beforeEach(async () => {
    store = TestBed.inject(CommandStore);
    for (const { seq } of await store.of(USER)) await store.remove(seq);
  });

  it('a write that fails is tried again', async () => {
    const really = IDBObjectStore.prototype.add;
    let failing = 1;
    spyOn(IDBObjectStore.prototype, 'add').and.callFake(function (this: IDBObjectStore, ...args: Parameters<IDBObjectStore['add']>) {
      if (failing-- > 0) throw new DOMException('full', 'QuotaExceededError');
      return really.apply(this, args);
    } as never);
    await store.put(command('a'));
    expect([await words(), store.lasts, store.why]).toEqual([['a'], true, '']);
  });

  it('one that fails for good waits in the page, says so, keeps its place, and stops no other', async () => {
    await store.put(command('before'));
    const add = spyOn(IDBObjectStore.prototype, 'add').and.throwError(new DOMException('full', 'QuotaExceededError'));
    await store.put(command('full'));
    expect([store.lasts, store.why]).toEqual([false, 'full']);
    add.and.callThrough();
    await store.put(command('after'));
    expect((await words()).sort()).toEqual(['after', 'before', 'full']);
    const full = (await store.of(USER)).find((waiting) => waiting.words === 'full')!;
    await store.remove(full.seq);
    expect([await words(), store.lasts]).toEqual([['before', 'after'], true]);
  });
});

describe('a stored command', () => {
  const waiting = (over: Partial<WaitingCommand>): WaitingCommand => ({ ...command('x'), seq: 1, ...over }) as WaitingCommand;

  it('of this version is sent as it is, and one from before versions were noted too', () => {
    expect(readCommand(waiting({ version: 1 }))).toEqual({ body: {} });
    expect(readCommand(waiting({}))).toEqual({ body: {} });
  });

  it('of a newer version, of an unknown kind or of another shape stays here, and says why', () => {
    const why = (over: object) => (readCommand(waiting(over as Partial<WaitingCommand>)) as { why: string }).why;
    expect(why({ version: 2 })).toContain('newer version of this program. Reload the page');
    expect(why({ route: 'readMinds' })).toContain('does not know what to do with "readMinds"');
    expect(why({ route: 'holdReading', body: { end: 5 } })).toContain('no longer fits. Enter it again.');
  });

  it('of an older version is made one of this', () => {
    const kinds = COMMANDS as Record<string, CommandKind>;
    const before = kinds['withdrawReading']!;
    kinds['withdrawReading'] = {
      ...before,
      route: READINGS.withdrawReading,
      version: 2,
      upgrade: (body, from) => (from === 1 ? {} : body),
    };
    try {
      expect(readCommand(waiting({ body: { was: 'another shape' } as never }))).toEqual({ body: {} });
    } finally {
      kinds['withdrawReading'] = before;
    }
  });
});

describe('what waits, laid over a view', () => {
  it('shows in the order it was entered, and is undone by leaving it out', () => {
    const said = (view: string, { words }: Command) => `${view}${words}`;
    const shows = { holdReading: said, correctReading: said, withdrawReading: said, remark: said };
    const [a, b] = [command('a'), command('b')];
    expect(overlay<'cells', string>('-', [a, b], shows)).toBe('-ab');
    expect(overlay<'cells', string>('-', [b], shows)).toBe('-b');
    expect(overlay<'cells', string>('-', [{ ...a, route: 'finishRetest' } as Command], shows)).toBe('-');
  });
});
