import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { SOME_ID } from '../testing/records';
import { CommandStore } from './command-store';
import type { Command } from './commands';
import { CommandQueue, type Answer } from './command-queue';
import { Session } from './session';
import { turns, until } from '../testing/until';

const WREN = '11111111-1111-4111-8111-111111111111';
const ROOK = '22222222-2222-4222-8222-222222222222';

/** The browser's own database and locks, and a server that the test plays. */
describe('CommandQueue', () => {
  let http: HttpTestingController;
  let answers: Answer[];
  const session = { current: signal<{ user: { id: string } } | null>(null) };
  const command = (words: string): Omit<Command, 'userId'> => ({
    id: crypto.randomUUID(),
    visitId: SOME_ID,
    target: SOME_ID,
    words,
    route: 'withdrawReading',
    body: {},
  });
  const open = (): CommandQueue => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting(), { provide: Session, useValue: session }],
    });
    http = TestBed.inject(HttpTestingController);
    const queue = TestBed.inject(CommandQueue);
    const heard: Answer[] = [];
    answers = heard;
    queue.answers.subscribe((answer) => heard.push(answer));
    TestBed.tick();
    return queue;
  };
  const request = (): Promise<TestRequest> => until(() => http.match(() => true)[0]);

  beforeEach(() => session.current.set({ user: { id: WREN } }));
  afterEach(async () => {
    // Nothing of one test may wait for the next, and its loop must have ended.
    await TestBed.inject(CommandQueue).discardAll();
    session.current.set(null);
    TestBed.tick();
    await navigator.locks.request('dial-gauge-outbox', () => {});
  });

  it('sends one after another, in order, under the name of whoever entered it', async () => {
    const queue = open();
    queue.add(command('a'));
    queue.add(command('b'));
    expect(queue.waiting()).toBe(2);
    const first = await request();
    expect(first.request.headers.get('x-dial-gauge-user')).toBe(WREN);
    await until(async () => (await TestBed.inject(CommandStore).of(WREN)).length === 2);
    await turns();
    expect(http.match(() => true))
      .withContext('the second waits for the first')
      .toEqual([]);
    first.flush({});
    (await request()).flush({});
    await until(() => queue.waiting() === 0);
    expect(answers.map((answer) => answer.command.words)).toEqual(['a', 'b']);
  });

  it('tries again while the trouble is passing, and says what it is', async () => {
    const queue = open();
    queue.add(command('a'));
    (await request()).flush({ detail: 'The database does not answer' }, { status: 503, statusText: 'x' });
    await until(() => queue.problem());
    expect(queue.problem()).toBe('The database does not answer');
    expect(queue.waiting()).toBe(1);
    (await request()).flush({});
    await until(() => queue.waiting() === 0);
    expect(queue.problem()).toBe('');
  });

  it('outlives the page: a new one sends what the old one had left, once', async () => {
    const before = open();
    before.add(command('a'));
    before.add(command('b'));
    (await request()).error(new ProgressEvent('offline'));
    await until(() => before.problem());
    // The page is gone: nobody is signed in there any more, so its loop ends and its lock is free.
    session.current.set(null);
    TestBed.tick();
    await navigator.locks.request('dial-gauge-outbox', () => {});
    session.current.set({ user: { id: WREN } });
    const after = open();
    await until(() => after.waiting() === 2);
    expect((await after.waitingOf(SOME_ID)).map((l) => l.words)).toEqual(['a', 'b']);
    (await request()).flush({});
    (await request()).flush({});
    await until(() => after.waiting() === 0);
    expect(answers.map((answer) => answer.command.words)).toEqual(['a', 'b']);
  });

  it('neither shows nor sends the entries of one person to another', async () => {
    const queue = open();
    queue.add(command('a'));
    (await request()).error(new ProgressEvent('offline'));
    await until(() => queue.problem());
    session.current.set({ user: { id: ROOK } });
    TestBed.tick();
    await until(() => queue.waiting() === 0);
    // Its loop has ended: nothing waits for another try.
    await navigator.locks.request('dial-gauge-outbox', () => {});
    await turns();
    http.expectNone(() => true);
    expect((await TestBed.inject(CommandStore).of(WREN)).length).toBe(1);
    session.current.set({ user: { id: WREN } });
    TestBed.tick();
    (await request()).flush({});
    await until(() => queue.waiting() === 0);
  });

  it('lets go of a request that is on the way when its user leaves, and sends it again for them', async () => {
    const queue = open();
    queue.add(command('a'));
    const first = await request();
    session.current.set(null);
    TestBed.tick();
    await until(() => first.cancelled);
    // Free for another tab.
    await navigator.locks.request('dial-gauge-outbox', () => {});
    session.current.set({ user: { id: WREN } });
    TestBed.tick();
    (await request()).flush({});
    await until(() => answers.length === 1);
    expect(queue.waiting()).toBe(0);
  });

  it('hands a refusal back, keeps it until somebody has looked, and goes on with the next', async () => {
    const queue = open();
    queue.add(command('a'));
    queue.add(command('b'));
    (await request()).flush({ detail: 'Nothing was saved.' }, { status: 422, statusText: 'x' });
    (await request()).flush({});
    await until(() => queue.waiting() === 0);
    expect(answers.map(({ command: { words }, failure }) => [words, failure?.message])).toEqual([
      ['a', 'Nothing was saved.'],
      ['b', undefined],
    ]);
    const [refused] = queue.refused();
    expect(refused).toEqual(jasmine.objectContaining({ words: 'a', refused: 'Nothing was saved.' }));
    await queue.dismiss(refused!.id);
    expect(queue.refused()).toEqual([]);
  });

  it('is emptied only when told to', async () => {
    const queue = open();
    queue.add(command('a'));
    (await request()).error(new ProgressEvent('offline'));
    await until(() => queue.problem());
    await queue.discardAll();
    expect(queue.waiting()).toBe(0);
    expect(await TestBed.inject(CommandStore).of(WREN)).toEqual([]);
  });
});
