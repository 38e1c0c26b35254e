import { FairQueue, type Turn } from './fair-queue.js';

/** A job that ends when it is told to. */
function jobs(queue: FairQueue) {
  const running: { readonly name: string; readonly end: () => void }[] = [];
  const ask = (name: string, turn: Turn): Promise<void> =>
    queue.run(turn, () => new Promise<void>((resolve) => running.push({ name, end: resolve })));
  const settle = async () => {
    for (let n = 0; n < 10; n += 1) await Promise.resolve();
  };
  /** Ends the one that began first. */
  const endFirst = async (): Promise<string> => {
    const first = running.shift()!;
    first.end();
    await settle();
    return first.name;
  };
  return { running: () => running.map(({ name }) => name), ask, endFirst, settle };
}

const person = (who: string): Turn => ({ kind: 'person', who });
const guest = (who: string): Turn => ({ kind: 'guest', who });
const background: Turn = { kind: 'background', who: 'queue' };

describe('a fair queue', () => {
  it('keeps a place for others, whatever one asks for', async () => {
    const { ask, running, settle } = jobs(new FairQueue(2));
    for (let n = 0; n < 5; n += 1) void ask(`a${n}`, person('a'));
    await settle();
    expect(running()).toEqual(['a0']);
    void ask('b0', person('b'));
    await settle();
    expect(running()).toEqual(['a0', 'b0']);
  });

  it('takes turns: who asked for little does not wait for all that another asked for before', async () => {
    const { ask, endFirst, settle } = jobs(new FairQueue(1));
    for (const name of ['a0', 'a1', 'a2', 'b0', 'c0']) void ask(name, person(name[0]!));
    await settle();
    const order: string[] = [];
    for (let n = 0; n < 5; n += 1) order.push(await endFirst());
    expect(order).toEqual(['a0', 'a1', 'b0', 'c0', 'a2']);
  });

  it('lets guests and background work have no more than all places but one, together, and persons first', async () => {
    const { ask, running, endFirst, settle } = jobs(new FairQueue(3));
    for (let n = 0; n < 3; n += 1) void ask(`queue${n}`, background);
    for (let n = 0; n < 3; n += 1) void ask(`guest${n}`, guest(`${n}`));
    await settle();
    expect(running()).toEqual(['queue0', 'queue1']);
    void ask('a', person('a'));
    void ask('b', person('b'));
    await settle();
    expect(running()).toEqual(['queue0', 'queue1', 'a']);
    expect(await endFirst()).toBe('queue0');
    expect(running()).withContext('a person first').toEqual(['queue1', 'a', 'b']);
    await endFirst();
    expect(running()).withContext('then a guest, before more background work').toEqual(['a', 'b', 'guest0']);
  });

  it('refuses more than a share of waiting, in words, and goes on for the others', async () => {
    const { ask, settle } = jobs(new FairQueue(2));
    const answers = Array.from({ length: 30 }, (_, n) =>
      ask(`g${n}`, guest('one page')).then(
        () => 200,
        ({ status }: { status: number }) => status,
      ),
    );
    await settle();
    const refused = await Promise.all(answers.slice(17));
    expect(new Set(refused)).toEqual(new Set([429]));
    let done = false;
    await new FairQueue(2).run(person('a'), () => Promise.resolve((done = true)));
    expect(done).toBeTrue();
  });

  it('gives a place back where a job fails', async () => {
    const queue = new FairQueue(1);
    await expectAsync(queue.run(person('a'), () => Promise.reject(new Error('no')))).toBeRejectedWithError('no');
    expect(await queue.run(person('b'), () => Promise.resolve(1))).toBe(1);
  });
});
