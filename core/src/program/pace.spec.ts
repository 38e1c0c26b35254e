import type { Measurement, Session } from '../assessment.js';
import { progressOf } from '../progress/index.js';
import { slopesOf, unchangedSince } from './index.js';

const day = (on: string, value: number, motion: Measurement['motion'] = 'knee.flexion'): Session => ({
  assessedOn: on,
  measurements: [
    motion === 'knee.flexion'
      ? { motion, side: 'left', mode: 'passive', position: 'supine', instrument: 'goniometer', trials: [{ end: value }], examiner: 'Wren' }
      : { motion, side: 'midline', mode: 'active', position: 'standing', instrument: 'tape', trials: [{ value }], examiner: 'Wren' },
  ],
});
const seriesOf = (...sessions: Session[]) => progressOf(sessions, { person: { birthDate: '1980-01-01', sex: 'female' } });
const running = (since: string, drill = 'heel-slide', side: 'left' | 'right' = 'left') => [{ drill, side, since }];

describe('the pace of what drills answer', () => {
  it('is told of what moves, for better positive, and of nothing that may stand still', () => {
    const rising = seriesOf(day('2026-09-01', 60), day('2026-09-15', 75), day('2026-09-29', 90), day('2026-10-13', 105));
    expect([...slopesOf(rising).values()][0]).toBeCloseTo(7.5, 5);
    const floor = seriesOf(
      ...[30, 20, 10, 0].map((value, at) => day(`2026-09-${String(1 + at * 7).padStart(2, '0')}`, value, 'distance.fingerToFloor')),
    );
    expect([...slopesOf(floor).values()][0]).toBeCloseTo(10, 5);
    expect(slopesOf(seriesOf(day('2026-09-01', 60), day('2026-09-15', 61), day('2026-09-29', 60))).size).toBe(0);
  });

  it('finds what weeks of a drill did not change past error, and nothing else', () => {
    const still = seriesOf(day('2026-09-01', 90), day('2026-09-29', 92), day('2026-10-13', 91));
    expect(unchangedSince(still, running('2026-09-01'), '2026-10-13')).toEqual([{ motion: 'knee.flexion', side: 'left', weeks: 6 }]);
    expect(unchangedSince(still, running('2026-09-29'), '2026-10-13')[0]!.weeks)
      .withContext('from the reading before it began')
      .toBe(2);
    const moved = seriesOf(day('2026-09-01', 70), day('2026-10-13', 95));
    expect(unchangedSince(moved, running('2026-09-01'), '2026-10-13')).toEqual([]);
    expect(unchangedSince(still, running('2026-09-01', 'heel-slide', 'right'), '2026-10-13'))
      .withContext('another side')
      .toEqual([]);
    expect(unchangedSince(still, running('2026-09-01', 'neck-nod'), '2026-10-13'))
      .withContext('another joint')
      .toEqual([]);
    expect(unchangedSince(seriesOf(day('2026-10-13', 90)), running('2026-09-01'), '2026-10-13'))
      .withContext('one reading')
      .toEqual([]);
    const elsewhere = seriesOf(day('2026-09-01', 90), day('2026-09-29', 92), day('2026-10-13', 4, 'distance.fingerToFloor'));
    expect(unchangedSince(elsewhere, running('2026-09-01'), '2026-10-13'))
      .withContext('not measured again')
      .toEqual([]);
  });
});
