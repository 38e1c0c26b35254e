import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { CommandQueue, type Answer } from './command-queue';
import type { Command, WaitingCommand } from './commands';
import { VisitCommands } from './visit-commands';

const command = (id: string, visitId = 'v'): Command => ({
  id,
  userId: '',
  visitId,
  target: visitId,
  route: 'planScreens',
  words: id,
  body: { choose: ['patterns'] },
});

describe('VisitCommands', () => {
  const answers = new Subject<Answer>();
  let waiting: Command[];
  let added: string[];
  let commands: VisitCommands;
  const ids = () => commands.all().map(({ id }) => id);

  beforeEach(() => {
    waiting = [];
    added = [];
    const queue = {
      answers,
      waitingOf: (visitId: string) => Promise.resolve(waiting.filter((c) => c.visitId === visitId) as WaitingCommand[]),
      add: ({ id }: Command) => added.push(id),
    };
    TestBed.configureTestingModule({ providers: [VisitCommands, { provide: CommandQueue, useValue: queue }] });
    commands = TestBed.inject(VisitCommands);
  });

  it('hold what waits, what was sent here, and what was answered before the visit was open', async () => {
    answers.next({ command: command('early') } as Answer);
    answers.next({ command: command('elsewhere', 'w') } as Answer);
    waiting = [command('waits')];
    await commands.open('v');
    commands.send(command('sent'));
    expect(ids()).toEqual(['early', 'waits', 'sent']);
    expect(added).toEqual(['sent']);
    answers.next({ command: command('sent') } as Answer);
    expect(ids()).withContext('answered, it stays until the server is asked again').toEqual(['early', 'waits', 'sent']);
    await commands.open('w');
    expect(ids()).toEqual(['elsewhere']);
  });

  it('leave out what was refused or kept for review, and say so for this visit alone', async () => {
    const failed: string[] = [];
    commands.failed.subscribe(({ command: { id } }) => failed.push(id));
    await commands.open('v');
    for (const id of ['a', 'b', 'c']) commands.send(command(id));
    answers.next({ command: command('a'), failure: { status: 422 } } as unknown as Answer);
    answers.next({ command: command('b'), kept: 'kept for review' } as Answer);
    answers.next({ command: command('x', 'w'), failure: { status: 422 } } as unknown as Answer);
    expect(ids()).toEqual(['c']);
    expect(failed).toEqual(['a', 'b']);
    commands.forget('planScreens');
    expect(ids()).toEqual([]);
  });
});
