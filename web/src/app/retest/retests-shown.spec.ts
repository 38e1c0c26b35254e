import type { NewRetest, RetestView } from '@dial-gauge/contract';
import type { Command } from '../data/commands';
import { SOME_ID } from '../testing/records';
import { retestsShown } from './retests-shown';

const OTHER_ID = '11111111-2222-4333-8444-555555555555';
const MARKERS: NewRetest['markers'] = [
  { protocol: 'hip.flexion/supine', side: 'left', mode: 'passive', instrument: 'goniometer' },
  { protocol: 'hip.flexion/supine', side: 'right', mode: 'passive', instrument: 'goniometer' },
];
const common = { id: SOME_ID, userId: '', visitId: SOME_ID, words: '' };
const START: Command = { ...common, route: 'startRetest', target: SOME_ID, body: { id: OTHER_ID, markers: MARKERS } };
const read = (round: number, marker: number, value: number): Command => ({
  ...common,
  route: 'readMarker',
  target: OTHER_ID,
  body: { id: SOME_ID, round, marker, value },
});
const DRILL: Command = { ...common, route: 'noteDrill', target: OTHER_ID, body: { id: SOME_ID, number: 1, drill: 'Rock back' } };
const FINISH: Command = { ...common, route: 'finishRetest', target: OTHER_ID, body: {} };

describe('what waits, laid over the retests of a visit', () => {
  it('is a retest as it was entered', () => {
    const [retest] = retestsShown([], [START, read(0, 0, 96), read(0, 1, 104), DRILL, read(1, 0, 107), FINISH], 'Wren');
    expect(retest!.rounds).toEqual([
      { drill: '', values: [96, 104] },
      { drill: 'Rock back', values: [107, null] },
    ]);
    expect([retest!.by, retest!.finishedAt !== null]).toEqual(['Wren', true]);
  });

  it('changes nothing where the server has it already', () => {
    const commands = [START, read(0, 0, 96), DRILL, FINISH];
    const once = retestsShown([], commands, 'Wren');
    expect(retestsShown(once, commands, 'Wren')).toEqual(once);
  });

  it('leaves other retests and other commands alone', () => {
    const there: RetestView = { ...retestsShown([], [START], 'Rook')[0]!, id: SOME_ID };
    const command: Command = { ...common, route: 'withdrawReading', target: SOME_ID, body: {} };
    expect(retestsShown([there], [read(0, 0, 96), command], 'Wren')).toEqual([there]);
  });
});
