import { NO_LIMITS, breakdownOf, factsOf, findItem, findScreen, gradeItem, reasonAbout, type ItemDone } from '@dial-gauge/core';
import { linesFor, pathOf, undecidedLines, wrapped } from './path';

const screen = findScreen('squatCheck')!;
const squat = (done: Partial<ItemDone> & Pick<ItemDone, 'tries'>) =>
  gradeItem(screen, findItem(screen, 'squat')!, { item: 'squat', view: 'side', side: 'left', ...done });
const reasoned = reasonAbout(
  breakdownOf('squat.heelLifts'),
  'left',
  factsOf(
    [
      {
        value: 112,
        sem: 3,
        measurement: {
          motion: 'hip.flexion',
          side: 'left',
          mode: 'passive',
          position: 'supine',
          instrument: 'goniometer',
          trials: [{ end: 112 }],
        },
      },
    ],
    [squat({ tries: [{ faults: ['heelLifts'] }] }), squat({ with: ['heelsRaised'], tries: [{ faults: [] }] })],
    [],
  ),
  { limits: NO_LIMITS, station: null },
);

describe('the path of a breakdown', () => {
  const path = pathOf(reasoned);
  const box = (id: string) => path.boxes.find((b) => b.id === id)!;

  it('has a box for the pattern, every question and every candidate, none on another', () => {
    expect(path.boxes.length).toBe(1 + reasoned.questions.length + reasoned.candidates.length);
    for (const a of path.boxes)
      for (const b of path.boxes)
        if (a !== b)
          expect(a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y)
            .withContext(`${a.id} ${b.id}`)
            .toBeTrue();
    expect(path.boxes.every((b) => b.x + b.width <= path.width && b.y + b.height <= path.height)).toBeTrue();
  });

  it('shows the way taken, what is open, and the next test', () => {
    expect([box('heelsRaised').state, box('ankleDorsiflexion').state, box(reasoned.next!.question.id).state]).toEqual([
      'answered',
      'pointsTo',
      'next',
    ]);
    const line = (id: string) => path.lines.find((l) => l.id === id)?.kind;
    expect([line('p-heelsRaised'), line('heelsRaised-ankleDorsiflexion'), line('p-kneeToWall'), line('kneeToWall-calf')]).toEqual([
      'taken',
      'taken',
      'open',
      'open',
    ]);
    expect(box('ankleDorsiflexion').label).toBe('ankle dorsiflexion points to it: 1 for, 0 against');
    expect(linesFor(reasoned, 'ankleDorsiflexion')).toEqual({ pro: ['left: it cleans up with the heels raised'], contra: [] });
  });

  it('says what was looked at and decides nothing', () => {
    expect(undecidedLines(reasoned)).toEqual(['left: 112° ± 5.9, the line is at 110°: inside its error, it decides nothing']);
  });

  it('wraps words without cutting them', () => {
    expect(wrapped('one two three', 7)).toEqual(['one two', 'three']);
    expect(wrapped('extraordinarily', 4)).toEqual(['extraordinarily']);
  });
});
