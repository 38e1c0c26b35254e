import { screenOutcomes, type ItemDone, type ScreenDone } from '@dial-gauge/core';
import type { JointMark } from './body-map';
import { itemMarks, withItems } from './item-marks';

const item = (name: string, side: 'left' | 'right' | undefined, tries: ItemDone['tries']): ItemDone => ({
  item: name,
  ...(side ? { side } : {}),
  tries,
});
const outcomes = (...items: ItemDone[]) =>
  screenOutcomes([{ screen: 'loadingReadiness', screenedOn: '2026-11-20', items } satisfies ScreenDone]);
const stateAt = (marks: readonly JointMark[], joint: string, side: string) =>
  marks.find((m) => m.joint === joint && m.side === side)?.state;
const wall = (value: number, side: 'left' | 'right', pain = 0) => item('kneeToWall', side, [{ value, pain }]);

describe('marks of screens on the body map', () => {
  it('tell one-sided from short on both sides, and pain before either', () => {
    const oneSided = itemMarks(outcomes(wall(3, 'left'), wall(11, 'right')));
    expect(stateAt(oneSided, 'ankle', 'left')).toBe('one-sided');
    expect(stateAt(oneSided, 'ankle', 'right')).toBe('fine');
    const both = itemMarks(outcomes(wall(3, 'left'), wall(3, 'right')));
    expect([stateAt(both, 'ankle', 'left'), stateAt(both, 'ankle', 'right')]).toEqual(['short', 'short']);
    expect(stateAt(itemMarks(outcomes(wall(3, 'left', 4), wall(11, 'right'))), 'ankle', 'left')).toBe('pain');
  });

  it('keep the heaviest where several items look at a joint, and never call fine what was not judged', () => {
    const marks = itemMarks(outcomes(wall(11, 'left'), item('kneeToWall', 'right', [])));
    expect(stateAt(marks, 'ankle', 'left')).toBe('fine');
    expect(stateAt(marks, 'ankle', 'right')).toBe('not-judged');
  });

  it('add to what was measured what is heavier, and call nothing fine that was only screened', () => {
    const measured: JointMark[] = [
      { joint: 'ankle', side: 'left', state: 'fine', words: '' },
      { joint: 'ankle', side: 'right', state: 'not-measured', words: '' },
    ];
    const joined = withItems(measured, itemMarks(outcomes(wall(3, 'left'), wall(11, 'right'))));
    expect(joined.find(({ side }) => side === 'left')).toEqual(
      jasmine.objectContaining({ joint: 'ankle', state: 'one-sided', words: 'on the screen less than the other side, left knee to wall' }),
    );
    expect(stateAt(joined, 'ankle', 'right')).toBe('not-measured');
    const hurting = withItems(
      [{ joint: 'ankle', side: 'left', state: 'pain', words: 'hurts' }],
      itemMarks(outcomes(wall(3, 'left'), wall(11, 'right'))),
    );
    expect(hurting[0]).toEqual(
      jasmine.objectContaining({ state: 'pain', words: 'hurts; on the screen less than the other side, left knee to wall' }),
    );
  });
});
