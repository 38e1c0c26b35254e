import type { NewRetest, RetestView } from '@dial-gauge/contract';
import type { Letter } from '../data/letters';
import { SOME_ID } from '../testing/records';
import { withLetters } from './with-letters';

const OTHER_ID = '11111111-2222-4333-8444-555555555555';
const MARKERS: NewRetest['markers'] = [
  { protocol: 'hip.flexion/supine', side: 'left', mode: 'passive', instrument: 'goniometer' },
  { protocol: 'hip.flexion/supine', side: 'right', mode: 'passive', instrument: 'goniometer' },
];
const common = { id: SOME_ID, userId: '', visitId: SOME_ID, words: '' };
const START: Letter = { ...common, route: 'startRetest', target: SOME_ID, body: { id: OTHER_ID, markers: MARKERS } };
const read = (round: number, marker: number, value: number): Letter => ({
  ...common,
  route: 'readMarker',
  target: OTHER_ID,
  body: { id: SOME_ID, round, marker, value },
});
const DRILL: Letter = { ...common, route: 'noteDrill', target: OTHER_ID, body: { id: SOME_ID, number: 1, drill: 'Rock back' } };
const FINISH: Letter = { ...common, route: 'finishRetest', target: OTHER_ID, body: {} };

describe('what waits, laid over the retests of a visit', () => {
  it('is a retest as it was entered', () => {
    const [retest] = withLetters([], [START, read(0, 0, 96), read(0, 1, 104), DRILL, read(1, 0, 107), FINISH], 'Wren');
    expect(retest!.rounds).toEqual([
      { drill: '', values: [96, 104] },
      { drill: 'Rock back', values: [107, null] },
    ]);
    expect([retest!.by, retest!.finishedAt !== null]).toEqual(['Wren', true]);
  });

  it('changes nothing where the server has it already', () => {
    const letters = [START, read(0, 0, 96), DRILL, FINISH];
    const once = withLetters([], letters, 'Wren');
    expect(withLetters(once, letters, 'Wren')).toEqual(once);
  });

  it('leaves other retests and other letters alone', () => {
    const there: RetestView = { ...withLetters([], [START], 'Rook')[0]!, id: SOME_ID };
    const letter: Letter = { ...common, route: 'withdrawReading', target: SOME_ID, body: {} };
    expect(withLetters([there], [read(0, 0, 96), letter], 'Wren')).toEqual([there]);
  });
});
